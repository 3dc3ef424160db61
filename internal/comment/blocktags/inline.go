package blocktags

import (
	"cmp"
	"slices"
	"strings"

	"codrel/internal/prose"
	"codrel/internal/prose/markdown"
	"codrel/internal/prose/snippet"
)

// This file makes prose of Markdown with inline tags. The tags become Markdown
// links before the text is read; a list of pieces tells where all of it stands.

// mapped is a text made of pieces of a file.
type mapped struct {
	markdown.Made
	html bool // blocks of raw HTML may stand in it
}

// markdown makes blocks of lines.
func (p *parser) markdown(lines []line) []prose.Node {
	for len(lines) > 0 && strings.TrimSpace(lines[0].text) == "" {
		lines = lines[1:]
	}
	if len(lines) == 0 {
		return nil
	}
	var m mapped
	m.html = slices.ContainsFunc(lines, func(l line) bool { return strings.HasPrefix(l.text[l.indent():], "<") })
	fenced := fences(lines)
	for i := 0; i < len(lines); i++ {
		l := lines[i]
		if i > 0 {
			m.Put("\n", l.at, true)
		}
		if p.marked && !fenced[i] {
			p.markedInline(&m, l)
			continue
		}
		if fenced[i] || !strings.Contains(l.text, "{@") {
			m.Put(l.text, l.at, p.marked && markdown.FenceAt(l.text).Size > 0) // a fence may stand for a word
			continue
		}
		i += p.inlineTags(&m, lines[i:])
	}
	if p.definitions != "" {
		m.Put("\n\n"+p.definitions[1:], lines[len(lines)-1].at, true)
	}
	nodes, plain := m.Read(lines[0].at, lines[len(lines)-1].span().End)
	for _, span := range plain {
		p.out.Flaws = append(p.out.Flaws, prose.Flaw{Kind: prose.AsWritten, Span: span})
	}
	return nodes
}

// inlineTags puts a line whose inline tags become links and code, and returns how
// many lines below it the last of them took.
func (p *parser) inlineTags(m *mapped, lines []line) (taken int) {
	l := lines[0]
	for {
		open := strings.Index(l.text, "{@")
		if open < 0 {
			m.Put(l.text, l.at, false)
			return taken
		}
		inner, rest, below := tagOver(l, open, lines[taken:])
		if below < 0 {
			p.out.Flaws = append(p.out.Flaws, prose.Flaw{Kind: prose.Unclosed, Span: l.from(open).to(2).span(), Text: "{@"})
			m.Put(l.text, l.at, false)
			return taken
		}
		taken += below
		word, content, _ := strings.Cut(inner, " ")
		at := l.at + int32(open+2+len(inner)-len(strings.TrimLeft(content, " ")))
		content = strings.TrimSpace(content)
		before := l.to(open)
		shown := ""
		if i := strings.LastIndexByte(before.text, '['); i >= 0 && strings.HasSuffix(before.text, "]") && word != "code" { // "[text]{@link Name}"
			shown = before.text[i+1 : len(before.text)-1]
			before = before.to(i)
		}
		m.Put(before.text, before.at, false)
		switch word {
		case "link", "linkcode", "linkplain":
			m.Put(linkOf(content, shown, word != "linkplain", p.brackets), at, true)
		case "code", "literal":
			if m.html {
				m.Put("[`"+content+"`](<"+markdown.CodeScheme+">)", at, true)
			} else {
				m.Put("`"+content+"`", at, true)
			}
		case "inheritDoc", "inheritdoc":
			m.Put("[{@"+word+"}](<"+markdown.TakenScheme+nameOf(content)+">)", l.at+int32(open), true)
		case "label":
		default:
			m.Put(content, at, true)
		}
		l = rest
	}
}

// mostTagLines is over how many lines an inline tag goes at most.
const mostTagLines = 6

// tagOver is what stands in an inline tag that opens in a line and may end below
// it, what follows it, and how many lines below that is; -1 where it never ends.
func tagOver(l line, open int, lines []line) (inner string, rest line, below int) {
	if end := strings.IndexByte(l.text[open:], '}'); end >= 0 {
		return l.text[open+2 : open+end], l.from(open + end + 1), 0
	}
	inner = l.text[open+2:]
	for below = 1; below < len(lines) && below < mostTagLines; below++ {
		next := lines[below].from(lines[below].indent())
		if next.text == "" {
			break
		}
		if _, tag := tagAt(next); tag {
			break
		}
		end := strings.IndexByte(next.text, '}')
		if end < 0 {
			inner += " " + next.text
			continue
		}
		return inner + " " + next.text[:end], next.from(end + 1), below
	}
	return "", l, -1
}

