package cfamily

import (
	"strings"

	"codrel/internal/model"
)

// This file reads what C++ has beyond C: namespaces, templates, access sections, other names for
// types, concepts.

// plusDeclaration reads a declaration of C++; done is false for others.
func (r *reader) plusDeclaration(i, end int, own *owner) (next int, done bool) {
	if own.record && r.Is(i+1, ':') && isMacro(r.Word(i)) { // a macro for one of the words below
		own.access, own.section = model.Public, ""
		return i + 2, true
	}
	switch word := r.Word(i); word {
	case "namespace":
		return r.namespace(i, end, own), true
	case "inline":
		if r.Word(i+1) == "namespace" {
			return r.namespace(i+1, end, own), true
		}
	case "export":
		if r.Is(i+1, '{') {
			stop := r.Close(i+1, end)
			if r.Deeper(i+1, deepest) {
				r.declarations(i+2, stop, own)
				r.Shallower()
			}
			return stop + 1, true
		}
		if w := r.Word(i + 1); w == "module" || w == "import" {
			return r.UpTo(i, end, ';'), true
		}
		return i + 1, true
	case "module", "import":
		if r.Is(i+1, ';') || r.Is(i+1, ':') || r.Word(i+1) != "" && (r.Is(i+2, ';') || r.Is(i+2, '.') || r.Is(i+2, ':')) || r.Is(i+1, '<') {
			return r.UpTo(i, end, ';'), true
		}
	case "using":
		return r.using(i, end, own, noTemplate, i), true
	case "template":
		return r.templated(i, end, own), true
	case "concept":
		return r.concept(i, i, end, own, noTemplate), true
	case "public", "private", "protected", "signals", "Q_SIGNALS":
		if next, ok := r.section(i, end, own); ok {
			return next, true
		}
	case "friend":
		if w := r.Word(i + 1); w == "class" || w == "struct" || w == "union" || w == "enum" {
			return r.UpTo(i, end, ';'), true
		}
	}
	return i, false
}

// section reads what says who may see what follows.
func (r *reader) section(i, end int, own *owner) (next int, ok bool) {
	at := i + 1
	if w := r.Word(at); w != "" && !r.names.reserved(w) && r.Is(at+1, ':') {
		at++
	}
	if !r.Is(at, ':') || !own.record {
		return i, false
	}
	switch r.Word(i) {
	case "private":
		own.access = model.Private
	case "protected":
		own.access = model.Protected
	default:
		own.access = model.Public
	}
	own.section = ""
	switch w := r.Word(at - 1); {
	case strings.EqualFold(w, "q_slots") || w == "slots":
		own.section = "slots"
	case w == "signals" || w == "Q_SIGNALS":
		own.section = "signals"
	}
	return at + 1, true
}

// namespace reads a namespace, or another name for one.
func (r *reader) namespace(i, end int, own *owner) int {
	at := i + 1
	for at < end && (r.Is(at, '[') || isAttribute(r.Word(at))) {
		at = r.Over(at + boolean(r.Word(at) != ""))
	}
	name := at
	for at < end && (r.Word(at) != "" || r.IsMark(at, "::") || r.Is(at, '(') && at > name || r.Is(at, '[') && r.Is(at+1, '[')) {
		at = r.Over(at)
	}
	if !r.Is(at, '{') {
		return r.UpTo(at, end, ';')
	}
	inline := r.Word(i-1) == "inline" // its names are those of the namespace around it
	named := false
	var parts []string
	for n := name; n < at; n = r.Over(n) {
		w := r.Word(n)
		if r.Is(n+1, '(') && (len(parts) > 0 || !r.Is(r.Over(n+1), '{')) { // a macro beside the name, or an attribute
			continue
		}
		if w == "inline" {
			inline = true
		}
		if w == "" || w == "inline" || isAttribute(w) {
			continue
		}
		if named = true; inline {
			inline = false
			continue
		}
		if isMacro(w) && len(parts) > 0 && !r.IsMark(n-1, "::") { // a macro behind the name
			continue
		}
		if r.Word(n+1) != "" && r.Word(n+1) != "inline" && !isMacro(r.Word(n+1)) && !isAttribute(r.Word(n+1)) || isMacro(w) && n+1 < at && !r.IsMark(n+1, "::") {
			continue // a macro beside the name
		}
		if isMacro(w) { // others are looked up nowhere
			if definition, ok := r.macro(w); ok {
				w = strings.TrimSpace(definition)
			}
		}
		parts = append(parts, w)
	}
	space, hidden := r.space, r.hidden
	stop := r.Close(at, end)
	if !named {
		r.hidden = true
	}
	for _, part := range parts {
		if r.space != "" {
			r.space += "::"
		}
		r.space += part
	}
	if r.space != space {
		m := model.ModuleIn{Name: r.space}
		said := r.said(i - boolean(r.Word(i-1) == "inline"))
		m.Doc = said.Doc
		if n := len(r.Facts.Modules); m.Doc != nil || n == 0 || r.Facts.Modules[n-1].Name != m.Name {
			r.Facts.Modules = append(r.Facts.Modules, m)
		}
	}
	if r.Deeper(at, deepest) {
		r.declarations(at+1, stop, own)
		r.Shallower()
	}
	r.space, r.hidden = space, hidden
	return stop + 1
}

