// Package search owns how a name is found: what a query means, which entries it
// matches, and in which order they come.
//
// The pages search with the same rules in a script of their own (see
// render/site/assets/codrel.js); one table of queries is run against both. The
// package knows entries and text, and neither pages nor declarations.
package search

import (
	"cmp"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"codrel/internal/nearest"
)

// Entry is one thing that can be found.
type Entry struct {
	Name       string
	Scope      string // enclosing names joined by "."
	Module     string
	Library    string
	Kind       string
	Summary    string   // first sentence, plain
	Address    string   // from the site's root
	Words      []string // more words it is found by, in small letters
	Takes      []string // names of the types of its parameters
	Gives      []string // names of the types of its results
	Deprecated bool
	Also       []string // other modules that it is known in; found in them only where the query says so
}

// Class tells how an entry matches, best first.
type Class int

// The classes of matches.
const (
	Exact     Class = iota // the name as written
	SameWord               // the name but for case
	Prefix                 // the name begins so
	Humps                  // "bA" finds berthAssign
	InnerWord              // "assign" finds berthAssign
	ExtraWord              // one of the words the maintainer gave
	Summary                // a word of the first sentence
	Slip                   // but for a slip of the finger
	none
)

// Hit is an entry that was found.
type Hit struct {
	*Entry
	Class Class
	Slips int    // how many, where Class is Slip
	Place string // the module in which it was found: its own, or another that it is known in
}

// Query is a query, taken apart.
type Query struct {
	Name      string   // the last name asked for, as written
	Qualifier []string // names before it, in small letters
	Kind      string
	In        string
	Takes     string
	Gives     string
}

var separators = strings.NewReplacer("::", ".", "->", ".", "#", ".", "/", ".")

// Parse takes a query apart: filters such as "kind:method", and a name that
// may have others before it.
func Parse(text string) Query {
	var q Query
	var rest []string
	for word := range strings.FieldsSeq(text) {
		key, value, ok := strings.Cut(word, ":")
		value = strings.ToLower(value)
		switch {
		case ok && !strings.HasPrefix(value, ":") && key == "kind":
			q.Kind = value
		case ok && !strings.HasPrefix(value, ":") && key == "in":
			q.In = value
		case ok && !strings.HasPrefix(value, ":") && key == "takes":
			q.Takes = value
		case ok && !strings.HasPrefix(value, ":") && key == "gives":
			q.Gives = value
		default:
			rest = append(rest, word)
		}
	}
	name := strings.TrimSuffix(separators.Replace(strings.Join(rest, ".")), "()")
	parts := strings.Split(name, ".")
	q.Name = parts[len(parts)-1]
	for _, p := range parts[:len(parts)-1] {
		if p != "" {
			q.Qualifier = append(q.Qualifier, strings.ToLower(p))
		}
	}
	return q
}

// Empty reports whether the query asks for nothing.
func (q Query) Empty() bool {
	return q.Name == "" && len(q.Qualifier) == 0 && q.Kind == "" && q.In == "" && q.Takes == "" && q.Gives == ""
}

// enough is how many good hits make guessing at slips needless.
const enough = 5

// Find lists the best hits, at most limit. Entries of the library that the
// reader is in come before others that match as well; deprecated ones come last.
func Find(entries []Entry, text, library string, limit int) []Hit {
	q := Parse(text)
	if q.Empty() {
		return nil
	}
	var hits []Hit
	good := 0
	for i := range entries {
		if c, place := match(&entries[i], q, false); c != none {
			hits = append(hits, Hit{Entry: &entries[i], Class: c, Place: place})
			if c <= InnerWord {
				good++
			}
		}
	}
	if good < enough {
		for i := range entries {
			if c, _ := match(&entries[i], q, false); c != none {
				continue
			}
			if c, place := match(&entries[i], q, true); c == Slip {
				n := nearest.Distance(strings.ToLower(q.Name), strings.ToLower(entries[i].Name), mostSlips+1)
				hits = append(hits, Hit{&entries[i], Slip, n, place})
			}
		}
	}
	slices.SortStableFunc(hits, func(a, b Hit) int { return compare(a, b, library) })
	hits = once(hits)
	return hits[:min(len(hits), limit)]
}

