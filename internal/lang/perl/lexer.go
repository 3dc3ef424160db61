package perl

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/source"
)

// This file takes a text apart (perldata, perlop and perlpod of the language's manual). Whether a
// slash divides or begins a pattern hangs on what stands before it.

// lexer goes through a text.
type lexer struct {
	*lexing.Stream
	text     string
	at       int
	term     bool   // a value stands before: an operator is to come
	braces   []bool // of the open braces: one behind which a value stands, as behind $a{b} and eval { c }
	heredocs []heredoc
	pods     []source.Span // blocks of documentation
	encoded  bool          // they say how their text is encoded
	end      int           // where the code ends, or 0
	unclosed int           // where something begins that never ends, or -1
	last     string        // the word before, if one stands right there
	named    bool          // a sub's name was read: parameters may follow
	loads    bool          // subs behind the end of the code are loaded when they are called
}

// heredoc is one whose lines are to come.
type heredoc struct {
	end      string
	indented bool
	from     int
}

func (l *lexer) never(at int) {
	if l.unclosed < 0 {
		l.unclosed = at
	}
}

var wordBytes = lexing.NameBytes("")

func (l *lexer) run() {
	if strings.HasPrefix(l.text, "#!") {
		l.at = l.Piece(lexing.Comment, 0, lexing.EndOfLine(l.text, 0))
	}
	for l.at < len(l.text) && l.end == 0 {
		l.step()
	}
	for _, h := range l.heredocs {
		l.never(h.from)
	}
	if l.end > 0 {
		l.rest()
	}
}

// rest finds the documentation behind the end of the code.
func (l *lexer) rest() {
	for l.at < len(l.text) {
		if l.pod() {
			continue
		}
		l.at = min(lexing.EndOfLine(l.text, l.at)+1, len(l.text))
	}
}

// pod takes a block of documentation, if one begins at the line at hand.
func (l *lexer) pod() bool {
	if l.at > 0 && l.text[l.at-1] != '\n' || l.at+1 >= len(l.text) || l.text[l.at] != '=' || !isLetter(l.text[l.at+1]) {
		return false
	}
	from, at := l.at, l.at
	for at < len(l.text) {
		line := l.text[at:lexing.EndOfLine(l.text, at)]
		end := min(at+len(line)+1, len(l.text))
		if strings.HasPrefix(line, "=encoding") {
			l.encoded = true
		}
		if strings.HasPrefix(line, "=cut") && (len(line) == 4 || !isLetter(line[4])) {
			at = end
			break
		}
		at = end
	}
	l.pods = append(l.pods, source.NewSpan(from, at))
	l.Piece(lexing.Comment, from, len(strings.TrimRight(l.text[:at], "\r\n")))
	l.at = at
	l.EndLine()
	return true
}

// stands reports whether a command stands at the line at hand for certain, whatever is before it: an
// empty line, and one of the words of the manual.
func (l *lexer) stands() bool {
	if !strings.HasSuffix(strings.ReplaceAll(l.text[max(0, l.at-4):l.at], "\r", ""), "\n\n") {
		return false
	}
	for _, word := range []string{"=head", "=pod", "=over", "=item", "=begin", "=for", "=encoding", "=cut"} {
		if strings.HasPrefix(l.text[l.at:], word) {
			return true
		}
	}
	return false
}

func isLetter(c byte) bool { return 'a' <= c|0x20 && c|0x20 <= 'z' }

// step takes the next token, or what stands between tokens.
func (l *lexer) step() {
	c := l.text[l.at]
	switch {
	case c == '\n':
		l.at++
		l.EndLine()
		l.lines()
	case c == ' ' || c == '\t' || c == '\r' || c == '\f':
		l.at++
	case c == '#':
		l.at = l.Piece(lexing.Comment, l.at, lexing.EndOfLine(l.text, l.at))
	case c == '=' && (!l.term || l.stands()) && l.pod():
	case c == '$' || c == '@' || c == '%' || c == '&' || c == '*':
		l.sigil(c)
	case wordBytes[c] && !lexing.IsDigit(c):
		l.word()
	case lexing.NumberAt(l.text, l.at) && !(c == '.' && l.term):
		end := lexing.NumberEnd(l.text, l.at, wordBytes)
		if i := strings.Index(l.text[l.at:end], ".."); i > 0 {
			end = l.at + i
		}
		l.value(l.at, l.Piece(lexing.Number, l.at, end))
	case c == '"' || c == '\'' || c == '`':
		end, closed := delimited(l.text, l.at)
		l.text1(l.at, end, closed)
	case c == '/' && !l.term:
		l.pattern(l.at, l.at, 1, true)
	case c == '<':
		l.less()
	case c == '{' || c == '(' || c == '[' || c == '}' || c == ')' || c == ']':
		l.bracket(c)
	default:
		l.mark()
	}
}

