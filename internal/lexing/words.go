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
