package markdown

import "strings"

// Fence is what opens or closes a block of code ("Fenced code blocks" in CommonMark): so many of one
// sign.
type Fence struct {
	Sign byte
	Size int
	Bare bool // nothing stands behind it
}

// FenceAt reads the fence that a line begins with; its size is 0 where it is none. Backquotes that
// close on their line are a code span.
func FenceAt(text string) Fence {
	text = strings.TrimLeft(text, " \t")
	if len(text) < 3 || text[0] != '`' && text[0] != '~' {
		return Fence{}
	}
	size := 1
	for size < len(text) && text[size] == text[0] {
		size++
	}
	rest := strings.TrimSpace(text[size:])
	if size < 3 || text[0] == '`' && strings.Contains(rest, "`") {
		return Fence{}
	}
	return Fence{text[0], size, rest == ""}
}

// Closes reports whether a fence ends the block that another one opened.
func (f Fence) Closes(open Fence) bool { return f.Sign == open.Sign && f.Size >= open.Size && f.Bare }
