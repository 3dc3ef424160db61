package script

import (
	"strings"
	"unicode/utf8"

	"codrel/internal/lexing"
)

// This file knows the lexical structure of ECMAScript and TypeScript as far as it
// decides where strings, templates, regular expressions, comments, brackets and
// statements end (ECMA-262, "Lexical Grammar" and "Automatic Semicolon Insertion").

type lexer struct {
	text     string
	typed    bool           // TypeScript
	markup   bool           // elements of JSX may stand where an expression begins
	open     []int32        // offsets of brackets that are open
	sig      int            // offset of the last byte that is no blank and in no comment, or -1
	opened   int            // where the bracket that was closed last was opened
	angle    int            // offset of the ">" that closed type arguments last
	deep     int            // templates and elements around
	params   bool           // the part of a type read last was the parameters of a function
	unclosed int            // offset of what was opened and never closed, or -1
	spent    int            // bytes looked at in search of where code ends
	lexed    *lexing.Stream // of a text in which every bracket has its partner; nil where nobody made it
}

// What a byte may be the beginning of.
const (
	plain = iota
	blankByte
	lineEnd
	quote
	backtick
	slash
	opening
	closing
	comma
	semicolon
	less
)

var inCode, inBrackets [256]uint8

var inNames = *lexing.NameBytes("$")

func init() {
	for c, class := range map[byte]uint8{
		'\'': quote, '"': quote, '`': backtick, '/': slash, '(': opening, '[': opening, '{': opening, ')': closing, ']': closing, '}': closing, '<': less,
	} {
		inCode[c], inBrackets[c] = class, class
	}
	inCode['\n'], inCode[','], inCode[';'] = lineEnd, comma, semicolon
}

// isSolid holds the bytes of which [lexer.skip] goes over none.
var isSolid [256]bool

func init() {
	for c := range isSolid {
		isSolid[c] = c < utf8.RuneSelf && c != '/' && !isBlank(byte(c))
	}
}

func startsName(c byte) bool { return inNames[c] && (c < '0' || c > '9') || c == '\\' }

func isBlank(c byte) bool {
	return c == ' ' || c == '\t' || c == '\r' || c == '\n' || c == '\v' || c == '\f'
}

// at is the byte at an offset, or 0 behind the text.
func (l *lexer) byteAt(at int) byte {
	if at < 0 || at >= len(l.text) {
		return 0
	}
	return l.text[at]
}

// nameEnd is the offset behind the name that begins at an offset, or the offset
// itself where none does.
func (l *lexer) nameEnd(at int) int {
	if at >= len(l.text) || !startsName(l.text[at]) {
		return at
	}
	end := at
	for end < len(l.text) && inNames[l.text[end]] {
		end++
	}
	if end == len(l.text) || l.text[end] != '\\' {
		return end
	}
	return l.escapedNameEnd(at)
}

// longestEscape is how long an escape sequence with braces is at most, leading zeros and all.
const longestEscape = 40

// escapedNameEnd is the same for a name with escape sequences.
func (l *lexer) escapedNameEnd(at int) int {
	if l.text[at] == '\\' && l.byteAt(at+1) != 'u' {
		return at
	}
	for at < len(l.text) {
		for at < len(l.text) && inNames[l.text[at]] {
			at++
		}
		if at == len(l.text) || l.text[at] != '\\' {
			return at
		}
		switch {
		case strings.HasPrefix(l.text[at:], `\u{`):
			end := strings.IndexByte(l.text[at:min(len(l.text), at+longestEscape)], '}')
			if end < 0 {
				return at
			}
			at += end + 1
		case strings.HasPrefix(l.text[at:], `\u`):
			at += 2
		default:
			return at
		}
	}
	return at
}

func (l *lexer) word(at int) string {
	at = min(at, len(l.text))
	return l.text[at:l.nameEnd(at)]
}

// wordAt reports whether a whole word stands at an offset.
func (l *lexer) wordAt(at int, word string) bool {
	return at <= len(l.text) && strings.HasPrefix(l.text[at:], word) && !inNames[l.byteAt(at+len(word))]
}

func (l *lexer) endOfLine(at int) int { return lexing.EndOfLine(l.text, at) }

// commentEnd is the offset behind the comment that begins at an offset.
func (l *lexer) commentEnd(at int) int {
	if l.text[at+1] == '/' {
		return l.endOfLine(at)
	}
	// Lines of comments begin with a star as a rule, so "/" is the rarer of the two.
	for end := at + 3; end < len(l.text); end++ {
		i := strings.IndexByte(l.text[end:], '/')
		if i < 0 {
			break
		}
		if end += i; l.text[end-1] == '*' {
			return end + 1
		}
	}
	l.missing(at)
	return len(l.text)
}

