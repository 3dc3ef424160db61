package cfamily

import (
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads calls of macros that declare something under names that they make of their
// arguments, where the file or a header of the project says what they stand for. What a macro
// stands for is read once, with marks in the place of its parameters; each call puts its arguments
// in the place of the marks.

// maker is a macro with parameters that may declare something.
type maker struct {
	params []string
	body   string
	read   bool
	facts  *model.Facts // what it declares, under names with marks; nil where that is nothing
	names  int          // the parameter that is a name itself, or -1
}

// Bounds of what is made: of bytes that a macro stands for, of declarations that one makes, and of
// those that the macros of a file make.
const (
	longestMaker = 6000
	mostMadeBy   = 200
	mostMade     = 20000
	mostSpelled  = 2000
)

// mayMake reports whether a body may declare something.
func mayMake(body string) bool {
	for _, word := range []string{"typedef", "struct", "class", "enum", "union", "using", "extern", "static", "inline", ";", "##"} {
		if strings.Contains(body, word) {
			return !strings.HasPrefix(body, "do") && !strings.HasPrefix(body, "{") && !strings.HasPrefix(body, "if") && !strings.HasPrefix(body, "(")
		}
	}
	return callsFirst(body) != "" || isPlain(body)
}

// isPlain reports whether a body may be a type and a name: words, with marks of pointers and arrays.
func isPlain(body string) bool {
	return strings.ContainsAny(body, " *") && !strings.ContainsAny(body, "()+-/%?:=&|!<>\"'.,~^#")
}

// callsFirst is the macro that a body begins with a call of, or "".
func callsFirst(body string) string {
	if name := wordAt(body); name != "" && isMacro(name) && strings.HasPrefix(strings.TrimSpace(body[len(name):]), "(") {
		return name
	}
	return ""
}

// makerIn takes a macro with parameters apart: "(name) typedef struct name name".
func makerIn(rest string) *maker {
	params, body, ok := strings.Cut(strings.TrimPrefix(rest, "("), ")")
	if body = strings.TrimSpace(body); !ok || len(body) > longestMaker || !mayMake(body) || strings.Count(body, "{") != strings.Count(body, "}") {
		return nil
	}
	m := &maker{body: body, names: -1}
	for name := range strings.SplitSeq(params, ",") {
		if name = strings.TrimSpace(name); name == "" || strings.HasSuffix(name, ".") {
			return nil
		}
		m.params = append(m.params, name)
	}
	if len(m.params) > mostArguments {
		return nil
	}
	return m
}

// markOf stands for a parameter: a name that nobody uses.
func markOf(param int) string { return markOpens + string(rune('a'+param)) + markShuts }

const markOpens, markShuts = "qZ_", "_zQ"

// paramOf is the parameter that a name is the mark of, or -1.
func paramOf(name string) int {
	if len(name) == len(markOpens)+1+len(markShuts) && strings.HasPrefix(name, markOpens) && strings.HasSuffix(name, markShuts) {
		return int(name[len(markOpens)] - 'a')
	}
	return -1
}

// filledIn is a text with something in the place of each mark.
func filledIn(text string, fill func(param int) string) string {
	at := strings.Index(text, markOpens)
	if at < 0 {
		return text
	}
	var b strings.Builder
	for ; at >= 0; at = strings.Index(text, markOpens) {
		b.WriteString(text[:at])
		end := min(at+len(markOf(0)), len(text))
		if param := paramOf(text[at:end]); param >= 0 {
			b.WriteString(fill(param))
		} else {
			b.WriteString(text[at:end])
		}
		text = text[end:]
	}
	b.WriteString(text)
	return b.String()
}

// wordAt is the name that a text begins with, or "".
func wordAt(text string) string {
	end := 0
	for end < len(text) && isNameByte(text[end]) {
		end++
	}
	if end > 0 && '0' <= text[0] && text[0] <= '9' {
		return ""
	}
	return text[:end]
}

// marked is the body with marks in the place of parameters, and names in one that it pastes
// together (6.10.5.3).
func (m *maker) marked() string {
	var b strings.Builder
	for at := 0; at < len(m.body); {
		word := wordAt(m.body[at:])
		if word == "" {
			b.WriteByte(m.body[at])
			at++
			continue
		}
		at += len(word)
		if i := slices.Index(m.params, word); i >= 0 {
			word = markOf(i)
		}
		b.WriteString(word)
	}
	parts := strings.Split(b.String(), "##")
	for i := range parts {
		if i > 0 {
			parts[i] = strings.TrimLeft(parts[i], " \t")
		}
		if i < len(parts)-1 {
			parts[i] = strings.TrimRight(parts[i], " \t")
		}
	}
	return strings.Join(parts, "")
}

// learn reads what a macro declares, with what other macros of the table say.
func (r *reader) learn(m *maker) *model.Facts {
	if m.read {
		return m.facts
	}
	m.read = true
	if first := callsFirst(m.body); first != "" && r.table.makers[first] == nil {
		return nil // nobody knows what that is
	}
	facts := FrontEnd{Plus: r.plus}.read(lang.File{Path: "macro.h", Text: source.Decode([]byte(m.marked() + " ;\n"))}, r.table)
	if len(m.params) == 0 {
		if onlyFields(facts) && len(facts.Occurrences) <= mostMadeBy {
			m.facts = facts
		}
		return m.facts
	}
	for i := range facts.Occurrences {
		if o := &facts.Occurrences[i]; o.Parent < 0 && strings.Contains(o.Name, markOpens) {
			if n := paramOf(o.Name); n >= 0 && m.names < 0 {
				m.names = n
			}
			if len(facts.Occurrences) <= mostMadeBy {
				m.facts = facts
			}
		}
	}
	return m.facts
}

// spelled is what a macro declares whose arguments have parameters in brackets: such a call is read
// by itself, with the arguments in their place. It is nil for other calls.
func (r *reader) spelled(m *maker, args []argument) *model.Facts {
	if len(args) < len(m.params) || !slices.ContainsFunc(args, func(a argument) bool { return strings.HasPrefix(a.text, "(") }) {
		return nil
	}
	if r.spelt++; r.spelt > mostSpelled {
		return nil
	}
	text := filledIn(m.marked(), func(param int) string { return args[param].text })
	if len(text) > longestMaker {
		return nil
	}
	facts := FrontEnd{Plus: r.plus}.read(lang.File{Path: "macro.h", Text: source.Decode([]byte(text + " ;\n"))}, table{said: r.table.said, own: definitions{}})
	if len(facts.Occurrences) == 0 || len(facts.Occurrences) > mostMadeBy {
		return nil
	}
	return facts
}

// made reads a call of such a macro, and gives the index behind it.
func (r *reader) made(i, end int, own *owner) (next int, ok bool) {
	if !r.Is(i+1, '(') || int(r.Tokens[i+1].Partner) < i {
		return i, false
	}
	m := r.maker(r.Word(i))
	if m == nil {
		return i, false
	}
	shut := int(r.Tokens[i+1].Partner)
	args := r.arguments(i+1, shut)
	switch next = shut + 1; {
	case r.Is(next, ';'):
		next++
	case next < end && !(strings.HasSuffix(m.body, ";") || strings.HasSuffix(m.body, "}") || strings.HasSuffix(m.body, ")")), next < end && r.Word(next) == "" && !r.Is(next, '}'):
		return i, false // a type, or a part of something else
	}
	facts := r.spelled(m, args)
	if facts == nil {
		facts = r.learn(m)
	}
	if facts == nil || len(args) < len(m.params) || r.count+len(facts.Occurrences) > mostMade {
		return i, false
	}
	r.count += len(facts.Occurrences)
	said := r.said(i)
	if said.Doc == nil {
		said.Doc = r.behind(next)
	}
	e := expansion{reader: r, facts: facts, args: args, call: i, span: r.Span(i, min(next, len(r.Tokens)))}
	e.put(own, said, m.names)
	return next, true
}

// fieldsOf reads a macro without arguments that stands for fields, as in "struct tide { HEAD int x; }",
// and gives the index behind it.
func (r *reader) fieldsOf(i, end int, own *owner) (next int, ok bool) {
	name := r.Word(i)
	if !isMacro(name) || r.Is(i+1, '(') || len(name) < 2 {
		return i, false
	}
	definition, ok := r.macro(name)
	if next = i + 1; r.Is(next, ';') {
		next++
	} else if !strings.HasSuffix(definition, ";") {
		return i, false // an attribute, or a type
	}
	if !ok || !strings.Contains(definition, " ") || strings.ContainsAny(definition, "#:") {
		return i, false
	}
	m := r.table.fields[name]
	if m == nil {
		if m = (&maker{body: definition, names: -1}); r.table.fields == nil {
			r.table.fields = map[string]*maker{}
		}
		r.table.fields[name] = m
		r.learn(m)
	}
	if m.facts == nil || r.count+len(m.facts.Occurrences) > mostMade {
		return i, false
	}
	r.count += len(m.facts.Occurrences)
	said := r.said(i)
	if said.Doc == nil {
		said.Doc = r.behind(next)
	}
	e := expansion{reader: r, facts: m.facts, call: i, span: r.Span(i, min(next, len(r.Tokens)))}
	e.put(own, said, -1)
	return next, true
}

// onlyFields reports whether a macro stands for variables alone, which are fields in a type.
func onlyFields(facts *model.Facts) bool {
	for i := range facts.Occurrences {
		if o := &facts.Occurrences[i]; o.Parent < 0 && o.Kind != model.KindVariable {
			return false
		}
	}
	return len(facts.Occurrences) > 0
}

// expansion is one call of a macro that declares something.
type expansion struct {
	*reader
	facts *model.Facts
	args  []argument
	call  int
	span  source.Span
}

// put adds what the call declares. The comment beside it speaks of what has an argument's name, or
// else of the first.
func (e *expansion) put(own *owner, said lexing.Said, named int) {
	places := make([]int32, len(e.facts.Occurrences))
	spoken := false
	for i := range e.facts.Occurrences {
		was := &e.facts.Occurrences[i]
		places[i] = -1
		if was.Kind == model.KindMacro || was.Parent >= 0 && places[was.Parent] < 0 {
			continue
		}
		inner, of := *own, lexing.Said{}
		name := e.Span(e.call, e.call+1)
		if n := paramOf(was.Name); n >= 0 {
			if n >= len(e.args) || e.args[n].token < 0 {
				continue // nothing can be called so
			}
			name = e.args[n].span
		} else if n := slices.IndexFunc(e.args, func(a argument) bool { return a.token >= 0 && a.text == was.Name }); n >= 0 {
			name = e.args[n].span
		}
		o := model.Occurrence{Kind: was.Kind, Name: e.filled(was.Name), Span: e.span, Variadic: was.Variadic}
		if was.Parent < 0 && own.record && o.Kind == model.KindVariable {
			o.Kind = model.KindField
		}
		if was.Parent >= 0 {
			inner.at, inner.scope, inner.record, inner.access = places[was.Parent], joined(e.Facts.Occurrences[places[was.Parent]].Scope, e.Facts.Occurrences[places[was.Parent]].Name), true, was.Visibility
		}
		words := was.Modifiers()
		if was.Parent < 0 && !spoken && (named < 0 || was.Name == markOf(named)) {
			of, spoken = said, true
		} else { // there is no place for a comment
			words = append(slices.Clone(words), "made")
		}
		o.Signature = e.tokens(was.Signature)
		if was.Callable != nil {
			o.Callable = &model.Callable{}
			for _, p := range was.Callable.Params {
				o.Callable.Params = append(o.Callable.Params, model.Param{Name: e.filled(p.Name), Type: e.tokens(p.Type), Variadic: p.Variadic})
			}
			for _, p := range was.Callable.Results {
				o.Callable.Results = append(o.Callable.Results, model.Param{Type: e.tokens(p.Type)})
			}
		}
		s := specs{words: words, static: slices.Contains(words, "static")}
		places[i] = e.in(was.In(), o, &inner, name, of, &s)
	}
}

// in adds a declaration to a namespace that the macro opens, or to the one at hand.
func (e *expansion) in(space string, o model.Occurrence, own *owner, name source.Span, said lexing.Said, s *specs) int32 {
	before := e.space
	defer func() { e.space = before }()
	if space != "" {
		e.space = strings.TrimPrefix(e.space+"::"+e.filled(space), "::")
		if !slices.ContainsFunc(e.Facts.Modules, func(m model.ModuleIn) bool { return m.Name == e.space }) {
			e.Facts.Modules = append(e.Facts.Modules, model.ModuleIn{Name: e.space})
		}
	}
	return e.add(o, own, name, said, s)
}

// filled is a text with the arguments in it.
func (e *expansion) filled(text string) string {
	return filledIn(text, func(param int) string {
		if param >= len(e.args) {
			return ""
		}
		return e.args[param].text
	})
}

// tokens puts a signature again, with the arguments in it.
func (e *expansion) tokens(was model.Tokens) model.Tokens {
	mark := e.Arena.Begin()
	for t := range was.In(e.facts.Text) {
		e.Arena.Put(t.Kind, e.filled(t.Text))
	}
	return e.Arena.Since(mark)
}

// mostArguments is how many arguments a macro that declares something has at most.
const mostArguments = 26

// argument is one of a macro.
type argument struct {
	text  string
	token int // where it is one name, else -1
	span  source.Span
}

// arguments are the arguments in brackets.
func (r *reader) arguments(open, shut int) (out []argument) {
	from := open + 1
	for i := from; i <= shut && len(out) < mostArguments; i = r.Over(i) {
		if i != shut && !r.Is(i, ',') {
			continue
		}
		a := argument{token: -1}
		if i > from {
			a.span = r.Span(from, i)
			a.text = strings.Join(strings.Fields(a.span.In(r.Text)), " ")
		}
		if i == from+1 && r.Word(from) != "" && !r.names.reserved(r.Word(from)) {
			a.token = from
		}
		out = append(out, a)
		from = i + 1
	}
	return out
}

// maker is a macro of which it is known what it stands for, and that may declare something, or nil.
func (r *reader) maker(name string) *maker {
	r.macro(name) // reads the file, and what it includes, once
	return r.table.makers[name]
}
