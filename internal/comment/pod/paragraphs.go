package pod

import (
	"sort"
	"strings"

	"codrel/internal/model"
	"codrel/internal/source"
)

// ParagraphKind tells what a paragraph is.
type ParagraphKind uint8

// The kinds of paragraphs.
const (
	Ordinary ParagraphKind = iota
	Verbatim
	Command
)

// Paragraph is one paragraph: empty lines part them.
type Paragraph struct {
	Kind    ParagraphKind
	Command string // its word, without the mark
	Text    Run    // of a command what stands behind that
	whole   Run
}

// Run is a text of one or several lines that knows where these stand in the file.
type Run struct {
	text   string
	starts []int   // offsets of the lines in the text
	at     []int32 // and in the file
}

// runOf makes a text of lines.
func runOf(lines []string, at []int32) Run {
	r := Run{text: strings.Join(lines, "\n"), at: at, starts: make([]int, len(lines))}
	for i, offset := 1, 0; i < len(lines); i++ {
		offset += len(lines[i-1]) + 1
		r.starts[i] = offset
	}
	return r
}

// place is the offset in the file of one in the text.
func (r Run) place(offset int) int32 {
	i := sort.SearchInts(r.starts, offset+1) - 1
	if i < 0 {
		return 0
	}
	return r.at[i] + int32(offset-r.starts[i])
}

func (r Run) spanOf(from, to int) source.Span {
	start := r.place(from)
	return source.Span{Start: start, End: max(start, r.place(to))}
}

func (r Run) span() source.Span { return r.spanOf(0, len(r.text)) }

// from is what stands behind an offset of the text.
func (r Run) from(offset int) Run {
	out := Run{text: r.text[offset:]}
	for i := range r.starts {
		end := len(r.text)
		if i+1 < len(r.starts) {
			end = r.starts[i+1] - 1
		}
		if end < offset {
			continue
		}
		start := max(r.starts[i], offset)
		out.starts, out.at = append(out.starts, start-offset), append(out.at, r.at[i]+int32(start-r.starts[i]))
	}
	return out
}

// trimmed is the same without the blanks that it begins with.
func (r Run) trimmed() Run { return r.from(len(r.text) - len(strings.TrimLeft(r.text, " \t\n"))) }

// paragraphsOf takes a text apart. A command ends with its line where another one follows, as was meant.
func paragraphsOf(doc *model.Doc) (out []Paragraph) {
	var lines []string
	var at []int32
	flush := func() {
		if len(lines) > 0 {
			out = append(out, paragraphOf(lines, at))
		}
		lines, at = nil, nil
	}
	low := doc.Span.Start
	n := 0
	for line := range strings.SplitSeq(doc.Text, "\n") {
		if n < len(doc.Lines) {
			low = doc.Lines[n].Start
		}
		n++
		line = strings.TrimSuffix(line, "\r")
		switch {
		case strings.TrimSpace(line) == "":
			flush()
			continue
		case isCommand(line) && (len(lines) == 0 || known(line)):
			flush() // although the empty line before it is missing
		case len(lines) == 1 && isCommand(lines[0]) && mayEndHere(lines[0]):
			flush()
		}
		lines, at = append(lines, line), append(at, low)
	}
	flush()
	return out
}

// mayEndHere reports whether a command takes nothing of the lines below.
func mayEndHere(line string) bool {
	return strings.HasPrefix(line, "=pod") || strings.HasPrefix(line, "=cut") || strings.HasPrefix(line, "=head") || strings.HasPrefix(line, "=over") || strings.HasPrefix(line, "=back")
}

// isCommand reports whether a line begins a command.
func isCommand(line string) bool {
	return len(line) > 1 && line[0] == '=' && ('a' <= line[1]|0x20 && line[1]|0x20 <= 'z')
}

// known reports whether a line begins a command of the manual: in the middle of a paragraph others are
// text, such as "=E<gt>".
func known(line string) bool {
	end := 1
	for end < len(line) && line[end] != ' ' && line[end] != '\t' {
		end++
	}
	return commands[line[1:end]]
}

// commands are those of the manual.
var commands = map[string]bool{
	"head1": true, "head2": true, "head3": true, "head4": true, "head5": true, "head6": true, "over": true, "item": true, "back": true, "begin": true, "end": true, "for": true, "pod": true, "cut": true, "encoding": true,
}

func paragraphOf(lines []string, at []int32) Paragraph {
	p := Paragraph{whole: runOf(lines, at)}
	p.Text = p.whole
	switch first := lines[0]; {
	case isCommand(first):
		end := 1
		for end < len(first) && first[end] != ' ' && first[end] != '\t' {
			end++
		}
		p.Kind, p.Command = Command, first[1:end]
		p.Text = p.whole.from(min(end, len(p.whole.text))).trimmed()
	case first[0] == ' ' || first[0] == '\t':
		p.Kind = Verbatim
	}
	return p
}
