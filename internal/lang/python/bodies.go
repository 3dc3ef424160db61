package python

import (
	"strings"

	"codrel/internal/model"
	"codrel/internal/source"
)

// This file goes through the bodies of functions.

// bodyDoc reads the docstring behind the colon of a head. after is where the
// rest of the body begins; inline says that it stands on the line of the head.
func (r *reader) bodyDoc(column, at int) (doc *model.Doc, after int, inline bool) {
	at = r.blanks(at, false)
	if at < len(r.text) && r.text[at] != '\n' && r.text[at] != '#' {
		if doc, end, ok := r.docstring(at); ok {
			r.last = end
			if end < len(r.text) && r.text[end] == ';' {
				end++
			}
			return doc, end, true
		}
		return nil, at, true
	}
	after = min(r.endOfLine(at)+1, len(r.text))
	r.at = after
	deeper, ok := r.next()
	if !ok || deeper <= column {
		return nil, after, false
	}
	doc, end, ok := r.docstring(r.at)
	if !ok {
		return nil, after, false
	}
	_, r.last = r.trimmed(r.at, end)
	if end < len(r.text) && r.text[end] == ';' {
		return doc, end + 1, true
	}
	return doc, min(r.endOfLine(end)+1, len(r.text)), false
}

// functionBody reads a body and goes behind it. It gives the attributes that a
// constructor sets.
func (r *reader) functionBody(column, at int, o *model.Occurrence) []model.Occurrence {
	_, r.last = r.trimmed(r.at, at)
	doc, after, inline := r.bodyDoc(column, at)
	o.Doc = doc
	o.Callable.Returns = model.ReturnsNothing
	if r.facts.Stub {
		o.Callable.Returns = model.ReturnsUnknown
	}
	var fields []model.Occurrence
	if inline {
		after = r.blanks(after, false)
		end := r.logicalEnd(after)
		if from, to := r.trimmed(after, end); from < to {
			r.last = max(r.last, to)
			r.tells(from, to, o.Callable)
			if self := selfOf(o); self != "" {
				fields = r.setBy(fields, map[string]bool{}, from, end, self, o)
			}
		}
		r.at = end
	} else {
		r.at = after
	}
	if self := selfOf(o); self != "" {
		fields = append(fields, r.constructorBody(column, self, o)...)
	} else {
		r.body(column, o.Callable)
	}
	if r.facts.Inside != nil && r.last > at {
		r.facts.Inside.Bodies = append(r.facts.Inside.Bodies, source.NewSpan(at, r.last))
	}
	return fields
}

// selfOf is the name of the object in a constructor, or "".
func selfOf(o *model.Occurrence) string {
	if o.Kind == model.KindConstructor && o.NameSpan.Len() == len("__init__") && len(o.Callable.Params) > 0 && o.Callable.Params[0].Implied {
		return o.Callable.Params[0].Name
	}
	return ""
}

// body passes over the lines of a body: all that stand further right than its head.
func (r *reader) body(column int, c *model.Callable) {
	nested := -1   // column of a definition within, whose lines tell nothing of this one
	behind := r.at // comments behind the last statement belong to what comes next
	for r.at < len(r.text) {
		deeper, first := r.indentation(r.at)
		if first == len(r.text) {
			r.at = first
			return
		}
		switch r.text[first] {
		case '\n':
			r.at = first + 1
			continue
		case '#':
			r.at = min(r.endOfLine(first)+1, len(r.text))
			continue
		}
		if deeper <= column {
			r.at = behind
			return
		}
		if deeper <= nested {
			nested = -1
		}
		end := r.logicalEnd(first)
		if nested < 0 {
			if r.definitionAt(first) {
				nested = deeper
			} else {
				r.tells(first, end, c)
			}
		}
		_, r.last = r.trimmed(first, end)
		r.at, behind = end, end
	}
}