// once drops the further hits of a text that has several entries.
func once(hits []Hit) []Hit {
	seen := map[string]bool{}
	return slices.DeleteFunc(hits, func(h Hit) bool {
		if !h.isText() {
			return false
		}
		key := h.Address + "\x00" + h.Name
		was := seen[key]
		seen[key] = true
		return was
	})
}

// mostNearest is how many names are offered where nothing is found.
const mostNearest = 3

// Nearest are the names closest to what was looked for, at most three and each
// once, for the state in which nothing is found: up to half of the letters may differ.
func Nearest(entries []Entry, text string) []string {
	term := strings.ToLower(Parse(text).Name)
	most := utf8.RuneCountInString(term)/2 + 1
	type candidate struct {
		*Entry
		distance int
	}
	var list []candidate
	for i := range entries {
		if d := nearest.Distance(term, strings.ToLower(entries[i].Name), most); d < most {
			list = append(list, candidate{&entries[i], d})
		}
	}
	slices.SortStableFunc(list, func(a, b candidate) int {
		return cmp.Or(cmp.Compare(a.distance, b.distance), Compare(a.Entry, b.Entry))
	})
	var names []string
	for _, c := range list {
		if len(names) < mostNearest && !slices.Contains(names, c.Name) {
			names = append(names, c.Name)
		}
	}
	return names
}

func compare(a, b Hit, library string) int {
	return cmp.Or(
		truth(a.last())-truth(b.last()),
		cmp.Compare(a.Class, b.Class),
		cmp.Compare(a.Slips, b.Slips),
		truth(a.Deprecated)-truth(b.Deprecated),
		truth(a.Library != library)-truth(b.Library != library),
		Compare(a.Entry, b.Entry),
	)
}

// Compare orders entries that match equally well: by kind as people look for
// them, then the shorter name, then by the letter; deprecated ones last.
func Compare(a, b *Entry) int {
	x, y := a.Order(), b.Order()
	return x.Compare(&y)
}

// Order is what the order of entries that match equally well hangs on.
type Order struct {
	Name, Scope, Module string
	letters             int32 // of the name
	rank                int8  // of the kind; those that are deprecated come behind all others
}

// Order is the entry's own.
func (e *Entry) Order() Order {
	o := Order{Name: e.Name, Scope: e.Scope, Module: e.Module, letters: int32(utf8.RuneCountInString(e.Name)), rank: kindRank(e.Kind)}
	if e.Deprecated {
		o.rank += lastRank + 1
	}
	return o
}

// Compare tells which of two comes first, see the function of that name.
func (o *Order) Compare(with *Order) int {
	// One question after the other: most are never asked, and there are millions.
	switch {
	case o.rank != with.rank:
		return cmp.Compare(o.rank, with.rank)
	case o.letters != with.letters:
		return cmp.Compare(o.letters, with.letters)
	case o.Name != with.Name:
		return cmp.Or(compareSmall(o.Name, with.Name), strings.Compare(o.Name, with.Name))
	}
	return cmp.Or(strings.Compare(o.Module, with.Module), strings.Compare(o.Scope, with.Scope))
}

// compareSmall compares two texts in small letters.
func compareSmall(a, b string) int {
	for i := 0; i < len(a) && i < len(b); i++ {
		x, y := a[i], b[i]
		if x >= utf8.RuneSelf || y >= utf8.RuneSelf {
			return strings.Compare(strings.ToLower(a), strings.ToLower(b))
		}
		if 'A' <= x && x <= 'Z' {
			x += 'a' - 'A'
		}
		if 'A' <= y && y <= 'Z' {
			y += 'a' - 'A'
		}
		if x != y {
			return cmp.Compare(x, y)
		}
	}
	return cmp.Compare(len(a), len(b))
}

// last reports whether a hit comes behind all others: it is deprecated, and not
// what was asked for by its whole name.
func (h Hit) last() bool { return h.Deprecated && h.Class > SameWord }

func truth(b bool) int {
	if b {
		return 1
	}
	return 0
}

// lastRank is the largest that a kind has.
const lastRank = 5