// value puts what stands for itself.
func (l *lexer) value(from, to int) {
	l.Add(lexing.Value, from, to)
	l.at, l.term, l.last, l.named = to, true, "", false
}

// text1 puts a text in quotes.
func (l *lexer) text1(from, end int, closed bool) {
	if !closed {
		l.never(from)
	}
	l.value(from, l.Piece(lexing.Text, from, end))
}

// lines goes past what heredocs have on the lines behind the one that begins them.
func (l *lexer) lines() {
	for _, h := range l.heredocs {
		from, closed := l.at, false
		for l.at < len(l.text) && !closed {
			stop := lexing.EndOfLine(l.text, l.at)
			line := strings.TrimSuffix(l.text[l.at:stop], "\r")
			if h.indented {
				line = strings.TrimLeft(line, " \t")
			}
			closed = line == h.end
			l.at = min(stop+1, len(l.text))
		}
		if !closed {
			l.never(h.from)
		}
		l.Piece(lexing.Text, from, len(strings.TrimRight(l.text[:l.at], "\r\n")))
	}
	l.heredocs = l.heredocs[:0]
}

// sigil takes a variable, or the sign alone where it is an operator.
func (l *lexer) sigil(c byte) {
	at := l.at + 1
	if c != '$' && l.term || at >= len(l.text) {
		l.mark()
		return
	}
	if c == '$' && l.text[at] == '#' && at+1 < len(l.text) && (l.text[at+1] == '{' || l.text[at+1] == '$' || l.text[at+1] == '_' || isLetter(l.text[at+1]) || l.text[at+1] == ':') {
		at++ // the last index of a list
	}
	for at < len(l.text) && l.text[at] == '$' && at+1 < len(l.text) && (wordBytes[l.text[at+1]] || l.text[at+1] == '$' || l.text[at+1] == '{' || l.text[at+1] == ':') {
		at++
	}
	switch end := nameEnd(l.text, at); {
	case end > at:
		at = end
	case at < len(l.text) && l.text[at] == '{':
		// ${name}, or ${ code }: the braces are brackets of a value
		if end := nameEnd(l.text, at+1); end > at+1 && end < len(l.text) && l.text[end] == '}' {
			at = end + 1
			break
		}
		if at+1 < len(l.text) && l.text[at+1] == '^' {
			if i := strings.IndexByte(l.text[at:min(len(l.text), at+40)], '}'); i > 0 {
				at += i + 1
				break
			}
		}
		l.Mark(l.text, l.at, l.at+1)
		l.at, l.term, l.last = at, true, ""
		return
	case (c == '$' || c == '@') && at < len(l.text) && strings.IndexByte("&`'+!^/|,\\.;0123456789<>()[]-\"#*~=%:?@$", l.text[at]) >= 0 && (c == '$' || l.text[at] == '-' || l.text[at] == '+'):
		if l.text[at] == '^' && at+1 < len(l.text) && isLetter(l.text[at+1]) {
			at++
		}
		at++
	case c == '*' && at+1 < len(l.text) && strings.IndexByte("\"'`;,./\\|<>()[]&+-~^=%:?!0@$#", l.text[at]) >= 0 && strings.IndexByte(" \t;{", l.text[at+1]) >= 0: // the glob of such a variable
		at++
	case c == '%' && at < len(l.text) && strings.IndexByte("+-!^", l.text[at]) >= 0 && !(at+1 < len(l.text) && wordBytes[l.text[at+1]]):
		at++
	default:
		l.mark()
		return
	}
	l.Add(lexing.Word, l.at, at)
	l.at, l.term, l.last, l.named = at, true, "", false
}

// nameEnd is the offset behind a name with those of packages before it.
func nameEnd(text string, at int) int {
	for at < len(text) {
		switch {
		case wordBytes[text[at]]:
			at++
		case strings.HasPrefix(text[at:], "::") && !strings.HasPrefix(text[at:], "::$"):
			at += 2
		default:
			return at
		}
	}
	return at
}