// tells looks at a statement of a body for what it says to callers.
func (r *reader) tells(at, end int, c *model.Callable) {
	switch r.text[at] {
	case 'r':
		r.leaves(at, end, c)
	case 'y':
		if r.wordAt(at, "yield") {
			r.yields(at+len("yield"), end, c)
		}
	case 'i', 'e', 'f', 't', 'w': // a suite on the line of its head, as in "if late: raise TooLate(at)"
		if i := strings.Index(r.text[at:end], ": r"); i >= 0 {
			r.leaves(at+i+2, end, c)
		}
	default:
		if i := strings.Index(r.text[at:end], "yield"); i > 0 && strings.IndexByte(" (", r.text[at+i-1]) >= 0 {
			c.Returns = model.ReturnsSeries
			forgetRelays(c)
		}
	}
}

// yields reads a "yield" that stands alone: without a value it hands the course of
// things over, as in a context manager, and gives nothing.
func (r *reader) yields(at, end int, c *model.Callable) {
	if from, to := r.trimmed(at, end); from < to && r.text[from] != '#' {
		c.Returns = model.ReturnsSeries
		forgetRelays(c)
	}
}

// relays reads a value that is nothing but a call, "f(...)" or "self.f(...)": what it
// gives is told elsewhere.
func (r *reader) relays(from, to int, c *model.Callable) bool {
	stop := r.dottedEnd(from)
	name := r.text[from:stop]
	if stop == from || stop >= to || r.text[stop] != '(' || r.text[to-1] != ')' || len(c.Relays()) >= mostRelays {
		return false
	}
	depth := 0
	for at := stop; at < to; at++ { // the bracket that opens here closes at the end
		switch r.text[at] {
		case '(', '[', '{':
			depth++
		case ')', ']', '}':
			if depth--; depth == 0 && at < to-1 {
				return false
			}
		case '"', '\'', '#':
			return false // rare, and told by other means
		}
	}
	c.Returns, c.Body().Forwards = model.ReturnsForwarded, append(c.Relays(), name)
	return true
}

// mostRelays is how many calls a body returns at most, of which what they give is asked.
const mostRelays = 4

// leaves reads "return" and "raise".
func (r *reader) leaves(at, end int, c *model.Callable) {
	switch {
	case r.wordAt(at, "return"):
		value, stop := r.trimmed(at+len("return"), end)
		if value < stop && r.text[value] != '#' && r.text[value] != ';' && r.text[value:stop] != "None" && c.Returns != model.ReturnsSeries {
			if c.Returns == model.ReturnsResult || !r.relays(value, stop, c) {
				c.Returns = model.ReturnsResult
				forgetRelays(c)
			}
		}
	case r.wordAt(at, "raise"):
		name := r.blanks(at+len("raise"), false)
		stop := r.dottedEnd(name)
		// A small letter begins a variable: which exception it holds is not told here.
		word := r.text[name:stop]
		last := lastName(word)
		if last == "" || last[0] < 'A' || last[0] > 'Z' {
			return
		}
		for _, f := range c.Fails() {
			if f.Name == word {
				return
			}
		}
		c.Body().Failures = append(c.Fails(), model.Failure{Name: word, Span: source.NewSpan(name, stop)})
	}
}

// constructorBody passes over a constructor and gives the attributes that it
// sets on the object, each where it is set first.
func (r *reader) constructorBody(column int, self string, o *model.Occurrence) []model.Occurrence {
	var fields []model.Occurrence
	seen := map[string]bool{}
	before := 0 // fields from here on were set by the statement right before
	nested := -1
	for {
		line := r.at
		deeper, ok := r.next()
		if !ok {
			break
		}
		if deeper <= column {
			r.at = line // the comments on the way belong to what comes next
			break
		}
		if deeper <= nested {
			nested = -1
		}
		at := r.at
		end := r.logicalEnd(at)
		last := len(fields)
		switch {
		case nested >= 0:
		case r.definitionAt(at):
			nested = deeper
		default:
			fields = r.setBy(fields, seen, at, end, self, o)
			if doc, _, ok := r.docstring(at); ok {
				for i := before; i < len(fields); i++ {
					if fields[i].Doc == nil {
						fields[i].Doc = doc
					}
				}
			}
			r.tells(at, end, o.Callable)
		}
		before = last
		r.at = end
		_, r.last = r.trimmed(at, end)
	}
	return fields
}

