package lexing

import "strings"

// This file passes over bodies without a look at their words, where nobody asks for these: most
// of a source file is bodies.

// What a byte is within a body that is passed over.
const (
	inBody        uint8 = iota // nothing to look at
	bodyBrace                  // opens or closes a block
	bodyList                   // opens or closes anything else
	bodyString                 // may begin a string
	bodyComment                // may begin a comment
	bodyDirective              // may begin a line to the preprocessor
)

// sortBodies finds what each byte is within bodies.
func (l *shaped) sortBodies() {
	for i, may := range l.bytes {
		if may&mayComment != 0 {
			l.inBodies[i] = bodyComment
		}
	}
	for i := range l.Strings {
		if open := l.Strings[i].Open; open != "" {
			l.inBodies[open[0]] = bodyString
		}
		l.fenced = l.fenced || l.Strings[i].Fence == '#'
	}
	l.inBodies['{'], l.inBodies['}'] = bodyBrace, bodyBrace
	for _, c := range "()[]" {
		l.inBodies[c] = bodyList
	}
	if l.Directive != 0 {
		l.inBodies[l.Directive] = bodyDirective
	}
}

// body takes the body that begins at the offset at hand.
func (l *shaped) body() {
	l.Bracket(l.text, l.at)
	l.at++
	if l.pass() {
		l.Bracket(l.text, l.at)
		l.at++
	}
}

// pass goes over a body that "{" opens before the offset at hand, to what closes it, and keeps its
// comments and its lines to the preprocessor. Where it cannot be sure where that is, it leaves the
// body to be read as anything else is, and nothing before that place is passed over again: so no
// byte is looked at more than twice.
func (l *shaped) pass() bool {
	if l.at < l.unsure {
		return false
	}
	pieces, lines, before := len(l.Pieces), len(l.Lines), l.at
	if l.overBody() {
		l.newline = strings.IndexByte(l.text[before:l.at], '\n') >= 0
		return true
	}
	l.unsure = l.at + 1
	l.at, l.Pieces, l.Lines = before, l.Pieces[:pieces], l.Lines[:lines]
	return false
}

// overBody goes to the brace that closes the body at hand, and reports whether it found it.
func (l *shaped) overBody() bool {
	depth, lists := 1, 0
	var branches []int // the depth at which each open condition began
	for l.at < len(l.text) {
		c := l.text[l.at]
		switch l.inBodies[c] {
		case inBody:
			l.at++
			continue
		case bodyBrace:
			if c == '{' {
				depth++
			} else if depth--; depth == 0 {
				return lists == 0 && len(branches) == 0
			}
		case bodyList:
			if c == '(' || c == '[' {
				lists++
			} else if lists--; lists < 0 {
				return false
			}
		case bodyComment:
			if l.comment() {
				continue
			}
		case bodyString:
			if !l.passString() {
				return false
			}
			continue
		case bodyDirective:
			if !l.beginsLine() {
				break
			}
			switch word := l.directive(); {
			case strings.HasPrefix(word, "if"):
				branches = append(branches, depth)
			case strings.HasPrefix(word, "el"), word == "endif":
				n := len(branches) - 1
				if n < 0 || branches[n] != depth {
					return false
				}
				if word == "endif" {
					branches = branches[:n]
				}
			}
			continue
		}
		l.at++
	}
	return false
}

// beginsLine reports whether nothing but blanks stands before the offset at hand in its line.
func (l *shaped) beginsLine() bool {
	at := l.at - 1
	for at >= 0 && l.kinds[l.text[at]] == isBlank {
		at--
	}
	return at < 0 || l.text[at] == '\n'
}

// passString goes over the string that may begin at the offset at hand, and reports whether it
// ends as it should.
func (l *shaped) passString() bool {
	from := l.at
	for l.fenced && from > 0 && l.text[from-1] == '#' {
		from--
	}
	for from > 0 && l.inName[l.text[from-1]] {
		from--
	}
	if l.text[l.at] == l.DigitMark && from < l.at && IsDigit(l.text[from]) {
		l.at++ // between digits
		return true
	}
	s, inside, ok := l.opens(from)
	if !ok || inside <= l.at {
		s, inside, ok = l.opens(l.at)
	}
	switch {
	case !ok: // a mark, as in Rust's 'a
		l.at++
		return true
	case s.Hole != "":
		return false
	}
	end, closed, _ := l.inString(s, inside)
	l.at = end
	return closed
}
