package rust

import (
	"slices"
	"strings"

	"codrel/internal/finding"
	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file goes from item to item (chapter 6 of Rust's reference): those of a file, of a module
// in it, and of what has items.

// deepest is how deep items in items are read. People stay far below.
const deepest = 200

// owner is what items stand in.
type owner struct {
	at     int32 // its occurrence, or -1
	scope  string
	trait  bool   // its items are as visible as it is
	of     bool   // an implementation of a trait, whose items are as visible as that
	asks   string // that trait, as written
	extern bool   // a block of another language
}

// unit reads the file.
func (r *reader) unit() {
	r.PairAngles(",:'&*=+?-!.;~", r.overInType)
	i := 0
	if strings.HasPrefix(r.Text, "#!") && !strings.HasPrefix(strings.TrimLeft(r.Text[2:], " \t\r\n"), "[") { // what runs the script
		end := int32(lexing.EndOfLine(r.Text, 0))
		for i < len(r.Tokens) && r.Tokens[i].From < end {
			i++
		}
	}
	i, inner := r.innerAttributes(i)
	r.Facts.ModuleDoc = r.innerDoc(i)
	if r.Facts.ModuleDoc == nil {
		r.Facts.ModuleDoc = inner.doc
	}
	r.Facts.Conditions, r.tested, r.plain = inner.conditions, inner.test, inner.plain
	r.Facts.Unworded = inner.plain
	r.items(i, len(r.Tokens), &owner{at: -1})
	r.fromInner()
	r.link()
}

// overInType is the index behind what may stand among type arguments beside names and marks of one
// byte.
func (r *reader) overInType(i int, open bool) int {
	if !open {
		return i
	}
	t := &r.Tokens[i]
	switch {
	case r.Is(i, '#') && r.Is(i+1, '['): // an attribute of a parameter
		return r.Over(i + 1)
	case r.Is(i, '<') && i > 0 && (r.Tokens[i-1].Kind == lexing.Value || r.Is(i-1, ')')): // no list stands behind a value
		return i + 1
	case r.Is(i, '(') || r.Is(i, '[') || r.Is(i, '{') && (r.Is(i-1, '<') || r.Is(i-1, ',') || r.Is(i-1, '=')):
		return r.Over(i)
	case t.Kind == lexing.Value:
		return i + 1
	case t.Kind != lexing.Mark || t.Sign != 0:
		return i
	}
	switch r.Text[t.From:t.To] {
	case "::", "->", "&&", "==", "...":
		return i + 1
	}
	return i
}

// items reads what stands between two indices.
func (r *reader) items(i, end int, own *owner) {
	for i < end {
		i = max(i+1, r.item(i, end, own))
	}
}

// item is one while its head is read.
type item struct {
	from  int // where it begins, with its attributes
	at    int // its first word behind these
	attrs attributes
	vis   model.Visibility
	said  bool     // the visibility is written
	words []string // "const", "async", "unsafe"
	begin int      // of the signature
}

// item reads one item and gives the index behind it.
func (r *reader) item(i, end int, own *owner) int {
	scoped, when, tested, plain := len(r.scoped), len(r.when), r.tested, r.plain
	defer func() { r.scoped, r.when, r.tested, r.plain = r.scoped[:scoped], r.when[:when], tested, plain }()
	it := item{from: i}
	it.at, it.attrs = r.attributes(i, end)
	r.when = append(r.when[:when:when], it.attrs.conditions...)
	r.tested, r.plain = r.tested || it.attrs.test, r.plain || it.attrs.plain
	at := r.visibility(&it, it.at, end, own)
	if at >= end {
		return end
	}
	it.begin = at
	for r.qualifies(at) {
		if w := r.Word(at); w != "default" && w != "extern" {
			it.words = append(it.words, w)
		}
		if at++; r.Tokens[at-1].To > 0 && r.Word(at-1) == "extern" && at < end && r.Tokens[at].Kind == lexing.Value {
			at++
		}
	}
	switch w := r.Word(at); w {
	case "fn":
		return r.function(&it, at, end, own)
	case "struct", "enum":
		return r.typeItem(&it, at, end, own)
	case "union":
		if r.Word(at+1) != "" {
			return r.typeItem(&it, at, end, own)
		}
	case "trait", "auto":
		if w == "auto" && r.Word(at+1) == "trait" {
			at++
		}
		if r.Word(at) == "trait" {
			return r.trait(&it, at, end, own)
		}
	case "impl":
		return r.implementation(&it, at, end, own)
	case "mod":
		return r.module(&it, at, end, own)
	case "use":
		return r.use(&it, at, end)
	case "extern":
		return r.external(&it, at, end, own)
	case "const", "static":
		return r.constant(&it, at, end, own)
	case "type":
		return r.alias(&it, at, end, own)
	case "macro_rules":
		if r.Is(at+1, '!') {
			return r.macro(&it, at, end, own)
		}
	case "macro":
		if r.Word(at+1) != "" {
			return r.macroItem(&it, at, end, own)
		}
	}
	if next, ok := r.call(at, end, own); ok {
		return next
	}
	return r.PastUnknown(at, end)
}

// qualifies reports whether a word stands at an index that says how a function is, and more of its
// head follows.
func (r *reader) qualifies(i int) bool {
	next := r.Word(i + 1)
	switch r.Word(i) {
	case "const":
		return next == "fn" || next == "unsafe" || next == "async" || next == "extern" || next == "trait" || next == "impl"
	case "async", "safe", "gen":
		return next == "fn" || next == "unsafe" || next == "extern" || next == "gen"
	case "unsafe":
		return next == "fn" || next == "extern" || next == "trait" || next == "impl" || next == "auto" || next == "mod" || next == "async"
	case "default":
		return next == "fn" || next == "const" || next == "type" || next == "unsafe" || next == "async" || next == "impl" || next == "extern"
	case "extern":
		return next == "fn" || i+1 < len(r.Tokens) && r.Tokens[i+1].Kind == lexing.Value && r.Word(i+2) == "fn"
	}
	return false
}

// visibility reads who may see an item, and gives the index behind that.
func (r *reader) visibility(it *item, i, end int, own *owner) int {
	it.vis = model.Private
	if own.trait || own.of {
		it.vis = model.Public
	}
	if r.Word(i) == "crate" && r.Word(i+1) != "" { // as it once was written
		it.vis, it.said = model.Internal, true
		return i + 1
	}
	if r.Word(i) != "pub" {
		return i
	}
	it.vis, it.said = model.Public, true
	if r.Is(i+1, '(') {
		switch w := r.Word(i + 2); w {
		case "crate", "in", "super", "self":
			if w == "in" || r.Is(i+3, ')') {
				it.vis = model.Internal
				if w == "self" {
					it.vis = model.Private
				}
				return min(r.Over(i+1), end)
			}
		}
	}
	return i + 1
}

// name is the index behind the name at an index, and the name; a raw one has its mark.
func (r *reader) name(i int) (name string, end int) {
	if r.Word(i) == "r" && r.Is(i+1, '#') && r.Word(i+2) != "" && r.Tokens[i+2].From == r.Tokens[i].To+1 {
		return r.Text[r.Tokens[i].From:r.Tokens[i+2].To], i + 3
	}
	return r.Word(i), i + 1
}

// module reads a module: one in the file, or the name of one in another file.
func (r *reader) module(it *item, at, end int, own *owner) int {
	name, i := r.name(at + 1)
	if name == "" {
		return r.PastUnknown(at, end)
	}
	name = strings.TrimPrefix(name, "r#")
	m := model.ModuleIn{Name: joinedPath(r.space, name), Span: r.Span(at+1, i), Doc: it.attrs.doc, Kept: it.vis != model.Public || it.attrs.hidden, File: it.attrs.path, Tested: r.tested, Conditions: slices.Clone(r.when), Within: slices.Clone(r.within), Unworded: r.plain}
	if r.Is(i, ';') {
		m.Elsewhere = true
		r.Facts.Modules = append(r.Facts.Modules, m)
		return i + 1
	}
	if !r.Is(i, '{') {
		return r.PastUnknown(i, end)
	}
	stop := r.Close(i, end)
	first, inner := r.innerAttributes(i + 1)
	m.Doc, m.Whole = lexing.JoinDocs(m.Doc, r.innerDocAfter(i, first)), r.Span(at, min(stop+1, len(r.Tokens)))
	m.Conditions = append(m.Conditions, inner.conditions...)
	m.Unworded = m.Unworded || inner.plain
	r.Facts.Modules = append(r.Facts.Modules, m)
	space, tested, when := r.space, r.tested, len(r.when)
	r.space, r.tested, r.plain = m.Name, r.tested || inner.test, r.plain || inner.plain
	r.when = append(r.when, inner.conditions...)
	if r.Deeper(i, deepest) {
		r.items(first, stop, &owner{at: -1})
		r.Shallower()
	}
	r.space, r.tested, r.when = space, tested, r.when[:when]
	return stop + 1
}

func joinedPath(space, name string) string {
	if space == "" {
		return name
	}
	return space + "::" + name
}

// external reads a crate that is named, or a block of what is written in another language.
func (r *reader) external(it *item, at, end int, own *owner) int {
	if r.Word(at+1) == "crate" {
		name, i := r.name(at + 2)
		stop := r.UpTo(at, end, ';')
		in := model.Import{Path: name, Name: name, Span: r.Span(at+2, i), Reexport: it.vis == model.Public}
		if r.Word(i) == "as" {
			in.Name = r.Word(i + 1)
		}
		if name != "" && name != "self" {
			r.Facts.Imports = append(r.Facts.Imports, in)
		}
		return stop
	}
	i := at + 1
	if i < end && r.Tokens[i].Kind == lexing.Value {
		i++
	}
	if !r.Is(i, '{') {
		return r.PastUnknown(at, end)
	}
	stop := r.Close(i, end)
	if r.Deeper(i, deepest) {
		first, _ := r.innerAttributes(i + 1)
		r.items(first, stop, &owner{at: -1, extern: true})
		r.Shallower()
	}
	return stop + 1
}

// use reads what is brought in, and what is handed on.
func (r *reader) use(it *item, at, end int) int {
	stop := r.UpTo(at, end, ';')
	u := imports{reader: r, public: it.vis == model.Public && !it.attrs.hidden, doc: it.attrs.doc, inlined: it.attrs.inlined}
	u.tree(at+1, min(stop-1, end), nil, 0)
	return stop
}

// imports takes a tree of paths apart.
type imports struct {
	*reader
	public  bool
	inlined bool // pages stand where what is brought in is handed on
	doc     *model.Doc
}

// tree reads the paths between two indices, below others.
func (u *imports) tree(i, end int, above []string, depth int) {
	for i < end && depth < deepest {
		next := i
		for next < end && !u.Is(next, ',') {
			next = u.Over(next)
		}
		u.path(i, min(next, end), above, depth)
		i = next + 1
	}
}

func (u *imports) path(i, end int, above []string, depth int) {
	parts := above[:len(above):len(above)]
	if u.IsMark(i, "::") { // of another crate
		i++
	}
	for i < end {
		switch {
		case u.Is(i, '{'):
			u.tree(i+1, u.Close(i, end), parts, depth+1)
			return
		case u.Is(i, '*'):
			u.add(parts, "*", ".", i)
			return
		}
		name, next := u.name(i)
		if name == "" {
			return
		}
		parts = append(parts, strings.TrimPrefix(name, "r#"))
		if !u.IsMark(next, "::") {
			last := parts[len(parts)-1]
			as := last
			if u.Word(next) == "as" {
				as, _ = u.name(next + 1)
			}
			if parts = parts[:len(parts)-1]; last == "self" && len(parts) > 0 { // the module itself
				last, parts = parts[len(parts)-1], parts[:len(parts)-1]
				if as == "self" {
					as = last
				}
			}
			u.add(parts, last, as, i)
			return
		}
		i = next + 1
	}
}

func (u *imports) add(parts []string, member, name string, at int) {
	in := model.Import{Path: u.written(parts), Member: member, Name: name, Span: u.Span(at, at+1), Reexport: u.public && !u.tested, Apart: !u.inlined, Doc: u.doc}
	if name == "_" {
		return
	}
	if len(parts) == 0 && u.space == "" { // a crate, or a module beside
		in.Path, in.Member = member, ""
	}
	if u.space != "" {
		in.In = u.space
	}
	u.Facts.Imports = append(u.Facts.Imports, in)
}

// fromInner writes paths that begin with a module in the one that they stand in as the file would.
func (r *reader) fromInner() {
	known := map[string]bool{}
	for i := range r.Facts.Modules {
		known[r.Facts.Modules[i].Name] = true
	}
	for i := range r.Facts.Imports {
		in := &r.Facts.Imports[i]
		if first, _, _ := strings.Cut(in.Path, "::"); in.In != "" && known[in.In+"::"+first] {
			in.Path = "self::" + in.In + "::" + in.Path
		}
	}
}

// written is a path as the file would write it: what a module in the file writes is seen from there.
func (u *imports) written(parts []string) string {
	if u.space == "" || len(parts) == 0 {
		if len(parts) == 0 {
			return "self"
		}
		return strings.Join(parts, "::")
	}
	inner := strings.Split(u.space, "::")
	switch parts[0] {
	case "self":
		return strings.Join(append(append([]string{"self"}, inner...), parts[1:]...), "::")
	case "super":
		for len(parts) > 0 && parts[0] == "super" && len(inner) > 0 {
			parts, inner = parts[1:], inner[:len(inner)-1]
		}
		return strings.Join(append(append([]string{"self"}, inner...), parts...), "::")
	}
	return strings.Join(parts, "::")
}

// add puts a declaration behind the others and gives its index.
func (r *reader) add(o model.Occurrence, it *item, own *owner, name source.Span) int32 {
	o.NameSpan = name
	if o.Name == "" {
		o.Name = name.In(r.Text)
	}
	o.Line = int32(r.Facts.Lines.Line(name.Start))
	o.Parent, o.Scope = own.at, own.scope
	o.Visibility = it.vis
	if r.tested || it.attrs.hidden {
		o.Visibility = model.Private
	}
	o.Doc, o.Deprecated = it.attrs.doc, it.attrs.deprecated
	o.Modify(it.words...)
	o.Modify(it.attrs.words...)
	if o.Doc == nil && (r.plain || it.attrs.plain) {
		it.attrs.directives = append(it.attrs.directives, model.Directive{Verb: "let", Object: finding.Undocumented, Reason: "allow(missing_docs)", Span: name})
	}
	if own.at < 0 && r.space != "" || len(r.when)+len(r.within) > 0 || it.attrs.advice != nil || len(it.attrs.directives) > 0 || own.of {
		if o.Extra == nil {
			o.Extra = &model.Extra{}
		}
		o.Extra.Conditions = append([]string(nil), r.when...)
		o.Extra.Within, o.Extra.Made = slices.Clone(r.within), r.opened
		o.Extra.Advice = it.attrs.advice
		o.Extra.Directives = it.attrs.directives
		o.Extra.Aside, o.Extra.Section = own.of, own.asks
		if own.at < 0 {
			o.Extra.In = r.space
		}
	}
	r.Facts.Occurrences = append(r.Facts.Occurrences, o)
	return int32(len(r.Facts.Occurrences) - 1)
}
