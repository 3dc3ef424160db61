package blocktags

import (
	"slices"
	"strings"

	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/prose/markdown"
)

// This file reads the comments of C and C++: Markdown with words behind "@" or a backslash, at the
// beginning of a line and within it. They are made of what the rest of the package reads: tags at
// the beginning of lines, and Markdown.

// ParseMarked reads one comment of C or C++. own are words of the maintainer's.
func ParseMarked(doc *model.Doc, own prose.Vocabulary) *prose.Sections {
	p := &parser{out: &prose.Sections{}, own: own, marked: true}
	lines := linesOf(doc)
	p.byName = slices.ContainsFunc(lines, func(l line) bool { _, is := parameterAt(l.from(l.indent())); return is })
	lines = p.markedLines(lines)
	fenced := fences(lines)
	p.findDefinitions(lines, fenced)
	var block []line
	word := line{}
	parameter := false // the block is one's that is named by the word itself
	flush := func() {
		if parameter {
			p.parameters(word, block, true)
		} else {
			p.markedBlock(word, block)
		}
		word, block, parameter = line{}, nil, false
	}
	for i, l := range lines {
		trimmed := l.from(l.indent())
		tag, rest, ok := markAt(trimmed)
		if !ok && (i == 0 || p.byName || lines[i-1].text == "") {
			tag, rest, ok = headAt(trimmed)
		}
		switch described, is := parameterAt(trimmed); {
		case fenced[i]:
			block = append(block, l)
			continue
		case is:
			flush()
			word, block, parameter = described.to(1), []line{described}, true
			continue
		case ok && !(p.byName && p.foreign(tag.text)): // there, a name behind "@" is a parameter's
			flush()
			word, block = tag, []line{rest}
			continue
		case trimmed.text == "" && word.text != "" && (parameter || endsWithParagraph(word.text)):
			flush()
			continue
		}
		block = append(block, l)
	}
	flush()
	p.repeated()
	return p.out
}

// foreign reports whether nothing says what a word is about.
func (p *parser) foreign(word string) bool {
	_, known := markedWords[word]
	return !known && p.own.Of(word) == ""
}

// MayTakeMarked reports whether such a comment may say that some of its text is another's.
func MayTakeMarked(doc *model.Doc) bool {
	return strings.Contains(doc.Text, "copy") || strings.Contains(doc.Text, "nherit")
}

// endsWithParagraph reports whether what a word says ends with its paragraph.
func endsWithParagraph(word string) bool {
	m, ok := markedWords[word]
	return !ok || !m.body || word == "brief" || word == "short"
}

// markedWords are the words of such comments, by what they are about; those that others have as
// well are in the vocabulary of the package.
var markedWords = wordsOf(func(put func(m meaning, list string)) {
	put(meaning{kind: prose.Parameters}, "param")
	put(meaning{kind: prose.TypeParameters}, "tparam")
	put(meaning{kind: prose.Results}, "return returns result retval")
	put(meaning{kind: prose.Failures}, "throw throws exception idlexcept")
	put(meaning{kind: prose.Notes}, "note remark remarks")
	put(meaning{kind: prose.Caution}, "warning attention")
	put(meaning{kind: prose.SeeAlso}, "see sa")
	put(meaning{kind: prose.Since}, "since")
	put(meaning{kind: prose.Examples}, "example")
	put(meaning{deprecated: true}, "deprecated")
	put(meaning{body: true}, "brief short details par paragraph section subsection subsubsection li arg n file mainpage")
	put(meaning{kind: prose.Other, title: "Precondition"}, "pre")
	put(meaning{kind: prose.Other, title: "Postcondition"}, "post")
	put(meaning{kind: prose.Other, title: "Invariant"}, "invariant")
	put(meaning{kind: prose.Other, title: "Bug"}, "bug")
	put(meaning{kind: prose.Other, title: "To do"}, "todo")
	put(meaning{kind: prose.Other, title: "Test"}, "test")
	put(meaning{silent: true}, `fn def var struct class union enum typedef namespace concept property interface headerfile
		author authors date version copyright license ingroup addtogroup defgroup weakgroup name relates relatesalso related memberof
		overload internal endinternal public protected private pure static nosubgrouping hideinitializer showinitializer callgraph callergraph
		hidecallgraph hidecallergraph cond endcond if ifnot else elseif endif anchor image include includelineno dontinclude snippet snippetdoc
		skip skipline until line page dir package tableofcontents showrefby hiderefby refitem cite xrefitem extends implements category protocol
		noop qualifier vhdlflow htmlonly endhtmlonly latexonly endlatexonly manonly endmanonly xmlonly endxmlonly rtfonly endrtfonly secreflist endsecreflist
		parblock endparblock nop`)
})

