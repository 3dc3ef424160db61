package prose

import (
	"slices"
	"strings"
)

// Vocabulary says what words of a maintainer's own mean as tags and headings of
// comments: the word in small letters, and one of [Meanings].
type Vocabulary map[string]string

// What a word may mean besides a section.
const (
	MeansLabel      = "label"      // what follows is shown behind the word
	MeansMark       = "mark"       // it speaks to tools; text that follows goes on with the comment
	MeansIgnored    = "ignored"    // it is left out, with what follows
	MeansDeprecated = "deprecated" // what follows is the advice of a deprecation
	MeansText       = "text"       // what follows goes on with the comment
)

// Meanings lists what a word may mean: the named sections and the words above.
func Meanings() []string {
	return append(SectionNames(), MeansDeprecated, MeansIgnored, MeansLabel, MeansMark, MeansText)
}

// SectionNames are the names of all sections but for those with titles of their own.
func SectionNames() []string {
	return slices.DeleteFunc(slices.Clone(PartNames[:]), func(name string) bool { return name == PartNames[Other] })
}

// Of is what a word means, or "" where nobody said so.
func (v Vocabulary) Of(word string) string {
	if len(v) == 0 {
		return ""
	}
	return v[strings.ToLower(word)]
}

// PartNamed is the kind of section that a name stands for.
func PartNamed(name string) (PartKind, bool) {
	i := slices.Index(PartNames[:], name)
	return PartKind(max(i, 0)), i >= 0
}

// Described reports whether the comment says anything about its subject: one that
// consists of tags alone, such as since when it is there, does not.
func (s *Sections) Described() bool {
	if len(s.Body) > 0 || len(s.Deprecated) > 0 {
		return true
	}
	for i := range s.Parts {
		p := &s.Parts[i]
		if p.Kind == SeeAlso || p.Kind == Since || p.Kind == Authors || p.Kind == Version || p.Kind == Other {
			continue
		}
		if len(p.Body) > 0 || slices.ContainsFunc(p.Entries, func(e Entry) bool { return len(e.Text) > 0 }) {
			return true
		}
	}
	return false
}