// setBy appends the attributes that the statements of one logical line set.
func (r *reader) setBy(fields []model.Occurrence, seen map[string]bool, at, end int, self string, o *model.Occurrence) []model.Occurrence {
	line := r.text[at:end]
	if dot := strings.Index(line, self+"."); dot < 0 || !strings.ContainsAny(line[dot:], "=:") {
		return fields
	}
	switch line[:r.nameEnd(at)-at] {
	case "return", "raise", "yield", "assert", "del":
		return fields
	case "if", "elif", "else", "try", "except", "finally", "with", "for", "while":
		head := r.scan(at, true)
		if head.colon < 0 {
			return fields
		}
		at = head.end
	}
	for at < end {
		at = r.blanks(at, false)
		s := r.scan(at, false)
		for _, f := range r.attributes(at, s, self, o) {
			if name := f.NameSpan.In(r.text); !seen[name] {
				seen[name] = true
				fields = append(fields, f)
			}
		}
		if !s.more {
			break
		}
		at = s.end
	}
	return fields
}

// attributes reads an assignment to attributes of the object.
func (r *reader) attributes(at int, s statement, self string, o *model.Occurrence) []model.Occurrence {
	if len(s.equals) == 0 && s.colon < 0 || s.augmented {
		return nil
	}
	a := r.take(at, s)
	a.names = a.names[:0]
	from := at
	if s.colon >= 0 {
		r.targets(at, s.colon, self, func(n source.Span) { a.names = append(a.names, n) })
	} else {
		for _, sign := range s.equals {
			r.targets(from, sign, self, func(n source.Span) { a.names = append(a.names, n) })
			from = sign + 1
		}
	}
	if len(a.names) == 0 {
		return nil
	}
	doc := r.commentDoc(s)
	directives := r.directives()
	var out []model.Occurrence
	for _, name := range a.names {
		out = append(out, model.Occurrence{
			Kind: model.KindField, NameSpan: name, Span: source.NewSpan(at, a.end), Doc: doc,
			Extra: extra(nil, nil, directives), Signature: r.attributeSignature(name, a, o),
		})
	}
	return out
}

// attributeSignature puts "name: type". Where no type is written and the value
// is a parameter, the attribute has the parameter's type.
func (r *reader) attributeSignature(name source.Span, a assigned, o *model.Occurrence) model.Tokens {
	value := a.value.In(r.text)
	if a.annotation.Empty() && len(a.names) == 1 && r.nameEnd(int(a.value.Start)) == int(a.value.End) {
		for _, p := range o.Callable.Params {
			if p.Name != value || p.Type == "" {
				continue
			}
			start := r.arena.Begin()
			r.put(model.TokenName, name.In(r.text))
			r.put(model.TokenPunctuation, ": ")
			for token := range p.Type.In(r.text) {
				r.put(token.Kind, token.Text)
			}
			return r.arena.Since(start)
		}
	}
	if value != "" && !isLiteral(value) {
		a.value = source.Span{}
	}
	return r.variableSignature(name, a)
}

// isLiteral reports whether a value says something to those who do not know the
// function that it stands in.
func isLiteral(s string) bool {
	switch s {
	case "None", "True", "False", "[]", "{}", "()", "set()", "dict()", "list()":
		return true
	}
	return s[0] >= '0' && s[0] <= '9' || s[0] == '"' || s[0] == '\'' || s[0] == '-'
}

// forgetRelays lets go whose results a body returns, once it returns one of its own.
func forgetRelays(c *model.Callable) {
	if c.Shown != nil {
		c.Forwards = nil
	}
}
