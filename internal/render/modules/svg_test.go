package modules

import (
	"bytes"
	"encoding/xml"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/model"
)

// ladder is a graph of modules that each import some of those behind them, with
// one import back.
func ladder(n int) *Graph {
	lib := &model.Library{Name: "engine"}
	g := &Graph{out: map[*model.Module][]*model.Module{}, in: map[*model.Module]int{}, apart: map[[2]*model.Module]bool{}}
	for i := range n {
		g.Modules = append(g.Modules, &model.Module{Library: lib, Path: fmt.Sprintf("engine/m%03d", i)})
	}
	join := func(from, to int) {
		g.out[g.Modules[from]] = append(g.out[g.Modules[from]], g.Modules[to])
		g.in[g.Modules[to]]++
	}
	for i := range n {
		for _, step := range []int{1, 3, 7} {
			if i%3 != 2 && i+step < n {
				join(i, i+step)
			}
		}
	}
	join(n-1, 0)
	return g
}

// Modules stand above what they import, on a place of their own.
func TestLayers(t *testing.T) {
	for _, n := range []int{2, 5, 40, 150} {
		g := ladder(n)
		d := g.lay()
		require.Len(t, d.boxes, n)
		for i, m := range g.Modules {
			for _, to := range g.out[m] {
				if i < n-1 {
					assert.Less(t, d.at[m].y, d.at[to].y, "%s imports %s", m.Path, to.Path)
				}
			}
		}
		for i, a := range d.boxes {
			assert.True(t, a.x >= 0 && a.x+a.wide <= d.width && a.y >= 0 && a.y+boxHeight <= d.height, "%s is on the paper", a.m.Path)
			for _, b := range d.boxes[:i] {
				apart := a.x+a.wide <= b.x || b.x+b.wide <= a.x || a.y+boxHeight <= b.y || b.y+boxHeight <= a.y
				assert.True(t, apart, "%s and %s lie on one another", a.m.Path, b.m.Path)
			}
		}
	}
}

// What is left out of a large drawing can be reached another way, and a small one
// leaves nothing out.
func TestImplied(t *testing.T) {
	small := ladder(10)
	assert.Empty(t, small.implied(small.lay()))
	g := ladder(100)
	left := g.implied(g.lay())
	assert.NotEmpty(t, left)
	for edge := range left {
		seen := map[*model.Module]bool{}
		for stack := []*model.Module{edge[0]}; len(stack) > 0; {
			m := stack[len(stack)-1]
			stack = stack[:len(stack)-1]
			for _, to := range g.out[m] {
				if !seen[to] && !left[[2]*model.Module{m, to}] {
					seen[to] = true
					stack = append(stack, to)
				}
			}
		}
		assert.True(t, seen[edge[1]], "%s still leads to %s", edge[0].Path, edge[1].Path)
	}
}

func TestSVGIsXML(t *testing.T) {
	g := ladder(80)
	g.Modules[3].Path = `a<b>&"c"`
	var out bytes.Buffer
	require.NoError(t, SVG(&out, g))
	var any struct {
		Title string `xml:"title"`
		Rects []struct {
			X float64 `xml:"x,attr"`
		} `xml:"rect"`
	}
	require.NoError(t, xml.Unmarshal(out.Bytes(), &any))
	assert.Equal(t, "Modules and what they import", any.Title)
	assert.Len(t, any.Rects, 80)
	var again bytes.Buffer
	require.NoError(t, SVG(&again, ladder(80)))
	assert.NotContains(t, again.String(), "NaN")
}

// A graph of nothing, and modules that import nothing, can be printed in each form.
func TestEmptyGraphs(t *testing.T) {
	for _, g := range []*Graph{{}, {Modules: ladder(1).Modules}} {
		for _, write := range []func(*bytes.Buffer) error{
			func(b *bytes.Buffer) error { return Text(b, g) }, func(b *bytes.Buffer) error { return DOT(b, g) }, func(b *bytes.Buffer) error { return SVG(b, g) },
		} {
			var out bytes.Buffer
			assert.NoError(t, write(&out))
		}
	}
}
