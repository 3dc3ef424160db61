package look

import (
	"iter"
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
	var b strings.Builder
	for rest := text; ; {
		open := strings.IndexByte(rest, '{')
		end := strings.IndexByte(rest[open+1:], '}') + open + 1
		if open < 0 || end <= open {
			b.WriteString(rest)
			return b.String()
		}
		value, filled := valueOf(rest[open+1:end], pairs)
		if !filled {
			value = rest[open : end+1]
		}
		b.WriteString(rest[:open])
		b.WriteString(value)
		rest = rest[end+1:]
	}
}

// valueOf is what a name stands for in pairs of name and value.
func valueOf(name string, pairs []string) (value string, ok bool) {
	for i := 0; i+1 < len(pairs); i += 2 {
		if pairs[i] == name {
			return pairs[i+1], true
		}
	}
	return "", false
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
func (t Texts) Parts(key string) iter.Seq[Part] {
	return func(yield func(Part) bool) {
		for text := t.Say(key); text != ""; {
			open := strings.IndexByte(text, '{')
			end := strings.IndexByte(text, '}')
			if open < 0 || end < open {
				yield(Part{Words: text})
				return
			}
			if open > 0 && !yield(Part{Words: text[:open]}) {
				return
			}
			if !yield(Part{Slot: text[open+1 : end]}) {
				return
			}
			text = text[end+1:]
		}
	}
}

// slots are the names in the braces of a text, sorted.
func slots(text string) []string {
	var out []string
	for p := range (Texts{"": text}).Parts("") {
		if p.Slot != "" {
			out = append(out, p.Slot)
		}
	}
	slices.Sort(out)
	return slices.Compact(out)
}
