package blocktags

import (
	"regexp"
	"strconv"
	"strings"

	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/prose/markdown"
	"codrel/internal/prose/markup"
	"codrel/internal/prose/snippet"
)

// This file reads what Java's comments in Markdown have besides (JEP 467): names in brackets
// that are links, and snippets.

// ParseNamed reads one comment in which names in brackets are links to what they name.
func ParseNamed(doc *model.Doc, own prose.Vocabulary) *prose.Sections {
	p := &parser{out: &prose.Sections{}, own: own, brackets: true}
	lines := linesOf(doc)
	var marks [][]snippet.Mark
	if strings.Contains(doc.Text, snippetTag) {
		lines, marks = withSnippets(lines)
	}
	p.parse(lines, func(fenced []bool) { p.findNames(lines, fenced) })
	if len(marks) > 0 {
		for nodes := range p.out.All {
			markCode(nodes, marks)
		}
	}
	return p.out
}

// bracketed is a label in brackets; brackets in it are escaped.
var bracketed = regexp.MustCompile(`\[((?:[^\[\]\\]|\\[\[\]])+)\]`)

// nameForm is a label that is the name of a declaration: "java.base/java.util.List#add(int, E)".
var nameForm = regexp.MustCompile(`^(?:[\w.]+/)?(?:#?[\p{L}_$][\p{L}\d_$.]*)(?:#[\p{L}_$][\p{L}\d_$]*)?(?:\([^()]*\))?$`)

// findNames adds, for each label that may be a name, where it leads.
func (p *parser) findNames(lines []line, fenced []bool) {
	known := map[string]bool{}
	var b strings.Builder
	for i, l := range lines {
		if fenced[i] || strings.IndexByte(l.text, '[') < 0 {
			continue
		}
		for _, at := range bracketed.FindAllStringSubmatchIndex(l.text, mostNames) {
			label := l.text[at[2]:at[3]]
			behind := l.text[at[1]:]
			if known[label] || !nameForm.MatchString(unescaped.Replace(label)) || strings.HasPrefix(behind, "(") || strings.HasPrefix(behind, "[") || strings.HasPrefix(behind, ":") || len(known) == mostNames {
				continue
			}
			known[label] = true
			b.WriteString("\n[" + label + "]: <" + markdown.NamedScheme + escapedArguments.Replace(unescaped.Replace(label)) + ">")
		}
	}
	p.definitions += b.String()
}

// mostNames is how many different names of a comment are links.
const mostNames = 500

var unescaped = strings.NewReplacer(`\[`, "[", `\]`, "]")

const snippetTag = "{@snippet"

// withSnippets puts fenced code in the place of snippets that hold their code. What is marked in
// a code stands between the signs of [markup]; how is said under the number behind its language.
func withSnippets(lines []line) (out []line, marks [][]snippet.Mark) {
	for i := 0; i < len(lines); i++ {
		l := lines[i]
		inside, taken, ok := snippetAt(lines[i:])
		if !ok {
			out = append(out, line{markup.Plain(l.text), l.at})
			continue
		}
		attributes, code, _ := strings.Cut(inside, ":")
		shown, marked, _ := snippet.Read(strings.TrimLeft(code, " \t"), snippet.Attributes(attributes)["region"])
		fence := "~~~~java"
		if len(marked) > 0 {
			fence += " " + strconv.Itoa(len(marks))
			marks = append(marks, marked)
		}
		out = append(out, line{fence, l.at})
		for text := range strings.Lines(markup.Undented(strings.Trim(shown, "\n"))) {
			out = append(out, line{strings.TrimRight(text, "\r\n"), l.at})
		}
		out = append(out, line{"~~~~", l.at})
		i += taken
	}
	return out, marks
}

// markCode takes the signs out of the code of snippets and puts nodes for them below it.
func markCode(nodes []prose.Node, marks [][]snippet.Mark) {
	for i := range nodes {
		n := &nodes[i]
		markCode(n.Children, marks)
		if n.Kind != prose.CodeBlock || !strings.Contains(n.Text, markup.Open) {
			continue
		}
		language, number, _ := strings.Cut(n.Info, " ")
		of, err := strconv.Atoi(number)
		if err != nil || of >= len(marks) {
			n.Text = markup.Plain(n.Text)
			continue
		}
		n.Info = language
		n.Text, n.Children = snippet.Placed(n.Text, snippet.Nodes(marks[of], n.Span))
	}
}

// snippetAt is what stands in a snippet that a line begins with, and how many lines below it ends.
func snippetAt(lines []line) (inside string, taken int, ok bool) {
	rest, begins := strings.CutPrefix(strings.TrimSpace(lines[0].text), snippetTag)
	if !begins {
		return "", 0, false
	}
	var b strings.Builder
	depth := 1
	for ; taken < min(len(lines), mostSnippetLines); taken++ {
		if taken > 0 {
			rest = lines[taken].text
			b.WriteByte('\n')
		}
		for at := range len(rest) {
			switch rest[at] {
			case '{':
				depth++
			case '}':
				if depth--; depth == 0 {
					b.WriteString(rest[:at])
					text := b.String()
					return text, taken, strings.Contains(text, ":")
				}
			}
		}
		b.WriteString(rest)
	}
	return "", 0, false
}

// mostSnippetLines is over how many lines a snippet goes at most.
const mostSnippetLines = 400
