package nearest_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/nearest"
)

func TestWord(t *testing.T) {
	known := []string{"Height", "High", "Harbour", "At"}
	for word, want := range map[string]string{
		"Hight": "Height", "heigth": "Height", "harbor": "Harbour", "Ta": "At", "Xylophone": "", "height": "Height", "": "", "Harb": "Harbour", "Ha": "", "G": "", "at": "At",
	} {
		assert.Equal(t, want, nearest.Word(word, known), word)
	}
}

func TestDistance(t *testing.T) {
	for _, c := range []struct {
		a, b string
		want int
	}{{"", "", 0}, {"ab", "ba", 1}, {"kitten", "sitting", 3}, {"abc", "abc", 0}, {"häfen", "hafen", 1}} {
		assert.Equal(t, c.want, nearest.Distance(c.a, c.b, 9), c.a)
		assert.Equal(t, c.want, nearest.Distance(c.b, c.a, 9), c.b)
		assert.Equal(t, min(c.want, 2), nearest.Distance(c.a, c.b, 2), "gives up at 2")
	}
}

// Of many words, those are found that begin, or end, as the wrong one does.
func TestWords(t *testing.T) {
	var many []string
	for i := range 30_000 {
		many = append(many, fmt.Sprintf("Harbour%dMaster", i))
	}
	many = append(many, "Height", "Quay")
	words := nearest.NewWords(many)
	for word, want := range map[string]string{
		"Hight": "Height", "Qauy": "Quay", "Harbour12345Maste": "Harbour12345Master", "Hrbour777Master": "Harbour777Master", "harbour9Master": "Harbour9Master", "Xylophone": "",
	} {
		assert.Equal(t, want, words.Closest(word), word)
	}
	for _, word := range many[:50] {
		assert.NotEqual(t, word, words.Closest(word), "a word is not what it was meant to be itself")
		assert.NotEmpty(t, words.Closest(word+"s"), word)
	}
	few := nearest.NewWords([]string{"Height", "High"})
	assert.Equal(t, "Height", few.Closest("Hight"))
	assert.Equal(t, "", nearest.NewWords(nil).Closest("Hight"))
}
