package link

import (
	"cmp"
	"slices"

	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/source"
)

// Edge is one module's use of another.
type Edge struct {
	To    *model.Module
	File  *model.Facts // with the first import of it
	Span  source.Span  // of that import
	Apart bool         // nothing is loaded with the module: see [model.Import]
}

// Imports are the modules of the project that a module takes names from, by path,
// each once. Tests count for nothing.
func (x *Index) Imports(m *model.Module) []Edge { return x.graph().out[m] }

// ImportedBy are the modules that take names from a module, by path.
func (x *Index) ImportedBy(m *model.Module) []*model.Module { return x.graph().in[m] }

// ImportsThrough is what a module imports, itself or through others, in the order of paths.
func (x *Index) ImportsThrough(m *model.Module) []*model.Module {
	return through(m, func(m *model.Module, visit func(*model.Module)) {
		for _, e := range x.graph().out[m] {
			visit(e.To)
		}
	})
}

// ImportedThrough is what imports a module, itself or through others, in the order of paths.
func (x *Index) ImportedThrough(m *model.Module) []*model.Module {
	return through(m, func(m *model.Module, visit func(*model.Module)) {
		for _, by := range x.graph().in[m] {
			visit(by)
		}
	})
}

// mostThrough is how many modules are looked for behind one another.
const mostThrough = 2000

// through are the modules that others lead to, from one on, without that one.
func through(from *model.Module, each func(*model.Module, func(*model.Module))) (out []*model.Module) {
	seen := map[*model.Module]bool{from: true}
	for queue := []*model.Module{from}; len(queue) > 0 && len(out) < mostThrough; queue = queue[1:] {
		each(queue[0], func(m *model.Module) {
			if !seen[m] {
				seen[m] = true
				out, queue = append(out, m), append(queue, m)
			}
		})
	}
	slices.SortFunc(out, byPath)
	return out
}

// ImportedOutside are the paths, as written, of what the first file of a module imports that is
// not here, in order and each once.
func (x *Index) ImportedOutside(m *model.Module) (out []string) {
	if len(m.Files) == 0 {
		return nil
	}
	f := m.Files[0]
	for n, i := range x.imports[f] {
		if n < len(f.Imports) && i.module == nil && !slices.Contains(out, f.Imports[n].Path) {
			out = append(out, f.Imports[n].Path)
		}
	}
	return out
}

// Cycles are the circles in which modules take names from one another: of each
// tangle a shortest one through the first of its modules, and how many modules the
// tangle has. What is not loaded with a module closes no circle.
func (x *Index) Cycles() []Cycle { return x.graph().cycles }

// Cycle is a circle of modules, each of which imports the next, and the last the first.
type Cycle struct {
	Modules []*model.Module
	Edge    Edge // from the first to the second
	Tangled int  // modules that are in circles with these
}

type moduleGraph struct {
	out    map[*model.Module][]Edge
	in     map[*model.Module][]*model.Module
	cycles []Cycle
}

func (x *Index) makeGraph() *moduleGraph {
	g := &moduleGraph{out: map[*model.Module][]Edge{}, in: map[*model.Module][]*model.Module{}}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			g.out[m] = x.edges(m)
			for _, e := range g.out[m] {
				g.in[e.To] = append(g.in[e.To], m)
			}
		}
	}
	for _, list := range g.in {
		slices.SortFunc(list, byPath)
	}
	for _, lib := range x.Project.Libraries {
		for _, tangle := range g.tangles(lib.Modules) {
			g.cycles = append(g.cycles, g.shortest(tangle))
		}
	}
	return g
}

func byPath(a, b *model.Module) int {
	return cmp.Or(cmp.Compare(a.Path, b.Path), cmp.Compare(a.Library.Name, b.Library.Name))
}

// edges finds what a module imports. A name that is a module itself is what is
// imported, not the package that it is taken from.
func (x *Index) edges(m *model.Module) []Edge {
	found := map[*model.Module]int{}
	var out []Edge
	importer, _ := x.options.FrontEnds[m.Library.Language].(lang.Importer)
	eraser, _ := x.options.FrontEnds[m.Library.Language].(lang.TypeErasure)
	files := m.AllFiles()
	if h := m.Library.Habits; h != nil && h.ByFile && len(m.Files) > 0 {
		files = m.Files
	}
	for _, f := range files {
		var values map[string]bool
		if eraser != nil && len(x.imports[f]) > 0 {
			values = eraser.ValueNames(f)
		}
		for n, i := range x.imports[f] {
			to := i.module
			if i.member != "" && i.member != "*" && importer != nil {
				if below := x.importable(m.Library, importer.Below(i.path, i.member)); below != nil {
					to = below
				}
			}
			if to == nil || to == m || to.Library.Elsewhere != nil || to.Role != model.RoleCode {
				continue
			}
			if i.member != "" && i.member != "*" && to == i.module && x.isPackage(to) && !x.hasName(to, i.member) {
				continue // what it takes is no name of the package: a module of its own that is not read
			}
			if n >= len(f.Imports) {
				break // what all files have is no need of this one
			}
			written := f.Imports[n]
			written.NotLoaded = written.NotLoaded || f.Stub || declaresTypesAlone(to) || declaresTypesAlone(m) || x.takesType(m, i) || values != nil && i.name != "" && !i.public && !values[i.name]
			at, known := found[to]
			if !known {
				found[to] = len(out)
				out = append(out, Edge{To: to, File: f, Span: written.Span, Apart: written.NotLoaded})
			} else if out[at].Apart && !written.NotLoaded {
				out[at] = Edge{To: to, File: f, Span: written.Span}
			}
		}
	}
	slices.SortFunc(out, func(a, b Edge) int { return byPath(a.To, b.To) })
	return out
}