func (l *lexer) commentAt(at int) bool {
	return l.text[at] == '/' && (l.byteAt(at+1) == '/' || l.byteAt(at+1) == '*')
}

// missing keeps where something was opened that has no end.
func (l *lexer) missing(at int) {
	if l.unclosed < 0 {
		l.unclosed = at
	}
}

// skip is the offset behind blanks and comments, and whether a line ended on the way.
func (l *lexer) skip(at int) (next int, newline bool) {
	if at < len(l.text) && isSolid[l.text[at]] {
		return at, false
	}
	return l.skipAll(at)
}

func (l *lexer) skipAll(at int) (next int, newline bool) {
	for at < len(l.text) {
		switch c := l.text[at]; {
		case c == '\n':
			newline = true
			at++
		case isBlank(c):
			at++
		case c == '/' && l.commentAt(at):
			end := l.commentEnd(at)
			newline = newline || strings.IndexByte(l.text[at:end], '\n') >= 0
			at = end
		case c == 0xC2 && l.byteAt(at+1) == 0xA0: // no-break space
			at += 2
		case c == 0xEF && strings.HasPrefix(l.text[at:], "\ufeff"):
			at += len("\ufeff")
		default:
			return at, newline
		}
	}
	return min(at, len(l.text)), newline
}

func (l *lexer) after(at int) int {
	if at < len(l.text) && isSolid[l.text[at]] {
		return at
	}
	at, _ = l.skipAll(at)
	return at
}

// quoted is the offset behind a string; one that is not closed ends with its line.
func (l *lexer) quoted(at int) int {
	end, closed := lexing.Quoted(l.text, at)
	if !closed {
		l.missing(at)
	}
	return end
}

// deepest bounds how deep templates, elements and types are followed.
const deepest = 200

// template is the offset behind a template literal, with the code in it.
func (l *lexer) template(at int) int {
	start := at
	l.deep++
	defer func() { l.deep-- }()
	for at++; at < len(l.text); {
		switch l.text[at] {
		case '`':
			return at + 1
		case '\\':
			at += 2
		case '$':
			if l.byteAt(at+1) == '{' && l.deep < deepest {
				l.sig = at
				at = l.bracketed(at + 1)
				continue
			}
			at++
		default:
			at++
		}
	}
	l.missing(start)
	return len(l.text)
}

// bracketed is the offset behind the bracket that closes the one at an offset.
func (l *lexer) bracketed(at int) int {
	if l.lexed != nil {
		if end, ok := l.lexed.Closing(at); ok {
			l.opened, l.sig = at, end-1
			return end
		}
	}
	return l.code(at, &inBrackets, true)
}

// expression is the offset of what ends an expression: a comma, a semicolon, a
// closing bracket, or a line end at which a statement can end.
func (l *lexer) expression(at int) int { return l.code(at, &inCode, false) }

// argument is the same within brackets, where line ends mean nothing.
func (l *lexer) argument(at int) int { return l.code(at, &inArguments, false) }

var inArguments [256]uint8

func init() {
	inArguments = inCode
	inArguments['\n'] = plain
}

// code goes through code: to the end of an expression, or, for a bracket, behind
// what closes it.
func (l *lexer) code(at int, classes *[256]uint8, bracket bool) int {
	at = min(at, len(l.text))
	text, base, first := l.text, len(l.open), at
	if !bracket {
		l.sig = -1
	}
	if l.exhausted() {
		return len(text)
	}
	defer func() { l.spent += at - first }()
	for at < len(text) {
		run := at
		class := classes[text[at]]
		for class == plain {
			if at++; at == len(text) {
				break
			}
			class = classes[text[at]]
		}
		for i := at - 1; i >= run; i-- {
			if !isBlank(text[i]) {
				l.sig = i
				break
			}
		}
		switch class {
		case plain:
		case lineEnd:
			if len(l.open) == base && l.endsAt(at) {
				return at
			}
			at++
		case quote:
			at = l.quoted(at)
			l.sig = at - 1
		case backtick:
			at = l.template(at)
			l.sig = at - 1
		case slash:
			switch {
			case l.commentAt(at):
				at = l.commentEnd(at)
			case l.operandNext():
				at = l.pattern(at)
				l.sig = at - 1
			default:
				l.sig = at
				at++
			}
		case opening:
			l.open = append(l.open, int32(at))
			l.sig = at
			at++
		case closing:
			if len(l.open) == base {
				return at // of whatever is around
			}
			l.close(at, base)
			l.sig = at
			at++
			if bracket && len(l.open) == base {
				return at
			}
		case comma, semicolon:
			if len(l.open) == base {
				return at
			}
			l.sig = at
			at++
		case less:
			at = l.lessThan(at, classes)
		}
	}
	if len(l.open) > base {
		l.missing(int(l.open[base]))
	}
	l.open = l.open[:base]
	if bracket && at == first {
		at++
	}
	return at
}

