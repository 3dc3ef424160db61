package script

import (
	"sort"
	"strings"
)

// This file takes code apart into tokens, for finding what names in it mean.

// token is a word, a mark, or anything else that stands for a value.
type token struct {
	from, to int32
	partner  int32 // of a bracket: index of the one that closes or opens it; else -1
	kind     tokenKind
	newline  bool // a line ended before it
}

type tokenKind uint8

const (
	valueToken tokenKind = iota // a string, template, pattern or number
	wordToken
	markToken
)

// tokenizer makes tokens of a text; code in templates and in elements of JSX is
// put in its place.
type tokenizer struct {
	lexer
	tokens   []token
	brackets []int32 // indices of those that are open
	floor    int     // how many of them belong to the code around
	newline  bool
}

func (t *tokenizer) add(kind tokenKind, from, to int) {
	t.tokens = append(t.tokens, token{from: int32(from), to: int32(to), kind: kind, partner: -1, newline: t.newline})
	t.newline = false
}

func (t *tokenizer) bracket(at int) {
	index := int32(len(t.tokens))
	t.add(markToken, at, at+1)
	if partner[t.text[at]] == 0 {
		t.brackets = append(t.brackets, index)
		return
	}
	for n := len(t.brackets); n > t.floor; n-- {
		if opened := t.brackets[n-1]; t.text[t.tokens[opened].from] == partner[t.text[at]] {
			t.tokens[opened].partner, t.tokens[index].partner = index, opened
			t.opened = int(t.tokens[opened].from)
			t.brackets = t.brackets[:n-1]
			return
		}
	}
}

// code takes what stands up to the end; within a template or an element it ends
// behind the brace that closes the one that was opened last.
func (t *tokenizer) code(at int, inner bool) int {
	end, base, floor := len(t.text), len(t.brackets), t.floor
	t.deep++
	t.floor = base
	defer func() {
		t.deep--
		t.floor, t.brackets = floor, t.brackets[:min(len(t.brackets), base)]
	}()
	for at < end {
		switch c := t.text[at]; {
		case isBlank(c):
			t.newline = t.newline || c == '\n'
			at++
			continue
		case c == '/' && t.commentAt(at):
			stop := t.commentEnd(at)
			t.newline = t.newline || strings.IndexByte(t.text[at:stop], '\n') >= 0
			at = stop
			continue
		case c == '#' && at == 0 && strings.HasPrefix(t.text, "#!"):
			at = t.endOfLine(0)
			continue
		case c == '"' || c == '\'':
			stop := t.quoted(at)
			t.add(valueToken, at, stop)
			at = stop
		case c == '`':
			at = t.template(at)
		case c == '/' && t.operandNext():
			stop := t.pattern(at)
			t.add(valueToken, at, stop)
			at = stop
		case c == '}' && inner && len(t.brackets) == base:
			t.floor = base - 1
			t.bracket(at)
			t.sig = at
			return at + 1
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
			t.add(wordToken, at, stop)
			at = stop
		case c >= '0' && c <= '9':
			stop := at + 1
			for stop < len(t.text) && (inNames[t.text[stop]] || t.text[stop] == '.') {
				stop++
			}
			t.add(valueToken, at, stop)
			at = stop
		default:
			stop := at + 1
			switch {
			case strings.HasPrefix(t.text[at:], "..."):
				stop = at + 3
			case strings.IndexByte("=!<>+-*/%&|^?", c) >= 0 && t.byteAt(stop) == '=', c == '=' && t.byteAt(stop) == '>':
				stop++
			}
			t.add(markToken, at, stop)
			at = stop
		}
		t.sig = at - 1
	}
	return at
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
	t.add(valueToken, at, at+1)
	for at++; at < len(t.text); {
		switch {
		case t.text[at] == '\\':
			at += 2
		case t.text[at] == '`':
			return at + 1
		case t.text[at] == '$' && t.byteAt(at+1) == '{' && t.deep < deepest:
			at = t.within(at + 1)
		default:
			at++
		}
	}
	return len(t.text)
}

// within puts the code in the braces that open at an offset, kept apart from what
// stands before and behind.
func (t *tokenizer) within(at int) int {
	if t.deep >= deepest {
		return at + 1
	}
	t.add(markToken, at, at)
	t.bracket(at)
	t.sig = at
	at = t.code(at+1, true)
	t.add(markToken, at, at)
	return at
}

// element puts the code in an element: names of components, values in braces.
func (t *tokenizer) element(at int) int {
	t.deep++
	defer func() { t.deep-- }()
	t.add(markToken, at, at)
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
			at = t.within(at)
		case c == '<' && !open && t.byteAt(at+1) == '/':
			if i := strings.IndexByte(t.text[at:], '>'); i >= 0 {
				t.add(markToken, at, at)
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
			t.add(markToken, at, at)
			return at + 2
		case (c == '"' || c == '\'') && open:
			i := strings.IndexByte(t.text[at+1:], c)
			if i < 0 {
				return len(t.text)
			}
			at += i + 2
		case c == '/' && open && t.commentAt(at):
			at = t.commentEnd(at)
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
		t.add(wordToken, from, end)
		if end < to {
			t.add(markToken, end, end+1)
		}
		from = end + 1
	}
}

// tokenAt is the index of the first token at or behind an offset.
func tokenAt(tokens []token, offset int) int {
	return sort.Search(len(tokens), func(i int) bool { return int(tokens[i].from) >= offset })
}
