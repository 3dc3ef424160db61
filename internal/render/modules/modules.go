// Package modules draws which modules import which: as a tree of text, in the DOT
// language, and in layers as SVG.
//
// It knows the linked project and nothing of pages.
package modules

import (
	"bufio"
	"fmt"
	"io"
	"slices"
	"strings"

	"codrel/internal/link"
	"codrel/internal/model"
)

// Graph is the part of a project's modules that is drawn.
type Graph struct {
	Modules []*model.Module
	out     map[*model.Module][]*model.Module
	in      map[*model.Module]int
	apart   map[[2]*model.Module]bool // imports that load nothing
	cycles  []link.Cycle
}

// New makes the graph of the modules that keep lets through. Where around is not
// "", only that module, what it imports and what imports it are in it; with through, also
// what does so through others. Of languages whose modules are files it has the files alone.
func New(x *link.Index, keep func(*model.Module) bool, around string, through bool) *Graph {
	wanted := func(m *model.Module) bool { return around == "" || near(x, m, around) }
	if around != "" && through {
		reached := reachedFrom(x, around)
		wanted = func(m *model.Module) bool { return reached[m] }
	}
	g := &Graph{out: map[*model.Module][]*model.Module{}, in: map[*model.Module]int{}, apart: map[[2]*model.Module]bool{}}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			if keep(m) && !isNamespace(m) && wanted(m) {
				g.Modules = append(g.Modules, m)
			}
		}
	}
	drawn := map[*model.Module]bool{}
	for _, m := range g.Modules {
		drawn[m] = true
	}
	for _, m := range g.Modules {
		for _, e := range x.Imports(m) {
			if drawn[e.To] && (around == "" || through || m.Path == around || e.To.Path == around) {
				g.out[m] = append(g.out[m], e.To)
				g.in[e.To]++
				g.apart[[2]*model.Module{m, e.To}] = e.Apart
			}
		}
	}
	for _, c := range x.Cycles() {
		if !slices.ContainsFunc(c.Modules, func(m *model.Module) bool { return !drawn[m] }) {
			g.cycles = append(g.cycles, c)
		}
	}
	return g
}

// isNamespace reports whether a module is no file, in a language whose modules are files.
func isNamespace(m *model.Module) bool { return m.ByFile() && len(m.Files) == 0 }

// reachedFrom are the modules of a path, what they import and what imports them, also through
// others.
func reachedFrom(x *link.Index, path string) map[*model.Module]bool {
	reached := map[*model.Module]bool{}
	for _, lib := range x.Project.Libraries {
		for _, m := range lib.Modules {
			if m.Path != path {
				continue
			}
			reached[m] = true
			for _, list := range [][]*model.Module{x.ImportsThrough(m), x.ImportedThrough(m)} {
				for _, other := range list {
					reached[other] = true
				}
			}
		}
	}
	return reached
}

// near reports whether a module is another, or next to it.
func near(x *link.Index, m *model.Module, path string) bool {
	return m.Path == path || slices.ContainsFunc(x.Imports(m), func(e link.Edge) bool { return e.To.Path == path }) ||
		slices.ContainsFunc(x.ImportedBy(m), func(by *model.Module) bool { return by.Path == path })
}

// roots are the modules that a tree begins with: those that nothing imports, and
// the first of each circle that nothing else leads to.
func (g *Graph) roots() []*model.Module {
	var roots []*model.Module
	reached := map[*model.Module]bool{}
	reach := func(m *model.Module) {
		for stack := []*model.Module{m}; len(stack) > 0; {
			m := stack[len(stack)-1]
			stack = stack[:len(stack)-1]
			if !reached[m] {
				reached[m] = true
				stack = append(stack, g.out[m]...)
			}
		}
	}
	for _, m := range g.Modules {
		if g.in[m] == 0 {
			roots = append(roots, m)
			reach(m)
		}
	}
	for _, m := range g.Modules {
		if !reached[m] {
			roots = append(roots, m)
			reach(m)
		}
	}
	index := map[*model.Module]int{}
	for i, m := range g.Modules {
		index[m] = i
	}
	slices.SortFunc(roots, func(a, b *model.Module) int { return index[a] - index[b] })
	return roots
}

// Text prints the graph as a tree.
func Text(w io.Writer, g *Graph) error {
	out := bufio.NewWriter(w)
	shown := map[*model.Module]bool{}
	var branch func(m *model.Module, indent string, depth int)
	branch = func(m *model.Module, indent string, depth int) {
		list := g.out[m]
		if shown[m] && len(list) > 0 {
			fmt.Fprint(out, "  (above)\n")
			return
		}
		shown[m] = true
		fmt.Fprintln(out)
		for i, to := range list {
			mark, next := "├── ", "│   "
			if i == len(list)-1 {
				mark, next = "└── ", "    "
			}
			fmt.Fprint(out, indent, mark, to.Path)
			if depth > 200 {
				fmt.Fprint(out, "  …\n")
				continue
			}
			branch(to, indent+next, depth+1)
		}
	}
	for _, m := range g.roots() {
		fmt.Fprint(out, m.Path)
		branch(m, "", 0)
	}
	for _, c := range g.cycles {
		fmt.Fprintf(out, "circle: %s\n", circle(c))
	}
	return out.Flush()
}

// circle is the way round a circle.
func circle(c link.Cycle) string {
	var names []string
	for _, m := range append(slices.Clone(c.Modules), c.Modules[0]) {
		names = append(names, m.Path)
	}
	s := strings.Join(names, " → ")
	if more := c.Tangled - len(c.Modules); more > 0 {
		s += fmt.Sprintf(", tangled with %d more", more)
	}
	return s
}

// DOT prints the graph in the DOT language. Edges of a named circle are bold,
// those that load nothing are dotted.
func DOT(w io.Writer, g *Graph) error {
	out := bufio.NewWriter(w)
	fmt.Fprint(out, "digraph modules {\n  rankdir=TB;\n  node [shape=box, fontname=\"monospace\"];\n")
	round := g.round()
	for _, m := range g.Modules {
		fmt.Fprintf(out, "  %q [label=%q];\n", name(m), m.Path)
	}
	for _, m := range g.Modules {
		for _, to := range g.out[m] {
			style, edge := "", [2]*model.Module{m, to}
			switch {
			case round[edge]:
				style = " [style=bold]"
			case g.apart[edge]:
				style = " [style=dotted]"
			}
			fmt.Fprintf(out, "  %q -> %q%s;\n", name(m), name(to), style)
		}
	}
	fmt.Fprint(out, "}\n")
	return out.Flush()
}

// name tells a module from those of other libraries.
func name(m *model.Module) string { return m.Library.Name + "/" + m.Path }

// round are the edges of the circles.
func (g *Graph) round() map[[2]*model.Module]bool {
	out := map[[2]*model.Module]bool{}
	for _, c := range g.cycles {
		for i, m := range c.Modules {
			out[[2]*model.Module{m, c.Modules[(i+1)%len(c.Modules)]}] = true
		}
	}
	return out
}
