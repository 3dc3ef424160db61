// Package markup reads the tags of HTML and XML as they stand in comments: it finds where
// they end and what their attributes say, of whatever people write.
//
// It knows no element and makes nothing of them: dialects do.
package markup

import (
	"html"
	"strings"
)

// Tag is the tag of an element.
type Tag struct {
	Name       string // in small letters
	Closing    bool
	Empty      bool // it closes what it opens
	attributes string
	Length     int // in bytes
}

// LongestTag is how many bytes the tag of an element takes at most.
const LongestTag = 2000

// ReadTag reads the tag that a text begins with; ok is false where there is none.
func ReadTag(text string) (t Tag, ok bool) {
	i := 1
	if i < len(text) && text[i] == '/' {
		t.Closing = true
		i++
	}
	from := i
	for i < len(text) && (IsLetter(text[i]) || i > from && text[i] >= '0' && text[i] <= '9') {
		i++
	}
	if i == from {
		return t, false
	}
	t.Name = strings.ToLower(text[from:i])
	attributes := i
	for quote := byte(0); i < min(len(text), LongestTag); i++ {
		switch c := text[i]; {
		case quote != 0:
			if c == quote {
				quote = 0
			}
		case c == '"' || c == '\'':
			if text[i-1] == '=' || text[i-1] == ' ' {
				quote = c
			}
		case c == '<':
			return t, false
		case c == '>':
			t.attributes, t.Length = text[attributes:i], i+1
			t.Empty = strings.HasSuffix(t.attributes, "/")
			return t, true
		}
	}
	return t, false
}

// Attribute is the value of an attribute, or "".
func (t Tag) Attribute(name string) string {
	const blanks = " \t\r\n"
	for rest := strings.TrimLeft(t.attributes, blanks+"/"); rest != ""; rest = strings.TrimLeft(rest, blanks+"/") {
		end := strings.IndexAny(rest, blanks+"=")
		if end < 0 {
			return ""
		}
		found := strings.EqualFold(rest[:end], name)
		rest = strings.TrimLeft(rest[end:], blanks)
		if !strings.HasPrefix(rest, "=") {
			continue
		}
		rest = strings.TrimLeft(rest[1:], blanks)
		value := ""
		if rest != "" && (rest[0] == '"' || rest[0] == '\'') {
			value, rest, _ = strings.Cut(rest[1:], rest[:1])
		} else {
			end := strings.IndexAny(rest, blanks)
			if end < 0 {
				end = len(rest)
			}
			value, rest = rest[:end], rest[end:]
		}
		if found {
			return html.UnescapeString(strings.TrimSpace(value))
		}
	}
	return ""
}

// IsLetter reports whether a byte is a letter of English.
func IsLetter(c byte) bool { return 'a' <= c|0x20 && c|0x20 <= 'z' }

// Trimmed are the offsets of a piece of a text without the blanks at its ends.
func Trimmed(text string, from, to int) (int, int) {
	for from < to && strings.IndexByte(" \t\r\n", text[from]) >= 0 {
		from++
	}
	for to > from && strings.IndexByte(" \t\r\n", text[to-1]) >= 0 {
		to--
	}
	return from, to
}

// Undented takes off what all lines of code are indented by.
func Undented(code string) string {
	lines := strings.Split(code, "\n")
	common := -1
	for _, l := range lines {
		if strings.TrimSpace(l) == "" {
			continue
		}
		if n := len(l) - len(strings.TrimLeft(l, " ")); common < 0 || n < common {
			common = n
		}
	}
	for i, l := range lines {
		lines[i] = strings.TrimRight(l[min(max(common, 0), len(l)):], " \t\r")
	}
	return strings.Join(lines, "\n")
}
