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
	assert.Equal(t, []*model.Page{landing.Page, other.Page}, links.MentionedIn(height), "each once, in their order")
	assert.Equal(t, []*model.Page{landing.Page}, links.MentionedIn(depth), "by a fragment")
}
