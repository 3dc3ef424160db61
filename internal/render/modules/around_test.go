package modules_test

import (
	"encoding/xml"
	"fmt"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/render/modules"
)

func more(n int) string { return fmt.Sprint("and ", n, " more") }

func neighbours(n int) []modules.Neighbour {
	var out []modules.Neighbour
	for i := range n {
		out = append(out, modules.Neighbour{Name: fmt.Sprint("harbour/module", i), Href: fmt.Sprint("../m", i, "/index.html")})
	}
	return out
}

// row is one row, or none where nobody stands in it.
func row(list []modules.Neighbour) [][]modules.Neighbour {
	if len(list) == 0 {
		return nil
	}
	return [][]modules.Neighbour{list}
}

// rects reads the boxes of a picture: x, y, width and height of each.
func rects(t *testing.T, svg string) (out [][4]float64) {
	t.Helper()
	d := xml.NewDecoder(strings.NewReader(svg))
	for {
		token, err := d.Token()
		if err == io.EOF {
			return out
		}
		require.NoError(t, err, "well-formed XML")
		start, ok := token.(xml.StartElement)
		if !ok || start.Name.Local != "rect" {
			continue
		}
		var box [4]float64
		for _, a := range start.Attr {
			for i, name := range []string{"x", "y", "width", "height"} {
				if a.Name.Local == name {
					_, err := fmt.Sscan(a.Value, &box[i])
					require.NoError(t, err)
				}
			}
		}
		out = append(out, box)
	}
}

func TestAroundHasRoomForAll(t *testing.T) {
	for _, c := range []struct{ above, below, boxes int }{{1, 0, 2}, {0, 1, 2}, {3, 5, 9}, {12, 12, 25}, {13, 200, 25}, {0, 1000, 13}} {
		svg := modules.Around("harbour/tide", row(neighbours(c.above)), row(neighbours(c.below)), more)
		boxes := rects(t, svg)
		assert.Len(t, boxes, c.boxes, "%+v", c)
		for i, a := range boxes {
			assert.GreaterOrEqual(t, a[0], 0.0, "%+v", c)
			assert.LessOrEqual(t, a[0]+a[2], 641.0, "%+v", c)
			for _, b := range boxes[:i] {
				apart := a[0]+a[2] <= b[0] || b[0]+b[2] <= a[0] || a[1]+a[3] <= b[1] || b[1]+b[3] <= a[1]
				assert.True(t, apart, "%+v: %v and %v", c, a, b)
			}
		}
		if c.below > 12 {
			assert.Contains(t, svg, fmt.Sprint(">and ", c.below-11, " more<"))
		}
	}
}

func TestAroundOfAModuleAlone(t *testing.T) {
	assert.Empty(t, modules.Around("alone", nil, nil, more))
}

func TestAroundSaysWhatImportsAre(t *testing.T) {
	svg := modules.Around("<script>", row([]modules.Neighbour{{Name: `"x" & <y>`, Href: `a"b`, Ring: true}}),
		row([]modules.Neighbour{{Name: strings.Repeat("ä/", 100) + "end", Apart: true}, {Name: "plain"}}), more)
	rects(t, svg)
	assert.NotContains(t, svg, "<script>")
	assert.Equal(t, 1, strings.Count(svg, `<path class="ring"`))
	assert.Equal(t, 1, strings.Count(svg, `<path class="apart"`))
	assert.Equal(t, 1, strings.Count(svg, "<a "), "what has no page has no link")
	assert.Contains(t, svg, "ä/end</text>")
	assert.Contains(t, svg, ">…")
	assert.Contains(t, svg, `aria-hidden="true"`)
}

// Rows beyond the nearest are farther away from the module, and joined with what they stand behind.
func TestAroundThroughOthers(t *testing.T) {
	far := []modules.Neighbour{{Name: "far", By: []int{0, 1}}, {Name: "farther", By: []int{40}}}
	svg := modules.Around("here", [][]modules.Neighbour{neighbours(2), far}, [][]modules.Neighbour{neighbours(20), far, {{Name: "end", By: []int{1}}}}, more)
	boxes := rects(t, svg)
	require.Len(t, boxes, 2+2+12+2+1+1)
	assert.Equal(t, 2+3+12+3+1, strings.Count(svg, "<path")-1, "one edge for each, two for what stands behind two")
	y := func(i int) float64 { return boxes[i][1] }
	here := y(len(boxes) - 1)
	assert.Less(t, y(2), y(0), "above, the second row is higher")
	assert.Less(t, y(0), here)
	assert.Equal(t, 0.0, y(2))
	assert.Less(t, here, y(4))
	assert.Less(t, y(4), y(4+12), "below, it is lower")
	assert.Less(t, y(4+12), y(4+12+2))
	for i, a := range boxes {
		for _, b := range boxes[:i] {
			assert.True(t, a[0]+a[2] <= b[0] || b[0]+b[2] <= a[0] || a[1]+a[3] <= b[1] || b[1]+b[3] <= a[1], "%v and %v", a, b)
		}
	}
}
