package blocktags

import "strings"

// This file tells code in fences from the rest of a comment, in which tags stand
// ("Fenced code blocks" in CommonMark).

// fence is what opens or closes a block of code: so many of one sign.
type fence struct {
	sign byte
	size int
	bare bool // nothing stands behind it
}

// fenceAt reads the fence that a line begins with; its size is 0 where it is none.
// Backquotes that close on their line are a code span.
func fenceAt(text string) fence {
	text = strings.TrimLeft(text, " \t")
	if len(text) < 3 || text[0] != '`' && text[0] != '~' {
		return fence{}
	}
	size := 1
	for size < len(text) && text[size] == text[0] {
		size++
	}
	rest := strings.TrimSpace(text[size:])
	if size < 3 || text[0] == '`' && strings.Contains(rest, "`") {
		return fence{}
	}
	return fence{text[0], size, rest == ""}
}

// fences says of each line whether it belongs to a block of code. A fence that is
// never closed ends before the next tag, so that it swallows none.
func fences(lines []line) []bool {
	in := make([]bool, len(lines))
	open := map[byte]int{} // the size of fences that are known to have no end
	for i := 0; i < len(lines); i++ {
		f := fenceAt(lines[i].text)
		if f.size == 0 {
			continue
		}
		end := -1
		if size, known := open[f.sign]; !known || f.size < size {
			end = endOfFence(lines, i, f)
		}
		if end < 0 {
			open[f.sign] = f.size
			end = i
			for end+1 < len(lines) {
				if _, tag := tagAt(lines[end+1].from(lines[end+1].indent())); tag {
					break
				}
				end++
			}
		}
		for ; i < end; i++ {
			in[i] = true
		}
		in[end] = true
	}
	return in
}

// endOfFence is the line that closes the fence of a line, or -1.
func endOfFence(lines []line, i int, f fence) int {
	for end := i + 1; end < len(lines); end++ {
		if c := fenceAt(lines[end].text); c.sign == f.sign && c.size >= f.size && c.bare {
			return end
		}
	}
	return -1
}

// findDefinitions collects the lines that say where links of Markdown lead: each
// tag is read alone, and refers to all of them.
func (p *parser) findDefinitions(lines []line, fenced []bool) {
	const longest = 4000
	var b strings.Builder
	for i, l := range lines {
		text := strings.TrimSpace(l.text)
		if end := strings.Index(text, "]: "); !fenced[i] && end > 1 && text[0] == '[' && b.Len() < longest {
			b.WriteString("\n" + text)
		}
	}
	p.definitions = b.String()
}