// markAt reads the word that a line begins with, behind "@" or a backslash, and what follows it.
// Words that stand in running text are none.
func markAt(l line) (word, rest line, ok bool) {
	if len(l.text) < 2 || l.text[0] != '@' && l.text[0] != '\\' {
		return line{}, line{}, false
	}
	end := 1
	for end < len(l.text) && isLetter(l.text[end]) && l.text[end] != '-' {
		end++
	}
	w := l.from(1).to(end - 1)
	if end == 1 || inlineWords[w.text] || w.text == "copydoc" || w.text == "copybrief" || w.text == "copydetails" {
		return line{}, line{}, false
	}
	if _, known := markedWords[w.text]; !known && l.text[0] == '\\' && end < len(l.text) && l.text[end] != ' ' {
		return line{}, line{}, false // a path or an escape
	}
	rest = l.from(end)
	if rest = rest.from(rest.indent()); strings.HasPrefix(rest.text, ":") && colonWords[w.text] {
		rest = rest.from(1)
	}
	return w, rest.from(rest.indent()), true
}

// parameterAt reads "@name: text", as some projects write of a parameter.
func parameterAt(l line) (rest line, ok bool) {
	if len(l.text) < 3 || l.text[0] != '@' {
		return line{}, false
	}
	end := 1
	for end < len(l.text) && (inName(l.text[end]) || l.text[end] == '.') {
		end++
	}
	blanks := 0
	if end+1 < len(l.text) && l.text[end] == ' ' && l.text[end+1] == ':' && (end+2 == len(l.text) || l.text[end+2] == ' ') {
		blanks = 1
	}
	if end == 1 || end+blanks >= len(l.text) || l.text[end+blanks] != ':' || colonWords[l.text[1:end]] {
		return line{}, false
	}
	return l.from(1), true
}

// heads are the words without a mark that some projects begin the last paragraphs of a comment
// with, and the words that say the same.
var heads = []struct{ text, word string }{
	{"Returns:", "return"}, {"Return value:", "return"}, {"Since:", "since"}, {"Deprecated:", "deprecated"},
}

// headAt reads such a word, and what follows it.
func headAt(l line) (word, rest line, ok bool) {
	for _, h := range heads {
		if strings.HasPrefix(l.text, h.text) && len(l.text) > len(h.text) {
			word = l.to(len(h.word))
			word.text = h.word
			rest = l.from(len(h.text))
			return word, rest.from(rest.indent()), true
		}
	}
	return line{}, line{}, false
}

// colonWords are those behind which people write a colon, and which are no parameters.
var colonWords = map[string]bool{
	"return": true, "returns": true, "note": true, "warning": true, "see": true, "since": true, "deprecated": true, "todo": true, "bug": true, "brief": true,
}