// word takes a word, and what it quotes.
func (l *lexer) word() {
	from := l.at
	end := nameEnd(l.text, from)
	if end == from {
		end++
	}
	word := l.text[from:end]
	after := end
	for after < len(l.text) && (l.text[after] == ' ' || l.text[after] == '\t') {
		after++
	}
	arrow := strings.HasPrefix(l.text[after:], "=>")
	key := arrow || l.before("->") || l.before("{") && after < len(l.text) && l.text[after] == '}'
	switch {
	case key || l.last == "sub" || l.last == "method" || l.last == "package":
	case word == "__END__" || word == "__DATA__":
		if l.loads {
			l.at, l.term, l.last = end, false, ""
			return
		}
		if l.before("\n") || l.before("") {
			l.end, l.at = from, min(lexing.EndOfLine(l.text, end)+1, len(l.text))
			return
		}
	case (word == "AutoLoader" || word == "SelfLoader") && l.last == "use":
		l.loads = true
	case len(word) == 1 && from > 0 && l.text[from-1] == '-': // a question about a file
	case quoting[word] > 0:
		if l.quote(from, end, quoting[word], word) {
			return
		}
	case word == "format" && !l.term && l.format(from, end):
		return
	}
	l.Add(lexing.Word, from, end)
	was := l.last
	l.at, l.last = end, word
	l.named = was == "sub" || was == "method"
	if l.named {
		l.last = ""
	}
	if key {
		l.last = ""
	}
	l.term = key || !operators[word]
	if !key && keywords[word] {
		l.Piece(lexing.Keyword, from, end)
	}
}

// before reports whether a mark stands right before; "\n" means that the line begins here.
func (l *lexer) before(mark string) bool {
	at := l.at
	for at > 0 && (l.text[at-1] == ' ' || l.text[at-1] == '\t') {
		at--
	}
	if mark == "\n" || mark == "" {
		return at == 0 || l.text[at-1] == '\n' || l.text[at-1] == ';' || l.text[at-1] == '}'
	}
	return strings.HasSuffix(l.text[:at], mark)
}

// quoting are the words that quote, with how many parts they do.
var quoting = map[string]int{"q": 1, "qq": 1, "qw": 1, "qx": 1, "qr": 1, "m": 1, "s": 2, "tr": 2, "y": 2}

// quote takes what a word quotes; it reports whether it is one that does.
func (l *lexer) quote(from, end, parts int, word string) bool {
	at := end
	for at < len(l.text) && strings.IndexByte(" \t\r\n", l.text[at]) >= 0 {
		at++
	}
	if at >= len(l.text) {
		return false
	}
	switch d := l.text[at]; {
	case d == ',' && at == end && (!l.term || l.before("=~") || l.before("!~")) && at+1 < len(l.text) && strings.IndexByte(" \t\r\n", l.text[at+1]) < 0: // s,a,b,
	case d == '#' && at > end, d == ',' || d == ';' || d == ')', d == '=' && (at > end || strings.HasPrefix(l.text[at:], "==") || strings.HasPrefix(l.text[at:], "=~")):
		if d == '#' { // a comment: what is quoted stands below
			return l.quoteBelow(from, at, parts)
		}
		return false
	case wordBytes[d] && at == end:
		return false
	case l.term && len(word) == 1 && at > end && d != '{' && d != '(' && d != '/':
		return false
	}
	l.pattern(from, at, parts, word != "q" && word != "qq" && word != "qw" && word != "qx")
	return true
}

// quoteBelow takes what stands below a comment behind a word that quotes.
func (l *lexer) quoteBelow(from, at, parts int) bool {
	for at < len(l.text) {
		switch c := l.text[at]; {
		case c == '#':
			at = lexing.EndOfLine(l.text, at)
		case c == ' ' || c == '\t' || c == '\r' || c == '\n':
			at++
		default:
			l.pattern(from, at, parts, true)
			return true
		}
	}
	return false
}

// pattern takes parts between delimiters, the first of which stands at an offset.
func (l *lexer) pattern(from, at, parts int, flags bool) {
	end, closed := delimited(l.text, at)
	if parts == 2 && closed {
		if open := l.text[at]; partner(open) != open { // another pair
			at = end
			for at < len(l.text) && strings.IndexByte(" \t\r\n#", l.text[at]) >= 0 {
				if l.text[at] == '#' && at > end {
					at = lexing.EndOfLine(l.text, at)
					continue
				}
				if l.text[at] == '#' {
					break
				}
				at++
			}
			if at < len(l.text) {
				end, closed = delimited(l.text, at)
			}
		} else {
			end, closed = delimited(l.text, end-1)
		}
	}
	if flags && closed {
		for end < len(l.text) && isLetter(l.text[end]) {
			end++
		}
	}
	l.text1(from, end, closed)
}

