package perl

import (
	"codrel/internal/lexing"
	"codrel/internal/source"
)

// share gives a text to declarations without one that an entry names in what describes another: a flag in
// the list of all of them, a setting of the constructor that is a method as well. The entry stays where it is.
func (r *reader) share(paragraphs []paragraph, byName map[string][]int) {
	for i := range paragraphs {
		p := &paragraphs[i]
		if p.of == 0 || p.gone || p.command != "item" {
			continue
		}
		names := r.named(p.rest, byName, p.lines[0].Start)
		behind := i + 1
		for behind < len(paragraphs) && behind < i+mostShared && paragraphs[behind].command == "item" { // entries right behind have the same text
			behind++
		}
		lines := entryText(paragraphs[behind:])
		if len(names) == 0 || len(lines) == 0 {
			continue
		}
		doc := lexing.MakeDoc(r.Text, lines, source.Span{Start: lines[0].Start, End: lines[len(lines)-1].End})
		for _, at := range names {
			if o := &r.facts.Occurrences[at]; o.Doc == nil {
				o.Doc = doc
			}
		}
	}
}

// mostShared is how many paragraphs of an entry are shared at most.
const mostShared = 20

// entryText are the lines of an entry that paragraphs follow: up to the next one, or to what ends the list.
func entryText(paragraphs []paragraph) (lines []source.Span) {
	depth := 0
	for i := range paragraphs {
		p := &paragraphs[i]
		switch p.command {
		case "over":
			depth++
		case "back":
			depth--
		case "item":
			if depth == 0 {
				return lines
			}
		case "":
		default:
			return lines
		}
		if depth < 0 || i == mostShared {
			return lines
		}
		if !p.gone {
			lines = appendParagraph(lines, p)
		}
	}
	return lines
}
