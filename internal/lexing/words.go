package lexing

import (
	"slices"
	"strings"
)

// WordSet is the set of the words in a list, which white space parts.
func WordSet(list string) map[string]bool {
	set := map[string]bool{}
	for word := range strings.FieldsSeq(list) {
		set[word] = true
	}
	return set
}

// OneOf is the question whether a word is in any of some sets. Most words of a program are in
// none, and for most of these their length and first byte tell.
func OneOf(sets ...map[string]bool) func(word string) bool {
	const longest, letters = 32, 32
	var places [longest * letters]uint16 // by length and first byte: behind the place of the words with these
	words := [][]string{nil}
	for _, set := range sets {
		for word, in := range set {
			if !in || word == "" || len(word) >= longest {
				continue
			}
			at := len(word)*letters + int(word[0])%letters
			if places[at] == 0 {
				places[at] = uint16(len(words))
				words = append(words, nil)
			}
			if n := places[at]; !slices.Contains(words[n], word) {
				words[n] = append(words[n], word)
			}
		}
	}
	return func(word string) bool {
		n := len(word)
		if n == 0 || n >= longest {
			return false
		}
		place := places[n*letters+int(word[0])%letters]
		return place != 0 && slices.Contains(words[place], word)
	}
}