func partner(open byte) byte {
	switch open {
	case '(':
		return ')'
	case '[':
		return ']'
	case '{':
		return '}'
	case '<':
		return '>'
	}
	return open
}

// delimited is the offset behind what is quoted from a delimiter on: pairs of brackets nest in it.
func delimited(text string, at int) (end int, closed bool) {
	open := text[at]
	shut := partner(open)
	depth := 1
	for i := at + 1; i < len(text); i++ {
		switch c := text[i]; {
		case c == '\\' && open != '\\':
			i++
		case c == shut:
			if depth--; depth == 0 {
				return i + 1, true
			}
		case c == open:
			depth++
		}
	}
	return len(text), false
}

// less takes "<": a heredoc, a handle in brackets, or a comparison.
func (l *lexer) less() {
	rest := l.text[l.at:]
	if strings.HasPrefix(rest, "<<") && l.heredoc() {
		return
	}
	if !l.term {
		if i := strings.IndexAny(rest[:min(len(rest), 120)], ">\n;"); i > 0 && rest[i] == '>' && !strings.HasPrefix(rest, "<=") && !strings.Contains(rest[1:i], " ") {
			l.value(l.at, l.Piece(lexing.Text, l.at, l.at+i+1))
			return
		}
	}
	l.mark()
}

// heredoc takes what says that a text follows on the next lines.
func (l *lexer) heredoc() bool {
	at := l.at + 2
	h := heredoc{from: l.at}
	if at < len(l.text) && l.text[at] == '~' {
		h.indented = true
		at++
	}
	begin := at
	for at < len(l.text) && (l.text[at] == ' ' || l.text[at] == '\t') {
		at++
	}
	if at >= len(l.text) {
		return false
	}
	end := at
	switch c := l.text[at]; {
	case c == '"' || c == '\'' || c == '`':
		if l.term && at > begin && !l.mayPrint() {
			return false
		}
		stop, closed := lexing.Quoted(l.text, at)
		if !closed {
			return false
		}
		h.end, end = l.text[at+1:stop-1], stop
	case c == '\\' && at == begin && at+1 < len(l.text) && wordBytes[l.text[at+1]]:
		for end = at + 1; end < len(l.text) && wordBytes[l.text[end]]; end++ {
		}
		h.end = l.text[at+1 : end]
	case at == begin && wordBytes[c] && !lexing.IsDigit(c):
		if l.term && !l.mayPrint() {
			return false
		}
		for end < len(l.text) && wordBytes[l.text[end]] {
			end++
		}
		h.end = l.text[at:end]
	default:
		return false
	}
	l.heredocs = append(l.heredocs, h)
	l.value(l.at, l.Piece(lexing.Text, l.at, end))
	return true
}

// mayPrint reports whether the value before is a word, as the handle that is written to: print OUT <<END.
func (l *lexer) mayPrint() bool {
	n := len(l.Tokens)
	if n == 0 || l.Tokens[n-1].Kind != lexing.Word {
		return false
	}
	c := l.text[l.Tokens[n-1].From]
	return isLetter(c) || c == '_' || c == '$' && n > 1 && l.Tokens[n-2].Kind == lexing.Word && printing[l.text[l.Tokens[n-2].From:l.Tokens[n-2].To]] || n > 1 && l.Tokens[n-1].Sign == '}'
}

var printing = map[string]bool{"print": true, "printf": true, "say": true}

// bracket takes a bracket. Behind a sub's name those of parameters are looked into only where there
// are names: a prototype has signs alone.
func (l *lexer) bracket(c byte) {
	switch c {
	case '{':
		l.braces = append(l.braces, l.term && l.subscripts() || l.evaluates())
	case '(':
		if l.named || l.last == "sub" || l.last == "method" || l.last == "prototype" {
			if stop := strings.IndexByte(l.text[l.at:min(len(l.text), l.at+80)], ')'); stop > 0 && strings.Trim(l.text[l.at+1:l.at+stop], "$@%&*;\\[]+_ \t\n") == "" {
				l.Bracket(l.text, l.at)
				if stop > 1 {
					l.Add(lexing.Value, l.at+1, l.at+stop)
				}
				l.Bracket(l.text, l.at+stop)
				l.at, l.term, l.last, l.named = l.at+stop+1, true, "", false
				return
			}
		}
	}
	l.Bracket(l.text, l.at)
	l.at++
	l.last, l.named = "", false
	switch c {
	case ')', ']':
		l.term = true
	case '}':
		l.term = false
		if n := len(l.braces); n > 0 {
			l.term = l.braces[n-1]
			l.braces = l.braces[:n-1]
		}
	default:
		l.term = false
	}
}

