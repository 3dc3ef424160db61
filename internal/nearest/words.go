package nearest

import (
	"cmp"
	"slices"
	"strings"
)

// Words are known words that many wrong ones are compared with.
type Words struct {
	list    []string
	byStart []place // sorted
	byEnd   []place // sorted by their letters from the last to the first
}

// place is a word in small letters, and where it stands in the list.
type place struct {
	word string
	at   int
}

// exhaustive is how many words are compared one by one. Of more words, only those are that
// come next to the wrong one by its beginning or by its end: a slip leaves one of the two
// as it was.
const (
	exhaustive = 2000
	around     = 250
)

// NewWords prepares known words.
func NewWords(list []string) *Words {
	w := &Words{list: list}
	if len(list) <= exhaustive {
		return w
	}
	for i, word := range list {
		word = strings.ToLower(word)
		w.byStart = append(w.byStart, place{word, i})
		w.byEnd = append(w.byEnd, place{reversed(word), i})
	}
	byWord := func(a, b place) int { return cmp.Or(strings.Compare(a.word, b.word), cmp.Compare(a.at, b.at)) }
	slices.SortFunc(w.byStart, byWord)
	slices.SortFunc(w.byEnd, byWord)
	return w
}

// Closest is the word closest to another one, as by [Word]. However many words there are,
// it takes about as long.
func (w *Words) Closest(word string) string {
	if len(w.list) <= exhaustive {
		return Word(word, w.list)
	}
	small := strings.ToLower(word)
	var near []int
	near = appendAround(near, w.byStart, small)
	near = appendAround(near, w.byEnd, reversed(small))
	slices.Sort(near)
	near = slices.Compact(near)
	candidates := make([]string, len(near))
	for i, at := range near {
		candidates[i] = w.list[at]
	}
	return Word(word, candidates)
}

// appendAround puts the places of the words next to one to a list.
func appendAround(near []int, sorted []place, word string) []int {
	at, _ := slices.BinarySearchFunc(sorted, word, func(p place, word string) int { return strings.Compare(p.word, word) })
	for _, p := range sorted[max(0, at-around):min(len(sorted), at+around)] {
		near = append(near, p.at)
	}
	return near
}

func reversed(word string) string {
	letters := []rune(word)
	slices.Reverse(letters)
	return string(letters)
}