// kindRank orders equals as people look for them.
func kindRank(kind string) int8 {
	switch kind {
	case "module":
		return 0
	case "function", "macro":
		return 2
	case "method", "constructor", "operator", "property":
		return 3
	case "constant", "variable", "enum-member", GuideKind:
		return 4
	case "field", SectionKind:
		return lastRank
	}
	return 1 // types
}

// match tells how an entry matches a query, and in which module; slips says to look for
// slips alone.
func match(e *Entry, q Query, slips bool) (c Class, place string) {
	if q.Kind != "" && !strings.HasPrefix(e.Kind, q.Kind) ||
		q.Takes != "" && !anyPrefix(e.Takes, q.Takes) || q.Gives != "" && !anyPrefix(e.Gives, q.Gives) {
		return none, ""
	}
	place, found := placed(e, q)
	switch {
	case !found:
		return none, ""
	case q.Name == "":
		return Prefix, place
	}
	return matchName(e, q.Name, slips), place
}

// placed finds the module, of those that an entry is known in, that a query asks for.
func placed(e *Entry, q Query) (module string, found bool) {
	fits := func(module string) bool {
		return (q.In == "" || within(e.Library, module, q.In)) && (qualified(module, e.Scope, q.Qualifier) || e.isText() && hasWords(e, q.Qualifier))
	}
	if fits(e.Module) {
		return e.Module, true
	}
	for _, other := range e.Also {
		if fits(other) {
			return other, true
		}
	}
	return "", false
}

// The kinds of entries whose names are titles, and which are found by all words: a text, and a
// part of one.
const (
	GuideKind   = "guide"
	SectionKind = "guide-section"
)

func (e *Entry) isText() bool { return e.Kind == GuideKind || e.Kind == SectionKind }

// hasWords reports whether the title of a text, or its words, have all of some beginnings.
func hasWords(e *Entry, starts []string) bool {
	title := strings.Fields(strings.ToLower(e.Name))
	for _, start := range starts {
		if !anyPrefix(title, start) && !anyPrefix(e.Words, start) {
			return false
		}
	}
	return true
}

// within reports whether a module of a library stands in a place: a library, or a module
// by the end of its path, a part of it, or the beginning of its last part.
func within(library, module, place string) bool {
	module = "/" + strings.ToLower(strings.ReplaceAll(module, ".", "/"))
	place = "/" + strings.ReplaceAll(place, ".", "/")
	return "/"+strings.ToLower(library) == place || strings.HasSuffix(module, place) ||
		strings.Contains(module, place+"/") || strings.HasPrefix(module[strings.LastIndexByte(module, '/'):], place)
}

func anyPrefix(list []string, start string) bool {
	return slices.ContainsFunc(list, func(s string) bool { return strings.HasPrefix(strings.ToLower(s), start) })
}

// qualified reports whether the names before the last one end in the qualifier;
// each may be cut short.
func qualified(module, scope string, qualifier []string) bool {
	if len(qualifier) == 0 {
		return true
	}
	path := strings.FieldsFunc(strings.ToLower(module+"."+scope), func(r rune) bool { return r == '.' || r == '/' })
	if len(path) < len(qualifier) {
		return false
	}
	path = path[len(path)-len(qualifier):]
	for i, want := range qualifier {
		if !strings.HasPrefix(path[i], want) {
			return false
		}
	}
	return true
}

func matchName(e *Entry, term string, slips bool) Class {
	name, low := strings.ToLower(e.Name), strings.ToLower(term)
	if slips {
		return slip(name, low)
	}
	switch {
	case e.Name == term, name == term: // what is typed without capitals asks for no case
		return Exact
	case name == low:
		return SameWord
	case humps(e.Name, term):
		if strings.HasPrefix(name, low) {
			return Prefix
		}
		return Humps
	case strings.HasPrefix(name, low) && innerCapital(term):
		return InnerWord // a capital asks for a part of the name to begin there
	case strings.HasPrefix(name, low):
		return Prefix
	}
	for _, start := range humpStarts(e.Name) {
		if start > 0 && strings.HasPrefix(string([]rune(name)[start:]), low) {
			return InnerWord
		}
	}
	if anyPrefix(e.Words, low) {
		if e.isText() { // they are those of its text
			return Summary
		}
		return ExtraWord
	}
	if utf8.RuneCountInString(low) >= shortestWord && anyPrefix(SummaryWords(e.Summary), low) {
		return Summary
	}
	return none
}

