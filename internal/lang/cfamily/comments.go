package cfamily

import (
	"cmp"
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file finds the comments that speak of declarations: before them, behind them, and at
// other places by their name.

// comments are those of a file that were attached to something.
type comments struct {
	used map[int32]bool // by where they begin
}

// isDoc reports whether a comment is one for users: "/**", "/*!", "///" or "//!". A row of stars
// or slashes is an ornament.
func isDoc(text string) bool {
	if len(text) < 4 {
		return text == "///" || text == "//!"
	}
	switch text[:3] {
	case "/**":
		return text[3] != '*' && text[3] != '/'
	case "/*!":
		return true
	case "///":
		return text[3] != '/'
	case "//!":
		return true
	}
	return false
}

// isTrailing reports whether a comment for users speaks of what stands before it.
func isTrailing(text string) bool { return len(text) > 3 && text[3] == '<' }

func isLineComment(text string) bool { return strings.HasPrefix(text, "//") }

// saidBefore is what the comments say that stand between two offsets.
func (r *reader) saidBefore(at, floor int32) (said lexing.Said) {
	n := r.CommentAt(at) - 1
	found := false
	for ; n >= 0 && r.Comments[n].Start >= floor; n-- {
		c := r.Comments[n]
		text := c.In(r.Text)
		if rest, ok := strings.CutPrefix(text, "//"); ok {
			if d, ok := lexing.ParseDirective(strings.TrimSpace(rest), c); ok {
				said.Directives = append([]model.Directive{d}, said.Directives...)
				continue
			}
		}
		if found || isTrailing(text) && isDoc(text) || !isDoc(text) && !r.plainBefore(c, at) {
			continue
		}
		for isLineComment(text) && n > 0 && r.Comments[n-1].Start >= floor && r.follows(n-1, c) {
			n--
			c.Start = r.Comments[n].Start
		}
		if r.ofElsewhere(c) {
			continue
		}
		found = true
		r.doc.use(c.Start)
		said.Doc = r.docOf(c)
	}
	return said
}

// follows reports whether a comment that begins with a line of one kind goes on what the
// comment with an index says: on the next line, and as much for users.
func (r *reader) follows(n int, next source.Span) bool {
	c := r.Comments[n]
	text := c.In(r.Text)
	between := r.Text[c.End:next.Start]
	if begins, ends := groupMarks(text); begins || ends {
		return false
	}
	return isLineComment(text) && (isDoc(text) || r.plain && !isDoc(next.In(r.Text))) && !isTrailing(text) && strings.TrimSpace(between) == "" && strings.Count(between, "\n") == 1
}

// plainBefore reports whether a comment without a mark for users stands right before an offset,
// where such comments count.
func (r *reader) plainBefore(c source.Span, at int32) bool {
	if !r.plain {
		return false
	}
	text, between := c.In(r.Text), r.Text[c.End:at]
	return strings.Count(between, "\n") <= 1 && strings.TrimSpace(between) == "" && strings.Trim(text, "/*-=# \t\r\n") != ""
}

// plainBehind reports whether such a comment stands behind what ends at an offset, on its line.
func (r *reader) plainBehind(c source.Span, end int32) bool {
	return r.plain && !strings.Contains(r.Text[end:c.Start], "\n")
}

// saidAfter is the comment that speaks of what ends at an offset, and stands before another one.
func (r *reader) saidAfter(end, before int32) *model.Doc {
	n := r.CommentAt(end)
	for ; n < len(r.Comments) && r.Comments[n].Start < before; n++ {
		c := r.Comments[n]
		text := c.In(r.Text)
		if !isDoc(text) || !isTrailing(text) {
			if isDoc(text) {
				return nil
			}
			if r.plainBehind(c, end) {
				return r.docOf(c)
			}
			continue
		}
		for isLineComment(text) && n+1 < len(r.Comments) && r.Comments[n+1].Start < before {
			next := r.Comments[n+1]
			between, more := r.Text[c.End:next.Start], next.In(r.Text)
			if !isDoc(more) || !isLineComment(more) || strings.TrimSpace(between) != "" || strings.Count(between, "\n") != 1 {
				break
			}
			c.End = next.End
			n++
		}
		r.doc.use(c.Start)
		return r.docOf(c)
	}
	return nil
}

// inLine is the comment for users in a line to the preprocessor, behind what it says.
func (r *reader) inLine(n int) *model.Doc {
	t := &r.Lines[n]
	return r.saidAfter(t.From, int32(lexing.EndOfLine(r.Text, int(t.To))))
}

func (c *comments) use(start int32) {
	if c.used == nil {
		c.used = map[int32]bool{}
	}
	c.used[start] = true
}

// docOf makes a doc comment of a comment, without its marks.
func (r *reader) docOf(span source.Span) *model.Doc {
	whole := span.In(r.Text)
	if isLineComment(whole) {
		return r.kept(lexing.LineDoc(r.Text, span, isDoc(whole) && isTrailing(whole)), span)
	}
	from, to := span.Start+2, span.End
	if isDoc(whole) {
		from++
	}
	if isDoc(whole) && isTrailing(whole) {
		from++
	}
	if strings.HasSuffix(whole, "*/") {
		for to -= 2; to > from && r.Text[to-1] == '*'; to-- {
		}
	}
	to = max(from, to)
	return r.kept(lexing.MakeDoc(r.Text, lexing.BlockLines(r.Text, from, to, 1), span), span)
}

// kept is a doc comment; of one without a word it is noted that there is one.
func (r *reader) kept(doc *model.Doc, span source.Span) *model.Doc {
	if doc == nil {
		r.Facts.Empty = append(r.Facts.Empty, model.Blank{Span: span})
	}
	return doc
}

// subjects are the words by which a comment says what it is about, where it stands elsewhere.
var subjects = lexing.WordSet(`file fn def var struct class union enum typedef namespace concept property mainpage page defgroup addtogroup weakgroup dir package interface protocol category overload headerfile internalfile name example`)

// subject is the word and what follows it on its line, where a comment says by a tag at its
// beginning what it is about.
func subject(text string) (word, rest string) {
	text = strings.TrimLeft(text, " \t\n")
	if text == "" || text[0] != '@' && text[0] != '\\' {
		return "", ""
	}
	end := 1
	for end < len(text) && ('a' <= text[end] && text[end] <= 'z') {
		end++
	}
	if word = text[1:end]; !subjects[word] {
		return "", ""
	}
	line, _, _ := strings.Cut(text[end:], "\n")
	return word, strings.TrimSpace(line)
}

// ofElsewhere reports whether a comment says that it is about something else than what follows.
func (r *reader) ofElsewhere(c source.Span) bool {
	whole := c.In(r.Text)
	at := strings.IndexAny(whole, "@\\")
	if at < 0 {
		return false
	}
	if begins, _ := groupMarks(whole[at:]); begins {
		return true
	}
	if strings.Trim(whole[:at], "/*! \t\r\n") != "" {
		return false
	}
	if at+1 < len(whole) && whole[at+1] == '}' {
		return true
	}
	word, _ := subject(whole[at:])
	switch word {
	case "":
		return false
	case "file", "mainpage", "page", "defgroup", "addtogroup", "weakgroup", "dir", "package", "name", "example":
		return true
	}
	return false
}

// elsewhere reads the comments that nothing took: those of the file, and those that name what
// they are about.
func (r *reader) elsewhere() {
	for n := 0; n < len(r.Comments); n++ {
		c := r.Comments[n]
		text := c.In(r.Text)
		if !isDoc(text) || isTrailing(text) {
			continue
		}
		used := r.doc.used[c.Start]
		for isLineComment(text) && n+1 < len(r.Comments) && r.follows(n, r.Comments[n+1]) && isDoc(r.Comments[n+1].In(r.Text)) {
			n++
			c.End = r.Comments[n].End
		}
		if used {
			continue
		}
		doc := r.peek(c)
		if doc == nil {
			continue
		}
		switch word, rest := subject(doc.Text); word {
		case "mainpage":
			if r.Facts.LibraryDoc == nil {
				r.Facts.LibraryDoc = doc
			}
		case "file":
			if r.Facts.ModuleDoc == nil {
				r.Facts.ModuleDoc = doc
			}
		case "page":
			if name, title, _ := strings.Cut(rest, " "); name != "" {
				r.Facts.Groups = append(r.Facts.Groups, model.Group{Name: name, Title: cmp.Or(strings.TrimSpace(title), name), Doc: r.withoutMarks(doc), Alone: true})
			}
		case "fn", "def", "var", "struct", "class", "union", "enum", "typedef", "namespace", "concept", "property", "interface":
			if name := aboutName(word, rest); name != "" {
				r.Facts.About = append(r.Facts.About, model.About{Path: name, Span: c, Doc: doc})
			}
		}
	}
}

// commands reports which tags the comments have: those of groups, those of deprecation, and those
// that keep something from users.
func (r *reader) commands() (grouped, deprecated, kept bool) {
	for _, c := range r.Comments {
		text := c.In(r.Text)
		for _, mark := range []byte(`@\`) {
			for rest := text; ; {
				i := strings.IndexByte(rest, mark)
				if i < 0 || i+1 == len(rest) {
					break
				}
				switch rest = rest[i+1:]; rest[0] {
				case '{':
					grouped = true
				case 'i':
					grouped = grouped || strings.HasPrefix(rest, "ingroup")
					kept = kept || strings.HasPrefix(rest, "internal")
				case 'p':
					kept = kept || strings.HasPrefix(rest, "private")
				case 'd':
					grouped = grouped || strings.HasPrefix(rest, "defgroup")
					deprecated = deprecated || strings.HasPrefix(rest, "deprecated")
				}
			}
		}
		if grouped && deprecated && kept {
			break
		}
	}
	return grouped, deprecated, kept
}

// keep takes what comments say is private, or begin by saying that it is internal, from users.
func (r *reader) keep() {
	for i := range r.Facts.Occurrences {
		o := &r.Facts.Occurrences[i]
		if o.Doc == nil {
			continue
		}
		first := true
		for line := range strings.Lines(o.Doc.Text) {
			if line = strings.TrimSpace(line); line == "" {
				continue
			}
			word, _, _ := strings.Cut(line, " ")
			switch {
			case word == "@private" || word == `\private`:
				o.Visibility = model.Private
			case first && (word == "@internal" || word == `\internal`):
				o.Visibility = max(o.Visibility, model.Internal)
			}
			first = false
		}
	}
}

// deprecations notes what a comment says is deprecated.
func (r *reader) deprecations() {
	for i := range r.Facts.Occurrences {
		if o := &r.Facts.Occurrences[i]; o.Doc != nil && saysDeprecated(o.Doc.Text) {
			o.Deprecated = true
		}
	}
}

// saysDeprecated reports whether a comment has the word for it, outside of code.
func saysDeprecated(text string) bool {
	const word = "deprecated"
	for at := 0; ; {
		i := strings.Index(text[at:], word)
		if i < 0 {
			return false
		}
		i += at
		at = i + len(word)
		marked := i > 0 && (text[i-1] == '@' || text[i-1] == '\\')
		if marked && (i == 1 || strings.IndexByte(" \n\t", text[i-2]) >= 0) && (at == len(text) || strings.IndexByte(" \n\t:", text[at]) >= 0) {
			return true
		}
	}
}

// peek makes a doc comment without a remark on empty ones.
func (r *reader) peek(c source.Span) *model.Doc {
	before := len(r.Facts.Empty)
	doc := r.docOf(c)
	r.Facts.Empty = r.Facts.Empty[:before]
	return doc
}

// aboutName is the name in what a comment says that it is about: "int gauge_open(void)" or
// "gauge gauge.h".
func aboutName(word, rest string) string {
	if word == "fn" || word == "var" || word == "typedef" {
		if i := strings.IndexByte(rest, '('); i >= 0 {
			rest = rest[:i]
		}
		rest = strings.TrimRight(strings.TrimSpace(rest), ";")
		if i := strings.LastIndexAny(rest, " \t*&"); i >= 0 {
			rest = rest[i+1:]
		}
	} else if fields := strings.Fields(rest); len(fields) > 0 {
		rest = fields[0]
	}
	if i := strings.IndexByte(rest, '('); i >= 0 {
		rest = rest[:i]
	}
	return strings.ReplaceAll(rest, "::", ".")
}
