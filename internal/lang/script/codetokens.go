package script

import (
	"strings"

	"codrel/internal/lexing"
)

// This file takes code apart into the stream of tokens and pieces from which the names in
// it are found and its source page is coloured.

// tokenizer makes the stream of a text; code in templates and in elements of JSX is put in
// its place.
type tokenizer struct {
	lexer
	lexing.Stream
}

// newTokenizer makes the stream of a whole text.
func newTokenizer(text string, typed, markup bool, into []lexing.Piece) *tokenizer {
	t := &tokenizer{lexer: lexer{text: text, typed: typed, markup: markup, unclosed: -1, sig: -1}}
	t.Pieces = into
	t.code(0, false)
	return t
}

func (t *tokenizer) bracket(at int) {
	if opened, closes := t.Bracket(t.text, at); closes {
		t.opened = int(t.Tokens[opened].From)
	}
}

// code takes what stands up to the end; within a template or an element it ends
// behind the brace that closes the one that was opened last, where there is one.
func (t *tokenizer) code(at int, inner bool) (_ int, closed bool) {
	end, around := len(t.text), t.Enter()
	t.deep++
	defer func() {
		t.deep--
		t.Leave(around)
	}()
	for at < end {
		switch c := t.text[at]; {
		case isBlank(c):
			if c == '\n' {
				t.EndLine()
			}
			at++
			continue
		case c == '/' && t.commentAt(at):
			stop := t.commentEnd(at)
			if strings.IndexByte(t.text[at:stop], '\n') >= 0 {
				t.EndLine()
			}
			at = t.Piece(lexing.Comment, at, stop)
			continue
		case c == '#' && at == 0 && strings.HasPrefix(t.text, "#!"):
			at = t.Piece(lexing.Comment, 0, t.endOfLine(0))
			continue
		case c == '"' || c == '\'':
			stop := t.quoted(at)
			t.Add(lexing.Value, at, stop)
			at = t.Piece(lexing.Text, at, stop)
		case c == '`':
			at = t.template(at)
		case c == '/' && t.operandNext():
			stop := t.pattern(at)
			t.Add(lexing.Value, at, stop)
			if stop > at+1 {
				t.Piece(lexing.Text, at, stop)
			}
			at = stop
		case c == '}' && inner && t.Open() == 0:
			t.Widen()
			t.bracket(at)
			t.sig = at
			return at + 1, true
		case c == '(' || c == '[' || c == '{' || c == ')' || c == ']' || c == '}':
			t.bracket(at)
			at++
		case c == '<' && t.markup && t.deep < deepest && t.operandNext() && (startsName(t.byteAt(at+1)) || t.byteAt(at+1) == '>') && t.isElement(at):
			at = t.element(at)
		case startsName(c) || c == '#' && startsName(t.byteAt(at+1)):
			stop := max(t.nameEnd(at), at+1)
			if c == '#' {
				stop = t.nameEnd(at + 1)
			}
			t.Add(lexing.Word, at, stop)
			if isKeyword(t.text[at:stop], t.typed) && t.byteAt(t.sig) != '.' {
				t.Piece(lexing.Keyword, at, stop)
			}
			at = stop
		case lexing.NumberAt(t.text, at):
			stop := lexing.NumberEnd(t.text, at, &inNames)
			t.Add(lexing.Value, at, stop)
			at = t.Piece(lexing.Number, at, stop)
		default:
			stop := at + 1
			switch {
			case strings.HasPrefix(t.text[at:], "..."):
				stop = at + 3
			case strings.IndexByte("=!<>+-*/%&|^?", c) >= 0 && t.byteAt(stop) == '=', c == '=' && t.byteAt(stop) == '>':
				stop++
			}
			t.Mark(t.text, at, stop)
			at = stop
		}
		t.sig = at - 1
	}
	return at, false
}

// isElement tries whether an element begins at an offset.
func (t *tokenizer) isElement(at int) bool {
	l := t.lexer
	l.open = nil
	_, ok := l.element(at)
	return ok
}

// template puts the code in a template, with the template as a value before it.
func (t *tokenizer) template(at int) int {
	t.Add(lexing.Value, at, at+1)
	from := at
	for at++; at < len(t.text); {
		switch {
		case t.text[at] == '\\':
			at += 2
		case t.text[at] == '`':
			return t.Piece(lexing.Text, from, at+1)
		case t.text[at] == '$' && t.byteAt(at+1) == '{' && t.deep < deepest:
			t.Piece(lexing.Text, from, at+2)
			closed := false
			if at, closed = t.within(at + 1); closed {
				from = at - 1
			} else {
				from = at
			}
		default:
			at++
		}
	}
	return t.Piece(lexing.Text, min(from, len(t.text)), len(t.text))
}

// within puts the code in the braces that open at an offset, kept apart from what
// stands before and behind.
func (t *tokenizer) within(at int) (_ int, closed bool) {
	if t.deep >= deepest {
		return at + 1, false
	}
	t.Mark(t.text, at, at)
	t.bracket(at)
	t.sig = at
	at, closed = t.code(at+1, true)
	t.Mark(t.text, at, at)
	return at, closed
}

// element puts the code in an element: names of components, values in braces.
func (t *tokenizer) element(at int) int {
	t.deep++
	defer func() { t.deep-- }()
	t.Mark(t.text, at, at)
	name := at + 1
	at = name
	for at < len(t.text) && (inNames[t.text[at]] || strings.IndexByte(".-:", t.text[at]) >= 0) {
		at++
	}
	if c := t.byteAt(name); c >= 'A' && c <= 'Z' || strings.IndexByte(t.text[name:at], '.') >= 0 {
		t.chain(name, at)
	}
	if t.typed && t.byteAt(at) == '<' {
		at, _ = t.typeArguments(at)
	}
	for open := true; at < len(t.text); {
		c := t.text[at]
		switch {
		case c == '{':
			at, _ = t.within(at)
		case c == '<' && !open && t.byteAt(at+1) == '/':
			if i := strings.IndexByte(t.text[at:], '>'); i >= 0 {
				t.Mark(t.text, at, at)
				t.sig = at + i
				return at + i + 1
			}
			return len(t.text)
		case c == '<' && t.deep < deepest:
			at = t.element(at)
		case c == '>' && open:
			open = false
			at++
		case c == '/' && open && t.byteAt(at+1) == '>':
			t.Mark(t.text, at, at)
			return at + 2
		case (c == '"' || c == '\'') && open:
			i := strings.IndexByte(t.text[at+1:], c)
			if i < 0 {
				return len(t.text)
			}
			at = t.Piece(lexing.Text, at, at+i+2)
		case c == '/' && open && t.commentAt(at):
			at = t.Piece(lexing.Comment, at, t.commentEnd(at))
		default:
			at++
		}
	}
	return at
}

// chain puts a dotted name as its words and dots.
func (t *tokenizer) chain(from, to int) {
	for from < to {
		end := from
		for end < to && t.text[end] != '.' {
			end++
		}
		t.Add(lexing.Word, from, end)
		if end < to {
			t.Mark(t.text, end, end+1)
		}
		from = end + 1
	}
}
