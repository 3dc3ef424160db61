package prose

import (
	"fmt"
	"strings"

	"codrel/internal/source"
)

// Fence is what stands behind the marks that open a fence: the language, and words such as
// "excerpt=Berth.Assign" or `from="func main"`.
type Fence struct {
	Language string
	Values   map[string]string // by what stands before "="; the last of several holds
	Keys     []string          // in order, each once
}

// ExcerptKey is the word by which a fence asks for a piece of source.
const ExcerptKey = "excerpt"

// MayBeExcerpt reports whether the words of a fence can ask for a piece of source; it is quick.
func MayBeExcerpt(info string) bool { return strings.Contains(info, ExcerptKey+"=") }

// ReadFence takes the words of a fence apart. The error says what is wrong with them; what
// could be read is there all the same.
func ReadFence(info string) (f Fence, err error) {
	f.Values = map[string]string{}
	rest := strings.TrimSpace(info)
	for first := true; rest != ""; first = false {
		word, after := rest, ""
		if i := strings.IndexAny(rest, " \t=\""); i >= 0 {
			word, after = rest[:i], rest[i:]
		}
		if !strings.HasPrefix(after, "=") {
			if i := strings.IndexAny(rest, " \t"); i >= 0 { // a word of somebody else's, such as "{.numbered}"
				word, after = rest[:i], rest[i:]
			} else {
				word, after = rest, ""
			}
			if first {
				f.Language = word
			}
			rest = strings.TrimLeft(after, " \t")
			continue
		}
		value, behind, closed := fenceValue(after[1:])
		if !closed {
			err = fmt.Errorf(`the quotes of %s are not closed`, word)
		}
		if _, twice := f.Values[word]; twice {
			err = fmt.Errorf("%q is given twice", word)
		} else {
			f.Keys = append(f.Keys, word)
		}
		f.Values[word] = value
		rest = strings.TrimLeft(behind, " \t")
	}
	return f, err
}

// fenceValue is a value up to a blank, or in quotes, in which "\"" and "\\" stand for the second
// character; closed tells that quotes have an end.
func fenceValue(s string) (value, rest string, closed bool) {
	if !strings.HasPrefix(s, `"`) {
		if i := strings.IndexAny(s, " \t"); i >= 0 {
			return s[:i], s[i:], true
		}
		return s, "", true
	}
	var b strings.Builder
	for i := 1; i < len(s); i++ {
		switch {
		case s[i] == '\\' && i+1 < len(s) && (s[i+1] == '"' || s[i+1] == '\\'):
			i++
			b.WriteByte(s[i])
		case s[i] == '"':
			return b.String(), s[i+1:], true
		default:
			b.WriteByte(s[i])
		}
	}
	return b.String(), "", false
}

// FenceAt is where a fence stands in the text of a page.
type FenceAt struct {
	Open   source.Span // its first line, with the line's end
	Inside source.Span // the lines between
	Prefix string      // what stands before each of these, of the list or quote that the fence is in
	Mark   string      // that opens it, such as "```"
	Break  string      // by which its lines end
}

// FindFence finds the fence whose words begin at an offset of a text; ok is false where there
// is no fence with an end.
func FindFence(text string, words int) (f FenceAt, ok bool) {
	if words <= 0 || words > len(text) {
		return f, false
	}
	start := strings.LastIndexByte(text[:words], '\n') + 1
	end := strings.IndexByte(text[words:], '\n')
	if end < 0 {
		return f, false
	}
	end += words + 1
	f.Open, f.Break = source.NewSpan(start, end), "\n"
	if strings.HasSuffix(text[start:end], "\r\n") {
		f.Break = "\r\n"
	}
	before := strings.TrimRight(text[start:words], " \t")
	marks := len(before) - len(strings.TrimRight(before, "`"))
	if marks == 0 {
		marks = len(before) - len(strings.TrimRight(before, "~"))
	}
	if marks < 3 {
		return f, false
	}
	f.Mark = before[len(before)-marks:]
	f.Prefix = continued(before[:len(before)-marks])
	for at := end; at < len(text); {
		line, _, ended := strings.Cut(text[at:], "\n")
		if f.closes(line) {
			f.Inside = source.NewSpan(end, at)
			return f, true
		}
		at += len(line)
		if ended {
			at++
		}
	}
	return f, false
}

// closes reports whether a line ends the fence.
func (f *FenceAt) closes(line string) bool {
	line = strings.TrimRight(f.Bare(line), " \t\r")
	trimmed := strings.TrimLeft(line, " ")
	return len(line)-len(trimmed) < 4 && len(trimmed) >= len(f.Mark) && strings.Trim(trimmed, f.Mark[:1]) == ""
}

// Bare is a line of the fence without what stands before it.
func (f *FenceAt) Bare(line string) string {
	if bare, ok := strings.CutPrefix(line, f.Prefix); ok {
		return bare
	}
	if short := strings.TrimRight(f.Prefix, " \t"); strings.HasPrefix(line, short) { // a blank line, or one indented less
		line = line[len(short):]
		for i := len(short); i < len(f.Prefix) && strings.HasPrefix(line, " "); i++ {
			line = line[1:]
		}
	}
	return line
}

// Lines are those of a text as they stand in the fence.
func (f *FenceAt) Lines(text string) string {
	var b strings.Builder
	for line := range strings.Lines(text) {
		line = strings.TrimRight(line, "\r\n")
		b.WriteString(strings.TrimRight(f.Prefix+line, " \t"))
		b.WriteString(f.Break)
	}
	return b.String()
}

// Holds reports whether the fence can hold a text: no line of that would end it.
func (f *FenceAt) Holds(text string) bool {
	for line := range strings.Lines(text) {
		if f.closes(f.Prefix + strings.TrimRight(line, "\r\n")) {
			return false
		}
	}
	return true
}

// continued is what stands before the further lines of a list item or quote of which one
// begins so.
func continued(first string) string {
	return strings.Map(func(r rune) rune {
		if r == '>' || r == '\t' {
			return r
		}
		return ' '
	}, first)
}
