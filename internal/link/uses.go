package link

import (
	"iter"
	"slices"
	"strings"
	"sync"

	"codrel/internal/model"
	"codrel/internal/source"
)

// This file resolves the names that code uses: the same question as that for
// types in signatures, asked a million times over. Names of one file that are
// written alike mean the same, so each is looked up once.

// FileUses is what the code of one file names.
type FileUses struct {
	Targets []Target // what is named, each once
	file    *model.Facts
	refs    []int32 // for each use: see [usesReader.to]; or -1
}

// All yields the places that name something, in order, with the index of what
// they name in Targets.
func (u *FileUses) All() iter.Seq2[source.Span, int] {
	return func(yield func(source.Span, int) bool) {
		if len(u.refs) == 0 {
			return
		}
		i := 0
		for use := range u.file.Inside.Uses.All() {
			ref := u.refs[i]
			i++
			if ref < 0 {
				continue
			}
			if names := int(ref & mostNames); names != 0 {
				use.Span.End = use.Span.Start + int32(len(firstNames(use.Span.In(u.file.Text), names)))
			}
			if !yield(use.Span, int(ref>>namesBits)) {
				return
			}
		}
	}
}

// Uses tells what the code of a file names in the project, or in another project
// whose addresses are known. There is nothing where the file's facts do not
// reach inside.
func (x *Index) Uses(m *model.Module, f *model.Facts) *FileUses {
	if known := x.used.Load(); known != nil {
		return (*known)[f]
	}
	return x.resolveUses(m, f, allUses)
}

// usesReader resolves the uses of one file.
type usesReader struct {
	x         *Index
	module    *model.Module
	own       *model.Module // of the file itself
	file      *model.Facts
	out       *FileUses
	index     map[Target]int32 // of targets in out
	bare      map[string]int32 // references by name
	qualified map[string]int32
	members   map[memberOf]int32
	parts     []part                       // of a file that declares things of several modules
	homes     map[int32]*model.Declaration // the types that the file declares, by where their names begin, once they were asked for
	inner     map[nameWithin]int32
	types     []*model.Occurrence // those that the file declares and that are to come, in order
	in        []*model.Occurrence // those around the use at hand, the innermost last
}

// nameWithin is a name that stands in the body of a type.
type nameWithin struct {
	home *model.Declaration
	name string
}

// part is where a file declares something of another module than its own.
type part struct {
	span   source.Span
	module *model.Module
}

// partsOf finds the parts of a file that are of other modules than its own.
func partsOf(own *model.Module, f *model.Facts) []part {
	var out []part
	for _, m := range own.Others {
		if !slices.Contains(m.More, f) {
			continue
		}
		for _, in := range f.Modules {
			if !in.Whole.Empty() && (m.Written() == in.Name || own.Library.Habits != nil && m.Written() == own.Written()+own.Library.Habits.PathMark+in.Name) {
				out = append(out, part{in.Whole, m})
			}
		}
		for i := range f.Occurrences {
			if o := &f.Occurrences[i]; o.Parent < 0 && m.Of(f, o) != nil && own.Of(f, o) == nil {
				out = append(out, part{o.Span, m})
			}
		}
	}
	return out
}

// enter turns to the module that a place of the file is of.
func (r *usesReader) enter(own *model.Module, at int32) {
	m, least := own, int32(-1)
	for _, p := range r.parts { // the innermost counts
		if size := int32(p.span.Len()); p.span.Contains(at) && (least < 0 || size <= least) {
			m, least = p.module, size
		}
	}
	if m != r.module { // what names mean changes with the module
		r.module = m
		clear(r.bare)
		clear(r.qualified)
		clear(r.members)
	}
}

type memberOf struct{ owner, name string }

var usesReaders = sync.Pool{New: func() any {
	return &usesReader{index: map[Target]int32{}, bare: map[string]int32{}, qualified: map[string]int32{}, members: map[memberOf]int32{}, inner: map[nameWithin]int32{}}
}}

func allUses(model.Use) bool { return true }

