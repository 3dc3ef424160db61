package plan_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/model"
	"codrel/internal/render/plan"
	"codrel/internal/search"
)

var guided = map[string]string{
	"go.mod": "module port.example\n", "a.go": "package port\n",
	"README.md":                   "# Port\n\nWith zeppelins.\n",
	"docs/guides/index.md":        "# All of it\n\nBegin here.\n",
	"docs/guides/a b.md":          "# First\n\nText.\n\n## Use\n\nMooring lines.\n\n## Use\n\nAgain.\n",
	"docs/guides/boats/README.md": "# Boats\n",
	"docs/guides/boats/big.md":    "No heading.\n",
	"docs/guides/z/con.md":        "---\npart: Last\n---\n# End\n\n<insert:f>\n",
	"docs/fragments/f.md":         "## Inserted\n\nA windlass.\n",
}

func TestGuidePages(t *testing.T) {
	p := planned(t, guided)
	var got []string
	for _, page := range p.Pages() {
		if page.Kind == plan.GuidesPage || page.Kind == plan.GuidePage {
			got = append(got, page.Address+" "+page.Title)
			assert.Equal(t, page.Address, p.PageAt(page.Address).Address)
			assert.Same(t, page.Guide, p.PageAt(page.Address).Guide)
		}
	}
	assert.Equal(t, []string{"guides/index.html All of it", "guides/a~20~b.html First", "guides/boats/index.html Boats", "guides/boats/big.html Big", "guides/z/~con.html End"}, got)
	assert.Nil(t, p.PageAt("guides/none.html"))
	assert.Equal(t, "index.html", plan.Guide(&model.Page{Landing: true, Name: "x"}))

	var parts []string
	for _, part := range p.Parts() {
		text := part.Title + ":"
		if part.Index != nil {
			text += " (" + part.Index.Page.Path + ")"
		}
		for _, g := range part.Guides {
			text += " " + g.Title
		}
		parts = append(parts, text)
	}
	assert.Equal(t, []string{": First", "Boats: (docs/guides/boats/README.md) Big", "Last: End"}, parts)
	assert.True(t, p.HasGuides())
	assert.False(t, planned(t, map[string]string{"README.md": "# A\n", "a.go": "package a\n"}).HasGuides())
}

func TestAroundGuides(t *testing.T) {
	p := planned(t, guided)
	var way []string
	for page := p.PageAt(plan.GuidesAddress); page != nil; {
		before, after := p.Around(page)
		if before != nil {
			_, back := p.Around(before)
			assert.Equal(t, page.Address, back.Address)
		} else {
			assert.Equal(t, plan.GuidesAddress, page.Address)
		}
		way = append(way, page.Title)
		page = after
	}
	assert.Equal(t, []string{"All of it", "First", "Boats", "Big", "End"}, way)
}

// Guides are found by title, heading and words, each part of a text at its own address; many
// words are dealt out to several entries.
func TestGuideEntries(t *testing.T) {
	files := map[string]string{}
	for name, text := range guided {
		files[name] = text
	}
	var many strings.Builder
	for i := range 100 {
		fmt.Fprintf(&many, "word%c%c%c ", 'a'+i/10, 'a'+i%10, 'x')
	}
	files["docs/guides/many.md"] = "# Many\n\n" + many.String() + "\n"
	p := planned(t, files)
	at := map[string][]string{}
	parts := 0
	for e := range p.SearchEntries() {
		if !strings.HasPrefix(e.Kind, search.GuideKind) {
			continue
		}
		assert.LessOrEqual(t, len(e.Words), 30)
		key := e.Name + " | " + e.Module + " | " + e.Address
		at[key] = append(at[key], e.Words...)
		if e.Name == "Many" {
			parts++
		}
	}
	assert.Equal(t, 4, parts)
	assert.Len(t, at["Many |  | guides/many.html"], 100)
	assert.Contains(t, at["Port |  | index.html"], "zeppelins")
	assert.Contains(t, at["Use | First | guides/a~20~b.html#s-use"], "mooring")
	assert.Contains(t, at["Use | First | guides/a~20~b.html#s-use-2"], "again")
	assert.Contains(t, at["Inserted | End | guides/z/~con.html#s-inserted"], "windlass")
	assert.Contains(t, at, "Boats | Boats | guides/boats/index.html")
	for e := range p.SearchEntries() {
		if e.Name == "First" {
			require.Equal(t, "Text.", e.Summary)
		}
	}
}