// hasName reports whether a module declares a name, or imports it, or may have it from
// everything that another gives.
func (x *Index) hasName(m *model.Module, name string) bool {
	if m.Lookup(name) != nil {
		return true
	}
	for _, f := range m.Files {
		for _, i := range x.imports[f] {
			if i.name == name || i.member == "*" {
				return true
			}
		}
	}
	return false
}

// declaresTypesAlone reports whether a module declares nothing that is there when the program
// runs: what imports it, and what it imports, is needed by no one then.
func declaresTypesAlone(m *model.Module) bool {
	any := false
	for d := range m.Declarations {
		if d.Parent != nil {
			continue
		}
		any = true
		if k := d.Kind(); !isErased(k) && k != model.KindModule { // what a module adds to others is types as well
			return false
		}
	}
	return any
}

// takesType reports whether an import takes a type that is not there when the program runs.
func (x *Index) takesType(m *model.Module, i imported) bool {
	if i.member == "" || i.member == "*" {
		return false
	}
	d := x.taken(m.Library, i, &trail{}).Declaration
	return d != nil && !slices.ContainsFunc(d.Occurrences, func(o model.At) bool { return !isErased(o.Kind) })
}

func isErased(k model.Kind) bool { return k == model.KindInterface || k == model.KindType }

// tangles are the sets of modules that can all be reached from one another
// (Tarjan, "Depth-First Search and Linear Graph Algorithms", 1972), each by path.
func (g *moduleGraph) tangles(modules []*model.Module) [][]*model.Module {
	type state struct{ index, low int }
	states := map[*model.Module]*state{}
	var stack []*model.Module
	onStack := map[*model.Module]bool{}
	var out [][]*model.Module
	type frame struct {
		m    *model.Module
		next int
	}
	for _, root := range modules {
		if states[root] != nil {
			continue
		}
		visit := func(m *model.Module) frame {
			states[m] = &state{len(states), len(states)}
			stack = append(stack, m)
			onStack[m] = true
			return frame{m: m}
		}
		for frames := []frame{visit(root)}; len(frames) > 0; {
			top := &frames[len(frames)-1]
			if edges := g.out[top.m]; top.next < len(edges) {
				e := edges[top.next]
				top.next++
				switch {
				case e.Apart:
				case states[e.To] == nil:
					frames = append(frames, visit(e.To))
				case onStack[e.To]:
					states[top.m].low = min(states[top.m].low, states[e.To].index)
				}
				continue
			}
			m := top.m
			frames = frames[:len(frames)-1]
			if len(frames) > 0 {
				outer := states[frames[len(frames)-1].m]
				outer.low = min(outer.low, states[m].low)
			}
			if states[m].low != states[m].index {
				continue
			}
			at := slices.Index(stack, m)
			if set := slices.Clone(stack[at:]); len(set) > 1 {
				slices.SortFunc(set, byPath)
				out = append(out, set)
			}
			for _, done := range stack[at:] {
				onStack[done] = false
			}
			stack = stack[:at]
		}
	}
	slices.SortFunc(out, func(a, b []*model.Module) int { return byPath(a[0], b[0]) })
	return out
}

// shortest is a shortest circle through the first module of a tangle.
func (g *moduleGraph) shortest(tangle []*model.Module) Cycle {
	first := tangle[0]
	from := map[*model.Module]*model.Module{}
	for queue := []*model.Module{first}; len(queue) > 0; queue = queue[1:] {
		m := queue[0]
		for _, e := range g.out[m] {
			if e.Apart {
				continue
			}
			if e.To == first {
				c := Cycle{Tangled: len(tangle)}
				for ; m != nil; m = from[m] {
					c.Modules = append(c.Modules, m)
				}
				slices.Reverse(c.Modules)
				for _, e := range g.out[first] {
					if e.To == c.Modules[1%len(c.Modules)] {
						c.Edge = e
					}
				}
				return c
			}
			if _, seen := from[e.To]; !seen && slices.Contains(tangle, e.To) {
				from[e.To] = m
				queue = append(queue, e.To)
			}
		}
	}
	return Cycle{Modules: tangle[:1], Tangled: len(tangle)}
}
