package cfamily

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file goes from declaration to declaration: those of a file, of a namespace and of a type.

// deepest is how deep types and namespaces in one another are read. People stay far below.
const deepest = 200

// owner is what declarations stand in.
type owner struct {
	at     int32 // the occurrence of the type, or -1 for the namespace
	scope  string
	name   string // of the type
	kind   model.Kind
	access model.Visibility // of what follows
	// section says more of what follows than the access does: "slots"
	section string
	record  bool // it is a type with members
}

// unit reads the file.
func (r *reader) unit() {
	r.findGuard()
	if r.plus {
		r.PairAngles(",.?&*[]()=+-!~%^|:", r.overInType)
	}
	own := owner{at: -1}
	r.declarations(0, len(r.Tokens), &own)
	r.flush(int32(len(r.Text)))
	r.elsewhere()
	grouped, deprecated, kept := r.commands()
	if grouped {
		r.groups()
	}
	if deprecated {
		r.deprecations()
	}
	if kept {
		r.keep()
	}
	if !r.plus {
		r.tags()
	}
}

// overInType is the index behind what may stand among template arguments beside names and
// marks of one byte.
func (r *reader) overInType(i int, open bool) int {
	if !open {
		return i
	}
	t := &r.Tokens[i]
	switch {
	case r.Is(i, '<') && i > 2 && (r.Is(i-1, ')') && r.Word(i-3) != "operator" || r.Tokens[i-1].Kind == lexing.Value): // no list stands behind a value
		return i + 1
	case r.Is(i, '(') && r.compares(i):
		return r.Over(i)
	case t.Kind == lexing.Value:
		return i + 1
	case t.Kind != lexing.Mark || t.To == t.From+1:
		return i
	}
	switch r.Text[t.From:t.To] {
	case "::", "...", "&&", "==", "!=", "||", "<=", "->":
		return i + 1
	}
	return i
}

// compares reports whether a comparison stands in brackets, and no list of arguments.
func (r *reader) compares(open int) bool {
	shut, found := int(r.Tokens[open].Partner), false
	for i := open + 1; i < shut; i = r.Over(i) {
		if r.Is(i, '<') {
			return false
		}
		found = found || r.Is(i, '>')
	}
	return found
}

// tags gives types of C whose name something else has as well a name space of their own.
func (r *reader) tags() {
	values := map[string]bool{}
	for i := range r.Facts.Occurrences {
		switch o := &r.Facts.Occurrences[i]; o.Kind {
		case model.KindFunction, model.KindVariable:
			if o.Parent < 0 {
				values[o.Name] = true
			}
		}
	}
	for i := range r.Facts.Occurrences {
		o := &r.Facts.Occurrences[i]
		switch o.Kind {
		case model.KindStruct, model.KindUnion, model.KindEnum:
			if o.Parent < 0 && values[o.Name] {
				if o.Extra == nil {
					o.Extra = &model.Extra{}
				}
				o.Extra.Space = "tag"
			}
		}
	}
}

// declarations reads what stands between two indices.
func (r *reader) declarations(i, end int, own *owner) {
	for i < end {
		next := r.declaration(i, end, own)
		i = max(i+1, next)
	}
}

// declaration reads one declaration and gives the index behind it.
func (r *reader) declaration(i, end int, own *owner) int {
	scoped := len(r.scoped)
	defer func() { r.scoped = r.scoped[:scoped] }()
	r.drops, r.sorted, r.params = r.drops[:0], 0, r.params[:0]
	if t := &r.Tokens[i]; t.Kind != lexing.Word {
		return r.unnamed(i, end, own)
	}
	if r.opens(i, own) {
		return i + 1
	}
	if next, ok := r.made(i, end, own); ok {
		return next
	}
	if own.record {
		if next, ok := r.fieldsOf(i, end, own); ok {
			return next
		}
	}
	switch word := r.Word(i); word {
	case "extern":
		if i+1 < end && r.Tokens[i+1].Kind == lexing.Value && r.Text[r.Tokens[i+1].From] == '"' {
			return r.linked(i, end, own)
		}
	case "static_assert", "_Static_assert", "asm", "__asm__", "__asm", "goto", "return":
		return r.UpTo(i, end, ';')
	}
	if r.plus {
		if next, done := r.plusDeclaration(i, end, own); done {
			return next
		}
	}
	return r.simple(i, i, end, own, noTemplate)
}

// unnamed reads what begins with no word.
func (r *reader) unnamed(i, end int, own *owner) int {
	switch {
	case r.Is(i, '[') && r.Is(i+1, '['), r.Is(i, '~') && r.plus, r.IsMark(i, "::"), r.Is(i, '('):
		return r.simple(i, i, end, own, noTemplate)
	case r.Is(i, '*'): // a function of old code without a type
		return r.simple(i, i, end, own, noTemplate)
	case r.Is(i, '{'):
		return r.Over(i)
	case r.Is(i, '}') && len(r.frames) > 0 && own.at < 0:
		r.leaveFrame()
	}
	return i + 1
}

