package modules

import (
	"fmt"
	"html"
	"strings"
	"unicode/utf8"
)

// Neighbour is a module beside the one that a picture is about.
type Neighbour struct {
	Name  string
	Href  string // "" where it has no page
	Apart bool   // the import loads nothing
	Ring  bool   // the import is part of a circle
	By    []int  // indices of the modules in the row before it that it stands behind; nil in the first row
}

// Sizes of the picture of one module, in units of the SVG. It is as wide as a
// column of text.
const (
	aroundWidth = 640.0
	aroundDown  = 40.0 // between the rows and the module
	rowGap      = 8.0
	mostAround  = 12 // on each side; the rest is counted
	longestName = 44
)

// nearBox is a neighbour with its place.
type nearBox struct {
	Neighbour
	x, y, wide float64
}

// Around draws a module between those that import it, above, and those that it imports, below, as
// SVG for a page: colours and fonts are left to the page's style sheet. Both are lists of rows, the
// nearest first: those in the second import it, or are imported, through those in the first. rest
// words how many more there are. It is "" where the module stands alone.
func Around(name string, above, below [][]Neighbour, rest func(int) string) string {
	if len(above) == 0 && len(below) == 0 {
		return ""
	}
	over, top := stacked(above, rest)
	for i := range over { // they grow upwards
		for k := range over[i] {
			over[i][k].y = top - over[i][k].y - boxHeight
		}
	}
	middle := nearBox{Neighbour: Neighbour{Name: shortened(name)}}
	if len(over) > 0 {
		middle.y = top + aroundDown
	}
	middle.wide = wideOf(middle.Name)
	middle.x = (aroundWidth - middle.wide) / 2
	under, height := stacked(below, rest)
	bottom := middle.y + boxHeight
	for i := range under {
		for k := range under[i] {
			under[i][k].y += bottom + aroundDown
		}
	}
	if len(under) > 0 {
		bottom += aroundDown + height
	}
	var b strings.Builder
	fmt.Fprintf(&b, `<svg class="around" viewBox="-1 -1 %.0f %.0f" width="%.0f" height="%.0f" aria-hidden="true">`, aroundWidth+2, bottom+2, aroundWidth+2, bottom+2)
	b.WriteString(`<defs><marker id="g-head" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="7" markerHeight="7" orient="auto"><path d="M0 0L8 4L0 8z"/></marker></defs>`)
	eachEdge(over, middle, func(n Neighbour, far, near nearBox) {
		edge(&b, n, far.x+far.wide/2, far.y+boxHeight, near.x+near.wide/2, near.y)
	})
	eachEdge(under, middle, func(n Neighbour, far, near nearBox) {
		edge(&b, n, near.x+near.wide/2, near.y+boxHeight, far.x+far.wide/2, far.y)
	})
	for _, row := range append(over, under...) {
		for _, n := range row {
			n.write(&b, "")
		}
	}
	middle.write(&b, ` class="here"`)
	b.WriteString("</svg>")
	return b.String()
}

// stacked gives the neighbours of rows their places, the first row at 0 and the others beyond it,
// and tells how high they are.
func stacked(list [][]Neighbour, rest func(int) string) (out [][]nearBox, height float64) {
	y := 0.0
	for _, row := range list {
		boxes, end := rows(counted(row, rest), y)
		out = append(out, boxes)
		height, y = end-rowGap, end-rowGap+aroundDown
	}
	return out, height
}

// eachEdge gives what is joined: those of the first row with the module in the middle, and those of
// the others with what they stand behind.
func eachEdge(rows [][]nearBox, middle nearBox, yield func(n Neighbour, far, near nearBox)) {
	for i, row := range rows {
		for _, far := range row {
			if i == 0 {
				yield(far.Neighbour, far, middle)
				continue
			}
			for _, k := range far.By {
				last := len(rows[i-1]) - 1 // which stands for all that have no room
				yield(far.Neighbour, far, rows[i-1][min(k, last)])
			}
		}
	}
}

// counted is as many neighbours as there is room for, with a box for the others.
func counted(list []Neighbour, rest func(int) string) []Neighbour {
	if len(list) <= mostAround {
		return list
	}
	shown := append([]Neighbour(nil), list[:mostAround-1]...)
	return append(shown, Neighbour{Name: rest(len(list) - len(shown))})
}

// rows gives neighbours their places from an offset on, and tells where they end.
func rows(list []Neighbour, top float64) (out []nearBox, end float64) {
	y := top
	for from := 0; from < len(list); {
		used, to := 0.0, from
		for to < len(list) && (to == from || used+wideOf(shortened(list[to].Name)) <= aroundWidth) {
			used += wideOf(shortened(list[to].Name)) + gapAcross
			to++
		}
		x := (aroundWidth - used + gapAcross) / 2
		for _, n := range list[from:to] {
			n.Name = shortened(n.Name)
			out = append(out, nearBox{n, x, y, wideOf(n.Name)})
			x += wideOf(n.Name) + gapAcross
		}
		y += boxHeight + rowGap
		from = to
	}
	return out, y
}

func wideOf(name string) float64 {
	return 2*boxPadding + charWidth*float64(utf8.RuneCountInString(name))
}

// shortened is a path without its beginning, where it is long.
func shortened(name string) string {
	runes := []rune(name)
	if len(runes) <= longestName {
		return name
	}
	return "…" + string(runes[len(runes)-longestName+1:])
}

func edge(b *strings.Builder, n Neighbour, x1, y1, x2, y2 float64) {
	class := ""
	switch {
	case n.Ring:
		class = ` class="ring"`
	case n.Apart:
		class = ` class="apart"`
	}
	bend := (y2 - y1) / 2
	fmt.Fprintf(b, `<path%s marker-end="url(#g-head)" d="M%.0f %.0fC%.0f %.0f %.0f %.0f %.0f %.0f"/>`, class, x1, y1, x1, y1+bend, x2, y2-bend, x2, y2)
}

func (n nearBox) write(b *strings.Builder, class string) {
	if n.Href != "" {
		fmt.Fprintf(b, `<a href="%s" tabindex="-1">`, html.EscapeString(n.Href))
	}
	fmt.Fprintf(b, `<rect%s x="%.0f" y="%.0f" width="%.0f" height="%.0f" rx="2"/><text%s x="%.0f" y="%.0f">%s</text>`,
		class, n.x, n.y, n.wide, boxHeight, class, n.x+boxPadding, n.y+boxHeight/2+4, html.EscapeString(n.Name))
	if n.Href != "" {
		b.WriteString("</a>")
	}
}
