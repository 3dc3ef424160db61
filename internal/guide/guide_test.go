package guide_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/guide"
	"codrel/internal/model"
	"codrel/internal/settings"
	"codrel/internal/source"
)

func TestFrontMatter(t *testing.T) {
	f := guide.ReadFront("---\r\ntitle: A tide\nlayout: [wide]\nafter:  first # tide\n---\t\nText\n")
	assert.Empty(t, f.Problems)
	assert.Equal(t, "A tide", f.Title)
	assert.Equal(t, "first", f.After)
	assert.Equal(t, "Text\n", "---\r\ntitle: A tide\nlayout: [wide]\nafter:  first # tide\n---\t\nText\n"[f.End:])
	assert.Equal(t, "first", f.AfterSpan.In("---\r\ntitle: A tide\nlayout: [wide]\nafter:  first # tide\n---\t\nText\n"))
	for _, text := range []string{"", "---", "---\n", "---\n\nA rule, then text: more\n", "Text\n---\na: b\n---\n", "---\n" + strings.Repeat("a line without a key\n", 2000)} {
		assert.Equal(t, guide.Front{}, guide.ReadFront(text), "%.40q", text)
	}
	assert.Equal(t, 8, guide.ReadFront("---\n---\nA\n").End)
}

func FuzzFront(f *testing.F) {
	for _, seed := range []string{"---\ntitle: a\n---\nb", "---\n&a [*a]\n---\n", "---\nafter: |\n  x\n...\n", "---\n\ttitle: x\n---\n", "---\ntitle: \xff\n---\n", "---\r\npart: 1\r\n---\r\n"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, text string) {
		front := guide.ReadFront(text)
		assert.LessOrEqual(t, front.End, len(text))
		for _, p := range front.Problems {
			assert.LessOrEqual(t, p.Span.Start, p.Span.End)
			assert.LessOrEqual(t, int(p.Span.End), len(text))
		}
		guide.Arrange([]guide.Draft{guide.New("docs", "docs/a.md", source.Decode([]byte(text)))}, nil, "")
	})
}

// arranged are the guides in their order, each with its part.
func arranged(files map[string]string, order ...settings.Step) string {
	var drafts []guide.Draft
	for file, front := range files {
		drafts = append(drafts, guide.New("docs", "docs/"+file, source.Decode([]byte("---\n"+front+"\n---\n"))))
	}
	pages, _ := guide.Arrange(drafts, order, "codrel.yaml")
	var out []string
	for _, p := range pages {
		out = append(out, p.Name+map[bool]string{true: "", false: " (" + p.Part + ")"}[p.Part == ""])
	}
	return strings.Join(out, ", ")
}

func TestOrderOfGuides(t *testing.T) {
	step := func(part string, names ...string) (out []settings.Step) {
		for _, name := range names {
			out = append(out, settings.Step{Word: settings.Word{Text: name}, Part: part})
		}
		return out
	}
	files := map[string]string{"zoo.md": "", "b/README.md": "", "b/a.md": "", "a.md": "after: zoo", "Axe.md": "", "b/c/d.md": "after: ../a"}
	assert.Equal(t, "Axe, b/index, b/a, b/c/d, zoo, a", arranged(files))
	assert.Equal(t, "zoo, a, b/index (Boats), b/a (Boats), b/c/d (Boats), Axe", arranged(files, append(step("", "zoo.md", "nowhere"), step("Boats", "b")...)...))
	assert.Equal(t, "a, b/index, zoo, Axe, b/a, b/c/d", arranged(files, step("", "docs/a.md", "b/readme.md", "zoo")...), "a place in the order counts more than what a guide says")
	assert.Equal(t, "a, b, c", arranged(map[string]string{"a.md": "after: c", "b.md": "after: a", "c.md": "after: b"}), "a circle loses none")
	assert.Equal(t, "a (X), b (X), c (Y)", arranged(map[string]string{"a.md": "part: X", "b.md": "after: a", "c.md": "after: b\npart: Y"}))
	assert.Equal(t, "", arranged(nil))
	assert.True(t, guide.IsIndex(&model.Page{Name: "b/index"}))
	assert.False(t, guide.IsIndex(&model.Page{}))
}