// linked reads what has the linkage of another language.
func (r *reader) linked(i, end int, own *owner) int {
	before := r.linkage
	r.linkage = r.Text[r.Tokens[i+1].From:r.Tokens[i+1].To] == `"C"`
	defer func() { r.linkage = before }()
	if !r.Is(i+2, '{') {
		if i+2 >= end {
			return end
		}
		return r.simple(i, i+2, end, own, noTemplate)
	}
	stop := r.Close(i+2, end)
	if r.Deeper(i+2, deepest) {
		r.declarations(i+3, stop, own)
		r.Shallower()
	}
	return stop + 1
}

// said are the comments before the token at an index.
func (r *reader) said(i int) lexing.Said {
	if i > 0 && r.Word(i) == "template" && !r.commented(i) && isMacro(r.Word(i-1)) && (i == 1 || r.Word(i-2) == "") {
		i-- // a macro stands before the template
	}
	floor := int32(0)
	if i > 0 {
		floor = r.Tokens[i-1].To
	}
	at := r.Tokens[i].From
	return r.saidBefore(at, r.lineFloor(at, floor))
}

// behind is the comment that stands behind what ends before a token, on its line or below.
func (r *reader) behind(next int) *model.Doc {
	if next == 0 {
		return nil
	}
	low, high := r.Tokens[next-1].To, int32(len(r.Text))
	if next < len(r.Tokens) {
		high = r.Tokens[next].From
	}
	return r.saidAfter(low, high)
}

// finish sets what all occurrences have: their conditions and what the comments say.
func (r *reader) finish(o *model.Occurrence, said lexing.Said, deprecated bool) {
	o.Doc, o.Deprecated = r.headless(said.Doc, o.Name), deprecated
	extra := model.Extra{}
	if o.Extra != nil {
		extra = *o.Extra
	}
	extra.Conditions, extra.Directives = r.conditions(o.NameSpan.Start), said.Directives
	if o.Extra != nil || extra.Conditions != nil || extra.Directives != nil {
		o.Extra = &extra
	}
}

// headless is a comment without its first line where that is the name of what it speaks of, with a
// colon behind it: some projects begin each comment so.
func (r *reader) headless(doc *model.Doc, name string) *model.Doc {
	if doc == nil || name == "" {
		return doc
	}
	rest, ok := strings.CutPrefix(strings.TrimLeft(doc.Text, " \t\n"), name)
	if rest = strings.TrimPrefix(rest, "()"); !ok || !strings.HasPrefix(rest, ":") {
		return doc
	}
	if head, _, _ := strings.Cut(rest, "\n"); strings.TrimSpace(head) != ":" {
		return doc
	}
	for n := range doc.Lines {
		if strings.TrimSpace(doc.Lines[n].In(r.Text)) != "" {
			if left := lexing.MakeDoc(r.Text, doc.Lines[n+1:], doc.Span); left != nil {
				return left
			}
			break
		}
	}
	return doc
}

// add puts a declaration behind the others and gives its index.
func (r *reader) add(o model.Occurrence, own *owner, name source.Span, said lexing.Said, s *specs) int32 {
	r.flush(name.Start)
	o.NameSpan = name
	if o.Name == "" {
		o.Name = name.In(r.Text)
	}
	o.Line = int32(r.Facts.Lines.Line(name.Start))
	o.Parent = own.at
	if o.Scope == "" {
		o.Scope = own.scope
	}
	o.Modify(s.words...)
	r.finish(&o, said, s.deprecated)
	switch {
	case own.at >= 0:
		o.Visibility = own.access
	case r.hidden, s.static && !r.header:
		o.Visibility = model.Private
	}
	if own.at < 0 && r.space != "" || own.section != "" || s.advice.End > s.advice.Start {
		if o.Extra == nil {
			o.Extra = &model.Extra{}
		}
		if own.at < 0 {
			o.Extra.In = r.space
		}
		o.Extra.Section = own.section
		o.Extra.Advice = r.advice(s.advice)
	}
	r.Facts.Occurrences = append(r.Facts.Occurrences, o)
	return int32(len(r.Facts.Occurrences) - 1)
}

// advice is what an attribute says to do instead, out of its string.
func (r *reader) advice(span source.Span) *model.Doc {
	if span.End <= span.Start {
		return nil
	}
	text := strings.Trim(span.In(r.Text), `"`)
	if text == "" || strings.ContainsAny(text, "\\{\n\"") || len(text) < int(span.End-span.Start)-2 {
		return nil
	}
	inside := source.Span{Start: span.Start + 1, End: span.End - 1}
	return &model.Doc{Text: text, Lines: []source.Span{inside}, Span: span}
}
