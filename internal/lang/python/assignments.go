package python

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads assignments ("Assignment statements" and "Annotated
// assignment statements").

// assignment declares the names that a statement binds in the module or class.
func (r *reader) assignment(at int, s statement) {
	a := r.take(at, s)
	if r.text[at:r.nameEnd(at)] == "__all__" && r.inner().kind == model.KindModule && len(s.equals) > 0 {
		r.listed, r.unlisted, r.lists, r.facts.ExportList = nil, false, nil, nil
		r.list(s.equals[0]+1, s.stop)
	}
	r.givesText(at, s, a)
	same := r.secondName(a)
	textOf := ""
	if same == "" {
		textOf = r.wrapped(a)
	}
	docs := r.commentDoc(s)
	directives := r.directives()
	if s.comment >= 0 {
		directives = r.directive(directives, source.NewSpan(s.comment, r.endOfLine(s.comment)))
	}
	for _, name := range a.names {
		o := model.Occurrence{
			Kind: r.variableKind(name.In(r.text), a), NameSpan: name, Span: source.NewSpan(at, a.end),
			Doc: docs, Extra: extra(nil, nil, directives), Signature: r.variableSignature(name, a),
		}
		if same != "" && same != name.In(r.text) || textOf != "" && textOf != name.In(r.text) {
			if o.Extra == nil {
				o.Extra = &model.Extra{}
			}
			o.Extra.Same, o.Extra.TextOf = same, textOf
		}
		r.property(&o, a)
		r.assigned = append(r.assigned, int(r.add(o)))
	}
}

// wrappers are the functions that make another kind of method of a function, with its text.
var wrappers = map[string]bool{"staticmethod": true, "classmethod": true, "property": true}

// secondName is the path of what a plain assignment gives a further name, or "".
func (r *reader) secondName(a assigned) string {
	if a.value.Empty() || !a.annotation.Empty() {
		return ""
	}
	from, to := int(a.value.Start), int(a.value.End)
	end := r.dottedEnd(from)
	if open := r.blanks(end, true); end > from && end < to && wrappers[r.text[from:end]] && open < to && r.text[open] == '(' {
		from = r.blanks(open+1, true)
		if end = r.dottedEnd(from); end < to && r.argumentEnds(end) {
			to = end
		}
	}
	switch path := r.text[from:max(from, end)]; {
	case end == from || end != to, path == "None", path == "True", path == "False":
		return ""
	default:
		return path
	}
}

// argumentEnds tells that nothing but blanks stands between an offset and the end of the
// argument it is in.
func (r *reader) argumentEnds(at int) bool {
	at = r.blanks(at, true)
	return at < len(r.text) && (r.text[at] == ',' || r.text[at] == ')')
}

// property keeps what "name = property(getter, doc=...)" says.
func (r *reader) property(o *model.Occurrence, a assigned) {
	from, to := int(a.value.Start), int(a.value.End)
	end := r.dottedEnd(from)
	if a.value.Empty() || lastName(r.text[from:end]) != "property" || end >= to {
		return
	}
	if o.Extra == nil {
		o.Extra = &model.Extra{}
	}
	o.Extra.Property = true
	argument := 0
	for at := end + 1; at < to; at = r.nextTarget(at, to) + 1 {
		at = r.blanks(at, true)
		named := at
		if word := r.nameEnd(at); r.keyword(word) {
			named = r.blanks(r.blanks(word, true)+1, true)
			if r.text[at:word] != "doc" {
				continue
			}
		} else if argument++; argument < 4 {
			continue
		}
		stop := r.nextTarget(named, to)
		if doc := r.textIn(named, stop); doc != nil && o.Doc == nil {
			o.Doc, o.Extra.Assigned = doc, true
		}
	}
}

// textIn makes a comment of the string that stands between two offsets, or is nil.
func (r *reader) textIn(at, stop int) *model.Doc {
	open, raw, isText := r.stringPrefix(at)
	if !isText || open >= stop {
		return nil
	}
	end, closed := r.plainString(open)
	if !closed || end > stop {
		return nil
	}
	quotes := 1
	if r.triple(open) {
		quotes = 3
	}
	doc := lexing.MakeDoc(r.text, r.docLines(nil, open+quotes, max(open+quotes, end-quotes), raw), source.NewSpan(at, end))
	if doc != nil {
		doc.Escaped = !raw && strings.Contains(doc.Text, "\\")
	}
	return doc
}

// wrapped is the path of what a value hands to a function as its first argument, as
// "name = decorator(function)" does, or "": what a decorator makes has the text of what it
// was given. A class makes something else.
func (r *reader) wrapped(a assigned) string {
	if a.value.Empty() || !a.annotation.Empty() {
		return ""
	}
	from, to := int(a.value.Start), int(a.value.End)
	end := r.dottedEnd(from)
	callee := lastName(r.text[from:end])
	open := r.blanks(end, true)
	if callee == "" || callee[0] >= 'A' && callee[0] <= 'Z' || open >= to || r.text[open] != '(' {
		return ""
	}
	arg := r.blanks(open+1, true)
	argEnd := r.dottedEnd(arg)
	if next := r.blanks(argEnd, true); argEnd == arg || next >= to || strings.IndexByte(",)", r.text[next]) < 0 {
		return ""
	}
	return r.text[arg:argEnd]
}

// givesText keeps the text that an assignment to "__doc__" gives what stands around it, or
// to "name.__doc__" what has that name.
func (r *reader) givesText(at int, s statement, a assigned) {
	if len(s.equals) == 0 || !strings.Contains(r.text[at:s.equals[len(s.equals)-1]], "__doc__") {
		return
	}
	doc, _, plain := r.docstring(int(a.value.Start))
	of, another := strings.CutSuffix(a.value.In(r.text), ".__doc__")
	from := at
	for _, sign := range s.equals {
		target := strings.TrimSpace(r.text[from:sign])
		from = sign + 1
		owner, ends := strings.CutSuffix(target, ".__doc__")
		switch {
		case target == "__doc__" && r.inner().kind == model.KindModule:
			if r.facts.ModuleDoc == nil && plain {
				r.facts.ModuleDoc = doc
			}
		case target == "__doc__":
			r.setText(int(r.inner().parent), doc, of, another)
		case ends:
			r.setText(r.declared(owner), doc, of, another)
		}
	}
}

// setText gives a declaration without a comment a text, or the path of what has it.
func (r *reader) setText(index int, doc *model.Doc, of string, another bool) {
	if index < 0 || r.facts.Occurrences[index].Doc != nil {
		return
	}
	o := &r.facts.Occurrences[index]
	if !another && doc == nil {
		return
	}
	if o.Extra == nil {
		o.Extra = &model.Extra{}
	}
	if another {
		o.Extra.TextOf = of
		return
	}
	o.Doc, o.Extra.Assigned = doc, true
}

// declared is the index of the last occurrence with a path below what stands around, or -1.
func (r *reader) declared(path string) int {
	list := r.placesOf(path)
	if len(list) == 0 {
		return -1
	}
	return int(list[len(list)-1])
}

// placesOf are the indexes of the occurrences with a path below what stands around.
func (r *reader) placesOf(path string) []int32 {
	if r.places == nil {
		r.places = map[string][]int32{}
	}
	for ; r.placed < len(r.facts.Occurrences); r.placed++ {
		o := &r.facts.Occurrences[r.placed]
		at := strings.TrimPrefix(o.Scope+"."+o.Name, ".")
		r.places[at] = append(r.places[at], int32(r.placed))
	}
	return r.places[strings.TrimPrefix(r.inner().scope+"."+path, ".")]
}

// remove marks names that are taken back: nobody who imports the module finds them.
func (r *reader) remove(at, stop int) {
	for at < stop {
		end := r.nameEnd(at)
		if end == at {
			at++
			continue
		}
		if next := r.blanks(end, true); next >= stop || r.text[next] == ',' || r.text[next] == ')' {
			r.removed(r.text[at:end])
		}
		at = r.nextTarget(end, stop)
	}
}

func (r *reader) removed(name string) {
	for _, i := range r.placesOf(name) {
		r.facts.Occurrences[i].Export = model.NotExported
	}
	if r.inner().scope == "" {
		if r.gone == nil {
			r.gone = map[string]bool{}
		}
		r.gone[name] = true
	}
}

// called takes back what a function removes from the module that is called at once, and
// knows that one which names the list of what the module exports may add to it.
func (r *reader) called(at int, s statement) {
	end := r.nameEnd(at)
	if r.inner().kind != model.KindModule || end == at || end >= s.stop || r.text[end] != '(' {
		return
	}
	i := r.declared(r.text[at:end])
	if i >= 0 && r.listed != nil && r.facts.Occurrences[i].Callable != nil && strings.Contains(r.facts.Occurrences[i].Span.In(r.text), "__all__") {
		r.unlisted = true
	}
	if i < 0 || r.facts.Occurrences[i].Callable == nil || !strings.Contains(r.facts.Occurrences[i].Span.In(r.text), "del ") {
		return
	}
	module := map[string]bool{}
	for line := range strings.Lines(r.facts.Occurrences[i].Span.In(r.text)) {
		line = strings.TrimSpace(line)
		names, globals := strings.CutPrefix(line, "global ")
		deleted, deletes := strings.CutPrefix(line, "del ")
		for _, name := range strings.FieldsFunc(names, func(c rune) bool { return c == ',' || c == ' ' }) {
			module[name] = module[name] || globals
		}
		for _, name := range strings.FieldsFunc(deleted, func(c rune) bool { return c == ',' || c == ' ' }) {
			if deletes && module[name] {
				r.removed(name)
			}
		}
	}
}

// assigned is an assignment, taken apart.
type assigned struct {
	names      []source.Span
	annotation source.Span
	value      source.Span
	end        int
}

// take finds the names, the annotation and the value of an assignment. Targets
// that are no names (attributes, elements) declare nothing.
func (r *reader) take(at int, s statement) assigned {
	_, stop := r.trimmed(at, s.stop)
	a := assigned{end: stop}
	valueAt := stop
	if n := len(s.equals); n > 0 {
		from, to := r.trimmed(s.equals[n-1]+1, stop)
		a.value = source.NewSpan(from, to)
		valueAt = s.equals[n-1]
	}
	if s.colon >= 0 {
		from, to := r.trimmed(s.colon+1, valueAt)
		a.annotation = source.NewSpan(from, to)
		r.targets(at, s.colon, "", func(name source.Span) { a.names = append(a.names, name) })
		return a
	}
	from := at
	for _, sign := range s.equals {
		r.targets(from, sign, "", func(name source.Span) { a.names = append(a.names, name) })
		from = sign + 1
	}
	return a
}

// targets yields the names of a list of targets; with self set, the names of
// attributes set on it instead.
func (r *reader) targets(at, stop int, self string, yield func(source.Span)) {
	for at < stop {
		c := r.text[at]
		if !startsName(c) {
			at++
			continue
		}
		end := r.nameEnd(at)
		after := r.blanks(end, true)
		if self != "" && r.text[at:end] == self && after < stop && r.text[after] == '.' {
			name := r.blanks(after+1, true)
			if nameEnd := r.nameEnd(name); nameEnd > name && r.isWhole(nameEnd, stop) {
				yield(source.NewSpan(name, nameEnd))
			}
		} else if self == "" && r.isWhole(end, stop) {
			yield(source.NewSpan(at, end))
		}
		at = r.nextTarget(end, stop)
	}
}

// isWhole reports whether a target ends at an offset: what follows is a comma, a
// closing bracket, or nothing.
func (r *reader) isWhole(at, stop int) bool {
	at = r.blanks(at, true)
	return at >= stop || strings.IndexByte(",)]", r.text[at]) >= 0
}

// nextTarget is the offset of the comma behind the target that an offset is in,
// past the brackets that belong to it.
func (r *reader) nextTarget(at, stop int) int {
	depth := 0
	for at < stop {
		switch bytesOfLines[r.text[at]] {
		case opening:
			depth++
		case closing:
			depth = max(0, depth-1)
		case quote:
			at, _ = r.stringEnd(at)
			continue
		case comment:
			at = r.endOfLine(at)
			continue
		}
		if r.text[at] == ',' && depth == 0 {
			return at
		}
		at++
	}
	return stop
}

func (r *reader) variableKind(name string, a assigned) model.Kind {
	annotation := lastName(a.annotation.In(r.text))
	switch {
	case annotation == "TypeAlias":
		return model.KindType
	case r.inner().kind == model.KindEnum && a.annotation.Empty() && !a.value.Empty() && !strings.HasPrefix(name, "_"):
		return model.KindEnumMember
	case r.inner().kind != model.KindModule:
		return model.KindField
	case annotation == "Final" || strings.ToUpper(name) == name && strings.ToLower(name) != name && !strings.HasPrefix(name, "__"):
		return model.KindConstant
	}
	return model.KindVariable
}

// lastName is the last name of a dotted one, without what stands in brackets behind it.
func lastName(s string) string {
	s, _, _ = strings.Cut(s, "[")
	s = strings.TrimSpace(s)
	return s[strings.LastIndexByte(s, '.')+1:]
}

// commentDoc makes a doc comment of the "#:" lines above a statement or behind it.
func (r *reader) commentDoc(s statement) *model.Doc {
	var lines []source.Span
	for _, c := range r.above {
		switch text := c.In(r.text); {
		case strings.HasPrefix(text, "#:"):
			lines = append(lines, c)
		case !strings.HasPrefix(text, "# codrel:"):
			lines = lines[:0]
		}
	}
	if s.comment >= 0 && strings.HasPrefix(r.text[s.comment:], "#:") {
		lines = append(lines[:0], source.NewSpan(s.comment, r.endOfLine(s.comment)))
	}
	if len(lines) == 0 {
		return nil
	}
	whole := source.Span{Start: lines[0].Start, End: lines[len(lines)-1].End}
	for i := range lines {
		lines[i].Start += int32(len("#:"))
		if strings.HasPrefix(lines[i].In(r.text), " ") {
			lines[i].Start++
		}
		_, to := r.trimmed(int(lines[i].Start), int(lines[i].End))
		lines[i].End = int32(to)
	}
	doc := lexing.MakeDoc(r.text, lines, whole)
	if doc == nil {
		r.facts.Empty = append(r.facts.Empty, model.Blank{Span: whole})
	}
	return doc
}

// typeAlias reads "type Name[T] = value" (PEP 695).
func (r *reader) typeAlias(at int, s statement) bool {
	name := r.blanks(at+len("type"), false)
	end := r.nameEnd(name)
	if end == name || len(s.equals) == 0 || s.augmented {
		return false
	}
	after := r.blanks(end, false)
	if after >= len(r.text) || after != s.equals[0] && r.text[after] != '[' {
		return false
	}
	from, to := r.trimmed(s.equals[0]+1, s.stop)
	start := r.arena.Begin()
	r.put(model.TokenKeyword, "type ")
	r.put(model.TokenName, r.text[name:end])
	var params []model.Param
	if r.text[after] == '[' {
		params, _ = r.typeParams(after)
	}
	r.put(model.TokenPunctuation, " = ")
	r.typeTokens(from, to)
	o := model.Occurrence{
		Kind: model.KindType, NameSpan: source.NewSpan(name, end), Span: source.NewSpan(at, to), Doc: r.commentDoc(s),
		Extra: extra(params, nil, r.directives()), Signature: r.arena.Since(start),
	}
	r.assigned = append(r.assigned, int(r.add(o)))
	return true
}