var partner = [256]byte{')': '(', ']': '[', '}': '{'}

// close takes the bracket off that one at an offset closes. Brackets that were
// left open within go with it; one that fits none changes nothing.
func (l *lexer) close(at, base int) {
	want := partner[l.text[at]]
	if l.exhausted() {
		return
	}
	for i := len(l.open) - 1; i >= base; i-- {
		if l.text[l.open[i]] == want {
			if i < len(l.open)-1 {
				l.missing(int(l.open[len(l.open)-1]))
			}
			l.opened = int(l.open[i])
			l.open = l.open[:i]
			return
		}
	}
	l.spent += len(l.open) - base
	l.missing(at)
}

// patience is how many times over a text is looked at before what is left of it is given
// up: real code needs few, and damage that asks for more would ask for any number.
const patience = 60

// exhausted reports whether that was so.
func (l *lexer) exhausted() bool {
	if l.spent <= patience*len(l.text)+1<<16 {
		return false
	}
	l.missing(0)
	return true
}

// lessThan reads "<": an element, type arguments of a call, or an operator.
func (l *lexer) lessThan(at int, classes *[256]uint8) int {
	next := l.byteAt(at + 1)
	operand := l.operandNext()
	if l.markup && l.deep < deepest && (startsName(next) || next == '>') && operand {
		if end, ok := l.element(at); ok {
			l.sig, l.angle = end-1, end-1 // no operator
			return end
		}
	}
	switch {
	case l.typed && (operand || l.sig >= 0 && l.wordBefore(l.sig) == "async") && l.deep < deepest:
		if end, ok := l.arrowHead(at); ok {
			l.sig = end - 1
			return end
		}
	case l.typed && classes != &inBrackets && l.sig == at-1 && (inNames[l.byteAt(l.sig)] || l.byteAt(l.sig) == ')'):
		if end, ok := l.typeArguments(at); ok && l.callFollows(end) {
			l.sig, l.angle = end-1, end-1
			return end
		}
	}
	l.sig = at
	return at + 1
}

// arrowHead is the offset behind "<T>(a: T): R =>".
func (l *lexer) arrowHead(at int) (end int, ok bool) {
	unclosed := l.unclosed
	if end, ok = l.typeArguments(at); ok {
		if end = l.after(end); l.byteAt(end) == '(' {
			l.sig = end - 1
			end = l.after(l.bracketed(end))
			if l.byteAt(end) == ':' {
				end, ok = l.typ(l.after(end + 1))
				end = l.after(end)
			}
			if ok && strings.HasPrefix(l.text[min(end, len(l.text)):], "=>") {
				return end + 2, true
			}
		}
	}
	l.unclosed = unclosed
	return at, false
}

// callFollows reports whether what stands behind type arguments lets them be
// some: otherwise the signs were comparisons.
func (l *lexer) callFollows(at int) bool {
	next, newline := l.skip(at)
	if newline || next >= len(l.text) {
		return true
	}
	return strings.IndexByte("(`,;)]}.?:=!|&", l.text[next]) >= 0
}

// keywords before which no operand has ended: what follows begins one.
var beforeOperand = map[string]bool{
	"return": true, "typeof": true, "case": true, "in": true, "of": true, "delete": true, "void": true, "throw": true, "new": true,
	"instanceof": true, "else": true, "do": true, "yield": true, "await": true, "extends": true, "default": true,
}

