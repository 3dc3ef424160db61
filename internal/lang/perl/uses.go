package perl

import (
	"slices"
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads what packages take from others, and what they declare by words of other modules.

// use reads what is brought in, constants, and bases.
func (r *reader) use(i int) int {
	name := r.Word(i + 1)
	end := i + 1
	for end < len(r.Tokens) && !r.Is(end, ';') && !r.Is(end, '}') {
		end = r.Over(end)
	}
	for k := i + 1; k < end; k++ {
		if r.Word(k) == "our" && r.subEnd == 0 {
			r.our(k)
		}
	}
	if r.Word(i) == "no" || !isPlain(name) {
		return end
	}
	switch name {
	case "constant":
		r.constants(i, i+2, end)
		return end
	case "parent", "base", "fields":
		if name != "fields" {
			r.inherits(i, i+2)
		}
		return end
	case "vars":
		for _, s := range r.valuesAt(i).list(i+2, end) {
			if s.text != "" && strings.IndexByte("$@%", s.text[0]) >= 0 {
				r.variable(s.text, s.span, i, end)
			}
		}
		return end
	}
	if name == "Mojo::Base" { // its first word is a base, or says something else
		if list := r.strings(i+2, min(i+3, end)); len(list) == 1 && isPlain(list[0].text) {
			r.bring(list[0].text, list[0].span)
		} else if r.Is(i+2, '-') && r.Word(i+3) == "base" || len(list) == 1 && list[0].text == "-base" {
			r.bring(name, r.Span(i+1, i+2))
		}
	}
	if strings.ToLower(name) == name && !strings.Contains(name, "::") || name == "Exporter" { // a word to the compiler
		return end
	}
	r.facts.Imports = append(r.facts.Imports, model.Import{Path: name, Name: name, Span: r.Span(i+1, i+2)})
	for _, s := range r.strings(i+2, end) {
		if isPlain(s.text) && !strings.ContainsAny(s.text, "-:. ") {
			r.facts.Imports = append(r.facts.Imports, model.Import{Path: name, Member: s.text, Name: s.text, Span: s.span})
		}
	}
	return end
}

// constants reads "use constant NAME => value" and "use constant { A => 1, B => 2 }".
func (r *reader) constants(from, i, end int) {
	if r.Is(i, '{') {
		stop := r.Close(i, end)
		for at := i + 1; at < stop; {
			next := at
			for next < stop && !r.Is(next, ',') && !r.IsMark(next, "=>") {
				next = r.Over(next)
			}
			value := next
			if next < stop {
				value++
				for value < stop && !r.Is(value, ',') {
					value = r.Over(value)
				}
				r.constant(from, at, next+1, value)
			}
			at = value + 1
		}
		return
	}
	if i < end {
		value := i + 1
		if r.IsMark(value, "=>") || r.Is(value, ',') {
			value++
		}
		r.constant(from, i, value, end)
	}
}

func (r *reader) constant(from, at, value, end int) {
	name, span := r.Word(at), r.Span(at, at+1)
	if name == "" && r.Tokens[at].Kind == lexing.Value {
		if list := r.strings(at, at+1); len(list) == 1 {
			name, span = list[0].text, list[0].span
		}
	}
	if !isPlain(name) {
		return
	}
	shown := ""
	if value < end {
		if shown = strings.Join(strings.Fields(r.Span(value, end).In(r.Text)), " "); len(shown) > longestValue {
			shown = ""
		}
	}
	r.simple(model.KindConstant, name, span, from, end, "", shown)
}

// longestValue is how many bytes a value has that is shown.
const longestValue = 80

// said is a string that the code has.
type said struct {
	text string
	span source.Span
}

// strings are the strings, and the words of lists of words, between two tokens.
func (r *reader) strings(i, end int) (out []said) {
	for ; i < min(end, len(r.Tokens)); i++ {
		if r.Tokens[i].Kind != lexing.Value {
			continue
		}
		from, to := int(r.Tokens[i].From), int(r.Tokens[i].To)
		text := r.Text[from:to]
		switch {
		case strings.HasPrefix(text, "qw"):
			at := from + 2
			for at < to && strings.IndexByte(" \t\r\n", r.Text[at]) >= 0 {
				at++
			}
			at++
			for at < to-1 {
				for at < to-1 && strings.IndexByte(" \t\r\n", r.Text[at]) >= 0 {
					at++
				}
				end := at
				for end < to-1 && strings.IndexByte(" \t\r\n", r.Text[end]) < 0 {
					end++
				}
				if end > at {
					out = append(out, said{r.Text[at:end], source.NewSpan(at, end)})
				}
				at = end
			}
		case len(text) > 2 && (text[0] == '"' || text[0] == '\''):
			out = append(out, said{text[1 : len(text)-1], source.NewSpan(from+1, to-1)})
		case len(text) > 3 && text[0] == 'q' && !isLetter(text[1]) && text[1] != ' ':
			out = append(out, said{text[2 : len(text)-1], source.NewSpan(from+2, to-1)})
		case len(text) > 4 && strings.HasPrefix(text, "qq") && !isLetter(text[2]) && text[2] != ' ':
			out = append(out, said{text[3 : len(text)-1], source.NewSpan(from+3, to-1)})
		}
	}
	return out
}

// statementEnd is the index of what ends a statement.
func (r *reader) statementEnd(i int) int {
	for i < len(r.Tokens) && !r.Is(i, ';') && !r.Is(i, '}') {
		i = r.Over(i)
	}
	return i
}

// inherits reads the names of bases.
func (r *reader) inherits(from, i int) {
	if strings.HasSuffix(r.Word(from), "ISA") && !r.Is(i, '=') && !(from > 1 && r.Word(from-1) == "push") {
		if !r.Is(i, ',') {
			return
		}
	}
	if r.Is(i, '=') || r.Is(i, ',') {
		i++
	}
	for _, s := range r.valuesAt(i).list(i, r.expressionEnd(i)) {
		if isPlain(s.text) {
			r.bring(s.text, s.span)
		}
	}
}

func (r *reader) base(name string, at int) {
	if isPlain(name) {
		r.bring(name, r.Span(at, at+1))
	}
}

func (r *reader) bring(name string, span source.Span) {
	if name == "Exporter" || name == "DynaLoader" {
		return
	}
	r.facts.Imports = append(r.facts.Imports, model.Import{Path: name, Name: name, Span: span})
	r.facts.Classes = append(r.facts.Classes, model.ClassBase{In: r.pkg, Base: name, Span: span})
}

// has reads attributes, as class builders declare them: "has name => (...)", "has [qw(a b)] => ...".
func (r *reader) has(i int) {
	at := i + 1
	if r.Is(at, '(') {
		at++
	}
	end := at
	for end < len(r.Tokens) && !r.IsMark(end, "=>") && !r.Is(end, ',') && !r.Is(end, ';') && !r.Is(end, '}') {
		end = r.Over(end)
	}
	if !r.IsMark(end, "=>") && !r.Is(end, ',') && !r.Is(end, ';') || r.Is(at, ';') {
		return
	}
	stop := r.statementEnd(end)
	if isPlain(r.Word(at)) && at+1 == end {
		r.attribute(r.Word(at), r.Span(at, at+1), i, stop)
		return
	}
	for _, s := range r.strings(at, end) {
		if isPlain(s.text) && !strings.ContainsAny(s.text, " -") { // "+name" changes one of a base
			r.attribute(s.text, s.span, i, stop)
		}
	}
}

func (r *reader) attribute(name string, span source.Span, from, end int) {
	r.simple(model.KindProperty, name, span, from, end, "has", "")
}

// makers are the methods by which common class builders make accessors.
var makers = lexing.WordSet("mk_accessors mk_ro_accessors mk_wo_accessors mk_group_accessors mk_classdata mk_classaccessor mk_classaccessors add_columns")

// accessors reads "__PACKAGE__->mk_accessors(qw(a b))".
func (r *reader) accessors(i int) {
	if !makers[r.Word(i+2)] || r.Word(i+2) == "add_columns" || !r.Is(i+3, '(') {
		return
	}
	list := r.strings(i+4, r.Close(i+3, len(r.Tokens)))
	switch w := r.Word(i + 2); {
	case w == "mk_group_accessors" && len(list) > 0:
		list = list[1:]
	case w == "mk_classdata" || w == "mk_classaccessor": // a name, and what it is at first
		if isPlain(r.Word(i + 4)) {
			list = []said{{r.Word(i + 4), r.Span(i+4, i+5)}}
		}
		list = list[:min(1, len(list))]
	}
	for _, s := range list {
		if isPlain(s.text) {
			r.attribute(s.text, s.span, i, r.Over(i+3))
		}
	}
}

// quoted are the names that stand in strings and mean something, in order: what "use Tide qw(a b);" takes,
// and bases.
func (r *reader) quoted() (out []source.Span) {
	for _, i := range r.facts.Imports {
		if i.Member != "" {
			out = append(out, i.Span)
		}
	}
	for _, c := range r.facts.Classes {
		if c.Span.In(r.Text) == c.Base { // else it is put together
			out = append(out, c.Span)
		}
	}
	slices.SortFunc(out, func(a, b source.Span) int { return int(a.Start - b.Start) })
	return out
}

// uses are the names that the code has of packages and subs.
func (r *reader) uses() model.Uses {
	var uses model.Uses
	own := map[int32]bool{}
	for i := range r.facts.Occurrences {
		own[r.facts.Occurrences[i].NameSpan.Start] = true
	}
	quoted := r.quoted()
	for i := range r.Tokens {
		for len(quoted) > 0 && quoted[0].End <= r.Tokens[i].To {
			if quoted[0].Start > r.Tokens[i].From {
				uses.Add(model.Use{Form: model.UseBare, Span: quoted[0]})
			}
			quoted = quoted[1:]
		}
		w := r.Word(i)
		bare := strings.TrimPrefix(w, "&")
		if !isPlain(bare) || own[r.Tokens[i].From] || r.IsMark(i+1, "=>") || keywords[bare] || r.Word(i-1) == "package" || r.IsMark(i-1, "->") || r.Is(i-1, '{') && r.Is(i+1, '}') {
			continue
		}
		if strings.Contains(bare, "::") || r.Is(i+1, '(') || bare != w || r.IsMark(i+1, "->") || (r.Word(i-1) == "use" || r.Word(i-1) == "require") && r.begins(i-1) {
			from := int(r.Tokens[i].From) + len(w) - len(bare)
			uses.Add(model.Use{Form: model.UseBare, Span: source.NewSpan(from, from+len(bare))})
		}
	}
	return uses
}
