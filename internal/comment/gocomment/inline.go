package gocomment

import (
	"slices"
	"strings"
	"sync"
	"unicode"
	"unicode/utf8"

	"codrel/internal/prose"
	"codrel/internal/source"
)

// This file reads what stands in a line: plain addresses, linked text,
// references in brackets, and typewriter quotes.

type inline struct {
	text   string
	links  map[string]string
	starts []int
	lines  []line
	out    []prose.Node
	from   int // start of the text that is not put out yet
}

// rooms are lists that texts are read into: what is kept of one is no larger than it must be.
var rooms = sync.Pool{New: func() any { room := make([]prose.Node, 0, 8); return &room }}

func (in *inline) parse() []prose.Node {
	room := rooms.Get().(*[]prose.Node)
	in.out = (*room)[:0]
	in.read()
	out := slices.Clone(in.out)
	clear(in.out)
	*room, in.out = in.out, nil
	rooms.Put(room)
	return out
}

// read puts out all of the text.
func (in *inline) read() {
	s := in.text
	for i := 0; i < len(s); {
		switch {
		case s[i] == '[':
			if n := in.bracket(i); n > 0 {
				i += n
				continue
			}
		case s[i] == ':' && strings.HasPrefix(s[i:], "://"):
			if end := in.address(i); end > 0 {
				i = end
				continue
			}
		case s[i] == '`' && strings.HasPrefix(s[i:], "``"):
			in.quote(i, "“")
			i += 2
			continue
		case s[i] == '\'' && strings.HasPrefix(s[i:], "''"):
			in.quote(i, "”")
			i += 2
			continue
		}
		i++
	}
	in.flush(len(s))
}

// flush puts out the plain text up to an offset.
func (in *inline) flush(to int) {
	if to > in.from {
		in.put(prose.Node{Kind: prose.Text, Text: in.text[in.from:to]}, in.from, to)
	}
	in.from = to
}

func (in *inline) put(n prose.Node, from, to int) {
	n.Span = source.Span{Start: in.offset(from), End: in.offset(to)}
	if n.Span.End < n.Span.Start {
		n.Span.End = n.Span.Start
	}
	in.out = append(in.out, n)
}

func (in *inline) quote(at int, mark string) {
	in.flush(at)
	in.put(prose.Node{Kind: prose.Text, Text: mark}, at, at+2)
	in.from = at + 2
}

// bracket reads "[text]" with a definition, or "[Name]" as a reference, and
// returns its length, or 0 where it is plain text.
func (in *inline) bracket(i int) int {
	end := strings.IndexAny(in.text[i+1:], "[]")
	if end < 0 || in.text[i+1+end] != ']' {
		return 0
	}
	text := in.text[i+1 : i+1+end]
	length := end + 2
	if target, ok := in.links[strings.ReplaceAll(text, "\n", " ")]; ok {
		in.flush(i)
		in.put(in.defined(text, target, i), i, i+length)
		in.from = i + length
		return length
	}
	if !boundaryBefore(in.text[:i]) || !boundaryAfter(in.text[i+length:]) {
		return 0
	}
	target := strings.TrimPrefix(text, "*")
	if !isReference(target) {
		return 0
	}
	in.flush(i)
	n := prose.Node{Kind: prose.Reference, Target: target, Text: in.text[i : i+length]}
	n.Children = []prose.Node{{Kind: prose.Code, Text: text, Span: in.span(i+1, i+1+end)}}
	in.put(n, i, i+length)
	in.from = i + length
	return length
}

func (in *inline) span(from, to int) source.Span {
	return source.Span{Start: in.offset(from), End: in.offset(to)}
}

// defined is a text with a link definition: an address, or a "ref:" that must resolve.
func (in *inline) defined(text, target string, i int) prose.Node {
	n, ok := prose.Leading(target)
	shown := prose.Node{Kind: prose.Text, Text: text, Span: in.span(i+1, i+1+len(text))}
	if !ok {
		return shown
	}
	n.Children = []prose.Node{shown}
	return n
}

func boundaryBefore(s string) bool {
	r, _ := utf8.DecodeLastRuneInString(s)
	return s == "" || boundary(r)
}

func boundaryAfter(s string) bool {
	r, _ := utf8.DecodeRuneInString(s)
	return s == "" || boundary(r)
}

