package script

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/source"
)

// Scan finds keywords, numbers, strings and comments. Code within templates is
// told apart from their text; elements of JSX are not followed.
func (e FrontEnd) Scan(text string, into []lexing.Piece) []lexing.Piece {
	s := scanner{lexer: lexer{text: text, typed: e.Typed, unclosed: -1, sig: -1}, out: into}
	s.code(0, false)
	return s.out
}

type scanner struct {
	lexer
	out []lexing.Piece
}

func (s *scanner) piece(class lexing.Class, from, to int) int {
	if to > from {
		s.out = append(s.out, lexing.Piece{Class: class, Span: source.NewSpan(from, to)})
	}
	return to
}

// code goes through code; within a template it ends behind the brace that closes it.
func (s *scanner) code(at int, inTemplate bool) int {
	s.deep++
	defer func() { s.deep-- }()
	base := len(s.open)
	for at < len(s.text) {
		c := s.text[at]
		switch {
		case isBlank(c):
			at++
			continue
		case c == '/' && s.commentAt(at):
			at = s.piece(lexing.Comment, at, s.commentEnd(at))
			continue
		case c == '#' && at == 0 && strings.HasPrefix(s.text, "#!"):
			at = s.piece(lexing.Comment, 0, s.endOfLine(0))
			continue
		case c == '"' || c == '\'':
			at = s.piece(lexing.Text, at, s.quoted(at))
		case c == '`':
			at = s.templates(at)
		case c == '/' && s.operandNext():
			if end := s.pattern(at); end > at+1 {
				at = s.piece(lexing.Text, at, end)
			} else {
				at++
			}
		case c == '(' || c == '[' || c == '{':
			s.open = append(s.open, int32(at))
			at++
		case c == ')' || c == ']' || c == '}':
			if len(s.open) > base {
				s.opened = int(s.open[len(s.open)-1])
				s.open = s.open[:len(s.open)-1]
			} else if c == '}' && inTemplate {
				return at + 1
			}
			at++
		case c >= '0' && c <= '9', c == '.' && s.byteAt(at+1) >= '0' && s.byteAt(at+1) <= '9':
			end := at + 1
			for end < len(s.text) && (inNames[s.text[end]] && s.text[end] < 0x80 || s.text[end] == '.' || (s.text[end] == '+' || s.text[end] == '-') && s.text[end-1]|0x20 == 'e' && !strings.HasPrefix(s.text[at:], "0x")) {
				end++
			}
			at = s.piece(lexing.Number, at, end)
		case startsName(c):
			end := max(s.nameEnd(at), at+1)
			if isKeyword(s.text[at:end], s.typed) && s.byteAt(s.sig) != '.' {
				s.piece(lexing.Keyword, at, end)
			}
			at = end
		default:
			at++
		}
		s.sig = at - 1
	}
	s.open = s.open[:min(base, len(s.open))]
	return at
}

// templates puts the text of a template and reads the code in it.
func (s *scanner) templates(at int) int {
	from := at
	for at++; at < len(s.text); {
		switch {
		case s.text[at] == '\\':
			at += 2
		case s.text[at] == '`':
			return s.piece(lexing.Text, from, at+1)
		case s.text[at] == '$' && s.byteAt(at+1) == '{' && s.deep < deepest:
			s.piece(lexing.Text, from, at+2)
			s.sig = -1
			at = s.code(at+2, true)
			from = max(at-1, 0)
			if from < len(s.text) && (len(s.out) == 0 || int(s.out[len(s.out)-1].Span.End) <= from) {
				continue
			}
			from = at
		default:
			at++
		}
	}
	return s.piece(lexing.Text, min(from, len(s.text)), len(s.text))
}

func isKeyword(word string, typed bool) bool {
	switch word {
	case "async", "await", "break", "case", "catch", "class", "const", "continue", "debugger", "default", "delete", "do", "else", "export",
		"extends", "false", "finally", "for", "function", "if", "import", "in", "instanceof", "let", "new", "null", "return", "static", "super",
		"switch", "this", "throw", "true", "try", "typeof", "var", "void", "while", "with", "yield":
		return true
	case "abstract", "as", "declare", "enum", "implements", "interface", "keyof", "namespace", "private", "protected", "public", "readonly",
		"satisfies", "type":
		return typed
	}
	return false
}
