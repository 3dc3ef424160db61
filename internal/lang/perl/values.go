package perl

import (
	"sort"
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/source"
)

// This file says what expressions can be, as far as the text of the file tells: names of bases and of subs are
// often put together ("File::Spec::$module"), and subs are often declared in a loop over a list of names.

// values works expressions out. All work that one question may cause is bounded.
type values struct {
	r     *reader
	at    int // the token from which variables are looked for
	steps int // that are left
}

const (
	mostSteps        = 2000 // for one question
	stepsByToken     = 8    // for all questions of a file
	mostAlternatives = 8    // that one expression has
	longestList      = 512  // in tokens and in names
)

func (r *reader) valuesAt(i int) *values {
	return &values{r: r, at: i, steps: min(mostSteps, max(0, mostSteps+stepsByToken*len(r.Tokens)-r.steps))}
}

// step reports whether there may be more work, and counts it.
func (v *values) step(i, end int) bool {
	n := 1 + min(end-i, longestList)/8
	v.steps -= n
	v.r.steps += n
	return v.steps > 0 && i < end
}

// split finds a mark between two tokens, outside of all brackets, or gives -1.
func (v *values) split(i, end int, is func(k int) bool) int {
	for k := i; k < end; k = v.r.Over(k) {
		if is(k) {
			return k
		}
	}
	return -1
}

// scalar gives the texts that an expression can be, none where one of its parts is not known.
func (v *values) scalar(i, end int) []said {
	r := v.r
	if !v.step(i, end) {
		return nil
	}
	if r.Is(i, '(') && r.Over(i) == end {
		return v.scalar(i+1, end-1)
	}
	if r.Word(i) == "join" {
		return v.joined(i+1, end)
	}
	if k := v.split(i, end, func(k int) bool { return r.Is(k, '?') }); k > i {
		colon := v.split(k+1, end, func(k int) bool { return r.Is(k, ':') })
		if colon < 0 {
			return nil
		}
		return v.either(v.scalar(k+1, colon), v.scalar(colon+1, end))
	}
	if k := v.split(i, end, func(k int) bool { return r.IsMark(k, "||") || r.IsMark(k, "//") || r.Word(k) == "or" }); k > i {
		return v.either(v.scalar(i, k), v.scalar(k+1, end))
	}
	if k := v.split(i, end, func(k int) bool { return r.Is(k, '.') }); k > i {
		return v.both(v.scalar(i, k), v.scalar(k+1, end))
	}
	if i+1 != end {
		return nil
	}
	switch w := r.Word(i); {
	case w == "__PACKAGE__":
		return []said{{r.pkg, r.Span(i, i+1)}}
	case w == "":
		return v.text(i)
	case w[0] == '$':
		return v.variable(w)
	case isPlain(w):
		return v.constant(w)
	}
	return nil
}

// either gives what one or another expression can be.
func (v *values) either(a, b []said) []said {
	out := append([]said{}, a...)
	for _, s := range b {
		if len(out) < mostAlternatives {
			out = append(out, s)
		}
	}
	return out
}

// both gives what two expressions one behind the other can be. The place of a name is that of its end.
func (v *values) both(a, b []said) (out []said) {
	for _, x := range a {
		for _, y := range b {
			if len(out) >= longestList {
				return out
			}
			span := y.span
			if y.text == "" {
				span = x.span
			}
			out = append(out, said{x.text + y.text, span})
		}
	}
	return out
}

// joined gives what "join SEPARATOR, LIST" can be, from behind the word.
func (v *values) joined(i, end int) []said {
	r := v.r
	if r.Is(i, '(') && r.Over(i) == end {
		i, end = i+1, end-1
	}
	var parts [][]said
	v.parts(i, end, func(i, end int) { parts = append(parts, v.scalar(i, end)) })
	if len(parts) < 2 {
		return nil
	}
	out := parts[1]
	for _, p := range parts[2:] {
		out = v.both(v.both(out, parts[0]), p)
	}
	return out
}

// parts goes through what commas stand between.
func (v *values) parts(i, end int, each func(i, end int)) {
	for i < end {
		next := v.split(i, end, func(k int) bool { return v.r.Is(k, ',') || v.r.IsMark(k, "=>") })
		if next < 0 {
			next = end
		}
		if next > i {
			each(i, next)
		}
		i = next + 1
	}
}

// text gives what a text in quotes can be, with the variables in it.
func (v *values) text(i int) []said {
	list := v.r.strings(i, i+1)
	if len(list) != 1 {
		return nil
	}
	s := list[0]
	if v.r.isLiteral(i) || strings.IndexByte(s.text, '$') < 0 && strings.IndexByte(s.text, '@') < 0 {
		return list
	}
	return v.interpolated(s)
}

