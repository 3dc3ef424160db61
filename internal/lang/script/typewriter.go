package script

import (
	"strings"

	"codrel/internal/model"
)

// typeWriter puts the tokens of a type. Unless it is told to write all up to an
// offset, it finds out on the way where the type ends: outside brackets a type is
// operands and what stands between them.
type typeWriter struct {
	*reader
	to    int  // offset that is not passed
	whole bool // write everything up to there

	last     byte   // of what was put last, 0 at the beginning
	brackets int    // open brackets around
	angles   int    // open type arguments around, outside brackets
	outer    int    // offset of the outermost open bracket
	objects  uint64 // of the open brackets, innermost last: whether they are braces

	operand   bool // an operand was read, and what follows may go on with it
	grouped   bool // that operand is in parentheses
	generic   bool // the type arguments being read are the parameters of a function type
	constrain int  // conditions whose "?" is still to come
	choice    int  // conditions whose ":" is still to come
}

// write puts tokens from an offset on and gives the offset behind the last one.
func (t *typeWriter) write(at int) (end int) {
	end = at
	for spaced, newline := false, false; at < t.to; {
		c := t.text[at]
		if isBlank(c) {
			newline = newline || c == '\n'
			spaced = true
			at++
			continue
		}
		if c == '/' && t.commentAt(at) {
			stop := min(t.commentEnd(at), t.to)
			if t.inObject() && strings.HasPrefix(t.text[at:stop], "/**") {
				spaced = t.separated(at, end, newline) && spaced
				t.remark(t.text[at:stop], spaced)
				newline, spaced, end = false, false, stop
			} else {
				newline = newline || strings.IndexByte(t.text[at:stop], '\n') >= 0
				spaced = true
			}
			at = stop
			continue
		}
		if !t.whole && t.brackets == 0 && !t.goesOnWith(at, c, newline) {
			break
		}
		if (c == ',' || c == ';') && t.brackets > 0 && t.closesNext(at+1) {
			at++ // a list that ends with its separator
			continue
		}
		spaced = t.separated(at, end, newline) && spaced
		if spaced && t.apart(c) {
			t.put(model.TokenPunctuation, " ")
		}
		spaced, newline = false, false
		was := t.last
		at = t.token(at, c)
		end = at
		if t.last = t.text[at-1]; was == ' ' || t.last == ' ' {
			t.last = '(' // the blank is written
		}
	}
	if t.brackets > 0 && !t.whole {
		t.missing(t.outer)
	}
	return end
}

// apart reports whether the blank that stands before a byte is worth keeping.
func (t *typeWriter) apart(c byte) bool {
	switch c {
	case ')', ']', ',', ';', '>':
		return false
	case '.':
		if t.last != ',' { // ", ...rest"
			return false
		}
	}
	switch t.last {
	case 0, '(', '[', '.', '<':
		return false
	}
	return true
}

// goesOnWith reports whether what begins at an offset outside brackets is part of
// the type, and keeps what it is.
func (t *typeWriter) goesOnWith(at int, c byte, newline bool) bool {
	if t.angles > 0 {
		return c != ';' && c != ')' && c != ']' && c != '}'
	}
	if !t.operand {
		return startsName(c) || strings.IndexByte("([{<\"'`|&-*?!#", c) >= 0 || c >= '0' && c <= '9'
	}
	next := t.byteAt(at + 1)
	goesOn := false
	switch c {
	case '.':
		goesOn = next == '#' || startsName(t.byteAt(t.after(at+1)))
	case '<', '[':
		return !newline // what is open is an operand too
	case '|', '&':
		goesOn = next != c && next != '='
	case '=':
		goesOn = next == '>' && t.grouped && t.areParams(t.outer)
	case '?':
		if goesOn = t.constrain > 0; goesOn {
			t.constrain--
			t.choice++
		}
	case ':':
		if goesOn = t.choice > 0; goesOn {
			t.choice--
		}
	case 'i':
		goesOn = !newline && t.wordAt(at, "is")
	case 'e':
		if goesOn = t.wordAt(at, "extends"); goesOn {
			t.constrain++
		}
	}
	if goesOn {
		t.operand = false
	}
	return goesOn
}

// token puts the token at an offset and gives the offset behind it.
func (t *typeWriter) token(at int, c byte) int {
	end := at
	switch {
	case c == '"' || c == '\'':
		end = min(t.quoted(at), t.to)
		t.put(model.TokenLiteral, t.text[at:end])
		t.ends(false)
	case c == '`':
		end = min(t.template(at), t.to)
		t.put(model.TokenLiteral, strings.Join(strings.Fields(t.text[at:end]), " "))
		t.ends(false)
	case startsName(c):
		end = t.name(at)
	case c >= '0' && c <= '9':
		for end < t.to && (inNames[t.text[end]] || t.text[end] == '.') {
			end++
		}
		t.put(model.TokenLiteral, t.text[at:end])
		t.ends(false)
	default:
		end = t.marks(at)
		t.put(model.TokenPunctuation, t.text[at:end])
	}
	return end
}

// ends notes that an operand was read, where none is around it.
func (t *typeWriter) ends(grouped bool) {
	if t.brackets == 0 && t.angles == 0 {
		t.operand, t.grouped = true, grouped
	}
}

