package markup

import "strings"

// Open and Close stand in code around a part of it that is marked: two code points that
// Unicode keeps from being characters. What is marked how is known beside them, in the order
// of their opening.
const (
	Open  = "\uFDD0"
	Close = "\uFDD1"
)

// Plain is a text without the signs of marks.
func Plain(text string) string {
	if !strings.Contains(text, "\uFDD0") && !strings.Contains(text, "\uFDD1") {
		return text
	}
	return strings.NewReplacer(Open, "", Close, "").Replace(text)
}

// Unmarked takes the signs of marks out of a text and gives where each mark begins and ends in
// what is left, in the order of their opening. What is never closed goes on to the end.
func Unmarked(text string) (plain string, marks [][2]int) {
	var b strings.Builder
	var open []int
	for text != "" {
		i := strings.Index(text, "\uFDD0")
		if j := strings.Index(text, "\uFDD1"); i < 0 || j >= 0 && j < i {
			i = j
		}
		if i < 0 {
			b.WriteString(text)
			break
		}
		b.WriteString(text[:i])
		if strings.HasPrefix(text[i:], Open) {
			open = append(open, len(marks))
			marks = append(marks, [2]int{b.Len(), -1})
		} else if n := len(open) - 1; n >= 0 {
			marks[open[n]][1] = b.Len()
			open = open[:n]
		}
		text = text[i+len(Open):]
	}
	for _, n := range open {
		marks[n][1] = b.Len()
	}
	return b.String(), marks
}
