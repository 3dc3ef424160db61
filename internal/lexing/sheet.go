package lexing

import (
	"strconv"
	"strings"

	"codrel/internal/model"
	"codrel/internal/source"
)

// Sheet is a file that a front end reads from its tokens, and what it has read of it.
type Sheet struct {
	Cursor
	Facts    *model.Facts
	Arena    *Arena
	Branches Branches
	Lines    []Line // to the preprocessor, in the order of the text
	stream   *Stream
	language string // its name
	unclosed int    // where something begins that never ends, or -1
	troubled bool
	depth    int // of what is read in one another
}

// OpenSheet finds the tokens of a file's text, for a language with a shape and a name. What
// it gives back is called when nothing looks at the tokens any more. Deep says that what the code
// names will be asked for, see [Sheet.Inside].
func OpenSheet(facts *model.Facts, shape *Shape, language string, deep bool) (s Sheet, back func()) {
	stream, back := Borrow()
	stream.bare = !deep
	s = Sheet{Facts: facts, Arena: NewArena(facts.Text), stream: stream, language: language}
	s.unclosed = shape.Lex(facts.Text, stream)
	if shape.Directive != 0 {
		s.Lines = stream.Lines
		s.Branches = stream.Settle(facts.Text, shape)
	}
	s.Cursor = stream.Look(facts.Text)
	return s, back
}

// Fill reads the declarations by what a front end gives for that, and says what of the file
// cannot be read.
func (s *Sheet) Fill(unit func()) {
	Gather(s.Facts, unit)
	s.Arena.Close()
	switch {
	case s.unclosed >= 0:
		s.trouble(s.unclosed, "what begins here never ends")
	case !s.stream.Sound():
		s.trouble(s.Odd(), "what opens or closes here has no counterpart")
	}
}

// trouble says that source cannot be read, once a file: the first place matters.
func (s *Sheet) trouble(at int, message string) {
	if !s.troubled {
		s.troubled = true
		s.Facts.Unreadable(source.NewSpan(at, at), "", message, s.language)
	}
}

// TooDeep says that what a token opens is nested deeper than the front end follows, where
// nothing else is wrong with the file.
func (s *Sheet) TooDeep(i, deepest int) {
	if !s.troubled {
		s.troubled = true
		s.Facts.Unreadable(s.Span(i, i+1), "deep", strconv.Itoa(deepest), s.language)
	}
}

// Deeper goes one level down into what a token opens, and reports whether that is read: nothing is
// read deeper than a limit, and the file is said to be so deep. [Sheet.Shallower] goes up again.
func (s *Sheet) Deeper(i, deepest int) bool {
	if s.depth >= deepest {
		s.TooDeep(i, deepest)
		return false
	}
	s.depth++
	return true
}

// Shallower goes one level up.
func (s *Sheet) Shallower() { s.depth-- }

// Inside puts what the code names beyond its declarations into the facts.
func (s *Sheet) Inside(code CodeUses) {
	code.Cursor = &s.Cursor
	in := &model.Inside{}
	in.Uses, in.Bodies = code.Find(s.Facts)
	for _, p := range s.stream.Pieces {
		in.Pieces.Add(p)
	}
	s.Facts.Inside = in
}

// Generated reports whether a comment before the first declaration says that a program wrote
// the file: in plain words, or by one of the language's marks for that, in small letters.
func (s *Sheet) Generated(marks ...string) bool {
	for _, c := range s.Comments {
		if len(s.Facts.Occurrences) > 0 && c.Start > s.Facts.Occurrences[0].NameSpan.Start {
			return false
		}
		text := c.In(s.Text)
		if !strings.Contains(text, "enerated") && !strings.Contains(text, "ENERATED") {
			continue
		}
		text = strings.ToLower(text)
		if strings.Contains(text, "generated") && (strings.Contains(text, "do not edit") || strings.Contains(text, "do not modify")) {
			return true
		}
		for _, mark := range marks {
			if strings.Contains(text, mark) {
				return true
			}
		}
	}
	return false
}

// DocOf makes a doc comment of a comment. Of one without a word it notes that.
func (s *Sheet) DocOf(comment source.Span) *model.Doc {
	doc := BlockDoc(s.Text, comment)
	if doc == nil {
		s.Facts.Empty = append(s.Facts.Empty, model.Blank{Span: comment})
	}
	return doc
}

// Said is what the comments before a declaration say.
type Said struct {
	Doc        *model.Doc
	Directives []model.Directive
}