// markedBlock keeps what one word says; no word stands for the text before the first.
func (p *parser) markedBlock(word line, lines []line) {
	for len(lines) > 0 && strings.TrimSpace(lines[len(lines)-1].text) == "" {
		lines = lines[:len(lines)-1]
	}
	if word.text == "" {
		p.out.Body = append(p.out.Body, p.markdown(lines)...)
		return
	}
	if len(lines) == 0 { // nothing stands behind the word
		lines = []line{word.from(len(word.text))}
	}
	if p.own.Of(word.text) != "" {
		p.block(word, lines)
		return
	}
	m, known := markedWords[word.text]
	switch {
	case !known:
		p.out.Flaws = append(p.out.Flaws, prose.Flaw{Kind: prose.UnknownWord, Span: word.span(), Text: "@" + word.text, Near: nearOf(word.text, markedWords)})
		p.out.Body = append(p.out.Body, p.labelled(word, lines)...)
	case m.silent:
	case word.text == "par" || word.text == "paragraph":
		p.titled(word, lines)
	case strings.HasSuffix(word.text, "section"):
		p.heading(word, lines)
	case word.text == "file" || word.text == "mainpage": // its name is the file's
		if name := strings.TrimSpace(lines[0].text); word.text == "file" && strings.Contains(name, " ") && !strings.ContainsAny(name[:strings.IndexByte(name, ' ')], "./") {
			p.out.Body = append(p.out.Body, p.markdown(lines)...) // no name of a file
		} else if len(lines) > 1 {
			p.out.Body = append(p.out.Body, p.markdown(lines[1:])...)
		}
	case word.text == "li" || word.text == "arg":
		p.item(word, lines)
	case m.body:
		p.out.Body = append(p.out.Body, p.markdown(lines)...)
	case m.deprecated:
		p.out.Obsolete = true
		p.out.Deprecated = append(p.out.Deprecated, p.markdown(lines)...)
	case m.kind == prose.Other:
		p.other(m, word, p.markdown(lines))
	case m.kind == prose.Parameters:
		p.parameters(word, lines, false)
	case word.text == "retval" || m.kind == prose.TypeParameters || m.kind == prose.Failures:
		p.namedEntry(m.kind, word, lines)
	default:
		p.entry(m.kind, word, lines)
	}
}

// parameters keeps what is said of one parameter, or of several: "[in,out] a,b text", or "a: text".
func (p *parser) parameters(word line, lines []line, colon bool) {
	first := lines[0]
	direction := ""
	if strings.HasPrefix(first.text, "[") {
		if end := strings.IndexByte(first.text, ']'); end > 0 {
			direction = strings.Join(strings.FieldsFunc(strings.ToLower(first.text[1:end]), func(c rune) bool { return c == ',' || c == ' ' }), ", ")
			first = first.from(end + 1)
			first = first.from(first.indent())
		}
	}
	end := strings.IndexAny(first.text, " \t")
	if colon {
		end = strings.IndexByte(first.text, ':') + 1
	}
	if end < 0 {
		end = len(first.text)
	}
	for end < len(first.text) && strings.HasSuffix(first.text[:end], ",") { // "a, b text"
		next := first.from(end)
		skip := next.indent()
		stop := strings.IndexAny(next.text[skip:], " \t")
		if stop < 0 {
			end = len(first.text)
		} else {
			end += skip + stop
		}
	}
	text := p.markdown(append([]line{dashed(first.from(end))}, lines[1:]...))
	part := p.part(prose.Parameters, word)
	at := 0
	for name := range strings.SplitSeq(first.text[:end], ",") {
		begin := at + len(name) - len(strings.TrimLeft(name, " \t"))
		at += len(name) + 1
		if name = strings.Trim(name, " \t:`"); name == "" {
			continue
		}
		e := prose.Entry{Name: name, Span: first.from(begin).to(len(name)).span(), Text: text}
		if direction != "" && direction != "in" {
			e.Type = []prose.Node{{Kind: prose.Text, Text: direction, Span: word.span()}}
		}
		part.Entries = append(part.Entries, e)
	}
}

// namedEntry keeps an entry whose first word is its name.
func (p *parser) namedEntry(kind prose.PartKind, word line, lines []line) {
	first := lines[0]
	end := strings.IndexAny(first.text, " \t")
	if end < 0 {
		end = len(first.text)
	}
	name := strings.TrimRight(first.text[:end], ":,")
	e := prose.Entry{Name: strings.Trim(name, "`"), Span: first.to(len(name)).span()}
	e.Text = p.markdown(append([]line{dashed(first.from(end))}, lines[1:]...))
	part := p.part(kind, word)
	part.Entries = append(part.Entries, e)
}

