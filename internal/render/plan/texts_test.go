package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/render/plan"
)

// Texts that stand for themselves in comments are found by their titles and words, and lead to
// their place on the page of the library, whatever file they stand in.
func TestTexts(t *testing.T) {
	p := planned(t, map[string]string{
		"include/gauge.h": "/** @page care How to care\n * Rinse it. Use fresh water.\n */\n/** @page bare */\n/** @page care Again\n * And again. */\n/** @defgroup all All */\n/** Opens. @ingroup all */\nint gauge_open(void);\n",
		"src/gauge.c":     "/** @page wear Wear\n * It wears. */\nint gauge_open(void) { return 0; }\n",
	})
	lib := p.Libraries()[0]
	var titles []string
	for _, text := range p.Texts(lib) {
		titles = append(titles, text.Title)
	}
	assert.Equal(t, []string{"How to care", "bare", "Wear"}, titles, "the first one of a name is heard")
	assert.Equal(t, "text-care", plan.TextAnchor(p.Texts(lib)[0].Group))
	found := map[string]string{}
	for e := range p.SearchEntries() {
		if e.Kind == "guide" {
			found[e.Name] = e.Address
			if e.Name == "How to care" {
				assert.Equal(t, "Rinse it.", e.Summary)
				assert.Contains(t, e.Words, "fresh")
			}
		}
	}
	require.Len(t, found, 3)
	assert.Equal(t, plan.Library(lib)+"#text-care", found["How to care"])
	stopped := 0
	for range p.SearchEntries() {
		stopped++
		break
	}
	assert.Equal(t, 1, stopped)
}