// isLiteral reports whether the text in quotes at a token has no variables in it, whatever signs stand there.
func (r *reader) isLiteral(i int) bool {
	raw := r.Text[r.Tokens[i].From:r.Tokens[i].To]
	return raw[0] == '\'' || raw[0] == 'q' && !strings.HasPrefix(raw, "qq")
}

// interpolated gives what a text with variables can be.
func (v *values) interpolated(s said) []said {
	out := []said{{"", s.span}}
	for at := 0; at < len(s.text); {
		next := strings.IndexAny(s.text[at:], "$@\\")
		if next < 0 {
			next = len(s.text) - at
		}
		if next > 0 {
			from := int(s.span.Start) + at
			out = v.both(out, []said{{s.text[at : at+next], source.NewSpan(from, from+next)}})
		}
		if at += next; at >= len(s.text) {
			break
		}
		if strings.HasPrefix(s.text[at:], `\:`) { // "$class\::name"
			at++
			continue
		}
		name, end := interpolatedName(s.text, at)
		if name == "" {
			return nil
		}
		if out = v.both(out, v.variable(name)); len(out) == 0 {
			return nil
		}
		at = end
	}
	return out
}

// interpolatedName is the plain variable at a place of a text: "$name" or "${name}", and the offset behind it.
func interpolatedName(text string, at int) (name string, end int) {
	if text[at] != '$' {
		return "", 0
	}
	from, braced := at+1, strings.HasPrefix(text[at+1:], "{")
	if braced {
		from++
	}
	end = from
	for end < len(text) && wordBytes[text[end]] {
		end++
	}
	if end == from {
		return "", 0
	}
	name = "$" + text[from:end]
	if braced {
		if !strings.HasPrefix(text[end:], "}") {
			return "", 0
		}
		end++
	}
	if end < len(text) && (text[end] == '[' || text[end] == '{' || strings.HasPrefix(text[end:], "->")) {
		return "", 0
	}
	return name, end
}

// variable gives what a variable can be: what the loop around goes through, else what it was declared as last.
func (v *values) variable(name string) []said {
	if list, ok := v.looped(name); ok {
		return list
	}
	if at := v.defined(name); at >= 0 {
		return v.scalar(at, v.r.expressionEnd(at))
	}
	return nil
}

// constant gives what a constant of the file can be.
func (v *values) constant(name string) []said {
	for _, at := range v.r.definitions()["use "+name] {
		if at < v.at {
			return v.scalar(at, v.r.expressionEnd(at))
		}
	}
	return nil
}

// defined is the token at which the value of a variable begins, in the declaration right before, or -1.
func (v *values) defined(name string) int {
	list := v.r.definitions()[name]
	if n := sort.SearchInts(list, v.at); n > 0 {
		return list[n-1]
	}
	return -1
}

// definitions are the tokens at which the values of variables and constants begin, by their names.
func (r *reader) definitions() map[string][]int {
	if r.defined != nil {
		return r.defined
	}
	r.defined = map[string][]int{}
	for i := range r.Tokens {
		switch w := r.Word(i); {
		case (w == "my" || w == "our") && r.Is(i+2, '=') && r.Word(i+1) != "":
			r.defined[r.Word(i+1)] = append(r.defined[r.Word(i+1)], i+3)
		case w != "" && strings.IndexByte("$@%", w[0]) >= 0 && r.Is(i+1, '=') && r.begins(i):
			r.defined[w] = append(r.defined[w], i+2)
		case w != "" && w[0] == '$' && r.Is(i+1, '{') && (r.begins(i) || r.Is(i-1, ',')): // of an entry: $calls{read} = [...]
			if value := r.Over(i+1) + 1; r.Is(value-1, '=') {
				r.defined["value %"+w[1:]] = append(r.defined["value %"+w[1:]], value)
			}
		case w == "constant" && i > 0 && r.Word(i-1) == "use" && isPlain(r.Word(i+1)):
			r.defined["use "+r.Word(i+1)] = append(r.defined["use "+r.Word(i+1)], i+3)
		}
	}
	return r.defined
}

// expressionEnd is the index behind an expression that a statement ends with.
func (r *reader) expressionEnd(i int) int {
	n := 0
	for i < len(r.Tokens) && !r.Is(i, ';') && !r.Is(i, '}') && n < longestList {
		if w := r.Word(i); w == "for" || w == "foreach" || w == "if" || w == "unless" {
			break
		}
		i = r.Over(i)
		n++
	}
	return i
}