// titled keeps a paragraph under a title of its own, which stands on the word's line.
func (p *parser) titled(word line, lines []line) {
	head := p.markdown(lines[:1])
	if len(head) == 1 && head[0].Kind == prose.Paragraph {
		head[0].Children = []prose.Node{{Kind: prose.Strong, Span: head[0].Span, Children: head[0].Children}}
	}
	p.out.Body = append(append(p.out.Body, head...), p.markdown(lines[1:])...)
}

// heading keeps a heading: "section id Title".
func (p *parser) heading(word line, lines []line) {
	_, title, _ := strings.Cut(lines[0].text, " ")
	if title == "" {
		title = lines[0].text
	}
	at := lines[0].from(len(lines[0].text) - len(title))
	node := p.markdown([]line{at})
	if len(node) == 1 && node[0].Kind == prose.Paragraph {
		node[0].Kind, node[0].Level = prose.Heading, uint16(1+strings.Count(word.text, "sub"))
	}
	p.out.Body = append(append(p.out.Body, node...), p.markdown(lines[1:])...)
}

// item keeps an entry of a list.
func (p *parser) item(word line, lines []line) {
	item := prose.Node{Kind: prose.Item, Span: word.span(), Children: p.markdown(lines)}
	if n := len(p.out.Body); n > 0 && p.out.Body[n-1].Kind == prose.List && p.listed {
		p.out.Body[n-1].Children = append(p.out.Body[n-1].Children, item)
		return
	}
	p.listed = true
	p.out.Body = append(p.out.Body, prose.Node{Kind: prose.List, Span: word.span(), Children: []prose.Node{item}})
}

// blocksOfCode are the words that stand around what is shown as it is written, by the one that
// ends it.
var blocksOfCode = map[string]string{"code": "endcode", "verbatim": "endverbatim", "dot": "enddot", "msc": "endmsc", "startuml": "enduml", "f[": "f]", "f{": "f}"}

// markedLines makes Markdown of what takes several lines: code, text as it is written, parts that
// are not shown. Where parameters are named by "@" alone, a word for code that nothing ends is one.
func (p *parser) markedLines(lines []line) []line {
	out := make([]line, 0, len(lines))
	end, hidden := "", false
	var opened line // the word that began what is shown as it is written
	for n, l := range lines {
		trimmed := strings.TrimLeft(l.text, " \t")
		word := ""
		if len(trimmed) > 1 && (trimmed[0] == '@' || trimmed[0] == '\\') {
			word = trimmed[1:]
		}
		switch {
		case end != "":
			at := endOf(l.text, end)
			if at < 0 {
				out = append(out, l)
				continue
			}
			if strings.TrimSpace(l.text[:at]) != "" {
				out = append(out, l.to(at))
			}
			fence := "```"
			if end == "f]" {
				fence = "$$"
			}
			out = append(out, line{fence, l.at}, l.from(at+1+len(end)))
			end = ""
		case isWord(word, "cond") || isWord(word, "internal"):
			hidden = true
		case isWord(word, "endcond") || isWord(word, "endinternal"):
			hidden = false
		case hidden:
		default:
			begin := ""
			for open := range blocksOfCode {
				if isWord(word, open) && !strings.HasPrefix(word[len(open):], ":") { // else a parameter is called so
					begin = open
				}
			}
			if strings.HasPrefix(trimmed, "-# ") { // an entry with a number
				l.text = l.text[:len(l.text)-len(trimmed)] + "1. " + trimmed[3:]
			}
			if begin != "" && p.byName && !slices.ContainsFunc(lines[n:], func(l line) bool { return endOf(l.text, blocksOfCode[begin]) >= 0 }) {
				begin = ""
			}
			if begin == "" {
				for at := midLine(l.text); at > 0; at = midLine(l.text) {
					out = append(out, l.to(at))
					l = l.from(at)
				}
				out = append(out, l)
				continue
			}
			end = blocksOfCode[begin]
			at := len(l.text) - len(trimmed)
			opened = l.from(at).to(1 + len(begin))
			rest := l.from(at + 1 + len(begin))
			info := ""
			if strings.HasPrefix(rest.text, "{") {
				if stop := strings.IndexByte(rest.text, '}'); stop > 0 {
					info, rest = strings.TrimPrefix(rest.text[1:stop], "."), rest.from(stop+1)
				}
			}
			switch begin {
			case "code":
				if info == "" {
					info = "cpp"
				}
				info = strings.TrimPrefix(info, "h")
				if info == "" || info == "pp" {
					info = "cpp"
				}
			default:
				info = ""
			}
			fence := "```"
			if begin == "f[" {
				fence = "$$"
			}
			out = append(out, line{fence + info, l.at})
			if at := endOf(rest.text, end); at >= 0 { // it ends on its line
				inner := rest.to(at)
				if inner = inner.from(inner.indent()); inner.text != "" {
					inner.text = strings.TrimRight(inner.text, " \t")
				}
				out = append(out, inner, line{fence, rest.at + int32(at)}, rest.from(at+1+len(end)))
				end = ""
			} else if strings.TrimSpace(rest.text) != "" {
				out = append(out, rest)
			}
		}
	}
	if end != "" {
		p.out.Flaws = append(p.out.Flaws, prose.Flaw{Kind: prose.Unclosed, Span: opened.span(), Text: opened.text})
	}
	return out
}

