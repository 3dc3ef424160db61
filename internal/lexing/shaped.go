package lexing

import (
	"math/bits"
	"strings"
	"unicode/utf8"
)

// Lex takes a text apart by the shape of its language, and puts what it finds behind what
// the stream has. It gives the offset at which something begins that is never closed, or -1.
// The time it takes is in proportion to the length of the text, whatever stands in it.
func (shape *Shape) Lex(text string, into *Stream) (unclosed int) {
	l := shaped{Shape: shape, Stream: into, text: text, unclosed: -1}
	l.bytes = shape.leading()
	l.sort()
	if l.Body != nil && l.bare {
		l.sortBodies()
	}
	l.code()
	if n := len(l.holes); n > 0 {
		l.never(l.holes[0].from)
	}
	return l.unclosed
}

// leading are the bytes at which a comment, a string, a hole or a mark of several bytes may begin.
func (shape *Shape) leading() (set [256]uint8) {
	for _, c := range shape.Comments {
		set[c.Open[0]] |= mayComment
	}
	for i := range shape.Strings {
		s := &shape.Strings[i]
		if s.Prefixes == nil {
			set[s.first()] |= mayString
		}
		for _, p := range s.Prefixes {
			set[p[0]] |= mayString
		}
	}
	for _, m := range shape.Marks {
		set[m[0]] |= mayMark
	}
	for _, b := range shape.Blanks {
		set[b[0]] |= mayBlank
	}
	return set
}

const (
	mayComment = 1 << iota
	mayString
	mayMark
	mayBlank
)

// What a byte is where code goes on, as far as that needs no look at what follows.
const (
	isOther      uint8 = iota
	isBlank            // between words
	isEnd              // of a line
	isName             // begins one
	isBracketing       // opens or closes something
	isSign             // a mark of its own
	isMarks            // begins a mark, which may have several bytes
)

// sort finds what each byte is.
func (l *shaped) sort() {
	for i := range l.kinds {
		c, may := byte(i), l.bytes[i]
		l.inName[i] = l.Names[i] && may&mayBlank == 0
		switch {
		case c == '\n':
			l.kinds[i] = isEnd
		case c == ' ' || c == '\t' || c == '\r' || c == '\f' || c == '\v':
			l.kinds[i] = isBlank
		case c == l.Directive && c != 0 || IsDigit(c) || c == '.' || may&(mayBlank|mayComment|mayString) != 0 || l.Heredocs && c == '<':
		case l.Names[i]:
			l.kinds[i] = isName
		case may == 0 && isBracket(c):
			l.kinds[i] = isBracketing
		case may == 0:
			l.kinds[i] = isSign
		case may == mayMark && !isBracket(c):
			l.kinds[i] = isMarks
		}
	}
	for i := range l.Strings {
		if l.Strings[i].Prefixes == nil {
			l.stringsAt[l.Strings[i].first()] |= 1 << i
		}
		for _, p := range l.Strings[i].Prefixes {
			l.stringsAt[p[0]] |= 1 << i
			l.longestPrefix = max(l.longestPrefix, len(p))
			if l.Strings[i].Open != "" {
				l.behindPrefix[l.Strings[i].Open[0]] = true
			}
			l.behindPrefix[l.Strings[i].Fence] = true
			for k := range len(p) {
				l.behindPrefix[p[k]] = true
			}
		}
	}
	for n := len(l.Marks) - 1; n >= 0; n-- {
		l.firstMark[l.Marks[n][0]] = n
		l.second[l.Marks[n][1]] = true
	}
}