// resolveUses resolves those uses of a file that are wanted.
func (x *Index) resolveUses(m *model.Module, f *model.Facts, wanted func(model.Use) bool) *FileUses {
	out := &FileUses{file: f}
	if f.Inside == nil || f.Inside.Uses.Len() == 0 {
		return out
	}
	r := usesReaders.Get().(*usesReader)
	defer usesReaders.Put(r)
	r.x, r.module, r.own, r.file, r.out = x, m, m, f, out
	clear(r.index)
	clear(r.bare)
	clear(r.qualified)
	clear(r.members)
	clear(r.inner)
	r.homes, r.types, r.in = nil, r.types[:0], r.in[:0]
	r.findTypes()
	out.refs = make([]int32, 0, f.Inside.Uses.Len())
	r.parts = partsOf(m, f)
	for use := range f.Inside.Uses.All() {
		if !wanted(use) {
			out.refs = append(out.refs, noReference)
			continue
		}
		if len(r.parts) > 0 {
			r.enter(m, use.Span.Start)
		}
		out.refs = append(out.refs, r.reference(use))
	}
	return out
}

const noReference = int32(-1)

func (r *usesReader) reference(use model.Use) int32 {
	text := use.Span.In(r.file.Text)
	switch use.Form {
	case model.UseBare:
		if home := r.outOf(use.Span.Start); home != nil { // its members are nearer than what else there is
			first, rest, _ := strings.Cut(text, "::")
			ref := r.within(home, first)
			if d := r.declaration(ref); d != nil && rest != "" {
				for name := range strings.SplitSeq(rest, "::") {
					if d != nil {
						d = r.x.memberOrConstant(d, name)
					}
				}
				ref = r.to(Target{Declaration: d})
			} else if ref < 0 {
				ref = r.to(Target{Declaration: r.x.memberOrConstant(home, text)})
			}
			if ref >= 0 {
				return r.ofArity(ref, use.Span.End)
			}
		}
		return r.ofArity(r.name(text), use.Span.End)
	case model.UseQualified:
		if ref := r.chainWithin(use.Span.Start, text); ref >= 0 {
			return ref
		}
		return r.chain(text)
	case model.UseMember:
		if home := r.home(use.Type.Start); home != nil {
			return r.ofArity(r.within(home, text), use.Span.End)
		}
		if ref := r.member(use.Type.In(r.file.Text), text); ref >= 0 {
			return r.ofArity(ref, use.Span.End)
		}
		if home := r.around(use.Span.Start); home != nil {
			if d := r.declaration(r.within(home, use.Type.In(r.file.Text))); d != nil && d.Kind().IsType() {
				return r.ofArity(r.to(Target{Declaration: r.x.member(d, text)}), use.Span.End)
			}
		}
		return noReference
	case model.UseKey:
		if home := r.home(use.Type.Start); home != nil {
			if ref := r.within(home, text); ref >= 0 {
				return r.ofArity(ref, use.Span.End)
			}
		}
		return r.ofArity(r.key(use.Type.In(r.file.Text), text), use.Span.End)
	}
	return noReference
}

// home is the type whose name the file declares at an offset, where its language lets what
// stands in it name its members; else nil.
func (r *usesReader) home(at int32) *model.Declaration {
	if h := r.module.Library.Habits; h == nil || !h.SeesInner {
		return nil
	}
	return r.homes[at]
}

// findTypes gathers the types that the file declares, where what stands in them may name
// their members.
func (r *usesReader) findTypes() {
	if h := r.module.Library.Habits; h == nil || !h.SeesInner {
		return
	}
	r.homes = map[int32]*model.Declaration{}
	for i := range r.file.Occurrences {
		if o := &r.file.Occurrences[i]; o.Kind.IsType() {
			r.homes[o.NameSpan.Start] = r.module.OfAny(r.file, o)
			r.types = append(r.types, o)
		} else if o.Parent < 0 && o.Scope != "" && o.Implementation { // a member that is defined out of its type
			if d := r.module.OfAny(r.file, o); d != nil && d.Parent != nil {
				r.homes[o.NameSpan.Start] = d.Parent
				r.types = append(r.types, o)
			}
		}
	}
	slices.SortStableFunc(r.types, func(a, b *model.Occurrence) int { return int(a.Span.Start - b.Span.Start) })
}

// around is the type that an offset stands in, or nil. Offsets are asked for in order.
func (r *usesReader) around(at int32) *model.Declaration {
	for len(r.types) > 0 && r.types[0].Span.Start <= at {
		r.in = append(r.in, r.types[0])
		r.types = r.types[1:]
	}
	for n := len(r.in); n > 0 && r.in[n-1].Span.End <= at; n-- {
		r.in = r.in[:n-1]
	}
	if n := len(r.in); n > 0 {
		return r.homes[r.in[n-1].NameSpan.Start]
	}
	return nil
}

