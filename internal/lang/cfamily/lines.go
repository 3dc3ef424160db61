package cfamily

import (
	"sort"
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads the lines to the preprocessor (6.10 of C's standard): macros, what is
// included, and the macro that keeps a file from being read twice.

// longestValue is how many bytes a value has that is shown.
const longestValue = 80

// line is one line to the preprocessor, taken apart as far as its word.
func (r *reader) line(n int) (word string, at int) {
	t := &r.Lines[n]
	at = int(t.From) + 1
	at = r.overBlanks(at, int(t.To))
	end := at
	for end < int(t.To) && isNameByte(r.Text[end]) {
		end++
	}
	return r.Text[at:end], end
}

// overBlanks is the offset of what follows blanks, comments and joined lines in a line.
func (r *reader) overBlanks(at, end int) int {
	for at < end {
		switch c := r.Text[at]; {
		case c == ' ' || c == '\t' || c == '\r' || c == '\n':
			at++
		case c == '\\' && at+1 < end && (r.Text[at+1] == '\n' || r.Text[at+1] == '\r'):
			at += 2
		case strings.HasPrefix(r.Text[at:end], "/*"):
			stop := strings.Index(r.Text[at+2:end], "*/")
			if stop < 0 {
				return end
			}
			at += stop + 4
		default:
			return at
		}
	}
	return at
}

func isNameByte(c byte) bool {
	return c == '_' || c == '$' || 'a' <= c|0x20 && c|0x20 <= 'z' || '0' <= c && c <= '9' || c >= 0x80
}

// findGuard finds the macro that the file asks for before it declares anything, and defines then.
func (r *reader) findGuard() {
	first := 0 // what stands before it declares nothing
	if r.Word(0) == "extern" && r.Is(2, '{') {
		first = 3
	}
	for n := 0; n < min(len(r.Lines), mostBefore); n++ {
		if len(r.Tokens) > first && r.Tokens[first].From < r.Lines[n].From {
			return
		}
		word, at := r.line(n)
		if word == "define" {
			return
		}
		if r.guard = r.guardOf(n, word, at); r.guard != "" && r.defines(n) {
			return
		}
		r.guard = ""
	}
}

// mostBefore is how many lines to the preprocessor are looked through for the guard, and for where
// it is defined.
const mostBefore = 16

// guardOf is the macro that must not be defined, by a line, or "".
func (r *reader) guardOf(n int, word string, at int) string {
	end := int(r.Lines[n].To)
	at = r.overBlanks(at, end)
	switch rest := r.Text[at:end]; {
	case word == "ifndef":
	case word == "if" && strings.HasPrefix(strings.ReplaceAll(rest, " ", ""), "!defined"):
		for at += strings.Index(rest, "defined") + len("defined"); at < end && !isNameByte(r.Text[at]); at++ {
		}
	default:
		return ""
	}
	stop := at
	for stop < end && isNameByte(r.Text[stop]) {
		stop++
	}
	if strings.ContainsAny(r.Text[stop:end], "&|") {
		return ""
	}
	return r.Text[at:stop]
}

// defines reports whether one of the lines behind one defines the guard.
func (r *reader) defines(n int) bool {
	for n++; n < min(len(r.Lines), mostBefore); n++ {
		if word, at := r.line(n); word == "define" {
			at = r.overBlanks(at, int(r.Lines[n].To))
			if rest, ok := strings.CutPrefix(r.Text[at:], r.guard); ok && (rest == "" || !isNameByte(rest[0])) {
				value := r.macroValue(at+len(r.guard), int(r.Lines[n].To))
				return value == "" || value == "1" || value == r.guard
			}
		}
	}
	return false
}

// conditions are those under which what stands at an offset exists: neither the guard of the
// file is one, nor what language it is compiled as.
func (r *reader) conditions(at int32) (out []string) {
	n := r.lineBehind(at)
	if r.known.line == n+1 { // they change at such lines alone
		return r.known.conditions
	}
	defer func() { r.known.line, r.known.conditions = n+1, out[:len(out):len(out)] }()
	for _, c := range r.Branches.At(at) {
		bare := strings.TrimPrefix(c, "!")
		for _, cut := range []string{"defined(", "defined ("} {
			bare = strings.TrimSuffix(strings.TrimPrefix(bare, cut), ")")
		}
		switch bare = strings.TrimSpace(strings.TrimPrefix(bare, "defined ")); {
		case bare == "" || bare == "0" || bare == "1" || bare == "__cplusplus" || r.guard != "" && bare == r.guard:
		default:
			out = append(out, strings.ReplaceAll(c, "defined (", "defined("))
		}
	}
	return out
}

// flush reads the lines before an offset that were not read yet.
func (r *reader) flush(before int32) {
	for r.lineAt < len(r.Lines) && r.Lines[r.lineAt].From < before {
		n := r.lineAt
		r.lineAt++
		switch word, at := r.line(n); word {
		case "define":
			r.define(n, at)
		case "undef":
			r.undefine(n, at)
		case "include", "include_next", "import":
			r.include(n, at)
		}
	}
}

// include reads what a line includes.
func (r *reader) include(n, at int) {
	end := int(r.Lines[n].To)
	at = r.overBlanks(at, end)
	if at >= end {
		return
	}
	shut := byte('"')
	switch r.Text[at] {
	case '<':
		shut = '>'
	case '"':
	default:
		return // a macro says what
	}
	stop := strings.IndexByte(r.Text[at+1:end], shut)
	if stop <= 0 {
		return
	}
	span := source.NewSpan(at, at+stop+2)
	r.Facts.Imports = append(r.Facts.Imports, model.Import{Path: r.Text[at+1 : at+1+stop], Member: "*", Name: ".", Span: span})
}

// define reads a macro.
func (r *reader) define(n, at int) {
	t := &r.Lines[n]
	end := int(t.To)
	at = r.overBlanks(at, end)
	stop := at
	for stop < end && isNameByte(r.Text[stop]) {
		stop++
	}
	name := source.NewSpan(at, stop)
	if stop == at || name.In(r.Text) == r.guard || r.Branches.Off(t.From) {
		return
	}
	o := model.Occurrence{Kind: model.KindMacro, Name: name.In(r.Text), NameSpan: name, Span: source.Span{Start: t.From, End: t.To}, Parent: -1, Line: int32(r.Facts.Lines.Line(name.Start))}
	mark := r.Arena.Begin()
	r.Arena.Put(model.TokenKeyword, "#define ")
	r.Arena.Put(model.TokenName, o.Name)
	if stop < end && r.Text[stop] == '(' {
		stop = r.macroParameters(stop, end, &o)
	}
	value := r.macroValue(stop, end)
	if value != "" {
		r.Arena.Put(model.TokenPunctuation, " ")
		r.Arena.Put(model.TokenLiteral, value)
	}
	o.Signature = r.Arena.Since(mark)
	said := r.saidBefore(t.From, r.lineFloor(t.From, r.endBefore(int(t.Next))))
	if after := r.inLine(n); after != nil && said.Doc == nil {
		said.Doc = after
	}
	r.finish(&o, said, false)
	if !r.header {
		o.Visibility = model.Private
	}
	r.Facts.Occurrences = append(r.Facts.Occurrences, o)
}

// macroParameters reads and puts the parameters of a macro that "(" opens at an offset.
func (r *reader) macroParameters(at, end int, o *model.Occurrence) int {
	o.Callable = &model.Callable{}
	r.Arena.Put(model.TokenPunctuation, "(")
	for at++; ; {
		at = r.overBlanks(at, end)
		from := at
		for at < end && (isNameByte(r.Text[at]) || r.Text[at] == '.') {
			at++
		}
		if at > from {
			name := r.Text[from:at]
			p := model.Param{Name: name, Variadic: strings.HasSuffix(name, "...")}
			if len(o.Callable.Params) > 0 {
				r.Arena.Put(model.TokenPunctuation, ", ")
			}
			r.Arena.Put(model.TokenParameter, name)
			o.Variadic = o.Variadic || p.Variadic
			o.Callable.Params = append(o.Callable.Params, p)
		}
		if at = r.overBlanks(at, end); at >= end || r.Text[at] != ',' {
			break
		}
		at++
	}
	r.Arena.Put(model.TokenPunctuation, ")")
	if at < end && r.Text[at] == ')' {
		at++
	}
	return at
}

// macroValue is what a macro stands for, where that is short.
func (r *reader) macroValue(at, end int) string {
	at = r.overBlanks(at, end)
	from := at
	for i := at; i < end; i++ {
		if strings.HasPrefix(r.Text[i:end], "/*") || strings.HasPrefix(r.Text[i:end], "//") {
			end = i
		} else if c := r.Text[i]; c == '"' || c == '\'' {
			stop, _ := lexing.Quoted(r.Text[:end], i)
			i = stop - 1
		}
	}
	value := strings.TrimSpace(r.Text[from:max(from, end)])
	if len(value) > longestValue || strings.ContainsAny(value, "\n") {
		return ""
	}
	return value
}

// undefine makes a macro that a file takes back one of its own.
func (r *reader) undefine(n, at int) {
	if len(r.Branches.At(r.Lines[n].From)) > 1 {
		return // or maybe not
	}
	end := int(r.Lines[n].To)
	at = r.overBlanks(at, end)
	stop := at
	for stop < end && isNameByte(r.Text[stop]) {
		stop++
	}
	if r.defined.macros == nil {
		r.defined.macros = map[string][]int{}
	}
	for ; r.defined.known < len(r.Facts.Occurrences); r.defined.known++ {
		if o := &r.Facts.Occurrences[r.defined.known]; o.Kind == model.KindMacro {
			r.defined.macros[o.Name] = append(r.defined.macros[o.Name], r.defined.known)
		}
	}
	name := r.Text[at:stop]
	for _, i := range r.defined.macros[name] {
		r.Facts.Occurrences[i].Visibility = model.Private
	}
	delete(r.defined.macros, name)
}

// steps is how far a line is looked for from the last one: questions go through the text.
const steps = 4

// lineBehind is the index of the first line to the preprocessor that begins behind an offset.
func (r *reader) lineBehind(at int32) int {
	n := r.lineLast
	for range steps {
		switch {
		case n > 0 && r.Lines[n-1].From > at:
			n--
		case n < len(r.Lines) && r.Lines[n].From <= at:
			n++
		default:
			r.lineLast = n
			return n
		}
	}
	r.lineLast = sort.Search(len(r.Lines), func(n int) bool { return r.Lines[n].From > at })
	return r.lineLast
}

// endBefore is the offset behind the token before one.
func (r *reader) endBefore(i int) int32 {
	if i == 0 {
		return 0
	}
	return r.Tokens[i-1].To
}

// lineFloor is the offset behind the line to the preprocessor before an offset that a comment
// does not speak across, where that is above another one. Lines that only begin a branch are
// passed over: a comment before them speaks of what they enclose.
func (r *reader) lineFloor(at, low int32) int32 {
	n := r.lineBehind(at-1) - 1
	for ; n >= 0 && r.Lines[n].To > low; n-- {
		if word, _ := r.line(n); word != "if" && word != "ifdef" && word != "ifndef" {
			return r.Lines[n].To
		}
	}
	return low
}