// boundary reports whether a reference may stand beside r: white space or
// punctuation, but nothing that indexing or a conversion would have there.
func boundary(r rune) bool {
	return r == ' ' || r == '\t' || r == '\n' || unicode.IsPunct(r) && r != '_' && r != ']' && r != '['
}

// isReference reports whether s has the form of a reference: Name, Name.Member,
// package, package.Name or package.Name.Member, where the package may be an
// import path.
func isReference(s string) bool {
	if i := strings.LastIndexByte(s, '/'); i >= 0 {
		if !isImportPath(s[:i]) {
			return false
		}
		s = s[i+1:]
		if dot := strings.IndexByte(s, '.'); dot >= 0 {
			return isImportPath(s[:dot]) && dottedNames(s[dot+1:], 2)
		}
		return isImportPath(s)
	}
	return dottedNames(s, 3)
}

func isImportPath(s string) bool {
	for i := 0; i < len(s); i++ {
		c := s[i]
		if !('a' <= c && c <= 'z' || 'A' <= c && c <= 'Z' || '0' <= c && c <= '9' || strings.IndexByte("-._~/", c) >= 0) {
			return false
		}
	}
	return s != "" && s[0] != '/' && !strings.Contains(s, "//")
}

func dottedNames(s string, most int) bool {
	parts := strings.Split(s, ".")
	if len(parts) > most {
		return false
	}
	for _, p := range parts {
		if !isIdentifier(p) {
			return false
		}
	}
	return true
}

func isIdentifier(s string) bool {
	for i, r := range s {
		if r != '_' && !unicode.IsLetter(r) && (i == 0 || !unicode.IsDigit(r)) {
			return false
		}
	}
	return s != ""
}

// schemes are those that make a plain address a link.
var schemes = []string{"https", "http"}

// address links a plain address whose "://" stands at i, and returns the offset behind it, or 0.
func (in *inline) address(i int) int {
	start := -1
	for _, scheme := range schemes {
		if at := i - len(scheme); at >= in.from && in.text[at:i] == scheme && wordStart(in.text, at) {
			start = at
			break
		}
	}
	if start < 0 {
		return 0
	}
	end := addressEnd(in.text, i+3)
	if end <= i+3 || !prose.AllowedAddress(in.text[start:end]) {
		return 0
	}
	in.flush(start)
	url := in.text[start:end]
	n := prose.Node{Kind: prose.Link, Target: url}
	n.Children = []prose.Node{{Kind: prose.Text, Text: url, Span: in.span(start, end)}}
	in.put(n, start, end)
	in.from = end
	return end
}

func wordStart(s string, at int) bool {
	r, _ := utf8.DecodeLastRuneInString(s[:at])
	return at == 0 || !unicode.IsLetter(r) && !unicode.IsDigit(r)
}

// addressEnd is where a plain address ends: before white space, quotes and angle
// brackets, without closing punctuation, and with parentheses only in pairs.
func addressEnd(s string, i int) int {
	open := 0
	for i < len(s) {
		c := s[i]
		if c <= ' ' || c == '"' || c == '<' || c == '>' || c == '`' || c == '{' || c == '}' || c == '|' || c == '\\' || c == '^' || c == ']' || c == '[' {
			break
		}
		if c == '(' {
			open++
		}
		if c == ')' {
			if open == 0 {
				break
			}
			open--
		}
		i++
	}
	for i > 0 && strings.IndexByte(".,:;?!'", s[i-1]) >= 0 {
		i--
	}
	return i
}

// impliedHeading reports whether a line is a heading by the rule from before
// "# ": one line between paragraphs, beginning with a capital, without the
// punctuation of a sentence.
func impliedHeading(s string) bool {
	first, _ := utf8.DecodeRuneInString(s)
	last, _ := utf8.DecodeLastRuneInString(s)
	if !unicode.IsUpper(first) || !unicode.IsLetter(last) && !unicode.IsDigit(last) {
		return false
	}
	if strings.ContainsAny(s, ";:!?+*/=[]{}_^°&§~%#@<\">\\") {
		return false
	}
	for i := 0; i < len(s); i++ {
		switch s[i] {
		case '\'':
			if rest := s[i+1:]; rest != "s" && !strings.HasPrefix(rest, "s ") {
				return false
			}
		case '.':
			if i+1 == len(s) || s[i+1] == ' ' {
				return false
			}
		}
	}
	return true
}
