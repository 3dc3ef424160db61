package lexing

import "strings"

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
	const longest = 32
	all := map[string]bool{}
	var begins [longest][256]bool // by length
	for _, set := range sets {
		for word, in := range set {
			if in && word != "" && len(word) < longest {
				all[word], begins[len(word)][word[0]] = true, true
			}
		}
	}
	return func(word string) bool {
		n := len(word)
		return n > 0 && n < longest && begins[n][word[0]] && all[word]
	}
}
