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

// Around draws a module between those that import it, above, and those that it
// imports, below, as SVG for a page: colours and fonts are left to the page's style
// sheet. rest words how many more there are. It is "" where the module stands alone.
func Around(name string, above, below []Neighbour, rest func(int) string) string {
	if len(above) == 0 && len(below) == 0 {
		return ""
	}
	over, top := rows(counted(above, rest), 0)
	middle := nearBox{Neighbour: Neighbour{Name: shortened(name)}, y: top}
	if len(above) > 0 {
		middle.y = top - rowGap + aroundDown
	}
	middle.wide = wideOf(middle.Name)
	middle.x = (aroundWidth - middle.wide) / 2
	bottom := middle.y + boxHeight
	under, end := rows(counted(below, rest), bottom+aroundDown)
	if len(under) > 0 {
		bottom = end - rowGap
	}
	var b strings.Builder
	fmt.Fprintf(&b, `<svg class="around" viewBox="-1 -1 %.0f %.0f" width="%.0f" height="%.0f" aria-hidden="true">`, aroundWidth+2, bottom+2, aroundWidth+2, bottom+2)
	b.WriteString(`<defs><marker id="g-head" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="7" markerHeight="7" orient="auto"><path d="M0 0L8 4L0 8z"/></marker></defs>`)
	for _, n := range over {
		edge(&b, n.Neighbour, n.x+n.wide/2, n.y+boxHeight, aroundWidth/2, middle.y)
	}
	for _, n := range under {
		edge(&b, n.Neighbour, aroundWidth/2, middle.y+boxHeight, n.x+n.wide/2, n.y)
	}
	for _, n := range append(over, under...) {
		n.write(&b, "")
	}
	middle.write(&b, ` class="here"`)
	b.WriteString("</svg>")
	return b.String()
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
