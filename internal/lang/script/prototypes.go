package script

import (
	"strings"
	"unicode"
	"unicode/utf8"

	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads what makes a class of a function, as code did before there were classes.

// madeWithNew reads what a function sets on its object under a doc comment, where the
// function is one that makes objects: its comment says so, or it is named as such are.
func (r *reader) madeWithNew(index int32, f *function) {
	o := &r.facts.Occurrences[index]
	first, _ := utf8.DecodeRuneInString(o.Name)
	if r.typed || f.body.Empty() || o.Kind != model.KindClass && !unicode.IsUpper(first) || !strings.Contains(f.body.In(r.text), "this.") {
		return
	}
	r.local(r.aside(func() {
		r.within(index, func() { r.setInConstructor(*f) })
	}))
}

// prototypeCall reads a statement that puts members into the prototype of what the file
// declares: "Object.assign(A.prototype, {...})", "Object.defineProperty(A.prototype, 'name',
// {...})" and "Object.defineProperties(A.prototype, {...})". It is false for all others.
func (r *reader) prototypeCall(h *heads, at int) bool {
	if !strings.HasPrefix(r.text[at:], "Object.") {
		return false
	}
	end := r.dottedEnd(at)
	call, open := r.text[at:end], r.after(end)
	if r.byteAt(open) != '(' || call != "Object.assign" && call != "Object.defineProperty" && call != "Object.defineProperties" {
		return false
	}
	args, _ := r.arguments(open)
	if len(args) < 2 {
		return false
	}
	name, isPrototype := strings.CutSuffix(args[0].In(r.text), ".prototype")
	owner := r.declared(name)
	if !isPrototype || owner < 0 {
		return false
	}
	switch call {
	case "Object.assign":
		for _, a := range args[1:] {
			if r.text[a.Start] == '{' {
				r.object(int(a.Start), owner)
			}
		}
	case "Object.defineProperty":
		if q := r.text[args[1].Start]; len(args) > 2 && (q == '"' || q == '\'') { // another one is known when the code runs
			r.describedProperty(owner, args[1], args[2], h.comment)
		}
	case "Object.defineProperties":
		if r.text[args[1].Start] == '{' {
			r.at = int(args[1].Start) + 1
			r.braced(func() { r.describedEntry(owner) })
		}
	}
	r.finish(r.back(r.whole(at)))
	return true
}

// describedEntry reads "name: descriptor" in an object of descriptors.
func (r *reader) describedEntry(owner int32) {
	comment := r.comment
	span, name := r.memberName(r.at)
	stop := r.argument(r.at)
	if colon := r.after(int(span.End)); name != "" && r.byteAt(colon) == ':' {
		r.describedProperty(owner, span, source.NewSpan(r.after(colon+1), r.back(stop)), comment)
	}
	r.at = stop
}

// describedProperty declares a member that a descriptor describes. Where no comment stands
// before it, that on the function by which it is read speaks of it.
func (r *reader) describedProperty(owner int32, name, descriptor source.Span, comment source.Span) {
	o := model.Occurrence{Kind: model.KindField, Name: strings.Trim(name.In(r.text), "\"'`"), NameSpan: name, Span: source.NewSpan(int(name.Start), int(descriptor.End)), Local: true}
	if o.Name == "" {
		return
	}
	text := descriptor.In(r.text)
	at, found := -1, false
	for _, get := range []string{"get:", "get(", "get ("} {
		if i := strings.Index(text, get); i >= 0 && (at < 0 || i < at) {
			at, found = i, true
		}
	}
	if found {
		o.Kind = model.KindProperty
		if comment.Empty() {
			comment = lastComment(r.text, int(descriptor.Start), int(descriptor.Start)+at)
		}
	}
	mark := r.arena.Begin()
	r.put(model.TokenName, o.Name)
	o.Signature = r.arena.Since(mark)
	scope, parent := r.scope, r.parent
	r.scope, r.parent = r.facts.Occurrences[owner].Name, owner
	r.add(o, comment, nil)
	r.scope, r.parent = scope, parent
}
