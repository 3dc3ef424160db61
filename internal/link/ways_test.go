package link_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/link"
	"codrel/internal/model"
)

func TestWaysOfLinks(t *testing.T) {
	for _, c := range []struct {
		page, target string
		way          link.Way
	}{
		{"README.md", "a.go", link.Way{File: "a.go"}},
		{"docs/g.md", "a.md", link.Way{File: "docs/a.md"}},
		{"docs/g.md", "../a.go#L4", link.Way{File: "a.go", Anchor: "L4"}},
		{"docs/g.md", "/a.go", link.Way{File: "a.go"}},
		{"docs/g.md", "a%20b.md?x=1#c%20d", link.Way{File: "docs/a b.md", Anchor: "c d"}},
		{"docs/g.md", "#x", link.Way{File: "docs/g.md", Anchor: "x"}},
		{"docs/g.md", "..", link.Way{File: "."}},
		{"docs/g.md", "../../a.go", link.Way{}},
		{"README.md", "..", link.Way{}},
		{"README.md", "", link.Way{}},
		{"README.md", "https://x.example/", link.Way{}},
		{"README.md", "mailto:x", link.Way{}},
		{"README.md", "%zz", link.Way{}},
	} {
		assert.Equal(t, c.way, link.WayFrom(&model.Page{Path: c.page}, c.target), c.target)
	}
	assert.Equal(t, 4, link.Way{Anchor: "L4"}.Line())
	assert.Equal(t, 1, link.Way{Anchor: "4"}.Line())
	assert.Equal(t, 1, link.Way{Anchor: "L-4"}.Line())
}