// shaped is a text on its way into a stream.
type shaped struct {
	*Shape
	*Stream
	text          string
	at            int
	bytes         [256]uint8 // what may begin with one
	kinds         [256]uint8
	stringsAt     [256]uint32 // the forms of strings that may begin with one, by their index
	inName        [256]bool
	behindPrefix  [256]bool // what a string begins with behind its prefix
	longestPrefix int
	second        [256]bool  // the second bytes of marks
	firstMark     [256]int   // index of the first of the marks of several bytes that begins with one
	inBodies      [256]uint8 // what each byte is within bodies that are passed over
	fenced        bool       // "#" may stand between the prefix of a string and what opens it
	unsure        int        // no body before it is passed over
	holes         []hole     // that the code stands in
	heredocs      []heredoc
	mid           bool // something stands before on the line
	unclosed      int
}

// hole is code in a string.
type hole struct {
	from   int   // where the string begins
	index  int32 // of the token that opened it
	string stringAt
}

// stringAt is a string that is being read.
type stringAt struct {
	*StringShape
	close string
}

// heredoc is one whose lines are to come.
type heredoc struct {
	end      string
	indented bool
	from     int
}

func (l *shaped) never(at int) {
	if l.unclosed < 0 {
		l.unclosed = at
	}
}

func (l *shaped) code() {
	for l.at < len(l.text) {
		c := l.text[l.at]
		switch l.kinds[c] {
		case isBlank:
			for l.at++; l.at < len(l.text) && l.text[l.at] == c; {
				l.at++ // most are indentation
			}
			continue
		case isEnd:
			l.lineEnd()
			continue
		case isName:
			l.word()
			l.mid = true
			continue
		case isSign:
			l.Stream.Mark(l.text, l.at, l.at+1)
			l.at++
			l.mid = true
			continue
		case isBracketing:
			l.bracket()
			l.mid = true
			continue
		case isMarks:
			l.mark()
			l.mid = true
			continue
		}
		switch may := l.bytes[c]; {
		case c == l.Directive && c != 0 && !l.mid:
			l.directive()
			continue
		case may&mayBlank != 0 && l.blank() > 0:
			l.at += l.blank()
			continue
		case may&mayComment != 0 && l.comment(), may&mayString != 0 && l.string():
		case l.Heredocs && c == '<' && l.heredoc():
		case NumberAt(l.text, l.at) && !(c == '.' && (l.LeadingDigit || l.at > 0 && l.text[l.at-1] == '.')): // 1..9 is a range
			l.number()
		case l.Names[c]:
			l.word()
		case isBracket(c):
			l.bracket()
		default:
			l.mark()
		}
		l.mid = true
	}
	for _, h := range l.heredocs {
		l.never(h.from)
	}
}

// blank is the length of the blank of several bytes at hand, or 0.
func (l *shaped) blank() int {
	for _, b := range l.Blanks {
		if strings.HasPrefix(l.text[l.at:], b) {
			return len(b)
		}
	}
	return 0
}

// lineEnd goes behind the end of a line, and behind the heredocs that it begins.
func (l *shaped) lineEnd() {
	l.at++
	l.EndLine()
	l.mid = false
	for n := len(l.holes); n > 0 && !l.holes[n-1].string.Lines && !l.holes[n-1].string.HoleLines; n-- { // the string has ended with its line
		l.never(l.holes[n-1].from)
		l.holes = l.holes[:n-1]
	}
	for _, h := range l.heredocs {
		end, closed := heredocEnd(l.text, l.at, h)
		if !closed {
			l.never(h.from)
		}
		l.at = l.Piece(Text, l.at, end)
	}
	l.heredocs = l.heredocs[:0]
}

func heredocEnd(text string, at int, h heredoc) (end int, closed bool) {
	for at < len(text) {
		stop := EndOfLine(text, at)
		line := strings.TrimSuffix(text[at:stop], "\r")
		if h.indented {
			line = strings.TrimLeft(line, " \t")
		}
		at = min(stop+1, len(text))
		if line == h.end {
			return at, true
		}
	}
	return at, false
}

