package langtest

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/lang"
)

// Fuzz requires of whatever bytes a file may have that it is read without a panic, into facts
// that are valid and come out the same again. The sources of a folder's fixtures are where it
// begins.
func Fuzz(f *testing.F, end lang.FrontEnd, folder string) {
	texts, _ := fixtureTexts(f, end, folder)
	for _, text := range texts {
		f.Add([]byte(text))
	}
	path := "fuzz" + end.Extensions()[0]
	f.Fuzz(func(t *testing.T, data []byte) {
		facts := Read(end, path, data)
		Valid(t, facts)
		Pieces(t, end, facts.Text)
		assert.Equal(t, Dump(facts), Dump(Read(end, path, data)))
		Valid(t, brief(end, path, data))
	})
}

// Depth requires of texts that nest, repeat or leave open something many times that reading
// them ends soon, and that what encloses a declaration stands before it.
func Depth(t *testing.T, end lang.FrontEnd, texts map[string]string) {
	for name, text := range texts {
		t.Run(name, func(t *testing.T) {
			facts := Read(end, "deep"+end.Extensions()[0], []byte(text))
			Valid(t, facts)
			for i := range facts.Occurrences {
				require.Less(t, int(facts.Occurrences[i].Parent), i)
			}
		})
	}
}
