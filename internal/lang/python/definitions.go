package python

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads definitions of functions and classes ("Function definitions",
// "Class definitions").

// definition reads a function from "def" or "async" at start to the end of its body.
func (r *reader) definition(column, start, def int) {
	name := r.blanks(def+len("def"), false)
	end := r.nameEnd(name)
	if end == name {
		r.problem(name, "expected the name of a function")
		r.at = r.logicalEnd(start)
		r.decorators = r.decorators[:0]
		return
	}
	directives := r.directives()
	first := start
	if len(r.decorators) > 0 {
		first = r.decorated
	}
	o := model.Occurrence{NameSpan: source.NewSpan(name, end), Callable: &model.Callable{}}
	from := r.arena.Begin()
	d := r.decorations()
	if start != def {
		r.put(model.TokenKeyword, "async ")
	}
	r.put(model.TokenKeyword, "def ")
	r.put(model.TokenName, r.text[name:end])
	at := r.blanks(end, false)
	var typeParams []model.Param
	if at < len(r.text) && r.text[at] == '[' {
		typeParams, at = r.typeParams(at)
		at = r.blanks(at, false)
	}
	inClass := r.inner().kind != model.KindModule
	at = r.parameters(at, &o)
	if inClass && !d.static {
		imply(o.Callable.Params)
	}
	at = r.blanks(at, false)
	if strings.HasPrefix(r.text[at:], "->") {
		at = r.result(at, o.Callable)
	}
	o.Signature = r.arena.Since(from)
	o.Kind = functionKind(o.NameSpan.In(r.text), inClass, d)
	o.Deprecated = d.deprecated
	o.Extra = advised(extra(typeParams, nil, directives), d.advice)
	o.Modify(d.modifiers(start != def)...)
	if d.textOf != "" {
		if o.Extra == nil {
			o.Extra = &model.Extra{}
		}
		o.Extra.TextOf = d.textOf
	}
	o.Implementation = !d.overload && r.overloaded(o.NameSpan.In(r.text))
	r.forms = ""
	if d.overload {
		r.forms = o.NameSpan.In(r.text)
	}

	if r.runsInto(at) { // a bracket that was never closed ran into the next definition
		o.Span = source.NewSpan(first, max(end, first))
		r.add(o)
		r.decorators, r.at = r.decorators[:0], r.lineStart(at)
		return
	}
	s := r.scan(at, true)
	var fields []model.Occurrence
	if s.colon < 0 {
		r.problem(at, "expected a colon behind the head of the function")
		r.at = s.end
	} else {
		fields = r.functionBody(column, s.colon+1, &o)
	}
	o.Span = source.NewSpan(first, max(r.last, end))
	r.add(o)
	for _, f := range fields {
		r.add(f)
	}
	r.assigned = nil
	r.decorators = r.decorators[:0]
}

// overloaded reports whether the definition right before was a form of this name.
func (r *reader) overloaded(name string) bool { return r.forms == name && !r.facts.Stub }

// imply marks the parameter that a call through an object or a class fills in.
func imply(params []model.Param) {
	if len(params) > 0 && !strings.HasPrefix(params[0].Name, "*") {
		params[0].Implied = true
	}
}

// result reads the annotation behind "->".
func (r *reader) result(at int, c *model.Callable) int {
	from := r.blanks(at+len("->"), false)
	to := r.expression(from, ":")
	r.put(model.TokenPunctuation, " -> ")
	mark := r.arena.Mark()
	f, t := r.trimmed(from, to)
	r.typeTokens(f, t)
	c.Results = append(c.Results, model.Param{Type: r.arena.Since(mark)})
	return to
}

// decoration is what the decorators of a definition make of it.
type decoration struct {
	property, static, class, deprecated, overload bool
	advice                                        *model.Doc
	textOf                                        string // the path of what a decorator is handed: such ones copy its text
}

// modifiers are the words of the language for what decorators, and "async", make of a function.
func (d decoration) modifiers(async bool) (out []string) {
	if async {
		out = append(out, "async")
	}
	if d.class {
		out = append(out, "class")
	}
	if d.static {
		out = append(out, "static")
	}
	return out
}

// decorations puts the decorators before a signature and tells what they mean.
func (r *reader) decorations() (d decoration) {
	for _, span := range r.decorators {
		text := span.In(r.text)
		name, _, _ := strings.Cut(text, "(")
		name = strings.TrimSpace(name)
		r.put(model.TokenPunctuation, "@")
		r.put(model.TokenValue, name)
		if arguments := text[min(len(name), len(text)):]; arguments != "" {
			r.put(model.TokenLiteral, shortened(arguments))
		}
		r.put(model.TokenPunctuation, "\n")
		switch last := lastName(name); last {
		case "property", "cached_property", "abstractproperty", "classproperty":
			d.property = true
		case "setter", "getter", "deleter":
			d.property = d.property || strings.Contains(name, ".")
		case "staticmethod", "abstractstaticmethod":
			d.static = true
		case "classmethod", "abstractclassmethod":
			d.class = true
		case "deprecated":
			d.deprecated = true
			d.advice = r.advice(span)
		case "overload":
			d.overload = true
		default:
			if _, argument, called := strings.Cut(text, "("); called {
				end := len(text) - len(argument)
				at := r.blanks(int(span.Start)+end, true)
				if stop := r.dottedEnd(at); stop > at && stop < int(span.End) && r.argumentEnds(stop) {
					d.textOf = r.text[at:stop]
				}
			}
		}
	}
	return d
}

// advice is the words in the arguments of a decorator: its string literals that hold
// more than one word.
func (r *reader) advice(decorator source.Span) *model.Doc {
	var lines []source.Span
	escaped, last := false, -1 // where the literal before this one ends, if it was taken
	for at := int(decorator.Start); at < int(decorator.End); at++ {
		if c := r.text[at]; c == '#' || c != '"' && c != '\'' && !startsName(c) {
			continue
		}
		open, raw, isText := r.stringPrefix(at)
		if !isText {
			for at+1 < int(decorator.End) && startsName(r.text[at+1]) {
				at++
			}
			if next := at + 1; next < int(decorator.End) && (r.text[next] == '"' || r.text[next] == '\'') { // bytes, or made at run time
				stop, _ := r.plainString(next)
				at = stop - 1
			}
			continue
		}
		stop, closed := r.plainString(open)
		if !closed {
			break
		}
		quotes := 1
		if r.triple(open) {
			quotes = 3
		}
		glued := last >= 0 && strings.TrimSpace(r.text[last:at]) == ""
		last = -1
		if from, to := open+quotes, max(open+quotes, stop-quotes); glued || strings.Contains(strings.TrimSpace(r.text[from:to]), " ") || namesReplacement(r.text[decorator.Start:at]) {
			lines = r.docLines(lines, from, to, raw)
			escaped = escaped || !raw
			last = stop
		}
		at = stop - 1
	}
	if len(lines) == 0 {
		return nil
	}
	doc := lexing.MakeDoc(r.text, lines, decorator)
	if doc != nil {
		doc.Escaped = escaped && strings.Contains(doc.Text, "\\")
	}
	return doc
}

// namesReplacement reports whether the keyword before an argument says that it is what
// to use instead.
func namesReplacement(before string) bool {
	before = strings.TrimRight(before, " ")
	for _, keyword := range []string{"replacement=", "instead=", "alternative=", "alt_func=", "alternate=", "use=", "new_name="} {
		if strings.HasSuffix(before, keyword) {
			return true
		}
	}
	return false
}

// advised is what an occurrence has beside the usual, with advice if there is any.
func advised(e *model.Extra, advice *model.Doc) *model.Extra {
	if advice == nil {
		return e
	}
	if e == nil {
		e = &model.Extra{}
	}
	e.Advice = advice
	return e
}

// longestDecoration is how many characters of a decorator's arguments are shown.
const longestDecoration = 40

func shortened(arguments string) string {
	if len(arguments) <= longestDecoration && !strings.Contains(arguments, "\n") {
		return arguments
	}
	return "(…)"
}

func functionKind(name string, inClass bool, d decoration) model.Kind {
	switch {
	case d.property && inClass:
		return model.KindProperty
	case inClass && (name == "__init__" || name == "__new__"):
		return model.KindConstructor
	case inClass:
		return model.KindMethod
	}
	return model.KindFunction
}

// class reads the head of a class; its body follows as a block.
func (r *reader) class(column, start int) {
	name := r.blanks(start+len("class"), false)
	end := r.nameEnd(name)
	if end == name {
		r.problem(name, "expected the name of a class")
		r.at = r.logicalEnd(start)
		r.decorators = r.decorators[:0]
		return
	}
	directives := r.directives()
	first := start
	if len(r.decorators) > 0 {
		first = r.decorated
	}
	o := model.Occurrence{Kind: model.KindClass, NameSpan: source.NewSpan(name, end)}
	from := r.arena.Begin()
	d := r.decorations()
	r.put(model.TokenKeyword, "class ")
	r.put(model.TokenName, r.text[name:end])
	at := r.blanks(end, false)
	var typeParams []model.Param
	if at < len(r.text) && r.text[at] == '[' {
		typeParams, at = r.typeParams(at)
		at = r.blanks(at, false)
	}
	var bases []model.Base
	if at < len(r.text) && r.text[at] == '(' {
		bases, at = r.bases(at)
	}
	o.Signature = r.arena.Since(from)
	for _, b := range bases {
		if isEnumBase(lastName(b.Span.In(r.text))) {
			o.Kind = model.KindEnum
		}
	}
	o.Deprecated = d.deprecated
	o.Extra = advised(extra(typeParams, bases, directives), d.advice)
	o.Span = source.NewSpan(first, max(at, end))
	r.decorators = r.decorators[:0]
	r.assigned = nil
	var after int
	var inline bool
	if r.runsInto(at) { // a bracket that was never closed ran into the body
		after = r.lineStart(at)
	} else if s := r.scan(at, true); s.colon < 0 {
		r.problem(at, "expected a colon behind the head of the class")
		r.add(o)
		r.at = s.end
		return
	} else {
		o.Doc, after, inline = r.bodyDoc(column, s.colon+1)
	}
	index := r.add(o)
	scope := o.NameSpan.In(r.text)
	if outer := r.inner().scope; outer != "" {
		scope = outer + "." + scope
	}
	r.blocks = append(r.blocks, block{indent: column, scope: scope, parent: index, kind: o.Kind, opens: true})
	r.at = after
	if inline {
		r.suite(after)
	}
}

// isEnumBase knows the enumerations of the standard library by their names.
func isEnumBase(name string) bool {
	switch name {
	case "Enum", "IntEnum", "StrEnum", "Flag", "IntFlag", "ReprEnum":
		return true
	}
	return false
}

// bases reads the argument list of a class: positional arguments are bases.
func (r *reader) bases(at int) ([]model.Base, int) {
	var bases []model.Base
	r.put(model.TokenPunctuation, "(")
	opened := at
	at = r.blanks(at+1, true)
	for n := 0; at < len(r.text) && r.text[at] != ')' && !r.runsInto(at); n++ {
		if n > 0 {
			r.put(model.TokenPunctuation, ", ")
		}
		end := r.expression(at, ",)")
		mark := r.arena.Mark()
		from, to := r.trimmed(at, end)
		if word := r.nameEnd(from); r.keyword(word) {
			equalsAt := r.blanks(word, true)
			r.put(model.TokenParameter, r.text[from:word])
			r.put(model.TokenPunctuation, "=")
			valueFrom, valueTo := r.trimmed(equalsAt+1, to)
			r.typeTokens(valueFrom, valueTo)
		} else if from < to {
			r.typeTokens(from, to)
			if r.text[from] != '*' {
				bases = append(bases, model.Base{Type: r.arena.Since(mark), Span: source.NewSpan(from, to)})
			}
		}
		if end >= len(r.text) || r.text[end] != ',' {
			at = end
			break
		}
		at = r.blanks(end+1, true)
	}
	r.put(model.TokenPunctuation, ")")
	if at < len(r.text) && r.text[at] == ')' {
		return bases, at + 1
	}
	r.problem(opened, "this bracket is not closed")
	return bases, at
}

// keyword reports whether a sign of assignment stands behind the name that ends at an offset.
func (r *reader) keyword(at int) bool {
	at = r.blanks(at, true)
	return at+1 < len(r.text) && r.text[at] == '=' && r.text[at+1] != '='
}
