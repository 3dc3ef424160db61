package modules

import (
	"bufio"
	"cmp"
	"fmt"
	"html"
	"io"
	"slices"
	"unicode/utf8"

	"codrel/internal/model"
)

// This file draws modules in layers, each above what it imports (Sugiyama, Tagawa
// and Toda, "Methods for Visual Understanding of Hierarchical System Structures",
// 1981): circles are opened, layers are as low as they can be, and the order in
// them follows the neighbours' until it settles.

// Sizes of the drawing, in units of the SVG.
const (
	charWidth  = 7.3
	boxHeight  = 26.0
	boxPadding = 10.0
	gapAcross  = 18.0
	gapDown    = 46.0
	rowWidth   = 1500.0 // a layer wider than this goes on in a row below
	sweeps     = 12

	captionHeight = 30.0
)

type box struct {
	m          *model.Module
	layer      int
	x, y, wide float64
}

// layers puts each module of a library below all that import it. Edges back into
// what is being walked belong to circles and count for nothing, and so do those
// that load nothing.
func (g *Graph) layers(modules []*model.Module) [][]*box {
	const walking, done = 1, 2
	state := map[*model.Module]int{}
	height := map[*model.Module]int{}
	type frame struct {
		m    *model.Module
		next int
	}
	for _, root := range modules {
		if state[root] != 0 {
			continue
		}
		state[root] = walking
		for frames := []frame{{m: root}}; len(frames) > 0; {
			top := &frames[len(frames)-1]
			if list := g.out[top.m]; top.next < len(list) {
				to := list[top.next]
				top.next++
				switch state[to] {
				case 0:
					if to.Library != root.Library || g.apart[[2]*model.Module{top.m, to}] {
						continue
					}
					state[to] = walking
					frames = append(frames, frame{m: to})
				case done:
					if !g.apart[[2]*model.Module{top.m, to}] {
						height[top.m] = max(height[top.m], height[to]+1)
					}
				}
				continue
			}
			m := top.m
			state[m] = done
			frames = frames[:len(frames)-1]
			if len(frames) > 0 {
				outer := frames[len(frames)-1].m
				height[outer] = max(height[outer], height[m]+1)
			}
		}
	}
	highest := 0
	for _, h := range height {
		highest = max(highest, h)
	}
	out := make([][]*box, highest+1)
	for _, m := range modules {
		layer := highest - height[m]
		out[layer] = append(out[layer], &box{m: m, layer: layer, wide: 2*boxPadding + charWidth*float64(utf8.RuneCountInString(m.Path))})
	}
	return out
}

// order moves the boxes of each layer towards the middle of their neighbours.
func (g *Graph) order(layers [][]*box, at map[*model.Module]*box) {
	neighbours := map[*model.Module][]*model.Module{}
	for m, list := range g.out {
		for _, to := range list {
			neighbours[m] = append(neighbours[m], to)
			neighbours[to] = append(neighbours[to], m)
		}
	}
	position := map[*model.Module]float64{}
	number := func(layer []*box) {
		for i, b := range layer {
			position[b.m] = (float64(i) + 0.5) / float64(len(layer))
		}
	}
	for _, layer := range layers {
		number(layer)
	}
	for sweep := range sweeps {
		for i := range layers {
			layer := layers[i]
			if sweep%2 == 1 {
				layer = layers[len(layers)-1-i]
			}
			middle := map[*model.Module]float64{}
			for _, b := range layer {
				sum, n := 0.0, 0
				for _, other := range neighbours[b.m] {
					if o := at[other]; o != nil && o.layer != b.layer {
						sum += position[other]
						n++
					}
				}
				if middle[b.m] = position[b.m]; n > 0 {
					middle[b.m] = sum / float64(n)
				}
			}
			slices.SortStableFunc(layer, func(a, b *box) int { return cmp.Compare(middle[a.m], middle[b.m]) })
			number(layer)
		}
	}
}

// place gives every box its room below an offset: layers from the top, each in the
// middle, and wide ones in several rows.
func place(layers [][]*box, top float64) (width, bottom float64) {
	var rows [][]*box
	for _, layer := range layers {
		var row []*box
		used := 0.0
		for _, b := range layer {
			if len(row) > 0 && used+b.wide > rowWidth {
				rows, row, used = append(rows, row), nil, 0
			}
			row = append(row, b)
			used += b.wide + gapAcross
		}
		if len(row) > 0 {
			rows = append(rows, row)
		}
	}
	widths := make([]float64, len(rows))
	for i, row := range rows {
		for _, b := range row {
			widths[i] += b.wide + gapAcross
		}
		width = max(width, widths[i]+gapAcross)
	}
	for i, row := range rows {
		x := (width-widths[i])/2 + gapAcross/2
		for _, b := range row {
			b.x, b.y = x, top+float64(i)*(boxHeight+gapDown)
			x += b.wide + gapAcross
		}
	}
	return width, top + float64(len(rows))*(boxHeight+gapDown) - gapDown
}