// endOf is where a word behind "@" or a backslash stands in a line that ends something, or -1.
func endOf(text, word string) int {
	at := strings.Index(text, "@"+word)
	if other := strings.Index(text, `\`+word); at < 0 || other >= 0 && other < at {
		at = other
	}
	return at
}

// midWords are those that begin something of their own in the middle of a line as well.
var midWords = map[string]bool{
	"brief": true, "param": true, "tparam": true, "return": true, "returns": true, "retval": true, "deprecated": true, "throws": true, "throw": true,
	"exception": true, "note": true, "warning": true, "since": true, "see": true, "sa": true, "pre": true, "post": true, "todo": true, "bug": true, "details": true, "ingroup": true,
}

// midLine is the offset at which such a word stands in a line, behind other text, or 0.
func midLine(text string) int {
	code := false
	for i := 0; i < len(text); i++ {
		switch text[i] {
		case '`':
			code = !code
		case '@', '\\':
			if i < 2 || code || text[i-1] != ' ' || strings.TrimSpace(text[:i]) == "" {
				continue
			}
			end := i + 1
			for end < len(text) && 'a' <= text[end] && text[end] <= 'z' {
				end++
			}
			if midWords[text[i+1:end]] && (end == len(text) || text[end] == ' ' || text[end] == '[') {
				return i
			}
		}
	}
	return 0
}

// isWord reports whether a text begins with a word.
func isWord(text, word string) bool {
	rest, ok := strings.CutPrefix(text, word)
	return ok && (rest == "" || !isLetter(rest[0]) || !isLetter(word[len(word)-1]))
}

// inlineWords are those that stand in running text, with what they do to the next word.
var inlineWords = map[string]bool{
	"c": true, "p": true, "a": true, "e": true, "em": true, "b": true, "ref": true, "link": true, "endlink": true, "n": true, "f": true, "emoji": true, "subpage": true, "copydoc": true, "copybrief": true, "copydetails": true,
}

// lineWords begin lines to the preprocessor, behind "#", and are no names there.
var lineWords = map[string]bool{
	"define": true, "undef": true, "include": true, "if": true, "ifdef": true, "ifndef": true, "elif": true, "else": true, "endif": true, "pragma": true, "error": true, "warning": true, "line": true,
}

// longestWord is over how many bytes a word in running text goes with what belongs to it.
const longestWord = 600