// evaluates reports whether a word stands before whose block is a value.
func (l *lexer) evaluates() bool {
	n := len(l.Tokens)
	if n == 0 || l.named || l.Tokens[n-1].Kind != lexing.Word {
		return false
	}
	word := l.text[l.Tokens[n-1].From:l.Tokens[n-1].To]
	return word == "eval" || word == "do"
}

// subscripts reports whether the value before takes an index in braces: not where a block follows a
// condition, or the name of a sub.
func (l *lexer) subscripts() bool {
	n := len(l.Tokens)
	if n == 0 || l.named {
		return false
	}
	t := &l.Tokens[n-1]
	switch {
	case t.Kind == lexing.Word:
		return strings.IndexByte("$@%&", l.text[t.From]) >= 0
	case t.Kind == lexing.Mark:
		text := l.text[t.From:t.To]
		return text == "->" || text == "]" || text == "}" || text == "$" || text == "@" || text == "%" || text == "&" || text == "*"
	}
	return false
}

// marks of several bytes.
var marks = []string{"<=>", "**=", "||=", "&&=", "//=", "...", "->", "=>", "::", "++", "--", "**", "=~", "!~", "==", "!=", "<=", ">=", "&&", "||", "//", "..", "+=", "-=", "*=", "/=", ".=", "%=", "x=", "&=", "|=", "^=", "<<", ">>"}

// mark takes an operator.
func (l *lexer) mark() {
	size := 1
	for _, m := range marks {
		if m[0] == l.text[l.at] && strings.HasPrefix(l.text[l.at:], m) {
			size = len(m)
			break
		}
	}
	mark := l.text[l.at : l.at+size]
	l.Mark(l.text, l.at, l.at+size)
	l.at += size
	l.last, l.named = "", false
	if mark == "->" {
		l.term = true
		for _, all := range []string{"@*", "%*", "$*", "&*", "**", "$#*"} { // all that a reference leads to
			if strings.HasPrefix(l.text[l.at:], all) {
				l.Mark(l.text, l.at, l.at+len(all))
				l.at += len(all)
				break
			}
		}
	} else if mark != "++" && mark != "--" {
		l.term = false
	}
}

// longestFormat is how many bytes the name of a format has at most.
const longestFormat = 120

// format takes a picture of lines, up to a line that is a dot.
func (l *lexer) format(from, end int) bool {
	i := end
	for i < min(len(l.text), end+longestFormat) && (l.text[i] == ' ' || l.text[i] == '\t' || l.text[i] == ':' || wordBytes[l.text[i]]) {
		i++
	}
	if i == len(l.text) || l.text[i] != '=' || len(strings.Fields(l.text[end:i])) > 1 {
		return false
	}
	for i++; i < len(l.text) && strings.IndexByte(" \t\r", l.text[i]) >= 0; { // nothing else stands on the line
		i++
	}
	if i < len(l.text) && l.text[i] != '\n' {
		return false
	}
	at := min(i+1, len(l.text))
	for at < len(l.text) {
		stop := lexing.EndOfLine(l.text, at)
		line := strings.TrimRight(l.text[at:stop], "\r \t")
		at = min(stop+1, len(l.text))
		if line == "." {
			break
		}
	}
	l.text1(from, at, true)
	l.term = false
	l.EndLine()
	return true
}

// operators are the words behind which a value is to come.
var operators = lexing.WordSet(`and or not xor x cmp eq ne lt gt le ge if elsif unless while until for foreach when return print printf say push unshift split grep map join die warn
	eval do else lc uc lcfirst ucfirst ref scalar defined delete exists keys values each sort reverse my our local state use no require package sub given default isa try catch finally defer
	BEGIN END INIT CHECK UNITCHECK bless open close chomp chop length substr index sprintf pos quotemeta abs int sqrt wantarray last next redo goto dump`)

// keywords are those that pages show as words of the language.
var keywords = lexing.WordSet(`and or not xor x cmp eq ne lt gt le ge if elsif else unless while until for foreach when given default return my our local state use no require package sub do eval
	last next redo goto class method field try catch finally defer isa ADJUST BEGIN END INIT CHECK UNITCHECK __PACKAGE__ undef wantarray`)
