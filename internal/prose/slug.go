package prose

import (
	"maps"
	"slices"
	"strconv"
	"strings"
	"unicode"
)

// Slug makes an anchor of a heading's text: letters and digits of any script,
// small where the script has cases, other runs as one "-".
func Slug(text string) string {
	var b strings.Builder
	gap := false
	for _, r := range text {
		if !unicode.IsLetter(r) && !unicode.IsDigit(r) && !unicode.Is(unicode.Mn, r) && !unicode.Is(unicode.Mc, r) {
			gap = b.Len() > 0
			continue
		}
		if gap {
			b.WriteByte('-')
			gap = false
		}
		b.WriteRune(unicode.ToLower(r))
	}
	if b.Len() == 0 {
		return "section"
	}
	return b.String()
}

// Slugs makes anchors that stand on one page: what has been there before gets a number.
type Slugs struct{ times map[string]int }

// Next is an anchor that is new on the page, made of one that may not be.
func (s *Slugs) Next(slug string) string {
	if s.times == nil {
		s.times = map[string]int{}
	}
	s.times[slug]++
	out := slug
	for n := s.times[slug]; n > 1; n++ {
		if out = slug + "-" + strconv.Itoa(n); s.times[out] == 0 {
			s.times[slug], s.times[out] = n, 1
			break
		}
	}
	return out
}

// Anchors are the places of a text that links can lead to.
type Anchors struct {
	names   map[string]bool // those that the text gives itself
	heads   map[string]bool // those of headings
	slugs   Slugs
	squeeze map[string][]string // by their letters and digits alone, the anchors in order
}

// NewAnchors are those of a text without any yet.
func NewAnchors() *Anchors {
	return &Anchors{names: map[string]bool{}, heads: map[string]bool{}, squeeze: map[string][]string{}}
}

// Note adds what a node is a place of, which stands behind all that were noted.
func (a *Anchors) Note(n *Node) {
	switch n.Kind {
	case Heading:
		text := Plain(n.Children)
		slug := a.slugs.Next(Slug(text))
		a.heads[slug] = true
		a.squeeze[squeezed(text)] = append(a.squeeze[squeezed(text)], slug)
	case Anchor:
		a.names[n.Target] = true
	}
}

// Top is the title of the text, and the anchor of what stands above it.
func (a *Anchors) Top(title, anchor string) {
	key := squeezed(title)
	a.squeeze[key] = append([]string{anchor}, a.squeeze[key]...)
}

// Own reports whether a text's own anchor is one that no heading has.
func (a *Anchors) Own(name string) bool { return a.names[name] && !a.heads[name] }

// Find is the anchor that a link means. Forges make anchors of headings in ways of their own
// and number them from 1 behind a "-": those are understood as well.
func (a *Anchors) Find(anchor string) (slug string, ok bool) {
	if a.names[anchor] || a.heads[anchor] {
		return anchor, true
	}
	if list := a.squeeze[squeezed(anchor)]; len(list) > 0 {
		return list[0], true
	}
	dash := strings.LastIndexByte(anchor, '-')
	if dash < 0 {
		return "", false
	}
	n, err := strconv.Atoi(anchor[dash+1:])
	if list := a.squeeze[squeezed(anchor[:dash])]; err == nil && n > 0 && n < len(list) {
		return list[n], true
	}
	return "", false
}

// All are the anchors of headings, and the text's own.
func (a *Anchors) All() []string {
	return append(slices.Collect(maps.Keys(a.heads)), slices.Collect(maps.Keys(a.names))...)
}

// squeezed is a text without all that is no letter or digit.
func squeezed(text string) string {
	return strings.Map(func(r rune) rune {
		if unicode.IsLetter(r) || unicode.IsDigit(r) || unicode.IsMark(r) {
			return unicode.ToLower(r)
		}
		return -1
	}, text)
}
