package look

import (
	"maps"
	"slices"
	"strconv"
	"strings"
)

// Texts are the words of the pages in one language, by key. What stands in
// braces is filled in.
type Texts map[string]string

// locales are the languages that ship with the program.
var locales = map[string]Texts{"en": english, "de": german}

// Locales are the names of the languages that ship with the program.
func Locales() []string { return slices.Sorted(maps.Keys(locales)) }

// Say is the text of a key with its braces filled in from pairs of name and value.
func (t Texts) Say(key string, pairs ...string) string {
	text, ok := t[key]
	if !ok {
		text = english[key]
	}
	if len(pairs) == 0 {
		return text
	}
	braced := make([]string, len(pairs))
	for i := 0; i+1 < len(pairs); i += 2 {
		braced[i], braced[i+1] = "{"+pairs[i]+"}", pairs[i+1]
	}
	return strings.NewReplacer(braced...).Replace(text)
}

// In is the key of a text in a language of source code: languages call some
// things by words of their own, which stand under the key with the language behind it.
func (t Texts) In(key, language string) string {
	if own := key + "-" + language; t[own] != "" || english[own] != "" {
		return own
	}
	return key
}

// Count says how many there are of a thing, in the one of its two forms that fits.
func (t Texts) Count(n int, thing string) string {
	form := ".many"
	if n == 1 {
		form = ".one"
	}
	return t.Say(thing+form, "n", strconv.Itoa(n))
}

// Part is a piece of a text: words, or the name of what is filled in there.
type Part struct {
	Words string
	Slot  string
}

// Parts takes the text of a key apart, for texts with links in them.
func (t Texts) Parts(key string) []Part {
	text := t.Say(key)
	var out []Part
	for text != "" {
		open := strings.IndexByte(text, '{')
		end := strings.IndexByte(text, '}')
		if open < 0 || end < open {
			return append(out, Part{Words: text})
		}
		if open > 0 {
			out = append(out, Part{Words: text[:open]})
		}
		out = append(out, Part{Slot: text[open+1 : end]})
		text = text[end+1:]
	}
	return out
}

// slots are the names in the braces of a text, sorted.
func slots(text string) []string {
	var out []string
	for _, p := range (Texts{"": text}).Parts("") {
		if p.Slot != "" {
			out = append(out, p.Slot)
		}
	}
	slices.Sort(out)
	return slices.Compact(out)
}
