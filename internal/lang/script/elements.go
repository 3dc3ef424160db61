package script

import "strings"

// This file passes over JSX: elements in code, whose text follows no rule of the language.

// element is the offset behind an element or fragment. ok is false where it is
// none after all, as a type parameter before an arrow function.
func (l *lexer) element(at int) (end int, ok bool) {
	l.deep++
	defer func() { l.deep-- }()
	if l.deep > deepest {
		return at, false
	}
	at, closed, ok := l.tag(at)
	if !ok || closed {
		return at, ok
	}
	for at < len(l.text) {
		i := strings.IndexAny(l.text[at:], "<{")
		if i < 0 {
			return at, false
		}
		at += i
		switch {
		case l.text[at] == '{':
			l.sig = at - 1
			at = l.bracketed(at)
		case l.byteAt(at+1) == '/':
			end := strings.IndexByte(l.text[at:], '>')
			if end < 0 {
				return at, false
			}
			return at + end + 1, true
		default:
			if at, ok = l.element(at); !ok {
				return at, false
			}
		}
	}
	return at, false
}

// tag is the offset behind an opening tag, and whether it closes itself.
func (l *lexer) tag(at int) (end int, closed, ok bool) {
	at++
	for at < len(l.text) && (inNames[l.text[at]] || strings.IndexByte(".-:", l.text[at]) >= 0) {
		at++
	}
	if l.typed && l.byteAt(at) == '<' {
		if at, ok = l.typeArguments(at); !ok {
			return at, false, false
		}
	}
	for at < len(l.text) {
		at = l.after(at)
		switch c := l.byteAt(at); {
		case c == '>':
			return at + 1, false, true
		case c == '/' && l.byteAt(at+1) == '>':
			return at + 2, true, true
		case c == '{':
			l.sig = at - 1
			at = l.bracketed(at)
		case c == '"' || c == '\'':
			i := strings.IndexByte(l.text[at+1:], c)
			if i < 0 {
				return at, false, false
			}
			at += i + 2
		case c == '<': // an element as the value of an attribute
			if at, ok = l.element(at); !ok {
				return at, false, false
			}
		case inNames[c] || c == '=' || c == '-' || c == ':':
			if l.wordAt(at, "extends") {
				return at, false, false
			}
			at++
		default:
			return at, false, false
		}
	}
	return at, false, false
}