// name puts a name with its dots.
func (t *typeWriter) name(at int) int {
	end := min(t.nameEnd(at), t.to)
	for end+1 < t.to && t.text[end] == '.' && startsName(t.text[end+1]) {
		end = min(t.nameEnd(end+1), t.to)
	}
	if end == at {
		end++
	}
	next := t.after(end)
	word := t.text[at:end]
	if stop := t.importedType(at); word == "import" && stop > 0 && stop <= t.to {
		t.put(model.TokenType, t.text[at:stop])
		t.ends(false)
		return stop
	}
	lower := word[0] >= 'a' && word[0] <= 'z' && len(word) <= len("undefined") // as all words of the language are
	if t.brackets == 0 && t.angles == 0 && !t.whole && !(lower && t.operatorWord(word, end, next)) {
		t.ends(false)
	}
	follows := t.byteAt(next)
	if follows == '<' && t.brackets > 0 && t.last != '.' && !beforeGenerics(word) && t.parametersOf(next) {
		follows = '(' // a method with type parameters
	}
	if lower || t.brackets > 0 && (follows == ':' || follows == '?' || follows == '(') {
		t.typeName(word, follows, t.brackets)
	} else {
		if t.last == '[' && t.wordAt(next, "in") { // the key of a mapped type
			t.reader.generic(word)
		}
		t.put(t.namesType(word), word)
	}
	if word == "infer" && startsName(t.byteAt(next)) {
		t.reader.generic(t.word(next))
	}
	return end
}

// beforeGenerics reports whether a word of the language stands before type parameters that are not its own.
func beforeGenerics(word string) bool {
	return word == "new" || word == "extends" || word == "is" || word == "in"
}

// operatorWord reports whether a word where an operand is expected stands before
// one, rather than being one itself.
func (t *typeWriter) operatorWord(word string, end, next int) bool {
	switch word {
	case "is", "extends":
		return true
	case "import":
		return t.byteAt(next) == '('
	case "unique":
		return t.wordAt(next, "symbol")
	case "keyof", "readonly", "infer", "asserts", "abstract", "typeof", "new":
	default:
		return false
	}
	if word == "asserts" && strings.IndexByte(t.text[end:next], '\n') >= 0 || t.wordAt(next, "is") || t.wordAt(next, "extends") && word != "infer" {
		return false
	}
	c := t.byteAt(next)
	return startsName(c) || strings.IndexByte("([{'\"`<", c) >= 0
}

// marks goes over a run of marks: outside brackets one by one, since each may be
// the last. A blank that is written behind the marks goes with them.
func (t *typeWriter) marks(at int) (end int) {
	for end = at; end < t.to && marks[t.text[end]]; {
		c := t.text[end]
		if end > at && (c == ',' || c == ';') && t.brackets > 0 && t.closesNext(end+1) {
			return end
		}
		end++
		switch c {
		case '{', '(', '[':
			if t.brackets == 0 {
				t.outer = end - 1
			}
			t.brackets++
			t.objects <<= 1
			if c == '{' {
				t.objects |= 1
			}
		case '}', ')', ']':
			t.objects >>= 1
			if t.brackets--; t.brackets == 0 {
				t.ends(c == ')')
			}
		case '<':
			if t.brackets > 0 || end < 2 || !inNames[t.text[end-2]] { // "A<B>" outside brackets has arguments
				t.parametersOf(end - 1)
			}
			if t.brackets == 0 {
				if t.angles == 0 {
					t.generic = !t.operand
				}
				t.angles++
			}
		case '>':
			if t.brackets == 0 && t.angles > 0 {
				if t.angles--; t.angles == 0 && !t.generic {
					t.ends(false)
				}
			}
		case '=':
			if t.byteAt(end) == '>' && end < t.to {
				end++
			}
		}
		if t.brackets == 0 && !t.whole {
			break
		}
	}
	end = max(end, at+1)
	if end+1 < t.to && t.text[end] == ' ' && strings.IndexByte(",:|&>;{=?", t.text[end-1]) >= 0 && startsName(t.text[end+1]) {
		end++
	}
	return end
}

// inObject reports whether the innermost open bracket is a brace.
func (t *typeWriter) inObject() bool { return t.brackets > 0 && t.objects&1 == 1 }

// closesNext reports whether the next thing behind blanks and comments is a closing bracket.
func (t *typeWriter) closesNext(at int) bool {
	return strings.IndexByte(")]}", t.byteAt(t.after(at))) >= 0 && t.after(at) < t.to
}

// separated puts the separator that a new line stands for between two members of an
// object type, of which the one before ends at an offset. It reports whether a blank
// that stands there is still to be written.
func (t *typeWriter) separated(at, end int, newline bool) bool {
	if !newline || !t.inObject() || strings.IndexByte("{;,|&:<([=?\x00", t.last) >= 0 || strings.HasSuffix(t.text[:end], "=>") {
		return true
	}
	if c := t.text[at]; strings.IndexByte("}|&.?:)=>,;", c) >= 0 || t.wordAt(at, "extends") || t.wordAt(at, "is") {
		return true
	}
	t.put(model.TokenPunctuation, "; ")
	t.last = '('
	return false
}

// remark puts a doc comment on a member of an object type, on one line.
func (t *typeWriter) remark(text string, spaced bool) {
	if strings.Contains(text, "\n") {
		var lines []string
		for l := range strings.Lines(strings.TrimSuffix(strings.TrimPrefix(text, "/**"), "*/")) {
			if l = strings.TrimSpace(strings.TrimPrefix(strings.TrimSpace(l), "*")); l != "" {
				lines = append(lines, l)
			}
		}
		text = "/** " + strings.Join(lines, " ") + " */"
	}
	if spaced {
		t.put(model.TokenPunctuation, " ")
	}
	t.put(model.TokenComment, text)
	t.put(model.TokenPunctuation, " ")
	t.last = '('
}