// operandNext reports whether an operand may begin behind the last significant
// byte, so that "/" opens a regular expression and "<" an element.
func (l *lexer) operandNext() bool {
	if l.sig < 0 {
		return true
	}
	switch c := l.text[l.sig]; {
	case inNames[c]:
		return beforeOperand[l.wordBefore(l.sig)]
	case c == ')':
		switch l.wordBefore(l.before(l.opened)) {
		case "if", "while", "for", "with":
			return true
		}
		return false
	case c == '}':
		return l.closedBlock()
	case c == ']' || c == '"' || c == '\'' || c == '`':
		return false
	case c == '+' || c == '-':
		return l.sig == 0 || l.text[l.sig-1] != c
	case c == '!': // "x!" asserts in TypeScript
		return !l.typed || l.sig == 0 || !inNames[l.text[l.sig-1]] && l.text[l.sig-1] != ')' && l.text[l.sig-1] != ']'
	}
	return true
}

// before is the offset of the last byte before an offset that is no blank, or -1.
func (l *lexer) before(at int) int {
	for at--; at >= 0 && isBlank(l.text[at]); at-- {
	}
	return at
}

// wordBefore is the word whose last byte stands at an offset.
func (l *lexer) wordBefore(at int) string {
	start := at
	for start >= 0 && inNames[l.text[start]] {
		start--
	}
	if start == at || start >= 0 && (l.text[start] == '.' || l.text[start] == '#') && (start == 0 || l.text[start-1] != '.') {
		return ""
	}
	return l.text[start+1 : at+1]
}

// closedBlock reports whether the "}" just read ended a block, not an object.
func (l *lexer) closedBlock() bool {
	i := l.before(l.opened)
	if i < 0 {
		return true
	}
	switch c := l.text[i]; {
	case c == ')' || c == ';' || c == '{' || c == '}':
		return true
	case c == '>':
		return i > 0 && l.text[i-1] == '='
	case inNames[c]:
		switch l.wordBefore(i) {
		case "return", "typeof", "case", "in", "of", "delete", "void", "throw", "new", "instanceof", "yield", "await", "default":
			return false
		}
		return true
	}
	return false
}

// pattern is the offset behind a regular expression.
func (l *lexer) pattern(at int) int {
	if l.exhausted() {
		return at + 1
	}
	class := false
	for i := at + 1; i < len(l.text); i++ {
		switch l.text[i] {
		case '\\':
			i++
		case '[':
			class = true
		case ']':
			class = false
		case '\n':
			l.spent += i - at
			return at + 1 // a division after all
		case '/':
			if !class {
				for i++; i < len(l.text) && inNames[l.text[i]]; i++ {
				}
				return i
			}
		}
	}
	l.spent += len(l.text) - at
	return at + 1
}

// goesOn are words that can only stand between two operands.
var goesOn = map[string]bool{"instanceof": true, "in": true, "as": true, "satisfies": true, "extends": true, "implements": true, "is": true}

// endsAt reports whether a statement ends at a line end: what follows could not
// go on with it.
func (l *lexer) endsAt(at int) bool {
	if l.sig < 0 {
		return false
	}
	c := l.text[l.sig]
	twice := l.sig > 0 && l.text[l.sig-1] == c
	switch {
	case inNames[c]:
		switch word := l.wordBefore(l.sig); {
		case goesOn[word], word == "typeof", word == "new", word == "void", word == "delete", word == "await", word == "class", word == "function", word == "else":
			return false
		}
	case (c == '+' || c == '-') && twice, c == '!' && !l.operandNext():
	case c == '>' && l.angle == l.sig:
	case c == '>' && l.typed && l.sig > 0 && l.text[l.sig-1] != '=' && (inNames[l.text[l.sig-1]] || strings.IndexByte(">])}\"'", l.text[l.sig-1]) >= 0):
	case strings.IndexByte("=+-*%&|^<>?:,.([{!~", c) >= 0:
		return false
	case c == '/' && !l.closesPattern():
		return false
	}
	next := l.after(at)
	if next >= len(l.text) {
		return true
	}
	switch n := l.text[next]; n {
	case '.', '?', ':', ',', '=', '*', '%', '&', '|', '^', '<', '>', '(', '[', '`', '/':
		return n == '.' && l.byteAt(next+1) >= '0' && l.byteAt(next+1) <= '9'
	case '+', '-':
		return l.byteAt(next+1) == n
	case '!':
		return l.byteAt(next+1) != '='
	case '{':
		return c != ')' && c != '>'
	}
	if inNames[l.text[next]] {
		return !goesOn[l.word(next)]
	}
	return true
}

// closesPattern reports whether the "/" just read was the end of a regular
// expression: an operator has something before it on the line that it divides.
func (l *lexer) closesPattern() bool {
	line := l.text[strings.LastIndexByte(l.text[:l.sig], '\n')+1 : l.sig]
	return strings.IndexByte(line, '/') >= 0
}
