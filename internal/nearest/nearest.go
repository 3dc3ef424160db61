// Package nearest finds the known word that a wrong one was probably meant to
// be, for "did you mean". It knows words only.
package nearest

import (
	"strings"
	"unicode/utf8"
)

// Word is the candidate closest to word, or "" where none is close enough: as
// many slips as a third of the letters, at least one. A difference in case
// alone always counts as close. Of equals the first candidate wins.
func Word(word string, candidates []string) string {
	best, bestDistance := "", limit(word)+1
	for _, c := range candidates {
		if c == word {
			continue
		}
		d := Distance(strings.ToLower(word), strings.ToLower(c), bestDistance)
		if len(word) >= shortestStart && d > limit(word) && strings.HasPrefix(strings.ToLower(c), strings.ToLower(word)) {
			d = limit(word) // the beginning of a longer word
		}
		if d < bestDistance {
			best, bestDistance = c, d
		}
	}
	return best
}

// shortestStart is how much of a longer word must be there to count as its beginning.
const shortestStart = 3

// limit is 0 for a single letter: any other would be one slip away.
func limit(word string) int {
	n := utf8.RuneCountInString(word)
	return max(min(n-1, 1), n/3)
}

// Distance counts the single-letter slips between a and b: a letter left out,
// put in, changed, or two neighbours swapped (optimal string alignment). It
// gives up and returns most as soon as the distance is known to reach it.
func Distance(a, b string, most int) int {
	x, y := []rune(a), []rune(b)
	if abs(len(x)-len(y)) >= most {
		return most
	}
	before, last, row := make([]int, len(y)+1), make([]int, len(y)+1), make([]int, len(y)+1)
	for j := range last {
		last[j] = j
	}
	for i := 1; i <= len(x); i++ {
		row[0] = i
		least := i
		for j := 1; j <= len(y); j++ {
			cost := 1
			if x[i-1] == y[j-1] {
				cost = 0
			}
			d := min(row[j-1]+1, last[j]+1, last[j-1]+cost)
			if i > 1 && j > 1 && x[i-1] == y[j-2] && x[i-2] == y[j-1] {
				d = min(d, before[j-2]+1)
			}
			row[j] = d
			least = min(least, d)
		}
		if least >= most {
			return most
		}
		before, last, row = last, row, before
	}
	return min(last[len(y)], most)
}

func abs(n int) int {
	if n < 0 {
		return -n
	}
	return n
}