// heredoc takes what says that a text follows on the next lines.
func (l *shaped) heredoc() bool {
	rest, ok := strings.CutPrefix(l.text[l.at:], "<<")
	if !ok {
		return false
	}
	h := heredoc{from: l.at}
	rest, h.indented = strings.CutPrefix(rest, "~")
	begin := len(l.text) - len(rest)
	if rest == "" {
		return false
	}
	end := begin
	switch c := rest[0]; {
	case c == '"' || c == '\'':
		stop, closed := Quoted(l.text, begin)
		if !closed {
			return false
		}
		h.end, end = l.text[begin+1:stop-1], stop
	case l.Names[c] && !IsDigit(c):
		for end < len(l.text) && l.Names[l.text[end]] {
			end++
		}
		h.end = l.text[begin:end]
	default:
		return false
	}
	l.heredocs = append(l.heredocs, h)
	l.Add(Value, l.at, end)
	l.at = l.Piece(Text, l.at, end)
	return true
}

// directive takes a line to the preprocessor with all lines that it goes on in, and gives its
// word. Comments and strings in it are told apart, its brackets are nobody's.
func (l *shaped) directive() (word string) {
	from, end := l.at, joinedEnd(l.text, l.at)
	begin := from + 1
	for begin < end && (l.text[begin] == ' ' || l.text[begin] == '\t') {
		begin++
	}
	behind := begin
	for behind < end && l.Names[l.text[behind]] {
		behind++
	}
	word = l.text[begin:behind]
	l.Piece(Keyword, from, behind)
	for at := behind; at < end; {
		l.at = at
		may := l.bytes[l.text[at]]
		if may&mayComment != 0 && l.comment() {
			if l.at > end { // a comment in a directive may take more lines
				if end = l.at; l.text[l.at-1] != '\n' {
					end = joinedEnd(l.text, l.at)
				}
			}
			at = l.at
			continue
		}
		if stop := l.plainString(at, end, may); stop > at {
			at = l.Piece(Text, at, stop)
			continue
		}
		at++
	}
	if !l.Aside[word] {
		l.Lines = append(l.Lines, Line{From: int32(from), To: int32(end), Next: int32(len(l.Tokens))})
	}
	if l.at = end; l.Off != nil && word == "if" && l.Off[conditionIn(l.text[behind:end])] {
		l.at = l.offEnd(end)
	}
	return word
}

// offEnd is the offset of the line that ends a branch that nobody reads, or of the end.
func (l *shaped) offEnd(at int) int {
	for depth := 1; at < len(l.text); {
		at = min(EndOfLine(l.text, at)+1, len(l.text))
		begin := at
		for begin < len(l.text) && (l.text[begin] == ' ' || l.text[begin] == '\t') {
			begin++
		}
		if begin == len(l.text) || l.text[begin] != l.Directive {
			continue
		}
		word := begin + 1
		for word < len(l.text) && (l.text[word] == ' ' || l.text[word] == '\t') {
			word++
		}
		switch rest := l.text[word:]; {
		case strings.HasPrefix(rest, "if"):
			depth++
		case strings.HasPrefix(rest, "endif"):
			depth--
			if depth == 0 {
				l.mid = false
				return begin
			}
		case strings.HasPrefix(rest, "el") && depth == 1:
			return begin
		}
	}
	return len(l.text)
}

// plainString is the offset behind the string without holes that begins at an offset and
// ends before another one, or the offset.
func (l *shaped) plainString(at, end int, may uint8) int {
	if may&mayString == 0 || l.Names[l.text[at]] && l.Names[l.text[at-1]] {
		return at
	}
	whole := l.text
	l.text = whole[:end] // nothing is looked for beyond, or each line would look to the end
	defer func() { l.text = whole }()
	if s, inside, ok := l.opens(at); ok && s.Hole == "" {
		stop, _, _ := l.inString(s, inside)
		return stop
	}
	return at
}

// joinedEnd is the offset of the end of a line that a backslash joins with the next one.
func joinedEnd(text string, at int) int {
	for {
		end := EndOfLine(text, at)
		if end == len(text) || !strings.HasSuffix(strings.TrimSuffix(text[at:end], "\r"), "\\") {
			return end
		}
		at = end + 1
	}
}

