package nearest_test

import (
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/nearest"
)

// What is passed over by its letters alone is never the closest.
func TestPassedOver(t *testing.T) {
	random := rand.New(rand.NewPCG(3, 5))
	word := func() string {
		var b strings.Builder
		for range 1 + random.IntN(9) {
			b.WriteByte("abcdeTIDE_09"[random.IntN(12)])
		}
		return b.String()
	}
	found := 0
	for range 3000 {
		wrong, candidates := word(), []string{word(), word(), word(), word(), word(), word()}
		best, least := "", max(min(len(wrong)-1, 1), len(wrong)/3)+1
		for _, c := range candidates {
			if c == wrong {
				continue
			}
			d := nearest.Distance(strings.ToLower(wrong), strings.ToLower(c), 100)
			if begins := len(wrong) >= 3 && strings.HasPrefix(strings.ToLower(c), strings.ToLower(wrong)); begins {
				d = min(d, max(min(len(wrong)-1, 1), len(wrong)/3))
			}
			if d < least {
				best, least = c, d
			}
		}
		assert.Equal(t, best, nearest.Word(wrong, candidates), "%s among %v", wrong, candidates)
		if best != "" {
			found++
		}
	}
	assert.Greater(t, found, 100)
}
