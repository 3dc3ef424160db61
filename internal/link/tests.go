package link

import (
	"cmp"
	"slices"
	"strings"

	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/source"
)

// This file finds where texts that are no reference speak of declarations: the tests
// that name them, and the pages of the maintainer.

// NamedInTest is a place of a test source that names a declaration.
type NamedInTest struct {
	File *model.Facts
	Line int32
	Test string // the function that it stands in, with the class around it; "" for none
}

// NamedInTests are the tests that name a declaration, each once, in the order of
// files; at most 50.
func (x *Index) NamedInTests(d *model.Declaration) []NamedInTest { return x.tested()[d] }

// mostTests is how many tests are remembered of a declaration.
const mostTests = 50

func (x *Index) findTests() map[*model.Declaration][]NamedInTest {
	jobs := x.filesOf(func(lib *model.Contents) []*model.Module { return lib.Tests })
	type named struct {
		of *model.Declaration
		in NamedInTest
	}
	found := make([][]named, len(jobs))
	x.parallel(len(jobs), func(i int) {
		f := jobs[i].file
		uses := x.resolveUses(jobs[i].module, f, allUses)
		if len(uses.Targets) == 0 {
			return
		}
		tests := testsOf(f)
		for span, n := range uses.All() {
			if d := uses.Targets[n].Declaration; d != nil && d.Module.Role == model.RoleCode && x.InReach(d) && !d.Blank() {
				in := NamedInTest{File: f, Line: int32(f.Position(span.Start).Line), Test: testAt(tests, span.Start)}
				found[i] = append(found[i], named{d, in})
			}
		}
	})
	out := map[*model.Declaration][]NamedInTest{}
	for _, list := range found {
		for _, n := range list {
			known := out[n.of]
			if last := len(known) - 1; last >= 0 && known[last].File == n.in.File && known[last].Test == "" {
				known = known[:last] // an import says less than the test that needs it
			}
			if len(known) < mostTests && !sameTest(known, n.in) {
				out[n.of] = append(known, n.in)
			}
		}
	}
	return out
}

// sameTest reports whether a test is the last of a list: uses come in the order of files and lines.
func sameTest(list []NamedInTest, in NamedInTest) bool {
	if len(list) == 0 {
		return false
	}
	last := list[len(list)-1]
	return last.File == in.File && last.Test == in.Test
}

// testSpan is a callable of a test source, from its name to the end of its body.
type testSpan struct {
	name string
	source.Span
}

// testsOf are the callables of a file that stand in no other, in order.
func testsOf(f *model.Facts) []testSpan {
	var out []testSpan
	bodies := f.Inside.Bodies
	for i := range f.Occurrences {
		o := &f.Occurrences[i]
		if o.Callable == nil || len(out) > 0 && out[len(out)-1].Contains(o.NameSpan.Start) {
			continue
		}
		t := testSpan{strings.TrimPrefix(o.Scope+"."+o.Name, "."), source.Span{Start: o.NameSpan.Start, End: o.Span.End}}
		for len(bodies) > 0 && bodies[0].Start < o.NameSpan.End {
			bodies = bodies[1:]
		}
		if len(bodies) > 0 && bodies[0].Start <= o.Span.End+longestHead {
			t.End = max(t.End, bodies[0].End)
		}
		out = append(out, t)
	}
	return out
}

// longestHead is how far behind a signature its body begins at most.
const longestHead = 8

// testAt is the name of the callable that an offset stands in, or "".
func testAt(tests []testSpan, offset int32) string {
	i, _ := slices.BinarySearchFunc(tests, offset, func(t testSpan, offset int32) int { return cmp.Compare(t.End, offset+1) })
	if i == len(tests) || !tests[i].Contains(offset) {
		return ""
	}
	return tests[i].name
}

// MentionedIn are the guides that name a declaration in a reference
// or in code, in order.
func (x *Index) MentionedIn(d *model.Declaration) []*Guide { return x.mentioned()[d] }

func (x *Index) findMentions() map[*model.Declaration][]*Guide {
	out := map[*model.Declaration][]*Guide{}
	for _, g := range x.Guides() {
		note := func(r Result) {
			if d := r.Target.Declaration; r.Outcome == Found && d != nil && !slices.Contains(out[d], g) {
				out[d] = append(out[d], g)
			}
		}
		x.eachInserted(g.Nodes, func(n *prose.Node) {
			switch {
			case n.Kind == prose.Reference:
				note(x.Resolve(Scope{}, n.Target, Explicit))
			case n.Kind == prose.CodeBlock && prose.MayBeExcerpt(n.Info):
				if fence, _ := prose.ReadFence(n.Info); fence.Values[prose.ExcerptKey] != "" {
					note(x.Resolve(Scope{}, fence.Values[prose.ExcerptKey], Explicit))
				}
			case n.Kind == prose.Code && ReadsLikeName(n.Text):
				note(x.Resolve(Scope{}, n.Text, Loose))
			}
		}, 0)
	}
	return out
}

// EachInserted visits the nodes of a text, and of the fragments in it, in the order in which
// they are read.
func (x *Index) EachInserted(nodes []prose.Node, visit func(*prose.Node)) {
	x.eachInserted(nodes, visit, 0)
}

// eachInserted visits the nodes of a text and of the fragments in it.
func (x *Index) eachInserted(nodes []prose.Node, visit func(*prose.Node), depth int) {
	prose.Walk(nodes, func(n *prose.Node) bool {
		if insert := prose.Alone(n, prose.Insert); insert != nil {
			if f := x.Fragment(insert.Target); f != nil && depth < deepest {
				x.eachInserted(f.Nodes, visit, depth+1)
			}
			return false
		}
		visit(n)
		return true
	})
}

// ReadsLikeName reports whether a piece of code in a text could name a declaration:
// dotted identifiers, maybe with parentheses behind them.
func ReadsLikeName(s string) bool {
	s = strings.TrimSuffix(s, "()")
	if len(s) < 2 || len(s) > 200 {
		return false
	}
	for _, r := range s {
		if r <= ' ' || strings.ContainsRune("()[]{}<>=+-*,;\"'`$%&|!?@^~\\", r) {
			return false
		}
	}
	return true
}