// drawing is a graph with a place for everything: one library below the other.
type drawing struct {
	boxes         []*box
	at            map[*model.Module]*box
	captions      []caption
	width, height float64
}

type caption struct {
	text string
	y    float64
}

func (g *Graph) lay() *drawing {
	d := &drawing{at: map[*model.Module]*box{}, height: gapAcross}
	for from := 0; from < len(g.Modules); {
		end := from + 1
		for end < len(g.Modules) && g.Modules[end].Library == g.Modules[from].Library {
			end++
		}
		layers := g.layers(g.Modules[from:end])
		for _, layer := range layers {
			for _, b := range layer {
				d.at[b.m] = b
				d.boxes = append(d.boxes, b)
			}
		}
		g.order(layers, d.at)
		if from > 0 || end < len(g.Modules) {
			d.captions = append(d.captions, caption{g.Modules[from].Library.Name, d.height + 12})
			d.height += captionHeight
		}
		width, bottom := place(layers, d.height)
		d.width, d.height = max(d.width, width), bottom+gapDown
		from = end
	}
	d.height -= gapDown - 2*gapAcross
	return d
}

// SVG draws the graph. It has a title and a description in words, keeps to the
// reader's scheme, and draws the edges of circles broken as well as in another ink.
func SVG(w io.Writer, g *Graph) error {
	alone := g.fold()
	title, verb := "Modules and what they import", "imports"
	if g.ofFiles() {
		title, verb = "Files and what they include", "includes"
	}
	d := g.lay()
	if alone > 0 {
		d.height += 2 * gapAcross
	}
	out := bufio.NewWriter(w)
	fmt.Fprintf(out, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %.0f %.0f" width="%.0f" height="%.0f" role="img" aria-labelledby="t d">
<title id="t">%s</title>
<desc id="d">%s</desc>
<style>
svg { background: #f5f7f6; --ink: #1b2226; --line: #7d8a86; --paper: #ffffff; --ring: #a3261c }
@media (prefers-color-scheme: dark) { svg { background: #13181a; --ink: #e3e8e6; --line: #7d8a86; --paper: #1b2226; --ring: #ff8f80 } }
text { font: 12px ui-monospace, "DejaVu Sans Mono", monospace; fill: var(--ink) }
rect { fill: var(--paper); stroke: var(--line) }
path { fill: none; stroke: var(--line); stroke-opacity: .75 }
path.apart { stroke-dasharray: 1 4; stroke-linecap: round }
text.library { font: bold 14px system-ui, sans-serif }
path.ring { stroke: var(--ring); stroke-opacity: 1; stroke-width: 1.6; stroke-dasharray: 5 3 }
#head path, #ringhead path { stroke: none; fill: var(--line) } #ringhead path { fill: var(--ring) }
</style>
<defs>
<marker id="head" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="7" markerHeight="7" orient="auto"><path d="M0 0L8 4L0 8z"/></marker>
<marker id="ringhead" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="7" markerHeight="7" orient="auto"><path d="M0 0L8 4L0 8z"/></marker>
</defs>
`, d.width, d.height, d.width, d.height, title, html.EscapeString(g.inWords()))
	round, left := g.round(), g.implied(d)
	if alone > 0 {
		fmt.Fprintf(out, "<text x=\"%.0f\" y=\"%.1f\">%d that nothing here leads to, and that lead to nothing here, are left out.</text>\n", gapAcross, d.height-6-gapAcross*boolean(len(left) > 0), alone)
	}
	if len(left) > 0 {
		fmt.Fprintf(out, "<text x=\"%.0f\" y=\"%.1f\">%d %s that longer ways imply are left out.</text>\n", gapAcross, d.height-6, len(left), verb)
	}
	for _, m := range g.Modules {
		for _, to := range g.out[m] {
			if left[[2]*model.Module{m, to}] {
				continue
			}
			class, head, says, edge := "", "head", verb, [2]*model.Module{m, to}
			switch {
			case round[edge]:
				class, head, says = ` class="ring"`, "ringhead", verb+", in a circle,"
			case g.apart[edge]:
				class, says = ` class="apart"`, verb+", loading nothing,"
			}
			fmt.Fprintf(out, "<path%s marker-end=\"url(#%s)\" d=\"%s\"><title>%s %s %s</title></path>\n", class, head, line(d.at[m], d.at[to]), html.EscapeString(m.Path), says, html.EscapeString(to.Path))
		}
	}
	for _, c := range d.captions {
		fmt.Fprintf(out, "<text class=\"library\" x=\"%.0f\" y=\"%.1f\">%s</text>\n", gapAcross, c.y, html.EscapeString(c.text))
	}
	for _, b := range d.boxes {
		fmt.Fprintf(out, "<rect x=\"%.1f\" y=\"%.1f\" width=\"%.1f\" height=\"%.0f\" rx=\"3\"/><text x=\"%.1f\" y=\"%.1f\">%s</text>\n",
			b.x, b.y, b.wide, boxHeight, b.x+boxPadding, b.y+boxHeight/2+4, html.EscapeString(b.m.Path))
	}
	fmt.Fprint(out, "</svg>\n")
	return out.Flush()
}

// mostEdges is how many imports are drawn all; of more, those that can be told
// from others are left out.
const mostEdges = 60

// implied are the imports, in a large drawing, of what is reached through another
// import as well, going down all the way.
func (g *Graph) implied(d *drawing) map[[2]*model.Module]bool {
	edges := 0
	for _, list := range g.out {
		edges += len(list)
	}
	if edges <= mostEdges {
		return nil
	}
	down := func(from, to *model.Module) bool { return d.at[to].y > d.at[from].y }
	out := map[[2]*model.Module]bool{}
	for _, m := range g.Modules {
		reached := map[*model.Module]bool{}
		var stack []*model.Module
		for _, to := range g.out[m] {
			if down(m, to) {
				stack = append(stack, to)
			}
		}
		for len(stack) > 0 {
			from := stack[len(stack)-1]
			stack = stack[:len(stack)-1]
			for _, to := range g.out[from] {
				if down(from, to) && !reached[to] {
					reached[to] = true
					stack = append(stack, to)
				}
			}
		}
		for _, to := range g.out[m] {
			if down(m, to) && reached[to] {
				out[[2]*model.Module{m, to}] = true
			}
		}
	}
	return out
}

// line is the way from one box to another: down into what is below, and round the
// side where that is not below.
func line(from, to *box) string {
	x1, y1 := from.x+from.wide/2, from.y+boxHeight
	x2, y2 := to.x+to.wide/2, to.y
	if to.y > from.y {
		bend := (y2 - y1) / 2
		return fmt.Sprintf("M%.1f %.1fC%.1f %.1f %.1f %.1f %.1f %.1f", x1, y1, x1, y1+bend, x2, y2-bend, x2, y2)
	}
	x1, y1 = from.x+from.wide, from.y+boxHeight/2
	x2, y2 = to.x+to.wide, to.y+boxHeight/2
	side := max(x1, x2) + 30
	return fmt.Sprintf("M%.1f %.1fC%.1f %.1f %.1f %.1f %.1f %.1f", x1, y1, side, y1, side, y2, x2, y2)
}

func boolean(is bool) float64 {
	if is {
		return 1
	}
	return 0
}

// mostAlone is how many modules without a neighbour a large drawing shows.
const mostAlone = 24

// fold leaves modules without a neighbour out of a large drawing, and gives how many these are.
func (g *Graph) fold() int {
	alone := func(m *model.Module) bool { return len(g.out[m]) == 0 && g.in[m] == 0 }
	n := 0
	for _, m := range g.Modules {
		if alone(m) {
			n++
		}
	}
	if n <= mostAlone || n == len(g.Modules) {
		return 0
	}
	g.Modules = slices.DeleteFunc(slices.Clone(g.Modules), alone)
	return n
}

// ofFiles reports whether all modules are files that include one another.
func (g *Graph) ofFiles() bool {
	return len(g.Modules) > 0 && !slices.ContainsFunc(g.Modules, func(m *model.Module) bool { return !m.ByFile() })
}

// inWords tells what the drawing shows.
func (g *Graph) inWords() string {
	edges := 0
	for _, list := range g.out {
		edges += len(list)
	}
	s := fmt.Sprintf("%d modules, %d imports among them.", len(g.Modules), edges)
	if g.ofFiles() {
		s = fmt.Sprintf("%d files, %d includes among them.", len(g.Modules), edges)
	}
	for _, c := range g.cycles {
		s += " A circle: " + circle(c) + "."
	}
	return s
}