// innerCapital reports whether a capital follows a small letter, as in "bA".
func innerCapital(term string) bool {
	small := false
	for _, r := range term {
		if small && unicode.IsUpper(r) {
			return true
		}
		small = small || unicode.IsLower(r)
	}
	return false
}

// shortestWord is how long a word of a summary must be to be looked for.
const shortestWord = 4

// common are words that stand in too many sentences to find anything by.
var common = map[string]bool{
	"about": true, "been": true, "does": true, "each": true, "from": true, "have": true, "into": true, "only": true, "returns": true,
	"than": true, "that": true, "their": true, "them": true, "then": true, "they": true, "this": true, "used": true, "when": true,
	"where": true, "whether": true, "which": true, "will": true, "with": true,
}

// SummaryWords are the words of a summary that it is found by.
func SummaryWords(summary string) []string {
	var out []string
	for _, w := range strings.FieldsFunc(strings.ToLower(summary), func(r rune) bool { return !unicode.IsLetter(r) && !unicode.IsDigit(r) }) {
		if utf8.RuneCountInString(w) >= shortestWord && !common[w] {
			out = append(out, w)
		}
	}
	return out
}

// mostSlips is how many wrong letters a long word may have.
const mostSlips = 2

// slip forgives one wrong letter in words of four letters and more, two from eight on.
func slip(name, term string) Class {
	n := utf8.RuneCountInString(term)
	if n < shortestWord {
		return none
	}
	most := 1
	if n >= 2*shortestWord {
		most = mostSlips
	}
	if nearest.Distance(term, name, most+1) <= most {
		return Slip
	}
	return none
}

// humpStarts are the places, in runes, where a part of a name begins.
func humpStarts(name string) []int {
	letters := []rune(name)
	var starts []int
	for i, r := range letters {
		upper := unicode.IsUpper(r)
		switch {
		case i == 0,
			upper && !unicode.IsUpper(letters[i-1]),
			upper && i+1 < len(letters) && unicode.IsLower(letters[i+1]),
			unicode.IsDigit(r) && !unicode.IsDigit(letters[i-1]),
			!isGap(r) && isGap(letters[i-1]):
			starts = append(starts, i)
		}
	}
	return starts
}

// isGap reports whether a letter stands between the parts of a name.
func isGap(r rune) bool { return r == '_' || r == ' ' }

// Initials are the first letters of a name's parts, in small letters.
func Initials(name string) string {
	letters := []rune(strings.ToLower(name))
	var b strings.Builder
	for _, i := range humpStarts(name) {
		b.WriteRune(letters[i])
	}
	return b.String()
}

// InnerWords are what remains of a name from each of its later parts on, in
// small letters.
func InnerWords(name string) []string {
	letters := []rune(strings.ToLower(name))
	var out []string
	for _, i := range humpStarts(name) {
		if i > 0 {
			out = append(out, string(letters[i:]))
		}
	}
	return out
}

// humps reports whether the letters of term run along the parts of name: each
// letter goes on in its part or begins the next, and a capital always begins one.
func humps(name, term string) bool {
	letters, low, want := []rune(name), []rune(strings.ToLower(name)), []rune(term)
	starts := map[int]bool{}
	for _, i := range humpStarts(name) {
		starts[i] = true
	}
	failed := map[[2]int]bool{} // without it, names of many equal parts take time without end
	var along func(i, j int) bool
	along = func(i, j int) bool {
		if j == len(want) {
			return true
		}
		if failed[[2]int{i, j}] {
			return false
		}
		capital := unicode.IsUpper(want[j]) && j > 0
		if i < len(letters) && low[i] == unicode.ToLower(want[j]) && (!capital || starts[i]) && along(i+1, j+1) {
			return true
		}
		for k := i + 1; k < len(letters) && j > 0; k++ {
			if starts[k] && low[k] == unicode.ToLower(want[j]) && along(k+1, j+1) {
				return true
			}
		}
		failed[[2]int{i, j}] = true
		return false
	}
	return len(want) > 1 && len(want) <= longestTerm && len(letters) <= longestTerm*4 && along(0, 0)
}

// longestTerm bounds the search along humps.
const longestTerm = 32