func (l *shaped) comment() bool {
	for i := range l.Comments {
		c := &l.Comments[i]
		if !strings.HasPrefix(l.text[l.at:], c.Open) {
			continue
		}
		end := 0
		switch {
		case c.Close != "":
			var closed bool
			if end, closed = blockEnd(l.text, l.at, c); !closed {
				l.never(l.at)
			}
		case l.Joined:
			end = joinedEnd(l.text, l.at)
		default:
			end = EndOfLine(l.text, l.at)
		}
		l.at = l.Piece(Comment, l.at, end)
		return true
	}
	return false
}

// blockEnd is the offset behind the comment that begins at an offset.
func blockEnd(text string, at int, c *CommentShape) (end int, closed bool) {
	at += len(c.Open)
	if !c.Nested {
		if i := strings.Index(text[at:], c.Close); i >= 0 {
			return at + i + len(c.Close), true
		}
		return len(text), false
	}
	for depth := 1; at < len(text); {
		switch {
		case strings.HasPrefix(text[at:], c.Close):
			at += len(c.Close)
			if depth--; depth == 0 {
				return at, true
			}
		case strings.HasPrefix(text[at:], c.Open):
			at += len(c.Open)
			depth++
		default:
			at++
		}
	}
	return len(text), false
}

// opens finds the form of the string that begins at an offset, and where its inside does.
func (l *shaped) opens(at int) (s stringAt, inside int, ok bool) {
	for may := l.stringsAt[l.text[at]]; may != 0; may &= may - 1 {
		shape := &l.Strings[bits.TrailingZeros32(may)]
		begin, fits := at, shape.Prefixes == nil
		for _, p := range shape.Prefixes {
			if strings.HasPrefix(l.text[at:], p) {
				begin, fits = at+len(p), true
				break
			}
		}
		if !fits {
			continue
		}
		fence := begin
		for shape.Fence != 0 && begin < len(l.text) && l.text[begin] == shape.Fence {
			begin++
		}
		if begin-fence < shape.Fences || !strings.HasPrefix(l.text[begin:], shape.Open) {
			continue
		}
		s = stringAt{shape, shape.closing() + l.text[fence:begin]}
		begin += len(shape.Open)
		if shape.Delimited {
			open := strings.IndexByte(l.text[begin:min(len(l.text), begin+mostDelimiter+1)], '(')
			if open < 0 || strings.ContainsAny(l.text[begin:begin+open], " )\\\t\n") {
				continue
			}
			s.close = ")" + l.text[begin:begin+open] + s.close
			begin += open + 1
		}
		if shape.Character && !isCharacter(l.text, begin, s) {
			continue
		}
		return s, begin, true
	}
	return stringAt{}, 0, false
}

// mostDelimiter is how long the word around a raw string may be ("Raw string literals",
// [lex.string] of the C++ standard).
const mostDelimiter = 16

// isCharacter reports whether one character and its end follow.
func isCharacter(text string, at int, s stringAt) bool {
	if at >= len(text) {
		return false
	}
	if text[at] == s.Escape && s.Escape != 0 {
		return true
	}
	_, size := utf8.DecodeRuneInString(text[at:])
	return strings.HasPrefix(text[at+size:], s.close)
}

// string takes a string, up to its end or to a hole in it.
func (l *shaped) string() bool {
	if l.Names[l.text[l.at]] && !l.prefixed() {
		return false
	}
	s, inside, ok := l.opens(l.at)
	if !ok {
		return false
	}
	l.part(s, l.at, l.at, inside)
	return true
}

// prefixed reports whether the name at hand may be what stands before a string: most are not, and
// what follows them tells.
func (l *shaped) prefixed() bool {
	for at := l.at + 1; at < len(l.text); at++ {
		if c := l.text[at]; !l.inName[c] {
			return l.behindPrefix[c]
		} else if at-l.at >= l.longestPrefix {
			return false
		}
	}
	return false
}