// linkOf is the Markdown of an inline link: "Name", "Name text" or "Name | text". java says that
// a name may have its module before it, and that a member reads with a dot before it.
func linkOf(content, shown string, code, java bool) string {
	target, text := cutLink(content)
	if shown != "" {
		text = shown
	}
	if strings.Contains(target, "://") || strings.HasPrefix(target, "mailto:") {
		if text == "" {
			return "<" + target + ">"
		}
		return "[" + text + "](<" + target + ">)"
	}
	name := nameOf(target)
	if java {
		name = snippet.Target(target)
	}
	if inside, ok := strings.CutPrefix(withoutKinds.Replace(target), "module:"); ok && strings.Contains(inside, "/") && !strings.ContainsAny(inside, "<>\\") {
		return "[" + cmp.Or(text, "`"+shortPath(inside)+"`") + "](<" + markdown.OutwardScheme + inside + ">)"
	}
	if name == "" || strings.Contains(name, "/") || strings.Contains(name, "\\") || !argumentsClose(name) {
		return strings.TrimSpace(target + " " + text)
	}
	if target = strings.TrimLeft(target, "#"); java {
		target = strings.ReplaceAll(name, "#", ".")
	}
	name = escapedArguments.Replace(name)
	if text == "" && code {
		return "[`" + target + "`](<" + markdown.OutwardScheme + name + ">)"
	}
	if text == "" {
		text = target
	}
	return "[" + text + "](<" + markdown.OutwardScheme + name + ">)"
}

// escapedArguments keeps type arguments in the destination of a Markdown link.
var escapedArguments = strings.NewReplacer("<", `\<`, ">", `\>`)

// argumentsClose reports whether a name has no signs of type arguments but around some.
func argumentsClose(name string) bool {
	depth := 0
	for i := range len(name) {
		switch name[i] {
		case '<':
			depth++
		case '>':
			if depth--; depth < 0 {
				return false
			}
		}
	}
	return depth == 0 && !strings.HasPrefix(name, "<")
}

// cutLink takes what a link leads to and its text apart: a blank or a bar ends the
// first, unless it stands in a list of parameters.
func cutLink(content string) (target, text string) {
	content = strings.TrimSpace(content)
	if rest, apart := strings.CutPrefix(content, "module :"); apart {
		content = "module:" + rest // as a compiler prints it
	}
	depth, end := 0, strings.IndexAny(content, " |")
	for i := range len(content) {
		switch c := content[i]; {
		case c == '(' || c == '<':
			depth++
		case c == ')' || c == '>' && depth > 0:
			depth--
		case (c == ' ' || c == '|') && depth == 0:
			return content[:i], strings.TrimLeft(content[i:], " |")
		}
	}
	if depth == 0 || end < 0 {
		return content, ""
	}
	return content[:end], strings.TrimLeft(content[end:], " |") // the list is never closed
}

// shortPath is what names something in a module's path: what stands behind the path, or the
// path itself.
func shortPath(path string) string {
	if i := strings.IndexByte(path, '~'); i >= 0 && i+1 < len(path) {
		return path[i+1:]
	}
	return path
}

// withoutKinds takes out of a namepath what says that a name is that of an event.
var withoutKinds = strings.NewReplacer("#event:", "#", "~event:", "~", ".event:", ".")

// nameOf is the name that an inline tag leads to, without the signs of namepaths.
func nameOf(target string) string {
	name := strings.TrimPrefix(strings.TrimPrefix(withoutKinds.Replace(target), "module:"), "typeof ")
	return strings.TrimLeft(strings.ReplaceAll(name, "~", "."), "#.")
}

// typeNodes makes inline nodes of a type: names are code, which links where it
// means one thing.
func typeNodes(l line) []prose.Node {
	var out []prose.Node
	from := 0
	flush := func(to int) {
		if to > from {
			out = append(out, prose.Node{Kind: prose.Text, Text: l.text[from:to], Span: l.from(from).to(to - from).span()})
		}
	}
	for i := 0; i < len(l.text); {
		end := importedAt(l.text, i)
		for end < len(l.text) && (inName(l.text[end]) || strings.IndexByte(".~#", l.text[end]) >= 0 && end > i && end+1 < len(l.text) && inName(l.text[end+1])) {
			end++
		}
		if end == i {
			i++
			continue
		}
		flush(i)
		out = append(out, prose.Node{Kind: prose.Code, Typed: true, Text: l.text[i:end], Span: l.from(i).to(end - i).span()})
		i, from = end, end
	}
	flush(len(l.text))
	return out
}

// importedAt is the offset behind a type at an offset that names its module, as
// "import('./berth').Berth" does; the offset itself where there is none.
func importedAt(text string, at int) int {
	if !strings.HasPrefix(text[at:], "import(") || at > 0 && inName(text[at-1]) {
		return at
	}
	if end := strings.Index(text[at:], ")."); end >= 0 && !strings.ContainsAny(text[at:at+end], " \t") {
		return at + end + 1
	}
	return at
}

func inName(c byte) bool {
	return c == '_' || c == '$' || 'a' <= c|0x20 && c|0x20 <= 'z' || '0' <= c && c <= '9' || c >= 0x80
}
