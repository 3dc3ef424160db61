package blocktags

import (
	"strings"

	"codrel/internal/prose/markdown"
)

// This file tells code in fences from the rest of a comment, in which tags stand
// ("Fenced code blocks" in CommonMark).

// fences says of each line whether it belongs to a block of code. A fence that is
// never closed ends before the next tag, so that it swallows none.
func fences(lines []line) []bool {
	in := make([]bool, len(lines))
	open := map[byte]int{} // the size of fences that are known to have no end
	for i := 0; i < len(lines); i++ {
		f := markdown.FenceAt(lines[i].text)
		if f.Size == 0 {
			continue
		}
		end := -1
		if size, known := open[f.Sign]; !known || f.Size < size {
			end = endOfFence(lines, i, f)
		}
		if end < 0 {
			open[f.Sign] = f.Size
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
func endOfFence(lines []line, i int, f markdown.Fence) int {
	for end := i + 1; end < len(lines); end++ {
		if markdown.FenceAt(lines[end].text).Closes(f) {
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