// part takes what stands of a string between two offsets and what follows within it. Whole
// is where the string begins.
func (l *shaped) part(s stringAt, whole, from, inside int) {
	end, closed, size := l.inString(s, inside)
	l.Add(Value, from, end)
	l.at = l.Piece(Text, from, end)
	switch {
	case size > 0:
		l.holes = append(l.holes, hole{from: whole, index: int32(len(l.Tokens)), string: s})
		l.at = end + size
		l.Bracket(l.text, l.at-1)
	case !closed:
		l.never(whole)
	}
}

// inString goes through a string from an offset in it: to the offset behind it, or of the
// code in it, with the length of what begins that.
func (l *shaped) inString(s stringAt, at int) (end int, closed bool, size int) {
	for at < len(l.text) {
		c := l.text[at]
		switch {
		case c == '\n' && !s.Lines:
			return at, false, 0
		case c == s.Escape && c != 0:
			at = min(at+2, len(l.text))
			if at < len(l.text) && l.text[at-1] == '\r' && l.text[at] == '\n' {
				at++
			}
		case c == s.close[0] && strings.HasPrefix(l.text[at:], s.close):
			at += len(s.close)
			if !s.Doubled || !strings.HasPrefix(l.text[at:], s.close) {
				return at, true, 0
			}
			at += len(s.close)
		case s.Hole != "" && c == s.Hole[0] && strings.HasPrefix(l.text[at:], s.Hole):
			if s.Hole != "{" || !strings.HasPrefix(l.text[at:], "{{") {
				return at, false, len(s.Hole)
			}
			at += 2 // a brace of the string's own
		default:
			at++
		}
	}
	return at, false, 0
}

func (l *shaped) number() {
	end := NumberEnd(l.text, l.at, l.Names)
	for l.DigitMark != 0 && end+1 < len(l.text) && l.text[end] == l.DigitMark && l.Names[l.text[end+1]] {
		end = NumberEnd(l.text, end, l.Names)
	}
	if i := strings.Index(l.text[l.at:end], ".."); i >= 0 {
		end = l.at + i
	}
	l.Add(Value, l.at, end)
	l.at = l.Piece(Number, l.at, end)
}

func (l *shaped) word() {
	from, at, text := l.at, l.at+1, l.text
	for {
		for at < len(text) && l.inName[text[at]] {
			at++
		}
		l.at = at
		if at == len(text) || !l.Names[text[at]] || l.blank() > 0 {
			break
		}
		at++ // of a name after all
	}
	l.Add(Word, from, at)
	if !l.bare && l.Keyword != nil && l.Keyword(text[from:at]) {
		l.Piece(Keyword, from, at)
	}
}

// bracket takes a bracket, and goes back into the string that it leads back to.
func (l *shaped) bracket() {
	if l.text[l.at] == '{' && l.bare && l.Body != nil && len(l.holes) == 0 && l.Body(l.text, l.Tokens) {
		l.body()
		return
	}
	opened, closes := l.Bracket(l.text, l.at)
	l.at++
	if n := len(l.holes); closes && n > 0 && opened <= l.holes[n-1].index {
		for n > 1 && opened <= l.holes[n-2].index { // what encloses it closes with it
			n--
		}
		h := l.holes[n-1]
		l.holes = l.holes[:n-1]
		if opened == h.index {
			l.part(h.string, h.from, l.at, l.at)
		}
	}
}

// mark takes the longest mark.
func (l *shaped) mark() {
	size, c := 1, l.text[l.at]
	if l.bytes[c]&mayMark != 0 && l.at+1 < len(l.text) && l.second[l.text[l.at+1]] {
		for _, m := range l.Marks[l.firstMark[c]:] {
			if m[0] == c && strings.HasPrefix(l.text[l.at+1:], m[1:]) {
				size = len(m)
				break
			}
		}
	}
	l.Stream.Mark(l.text, l.at, l.at+size)
	l.at += size
}
