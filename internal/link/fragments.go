package link

import (
	"slices"

	"codrel/internal/comment"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/source"
)

// Fragment is a piece of text that stands in several places, taken apart.
type Fragment struct {
	Name  string
	Page  *model.Page
	Nodes []prose.Node
	Plain []source.Span // as those of a [Guide]
}

// Fragments are those of the project by name.
func (x *Index) Fragments() map[string]*Fragment { return x.fragments() }

// Fragment is the one with a name, or nil.
func (x *Index) Fragment(name string) *Fragment { return x.fragments()[name] }

func (x *Index) readFragments() map[string]*Fragment {
	out := map[string]*Fragment{}
	for _, f := range x.Project.Fragments {
		nodes, plain := comment.ReadPage(f.Text)
		out[f.Name] = &Fragment{f.Name, f.Page, nodes, plain}
	}
	return out
}

// Opening is the text that a text begins with, and where its names stand: the
// fragment's where it begins with one.
func (x *Index) Opening(nodes []prose.Node, from Scope) ([]prose.Node, Scope) {
	for range deepest {
		if len(nodes) == 0 {
			break
		}
		insert := prose.Alone(&nodes[0], prose.Insert)
		if insert == nil {
			break
		}
		f := x.Fragment(insert.Target)
		if f == nil {
			return nil, Scope{}
		}
		nodes, from = f.Nodes, Scope{}
	}
	return nodes, from
}

// InsertedIn are the names of all fragments that stand in a text, and of those in these.
func (x *Index) InsertedIn(nodes []prose.Node) []string {
	out := Inserted(nodes)
	for i := 0; i < len(out) && i < deepest; i++ {
		if f := x.Fragment(out[i]); f != nil {
			for _, name := range Inserted(f.Nodes) {
				if !slices.Contains(out, name) {
					out = append(out, name)
				}
			}
		}
	}
	return out
}

// Inserted are the names of the fragments that a text inserts, in order: each that
// stands alone in its paragraph.
func Inserted(nodes []prose.Node) []string {
	var out []string
	prose.Walk(nodes, func(n *prose.Node) bool {
		if insert := prose.Alone(n, prose.Insert); insert != nil {
			out = append(out, insert.Target)
		}
		return true
	})
	return out
}

// Circle is the way from a fragment back to itself, its name first and last, or nil.
func (x *Index) Circle(name string) []string {
	seen := map[string]bool{}
	var follow func(at string, way []string) []string
	follow = func(at string, way []string) []string {
		f := x.Fragment(at)
		if f == nil || seen[at] {
			return nil
		}
		seen[at] = true
		for _, next := range Inserted(f.Nodes) {
			if next == name {
				return append(way, at, next)
			}
			if found := follow(next, append(way, at)); found != nil {
				return found
			}
		}
		return nil
	}
	return follow(name, nil)
}