// outOf is the type whose member is defined around an offset, out of that type, or nil.
func (r *usesReader) outOf(at int32) *model.Declaration {
	home := r.around(at)
	if home == nil || r.in[len(r.in)-1].Kind.IsType() {
		return nil
	}
	return home
}

// chainWithin resolves "A.b.c" where the body that it stands in has a type for the first name.
func (r *usesReader) chainWithin(at int32, text string) int32 {
	home := r.around(at)
	dot, size := nextMark(text, 0)
	if dot < 0 {
		return noReference
	}
	first, rest := text[:dot], text[dot+size:]
	if out := r.outOf(at); out != nil {
		if ref := r.chainOf(out, first, rest); ref >= 0 {
			return ref
		}
	}
	if home == nil || r.name(first) >= 0 {
		return noReference
	}
	ref := r.within(home, first)
	d := r.declaration(ref)
	if d == nil || !d.Kind().IsType() {
		return noReference
	}
	names := int32(1)
	for name := range namesIn(rest) {
		m := r.x.member(d, name)
		if m == nil {
			if names > mostNames {
				return noReference
			}
			return r.to(Target{Declaration: d}) | names
		}
		d = m
		names++
	}
	return r.to(Target{Declaration: d})
}

// chainOf resolves a chain in the definition of a member out of its type, of which the first name
// is the object or one of its members.
func (r *usesReader) chainOf(home *model.Declaration, first, rest string) int32 {
	d, names := home, int32(1)
	self := slices.Contains(r.module.Library.Habits.Self, first)
	if !self {
		if d = r.declaration(r.within(home, first)); d == nil {
			return noReference
		}
	}
	for name := range namesIn(rest) {
		m := r.x.memberOrConstant(d, name)
		if m == nil {
			if names > mostNames || self && names == 1 {
				return noReference
			}
			return r.to(Target{Declaration: d}) | names
		}
		d = m
		names++
	}
	return r.to(Target{Declaration: d})
}

// within is the member that a name in the body of a type means: its own, or one of a type
// around it.
func (r *usesReader) within(home *model.Declaration, name string) int32 {
	key := nameWithin{home, name}
	ref, ok := r.inner[key]
	if ok {
		return ref
	}
	ref = noReference
	for d := home; d != nil && ref < 0; d = d.Parent {
		if m := r.x.member(d, name); m != nil && !makes(m) {
			ref = r.to(Target{Declaration: m})
		}
	}
	r.inner[key] = ref
	return ref
}

// ofArity is the reference to what of the same name fits what stands at an offset: what is
// called where a list of arguments does, and, where types are told apart by it, the type
// that takes as many type arguments.
func (r *usesReader) ofArity(ref, at int32) int32 {
	d := r.declaration(ref)
	h := r.module.Library.Habits
	if d == nil || h == nil {
		return ref
	}
	if other := called(d, int(at) < len(r.file.Text) && r.file.Text[at] == '('); h.SeesInner && other != d {
		return r.to(Target{Declaration: other})
	}
	if !h.ByArity || !d.Kind().IsType() {
		return ref
	}
	if other := withArity(d, argumentsAt(r.file.Text, int(at))); other != d {
		return r.to(Target{Declaration: other})
	}
	return ref
}

// argumentsAt is how many type arguments stand at an offset.
func argumentsAt(text string, at int) int32 {
	if at >= len(text) || text[at] != '<' {
		return 0
	}
	n, depth := int32(1), 0
	for i := at; i < min(len(text), at+longestArguments); i++ {
		switch text[i] {
		case '<', '(', '[':
			depth++
		case '>', ')', ']':
			if depth--; depth == 0 {
				return n
			}
		case ',':
			if depth == 1 {
				n++
			}
		case ';', '{', '}', '=', '&':
			return 0
		}
	}
	return 0
}

// longestArguments is how many bytes of type arguments are looked through.
const longestArguments = 500

// A reference of a use holds, beside the target's index, how many of the names
// that are written mean it: 0 for all of them.
const (
	namesBits = 3
	mostNames = 1<<namesBits - 1
)

// firstNames is the beginning of a chain of names.
func firstNames(chain string, names int) string {
	for at, size := nextMark(chain, 0); at >= 0; at, size = nextMark(chain, at+size) {
		if names--; names == 0 {
			return chain[:at]
		}
	}
	return chain
}