// markedInline puts a line of such a comment, with its words made Markdown.
func (p *parser) markedInline(m *mapped, l line) {
	text := l.text
	from := 0
	flush := func(to int) {
		if to > from {
			m.Put(text[from:to], l.at+int32(from), false)
		}
	}
	for i := 0; i < len(text); i++ {
		switch c := text[i]; {
		case c == '`': // a code span is left alone
			if end := strings.IndexByte(text[i+1:min(len(text), i+longestWord)], '`'); end >= 0 {
				i += end + 1
			}
		case c == ':' && (i == 0 || strings.IndexByte(" (,\t", text[i-1]) >= 0) && role(text[i:min(len(text), i+longestRole)]) > 0:
			flush(i)
			i += role(text[i:min(len(text), i+longestRole)])
			from, i = i, i-1
		case c == '{' && braced(text[i:]) > 0: // as other languages write it
			size := braced(text[i:])
			name, shown, _ := strings.Cut(strings.TrimSpace(text[i+len("{@link "):i+size-1]), " ")
			target := strings.TrimPrefix(strings.ReplaceAll(name, "#", "::"), "::")
			if shown = strings.TrimSpace(shown); shown == "" {
				shown = "`" + target + "`"
			}
			flush(i)
			m.Put("["+shown+"](<"+schemeOf(target)+escapedArguments.Replace(target)+">)", l.at+int32(i+len("{@link ")), true)
			from, i = i+size, i+size-1
		case (c == '@' || c == '\\') && i+1 < len(text) && (i == 0 || !inName(text[i-1]) || c == '\\' && strings.IndexByte(escaped, text[i+1]) >= 0):
			size, named, made := p.inlineWord(text[i:min(len(text), i+longestWord)])
			if end := nameEnd(text, i+1); size == 0 && c == '@' && p.byName && end > i+1 { // a parameter in words
				size, named, made = end-i, 1, "`"+text[i+1:end]+"`"
			}
			if size == 0 {
				continue
			}
			flush(i)
			m.Put(made, l.at+int32(i+named), true)
			from = i + size
			i = from - 1
		case c == '%' && i+1 < len(text) && inName(text[i+1]) && (i == 0 || text[i-1] == ' '): // a word that shall not link
			flush(i)
			from = i + 1
			i = nameEnd(text, i+1) - 1
		case c == '(' && i > from && i+1 < len(text) && text[i+1] == ')': // a function that is called in words
			at := i
			for at > from && (inName(text[at-1]) || text[at-1] == ':') {
				at--
			}
			if at == i || !isFirst(text[at]) || at > 0 && strings.IndexByte(" (,;\t\"'*", text[at-1]) < 0 {
				continue
			}
			flush(at)
			m.Put(called(text[at:i]), l.at+int32(at), true)
			from = i + 2
			i = from - 1
		case c == '#' && i+1 < len(text) && isFirst(text[i+1]) && (i == 0 || strings.IndexByte(" (,>", text[i-1]) >= 0):
			end := nameEnd(text, i+1)
			if lineWords[text[i+1:end]] {
				continue
			}
			flush(i)
			if end+1 < len(text) && text[end] == '-' && isLetter(text[end+1]) { // the name of a signal, which is no declaration
				for end < len(text) && (inName(text[end]) || text[end] == '-') {
					end++
				}
				m.Put("`"+text[i+1:end]+"`", l.at+int32(i+1), true)
				from, i = end, end-1
				continue
			}
			name := text[i+1 : end]
			m.Put("[`"+name+"`](<"+schemeOf(name)+name+">)", l.at+int32(i+1), true)
			from, i = end, end-1
		case c == '_' && i+1 < len(text) && (i == 0 || !inName(text[i-1])): // __restrict__ is no strong text
			end := i
			for end < len(text) && inName(text[end]) {
				end++
			}
			flush(i)
			if strings.HasPrefix(text[end:], "()") && (i == 0 || text[i-1] == ' ') {
				m.Put(called(text[i:end]), l.at+int32(i), true)
				from, i = end+2, end+1
				continue
			}
			m.Put(strings.ReplaceAll(text[i:end], "_", `\_`), l.at+int32(i), true)
			from, i = end, end-1
		case c == '<' && !isElement(text[i:min(len(text), i+longestWord)]):
			flush(i)
			m.Put(`\<`, l.at+int32(i), true)
			from = i + 1
		}
	}
	flush(len(text))
}