// looped gives what a loop goes through with a variable, if there is such a loop around.
func (v *values) looped(name string) ([]said, bool) {
	r := v.r
	if name == "$_" { // ... for LIST;
		for k := v.at; k < len(r.Tokens) && !r.Is(k, ';') && !r.Is(k, '}'); k = r.Over(k) {
			if w := r.Word(k); w == "for" || w == "foreach" {
				return v.list(k+1, r.expressionEnd(k+1)), true
			}
		}
	}
	for n := len(r.blocks) - 1; n >= 0 && n >= len(r.blocks)-8; n-- {
		open := r.blocks[n].brace
		if open < 2 {
			continue
		}
		if w := r.Word(open - 1); name == "$_" && w == "map" {
			return v.list(r.blocks[n].end+1, r.expressionEnd(r.blocks[n].end+1)), true
		}
		if !r.Is(open-1, ')') {
			continue
		}
		from := int(r.Tokens[open-1].Partner)
		switch w := r.Word(from - 1); {
		case (w == "for" || w == "foreach") && name == "$_", w == name && (r.Word(from-2) == "my" || r.Word(from-2) == "our" || strings.HasPrefix(r.Word(from-2), "for")):
			return v.list(from+1, open-1), true
		case w == "while" && r.Word(from+1) == "my" && r.Word(from+3) == name && strings.HasPrefix(r.Word(open-2), "%"): // (my ($name, $code) = each %list)
			return v.keys(r.Word(open - 2)), true
		}
	}
	return nil, false
}

// list gives the texts that a list has, without what is not known.
func (v *values) list(i, end int) (out []said) {
	r := v.r
	for v.step(i, end) && r.Is(i, '(') && r.Over(i) == end {
		i, end = i+1, end-1
	}
	v.parts(i, end, func(i, end int) {
		if !v.step(i, end) || len(out) >= longestList {
			return
		}
		switch w := r.Word(i); {
		case (w == "sort" || w == "reverse" || w == "uniq") && i+1 < end:
			out = append(out, v.list(i+1, end)...)
		case w == "keys" && i+2 == end:
			out = append(out, v.keys(r.Word(i+1))...)
		case w == "values" && i+2 == end:
			out = append(out, v.valuesOf(r.Word(i+1))...)
		case w == "map" && r.Is(i+1, '{') && r.Over(i+1) == i+4 && r.Word(i+2) == "@$_": // map {@$_} values %calls
			out = append(out, v.list(i+4, end)...)
		case r.Is(i, '(') && r.Over(i) == end, r.Is(i, '[') && r.Over(i) == end:
			out = append(out, v.list(i+1, end-1)...)
		case i+1 == end && len(w) > 1 && w[0] == '@':
			if at := v.defined(w); at >= 0 {
				out = append(out, v.list(at, r.expressionEnd(at))...)
			}
		case i+1 == end && r.Tokens[i].Kind == lexing.Value && strings.HasPrefix(r.Text[r.Tokens[i].From:], "qw"):
			out = append(out, r.strings(i, end)...)
		default:
			out = append(out, v.scalar(i, end)...)
		}
	})
	return out
}

// valuesOf gives the texts in the values of a table, those that it was given later among them.
func (v *values) valuesOf(name string) (out []said) {
	r := v.r
	if at := v.defined(name); at >= 0 && r.Is(at, '(') {
		v.parts(at+1, r.Close(at, len(r.Tokens)), func(i, end int) {
			if r.IsMark(i-1, "=>") {
				out = append(out, v.list(i, end)...)
			}
		})
	}
	for _, at := range r.definitions()["value "+name] {
		if at < v.at && v.step(at, at+1) {
			out = append(out, v.list(at, r.expressionEnd(at))...)
		}
	}
	return out
}

// keys gives the names that a table was declared with: my %calls = (read => ..., write => ...).
func (v *values) keys(name string) (out []said) {
	r := v.r
	at := v.defined(name)
	if at < 0 || !r.Is(at, '(') {
		return nil
	}
	stop := r.Close(at, len(r.Tokens))
	for i := at + 1; i+1 < stop && v.step(i, stop); {
		if r.IsMark(i+1, "=>") || r.Is(i+1, ',') {
			if isPlain(r.Word(i)) {
				out = append(out, said{r.Word(i), r.Span(i, i+1)})
			} else {
				out = append(out, v.text(i)...)
			}
		}
		next := v.split(i+2, stop, func(k int) bool { return r.Is(k, ',') })
		if next < 0 {
			break
		}
		i = next + 1
	}
	return out
}