// nextMark is where, from an offset on, the next mark stands between the names of a chain, and how
// long that is; -1 where none does.
func nextMark(chain string, from int) (at, size int) {
	for i := from; i < len(chain); i++ {
		switch {
		case chain[i] == '.':
			return i, 1
		case strings.HasPrefix(chain[i:], "->") || strings.HasPrefix(chain[i:], "::"):
			return i, 2
		}
	}
	return -1, 0
}

// marksIn is how many marks stand between the names of a chain, and where the last one begins and
// ends.
func marksIn(chain string) (n, from, to int) {
	for at, size := nextMark(chain, 0); at >= 0; at, size = nextMark(chain, at+size) {
		n, from, to = n+1, at, at+size
	}
	return n, from, to
}

// to is the reference to a target by all names that are written.
func (r *usesReader) to(t Target) int32 {
	if t.None() {
		return noReference
	}
	i, ok := r.index[t]
	if !ok {
		i = int32(len(r.out.Targets))
		r.out.Targets = append(r.out.Targets, t)
		r.index[t] = i
	}
	return i << namesBits
}

// declaration is what a reference names, or nil.
func (r *usesReader) declaration(ref int32) *model.Declaration {
	if ref < 0 || ref&mostNames != 0 {
		return nil
	}
	return r.out.Targets[ref>>namesBits].Declaration
}

func (r *usesReader) name(text string) int32 {
	ref, ok := r.bare[text]
	if !ok {
		ref = r.to(r.lookUp(r.module, text))
		if ref < 0 && r.own != r.module && !r.whole() {
			ref = r.to(r.lookUp(r.own, text)) // a definition of what another module declares sees its own file
		}
		r.bare[text] = ref
	}
	return ref
}

func (r *usesReader) lookUp(m *model.Module, text string) Target {
	if hasMarks(m.Library.Habits, text) {
		return r.x.written(m, r.file, text)
	}
	if t := r.x.bareTarget(m, r.file, text); !t.None() || !r.whole() || !isUpper(text) {
		return t
	}
	return Target{Module: r.x.importable(m.Library, text)}
}

// whole reports whether modules are named whole, and what is declared in one is bare there alone.
func (r *usesReader) whole() bool {
	h := r.own.Library.Habits
	return h != nil && h.Whole
}

// chain resolves "a.B.c": a name of an imported module, a member of a type, or
// else as many of the first names as mean something, as of a variable whose type
// is not written here.
func (r *usesReader) chain(text string) int32 {
	ref, ok := r.qualified[text]
	if ok {
		return ref
	}
	marks, from, to := marksIn(text)
	if marks == 0 {
		return r.name(text)
	}
	before := text[:from]
	outer := noReference
	if marks == 1 {
		outer = r.name(before)
	} else {
		outer = r.chain(before)
	}
	ref = noReference
	switch d := r.declaration(outer); {
	case outer >= 0 && outer&mostNames != 0: // what is before means nothing whole
	case d == nil:
		ref = r.to(r.x.Type(r.module, r.file, text))
	case d.Kind().IsType():
		ref = r.to(Target{Declaration: r.x.member(d, text[to:])})
	}
	if names := int32(marks); ref < 0 && outer >= 0 {
		ref = outer
		if outer&mostNames == 0 && names <= mostNames {
			ref |= names
		} else if outer&mostNames == 0 {
			ref = noReference
		}
	}
	r.qualified[text] = ref
	return ref
}

func (r *usesReader) member(owner, name string) int32 {
	key := memberOf{owner, name}
	ref, ok := r.members[key]
	if !ok {
		ref = noReference
		if d := r.owner(owner); d != nil {
			ref = r.to(Target{Declaration: r.x.member(d, name)})
		}
		r.members[key] = ref
	}
	return ref
}

func (r *usesReader) owner(text string) *model.Declaration {
	if at, _ := nextMark(text, 0); at >= 0 {
		return r.declaration(r.chain(text))
	}
	return r.declaration(r.name(text))
}

// key resolves a key of a literal: a member of its type, else a bare name where
// the type has no members that a key could name.
func (r *usesReader) key(owner, name string) int32 {
	if ref := r.member(owner, name); ref >= 0 {
		return ref
	}
	if h := r.module.Library.Habits; h == nil || !h.SeesInner {
		if d := r.owner(owner); d == nil || d.Kind() == model.KindStruct {
			return noReference
		}
	}
	return r.name(name)
}
