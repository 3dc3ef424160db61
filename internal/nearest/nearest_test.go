package nearest_test

import (
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
