// Package terminal owns the form that the reference has in a terminal: one declaration, module,
// file or guide as wrapped lines of text.
//
// What there is to say comes from the packages that own it; this one decides how lines break and
// what is bold. It knows neither where the lines go nor how names are asked for.
package terminal

import (
	"strings"
	"unicode/utf8"

	"codrel/internal/lang"
	"codrel/internal/link"
	"codrel/internal/look"
	"codrel/internal/model"
	"codrel/internal/render/page"
	"codrel/internal/render/plan"
)

// Options is how lines are made.
type Options struct {
	FrontEnds map[string]lang.FrontEnd
	Width     int  // characters of a line; 80 where it is 0
	Styled    bool // bold and dim may be shown
	// Place is how the path of a file is shown; as it is where nil.
	Place func(file string) string
}

// Writer makes lines.
type Writer struct {
	options Options
	maker   *page.Maker
	plan    *plan.Plan
	look    *look.Look
	b       strings.Builder
}

// New makes a writer for the names of a project.
func New(links *link.Index, options Options) *Writer {
	if options.Width == 0 {
		options.Width = 80
	}
	if options.Place == nil {
		options.Place = func(file string) string { return file }
	}
	w := &Writer{options: options, plan: plan.New(links, plan.Options{Source: plan.NoSource, Findings: -1}), look: look.Plain()}
	w.maker = &page.Maker{Links: links, FrontEnds: options.FrontEnds, Texts: w.look.Texts, Hidden: nil}
	return w
}

// String is what has been written.
func (w *Writer) String() string { return w.b.String() }

func (w *Writer) notes(here *model.Module) *page.Notes {
	return &page.Notes{Maker: w.maker, Plan: w.plan, Here: here}
}

// Styles stand in text as runes that no source has: they take no room on a line.
const (
	bold  = "\uFDD2"
	dim   = "\uFDD3"
	plain = "\uFDD4"

	hard = "\uFDD5" // the end of a line that the text asks for
)

var escapes = strings.NewReplacer(bold, "\x1b[1m", dim, "\x1b[2m", plain, "\x1b[0m")

var unstyled = strings.NewReplacer(bold, "", dim, "", plain, "")

// clean is a text of the source without what a terminal would take for orders.
func clean(text string) string {
	return strings.Map(func(r rune) rune {
		switch {
		case r == '\n':
			return r
		case r == '\t':
			return ' '
		case r < 0x20, 0x7F <= r && r < 0xA0, 0xFDD0 <= r && r <= 0xFDEF, r == 0x202A, r == 0x202B, r == 0x202D, r == 0x202E, 0x2066 <= r && r <= 0x2069:
			return -1
		}
		return r
	}, text)
}

// line writes a line as it is.
func (w *Writer) line(indent int, text string) {
	if w.options.Styled {
		text = escapes.Replace(text)
	} else {
		text = unstyled.Replace(text)
	}
	if text = strings.TrimRight(text, " "); text != "" {
		w.b.WriteString(strings.Repeat(" ", indent) + text)
	}
	w.b.WriteByte('\n')
}

// space writes an empty line, unless one stands there.
func (w *Writer) space() {
	if s := w.b.String(); s != "" && !strings.HasSuffix(s, "\n\n") {
		w.b.WriteByte('\n')
	}
}

// wrapped writes a text in lines; those below the first are indented by as much more.
func (w *Writer) wrapped(indent, hang int, text string) {
	for part := range strings.SplitSeq(text, hard) {
		at, current := indent, ""
		for word := range strings.FieldsSeq(part) {
			if current != "" && at+length(current)+1+length(word) > w.options.Width {
				w.line(at, current)
				at, current = indent+hang, ""
			}
			if current != "" {
				current += " "
			}
			current += word
		}
		if current != "" {
			w.line(at, current)
		}
		indent += hang
		hang = 0
	}
}

// length is how many characters a text shows.
func length(text string) int { return utf8.RuneCountInString(unstyled.Replace(text)) }

func sentence(s page.Sentence) string {
	var b strings.Builder
	for _, p := range s {
		b.WriteString(p.Text)
	}
	return clean(b.String())
}
