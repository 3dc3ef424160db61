// Package nearest finds the known word that a wrong one was probably meant to
// be, for "did you mean". It knows words only.
package nearest

import (
	"math/bits"
	"strings"
	"unicode/utf8"
)

// Word is the candidate closest to word, or "" where none is close enough: as
// many slips as a third of the letters, at least one. A difference in case
// alone always counts as close. Of equals the first candidate wins.
func Word(word string, candidates []string) string {
	most := limit(word)
	best, bestDistance := "", most+1
	small := strings.ToLower(word)
	letters, plain := lettersOf(small)
	for _, c := range candidates {
		if c == word {
			continue
		}
		low := strings.ToLower(c)
		begins := len(word) >= shortestStart && strings.HasPrefix(low, small)
		if !begins && plain {
			if other, ok := lettersOf(low); ok && (bits.OnesCount64(letters^other)+1)/2 >= bestDistance {
				continue // a slip makes two letters others at most
			}
		}
		d := Distance(small, low, bestDistance)
		if begins && d > most {
			d = most // the beginning of a longer word
		}
		if d < bestDistance {
			best, bestDistance = c, d
		}
	}
	return best
}

// lettersOf is which letters a word has, as bits; plain is false where some take several bytes.
func lettersOf(word string) (set uint64, plain bool) {
	for i := range len(word) {
		if word[i] >= utf8.RuneSelf {
			return 0, false
		}
		set |= 1 << (word[i] & 63)
	}
	return set, true
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
	var room [3 * commonLength]int
	rows := room[:]
	if 3*(len(y)+1) > len(rows) {
		rows = make([]int, 3*(len(y)+1))
	}
	n := len(y) + 1
	before, last, row := rows[:n:n], rows[n:2*n:2*n], rows[2*n:3*n:3*n]
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

// commonLength is how many letters common names have at most.
const commonLength = 48

func abs(n int) int {
	if n < 0 {
		return -n
	}
	return n
}
