package link_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/link"
	"codrel/internal/model"
)

// Guides are a list: each is read once, and what each names is known of it.
func TestGuides(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(map[string]string{
		"go.mod":             "module tidebook.example/engine",
		"tide.go":            "package engine\n\n// Height is a height.\ntype Height float64\n\n// Depth is a depth.\ntype Depth float64\n",
		"README.md":          "# Tide *book*\n\nA `Height` and <insert:units>.\n\n<insert:units>\n",
		"fragments/units.md": "[depths](ref:Depth)\n",
	}), build.Options{})
	project := *s.Project
	project.Guides = append(project.Guides, &model.Page{Path: "docs/first.md", Text: "No title, and `Height` twice: `Height`, [x](ref:Nowhere).\n"})
	links := link.New(&project, s.Links.Options())

	require.Len(t, links.Guides(), 2)
	landing, other := links.Guides()[0], links.Guides()[1]
	assert.Same(t, landing, links.Landing())
	assert.Equal(t, "Tide book", landing.Title)
	assert.Len(t, landing.Body, len(landing.Nodes)-1)
	assert.Empty(t, other.Title)
	assert.Equal(t, other.Nodes, other.Body)
	assert.Same(t, landing, links.Guides()[0], "it is taken apart once")
	assert.Same(t, other, links.GuideOf(other.Page))
	assert.Nil(t, links.GuideOf(nil))

	height, depth := s.Project.Libraries[0].Modules[0].Lookup("Height"), s.Project.Libraries[0].Modules[0].Lookup("Depth")
	assert.Equal(t, []*link.Guide{landing, other}, links.MentionedIn(height), "each once, in their order")
	assert.Equal(t, []*link.Guide{landing}, links.MentionedIn(depth), "by a fragment")
}

// Guides have titles and parts of their own, of their files, or of their folders.
func TestTitlesAndParts(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(map[string]string{
		"a.go": "package a\n", "README.md": "No title.\n",
		"guides/first-berth.md": "Text.\n", "guides/b.md": "---\ntitle: Said\n---\n# Written\n\n## More\n",
		"guides/boats/index.md": "# About *boats*\n", "guides/boats/big_ones.md": "# Big\n", "guides/boats/deep/c.md": "# C\n", "guides/boats/own.md": "---\npart: Mine\n---\n# Own\n",
		"fragments/f.md": "<insert:g>\n", "fragments/g.md": "# G\n\n<insert:f>\n", "guides/d.md": "# D\n\n<insert:f>\n",
	}), build.Options{})
	got := map[string]string{}
	for _, g := range s.Links.Guides() {
		got[g.Page.Path] = g.Title + " | " + g.Part
	}
	assert.Equal(t, map[string]string{
		"README.md": " | ", "guides/first-berth.md": "First berth | ", "guides/b.md": "Said | ",
		"guides/boats/index.md": "About boats | About boats", "guides/boats/big_ones.md": "Big | About boats", "guides/boats/deep/c.md": "C | Deep", "guides/boats/own.md": "Own | Mine",
		"guides/d.md": "D | ",
	}, got)
	boats := s.Links.GuideAt("guides/boats")
	require.NotNil(t, boats)
	assert.Same(t, boats, s.Links.GuideAt("guides/boats/index.md"))
	assert.Nil(t, s.Links.GuideAt("guides/boats/deep"))
	said := s.Links.GuideAt("guides/b.md")
	require.Len(t, said.Body, 1, "its own heading is the title's, which the front matter says otherwise")
	for anchor, want := range map[string]string{"more": "more", "said": link.TopAnchor} {
		found, ok := said.Anchors().Find(anchor)
		assert.True(t, ok, anchor)
		assert.Equal(t, want, found)
	}
	d := s.Links.GuideAt("guides/d.md")
	assert.Equal(t, []string{"f", "g"}, s.Links.InsertedIn(d.Nodes), "each once, though they insert one another")
	_, ok := d.Anchors().Find("g")
	assert.True(t, ok, "headings of fragments are places of the guide")

	assert.True(t, s.Links.Exists("guides/boats"))
	assert.False(t, s.Links.Exists("guides/none.md"))
	assert.True(t, s.Links.Exists("../none.md"), "nobody can tell")
	assert.Equal(t, int64(len("# Big\n")), s.Links.FileSize("guides/boats/big_ones.md"))
	assert.Zero(t, s.Links.FileSize("none"))
	assert.ElementsMatch(t, []string{"big_ones.md", "deep", "index.md", "own.md"}, s.Links.Beside("guides/boats/x.md"))
	assert.Empty(t, s.Links.Beside("none/x.md"))
	blind := link.New(s.Project, link.Options{})
	assert.True(t, blind.Exists("none"), "without files, nobody can tell")
	assert.Zero(t, blind.FileSize("README.md"))
	assert.Empty(t, blind.Beside("README.md"))
}