// called is the name of a function that is called in running text: it leads there, where there is
// one.
func called(name string) string {
	return "[`" + name + "()`](<" + markdown.NamedScheme + strings.TrimPrefix(name, "::") + ">)"
}

func isFirst(c byte) bool { return c == '_' || c == ':' || 'a' <= c|0x20 && c|0x20 <= 'z' }

// nameEnd is the offset behind a name with its parts.
func nameEnd(text string, at int) int {
	for at < len(text) && (inName(text[at]) || strings.HasPrefix(text[at:], "::") || at > 0 && text[at-1] == ':' && text[at] == ':') {
		at++
	}
	if strings.HasPrefix(text[at:], "()") {
		at += 2
	}
	return at
}

// elements are those of HTML that people write in comments.
var elements = func() map[string]bool {
	set := map[string]bool{}
	for word := range strings.FieldsSeq("a b i u em strong code tt pre p br hr ul ol li dl dt dd table tr td th thead tbody caption sub sup small span div h1 h2 h3 h4 h5 h6 img center blockquote kbd var samp del ins s strike abbr cite dfn q details summary") {
		set[word] = true
	}
	return set
}()

// isElement reports whether a text begins with a mark of HTML, or an address.
func isElement(text string) bool {
	rest := strings.TrimPrefix(text[1:], "/")
	end := 0
	for end < len(rest) && (isLetter(rest[end])) {
		end++
	}
	if end < len(rest) && rest[end] == ':' && strings.Contains(rest, ">") && end > 2 {
		return true
	}
	return elements[strings.ToLower(rest[:end])] && end < len(rest) && strings.IndexByte(" />\t", rest[end]) >= 0 || strings.HasPrefix(text, "<!--")
}

// schemeOf is how a name leads somewhere: one alone may be that of a page or a group.
func schemeOf(name string) string {
	if strings.ContainsAny(name, ":(") && !strings.Contains(name, "operator") { // whose names are written in many ways
		return markdown.OutwardScheme
	}
	return markdown.NamedScheme
}

// escaped are the signs that a backslash takes the meaning from.
const escaped = `@\&$#<>%".=|-~:`

// roles say of the code span behind them what kind of thing it names, as in ":func:`tide_set`".
var roles = map[string]bool{
	"func": true, "function": true, "type": true, "enum": true, "enumerator": true, "macro": true, "struct": true, "union": true, "member": true, "data": true, "var": true,
	"class": true, "meth": true, "attr": true, "const": true, "concept": true, "namespace": true, "expr": true, "ref": true, "doc": true,
}

// longestRole is how many bytes a role is looked for in.
const longestRole = 24

// role is the length of the role that a text begins with, or 0.
func role(text string) int {
	end := strings.Index(text, ":`")
	if end < 1 {
		return 0
	}
	word := strings.TrimPrefix(text[:end], ":")
	if domain, rest, ok := strings.Cut(word, ":"); ok && (domain == "c" || domain == "cpp") {
		word = rest
	}
	if !roles[word] {
		return 0
	}
	return end + 1
}

// braced is the length of "{@link name text}" that a text begins with, or 0.
func braced(text string) int {
	if !strings.HasPrefix(text, "{@link ") {
		return 0
	}
	end := strings.IndexByte(text[:min(len(text), longestWord)], '}')
	if end < 0 || strings.TrimSpace(text[len("{@link "):end]) == "" {
		return 0
	}
	return end + 1
}