// using reads another name for a type; what brings in names of others declares nothing.
func (r *reader) using(from, end int, own *owner, t template, i int) int {
	stop := r.UpTo(i, end, ';')
	name := i + 1
	if r.Word(name) == "" || r.names.reserved(r.Word(name)) {
		return stop
	}
	at := name + 1
	s := specs{from: from}
	for at < stop && (r.Is(at, '[') && r.Is(at+1, '[') || isAttribute(r.Word(at))) {
		at = r.attribute(at, stop, &s)
	}
	if !r.Is(at, '=') {
		return stop
	}
	o := model.Occurrence{Kind: model.KindType, Span: r.Span(from, stop)}
	mark := r.Arena.Begin()
	r.putTemplate(t)
	r.Arena.Put(model.TokenKeyword, "using ")
	r.Arena.Put(model.TokenName, r.Word(name))
	r.Arena.Put(model.TokenPunctuation, " = ")
	r.put(at+1, stop-1, putting{})
	o.Signature = r.Arena.Since(mark)
	if len(t.params) > 0 {
		o.Extra = &model.Extra{TypeParams: t.params}
	}
	r.add(o, own, r.Span(name, name+1), r.commentOf(&s, 0, stop), &s)
	return stop
}

// templated reads a template: its heads, and what follows them.
func (r *reader) templated(i, end int, own *owner) int {
	t := template{from: i, to: i}
	at := i
	for r.Word(at) == "template" {
		if !r.Is(at+1, '<') { // one that is made of a template
			return r.UpTo(at, end, ';')
		}
		stop := r.OverType(at + 1)
		if stop == at+2 {
			if stop = r.overAngles(at+1, end); stop < 0 {
				return r.PastUnknown(at, end)
			}
		}
		t.special = stop == at+3
		t.params = r.templateParameters(at+1, stop, t.params)
		if at = stop; r.Word(at) == "requires" {
			at = r.overRequires(at+1, end)
		}
		t.to = at
	}
	if at >= end {
		return end
	}
	switch r.Word(at) {
	case "using":
		return r.using(i, end, own, t, at)
	case "concept":
		return r.concept(i, at, end, own, t)
	}
	return r.simple(i, at, end, own, t)
}

// mostAngles is how many tokens the head of a template has that is looked through.
const mostAngles = 2000

// overAngles is the index behind a list of template parameters whose signs have no partners,
// since something stands in it that looks like a comparison; -1 where none ends.
func (r *reader) overAngles(open, end int) int {
	depth := 0
	for i := open; i < min(end, open+mostAngles); i = r.Over(i) {
		switch {
		case r.Is(i, '<'):
			depth++
		case r.Is(i, '>'):
			if depth--; depth == 0 {
				return i + 1
			}
		case r.Is(i, ';') || r.Is(i, '{'):
			return -1
		}
	}
	return -1
}

// templateParameters reads the parameters between "<" and the index behind ">".
func (r *reader) templateParameters(open, stop int, to []model.Param) []model.Param {
	for i := open + 1; i < stop-1; {
		next := i
		for next < stop-1 && !r.Is(next, ',') {
			next = r.OverType(next)
		}
		value := i
		for value < next && !r.Is(value, '=') {
			value = r.OverType(value)
		}
		p := model.Param{}
		for n := i; n < value; n = r.OverType(n) {
			if r.IsMark(n, "...") {
				p.Variadic = true
			}
			if w := r.Word(n); w != "" && n > i && !r.names.reserved(w) && n+1 == value {
				p.Name = w
			}
		}
		if value < next {
			p.Optional, p.Default = true, r.Span(value+1, next)
		}
		if w := r.Word(i); p.Name == "" && value-i > 1 && (w == "template") {
			p.Name = r.Word(value - 1)
		}
		if p.Name != "" {
			r.scoped = append(r.scoped, p.Name)
			to = append(to, p)
		}
		i = next + 1
	}
	return to
}

// concept reads a named constraint ([temp.concept]).
func (r *reader) concept(from, i, end int, own *owner, t template) int {
	stop := r.UpTo(i, end, ';')
	name := i + 1
	if r.Word(name) == "" {
		return stop
	}
	s := specs{from: from}
	o := model.Occurrence{Kind: model.KindTrait, Span: r.Span(from, stop)}
	mark := r.Arena.Begin()
	r.putTemplate(t)
	r.Arena.Put(model.TokenKeyword, "concept ")
	r.Arena.Put(model.TokenName, r.Word(name))
	if at := name + 1; r.Is(at, '=') {
		r.value(at+1, stop-1)
	}
	o.Signature = r.Arena.Since(mark)
	o.Extra = &model.Extra{TypeParams: t.params}
	r.add(o, own, r.Span(name, name+1), r.commentOf(&s, 0, stop), &s)
	return stop
}
