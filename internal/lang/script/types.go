package script

import "strings"

// This file finds the ends of types (TypeScript). It checks nothing: what reads
// like a type is passed over.

// typeArguments is the offset behind "<A, B>".
func (l *lexer) typeArguments(at int) (end int, ok bool) {
	l.deep++
	defer func() { l.deep-- }()
	if l.deep > deepest {
		return at, false
	}
	at = l.after(at + 1)
	for at < len(l.text) {
		if l.text[at] == '>' {
			return at + 1, true
		}
		was := at
		for l.wordAt(at, "const") || l.wordAt(at, "in") || l.wordAt(at, "out") {
			next := l.after(l.nameEnd(at))
			if l.byteAt(next) == ',' || l.byteAt(next) == '>' {
				break
			}
			at = next
		}
		if at, ok = l.typ(at); !ok || at == was {
			return at, false
		}
		at = l.after(at)
		if l.byteAt(at) == '=' && l.byteAt(at+1) != '>' {
			if at, ok = l.typ(l.after(at + 1)); !ok {
				return at, false
			}
			at = l.after(at)
		}
		if l.byteAt(at) == ',' {
			at = l.after(at + 1)
		} else if l.byteAt(at) != '>' {
			return at, false
		}
	}
	return at, false
}

// typeEnd is the offset behind the type that begins at an offset.
func (l *lexer) typeEnd(at int) int {
	end, _ := l.typ(at)
	return max(at, end)
}

// typ reads a type with everything that may follow its first part.
func (l *lexer) typ(at int) (end int, ok bool) {
	l.deep++
	defer func() { l.deep-- }()
	if l.deep > deepest || l.exhausted() {
		return at, false
	}
	first := at
	defer func() { l.spent += max(0, end-first) }()
	for {
		at = l.after(at)
		if c := l.byteAt(at); c == '|' || c == '&' { // may also stand before the first
			at++
			continue
		}
		if at, ok = l.operandType(at); !ok {
			return at, false
		}
		next, newline := l.skip(at)
		switch c := l.byteAt(next); {
		case (c == '|' || c == '&') && l.byteAt(next+1) != c && l.byteAt(next+1) != '=':
			at = next + 1
			continue
		case c == '=' && l.byteAt(next+1) == '>' && l.params:
			at = next + 2
			continue
		case l.wordAt(next, "is") && !newline:
			at = next + len("is")
			continue
		case l.wordAt(next, "extends"):
			if at, ok = l.typ(next + len("extends")); !ok {
				return at, false
			}
			question := l.after(at)
			if l.byteAt(question) != '?' {
				return at, true // a constraint
			}
			if at, ok = l.typ(question + 1); !ok {
				return at, false
			}
			colonAt := l.after(at)
			if l.byteAt(colonAt) != ':' {
				return at, true
			}
			at = colonAt + 1
			continue
		}
		return at, true
	}
}

// operandType reads one part of a union, with the words before it and the
// brackets behind it.
func (l *lexer) operandType(at int) (end int, ok bool) {
	for words := 0; words < 100; words++ {
		at = l.after(at)
		switch word := l.word(at); word {
		case "keyof", "unique", "readonly", "infer", "asserts", "abstract", "typeof", "new":
			next, newline := l.skip(at + len(word))
			if c := l.byteAt(next); newline && word == "asserts" || !startsName(c) && strings.IndexByte("([{'\"`<", c) < 0 || l.wordAt(next, "is") || l.wordAt(next, "extends") && word != "infer" {
				return l.behind(l.nameEnd(at))
			}
			if word == "unique" && !l.wordAt(next, "symbol") {
				return l.behind(l.nameEnd(at))
			}
			at = next
			continue
		}
		break
	}
	l.params = false
	switch c := l.byteAt(at); {
	case c == '(':
		params := l.areParams(at)
		end, ok := l.behind(l.bracketedType(at))
		l.params = params
		return end, ok
	case c == '{' || c == '[':
		return l.behind(l.bracketedType(at))
	case c == '\'' || c == '"':
		return l.behind(l.quoted(at))
	case c == '`':
		return l.behind(l.template(at))
	case c == '<': // type parameters of a function type
		if at, ok = l.typeArguments(at); !ok {
			return at, false
		}
		return l.operandType(at)
	case c == '-' || c >= '0' && c <= '9':
		for at++; at < len(l.text) && (inNames[l.text[at]] || l.text[at] == '.'); at++ {
		}
		return l.behind(at)
	case l.wordAt(at, "import") && l.byteAt(l.after(at+len("import"))) == '(':
		return l.behind(l.bracketedType(l.after(at + len("import"))))
	case startsName(c):
		return l.behind(l.nameEnd(at))
	case c == '*' || c == '?' || c == '!': // as comments write types
		return l.operandType(at + 1)
	}
	return at, false
}

// areParams reports whether parentheses hold the parameters of a function type
// rather than a type.
func (l *lexer) areParams(at int) bool {
	at = l.after(at + 1)
	switch c := l.byteAt(at); {
	case c == ')' || c == '.':
		return true
	case c == '{' || c == '[':
		at = l.bracketedType(at)
	default:
		end := l.nameEnd(at)
		if end == at {
			return false
		}
		at = end
	}
	at = l.after(at)
	switch l.byteAt(at) {
	case ':', ',', '=':
		return true
	case '?':
		c := l.byteAt(l.after(at + 1))
		return c == ':' || c == ',' || c == ')' || c == '='
	case ')':
		at = l.after(at + 1)
		return strings.HasPrefix(l.text[at:], "=>")
	}
	return false
}

// behind reads what follows a part of a type: members, arguments, arrays.
func (l *lexer) behind(at int) (end int, ok bool) {
	for {
		next, newline := l.skip(at)
		switch c := l.byteAt(next); {
		case c == '.' && startsName(l.byteAt(l.after(next+1))):
			at = l.nameEnd(l.after(next + 1))
		case c == '.' && l.byteAt(next+1) == '#':
			at = l.nameEnd(next + 2)
		case c == '<' && !newline:
			if at, ok = l.typeArguments(next); !ok {
				return at, false
			}
		case c == '[' && !newline:
			at = l.bracketedType(next)
		default:
			return at, true
		}
	}
}

// bracketedType is the offset behind brackets in a type, in which a "/" begins
// nothing but comments.
func (l *lexer) bracketedType(at int) int {
	depth, start := 0, at
	for at < len(l.text) {
		switch inBrackets[l.text[at]] {
		case quote:
			at = l.quoted(at)
			continue
		case backtick:
			at = l.template(at)
			continue
		case slash:
			if l.commentAt(at) {
				at = l.commentEnd(at)
				continue
			}
		case opening:
			depth++
		case closing:
			if depth--; depth == 0 {
				return at + 1
			}
		}
		at++
	}
	l.missing(start)
	return at
}