// inlineWord makes Markdown of a word in running text; size is how many bytes it takes, 0 where
// it is none, and named where among these the name begins that it is about.
func (p *parser) inlineWord(text string) (size, named int, made string) {
	if strings.IndexByte(escaped, text[1]) >= 0 { // an escaped sign
		return 2, 0, `\` + text[1:2]
	}
	if strings.HasPrefix(text[1:], "f$") || strings.HasPrefix(text[1:], "f(") {
		shut := map[byte]string{'$': "f$", '(': "f)"}[text[2]]
		for _, mark := range []string{text[:1] + shut, "@" + shut, `\` + shut} {
			if end := strings.Index(text[3:], mark); end >= 0 {
				return 3 + end + len(mark), 0, "$" + strings.TrimSpace(text[3:3+end]) + "$"
			}
		}
		return 0, 0, ""
	}
	end := 1
	for end < len(text) && isLetter(text[end]) && text[end] != '-' {
		end++
	}
	word := text[1:end]
	if !inlineWords[word] {
		return 0, 0, ""
	}
	rest := text[end:]
	if word == "n" {
		return end, 0, "<br>"
	}
	if word == "endlink" {
		return end, 0, ""
	}
	blanks := len(rest) - len(strings.TrimLeft(rest, " \t"))
	argument := rest[blanks:]
	stop := strings.IndexAny(argument, " \t")
	if stop < 0 {
		stop = len(argument)
	}
	if i := strings.Index(argument[:stop], `\n`); i > 0 && word != "c" && word != "p" {
		stop = i
	}
	for i := 1; i < stop; i++ {
		if argument[i] == '<' && isElement(argument[i:]) { // HTML goes on behind it
			stop = i
		}
	}
	if stop == 0 || blanks == 0 {
		return end, 0, ""
	}
	if open := strings.IndexByte(argument[:stop], '('); open > 0 && (word == "ref" || word == "link" || strings.HasPrefix(word, "copy")) { // "f(int, char)"
		if close := strings.IndexByte(argument[open:], ')'); close >= 0 && open+close >= stop {
			stop = open + close + 1
		}
	}
	name := strings.TrimRight(argument[:stop], ".,;:!?")
	if strings.Count(name, ")") > strings.Count(name, "(") {
		name = strings.TrimRight(name, ")")
	}
	if !strings.ContainsFunc(name, func(c rune) bool { return c >= 0x80 || inName(byte(c)) || c == '~' }) && (word == "ref" || word == "link" || word == "subpage") {
		return end, 0, ""
	}
	named = end + blanks
	size = named + len(name)
	target := strings.TrimPrefix(strings.TrimPrefix(name, "#"), "::")
	switch word {
	case "c", "p":
		return size, named, "`" + strings.Trim(name, "`") + "`"
	case "a", "e", "em":
		return size, named, "*" + name + "*"
	case "b":
		return size, named, "**" + name + "**"
	case "ref", "subpage":
		shown := "`" + target + "`"
		if quoted := strings.TrimLeft(text[size:], " "); strings.HasPrefix(quoted, `"`) {
			if close := strings.IndexByte(quoted[1:], '"'); close >= 0 {
				shown = quoted[1 : 1+close]
				size = len(text) - len(quoted) + close + 2
			}
		}
		return size, named, "[" + shown + "](<" + schemeOf(target) + escapedArguments.Replace(target) + ">)"
	case "link":
		close := strings.Index(text[size:], "endlink")
		if close < 1 {
			return size, named, "[`" + target + "`](<" + schemeOf(target) + escapedArguments.Replace(target) + ">)"
		}
		shown := strings.TrimSpace(text[size : size+close-1])
		if shown == "" {
			shown = target
		}
		return size + close + len("endlink"), named, "[" + shown + "](<" + schemeOf(target) + escapedArguments.Replace(target) + ">)"
	case "copydoc", "copybrief", "copydetails":
		return size, named, "[" + target + "](<" + markdown.TakenScheme + escapedArguments.Replace(target) + ">)"
	}
	return size, named, name
}
