package markdown

import (
	"bytes"
	"strings"

	"github.com/yuin/goldmark/ast"
	"github.com/yuin/goldmark/extension"
	gm "github.com/yuin/goldmark/parser"
	"github.com/yuin/goldmark/text"
	"github.com/yuin/goldmark/util"

	"codrel/internal/prose"
	"codrel/internal/source"
)

// This file keeps the time that a text takes in proportion to its length. What the parser
// would look through again and again is shown as it is written. No text that somebody
// wrote for readers comes near these bounds.

// Longest is how many bytes a text may have that is read as Markdown.
const Longest = 1_000_000

const (
	deepestBlock = 150 // quotes, lists and items in one another
	widest       = 200 // columns of a table

	// A paragraph, or a heading, may be longer, or have more marks, but not both.
	longParagraph = 16 << 10
	manyMarks     = 1000
	manyLines     = 1000
)

// bounded is a parser of blocks that takes no more of them than a text may have in one
// another: the marks of deeper ones are text.
type bounded struct{ gm.BlockParser }

func (p bounded) Open(parent ast.Node, reader text.Reader, pc gm.Context) (ast.Node, gm.State) {
	depth := 0
	for at := parent; at != nil && depth <= deepestBlock; at = at.Parent() {
		depth++
	}
	line, segment := reader.PeekLine()
	_, item := parent.(*ast.List)
	if item || depth <= deepestBlock && !(crowded(line) && bytes.HasPrefix(bytes.TrimLeft(line, " "), []byte("#"))) {
		return p.BlockParser.Open(parent, reader, pc)
	}
	pc.ComputeIfAbsent(plainKey, func() any { return source.NewSpan(segment.Start, segment.Stop) })
	return nil, gm.NoChildren
}

// plainKey is that of the first place at which a block was not opened.
var plainKey = gm.NewContextKey()

// blockParsers are those of CommonMark, of which those that may go into one another, and
// those of headings, are bounded.
func blockParsers() []util.PrioritizedValue {
	list := gm.DefaultBlockParsers()
	for i := range list {
		switch list[i].Priority {
		case 300, 400, 600, 800: // lists, items, headings, quotes
			list[i].Value = bounded{list[i].Value.(gm.BlockParser)}
		}
	}
	return list
}

// termParsers are those of lists of terms, bounded as lists are.
func termParsers() []util.PrioritizedValue {
	return []util.PrioritizedValue{
		util.Prioritized(bounded{extension.NewDefinitionListParser()}, 101),
		util.Prioritized(bounded{extension.NewDefinitionDescriptionParser()}, 102),
	}
}

// crowded reports whether a text has so many marks that finding their partners takes long.
func crowded(text []byte) bool {
	if len(text) < longParagraph {
		return false
	}
	marks := 0
	for i := range len(text) {
		switch text[i] {
		case '[', ']', '(', '<', '*', '_', '`', '~', '!', '$', '\\', ':', '@':
			if marks++; marks > manyMarks {
				return true
			}
		}
	}
	return false
}

// asWritten makes a block of a text that nothing is made of.
func asWritten(text string) []prose.Node {
	span := source.NewSpan(0, len(text))
	return []prose.Node{{Kind: prose.CodeBlock, Info: "text", Text: strings.TrimRight(text, "\n"), Span: span}}
}

// definitions takes the lines that say where links lead out of paragraphs, a few at a time:
// the parser's own way takes all lines into its hands for each.
type definitions struct{}

func (definitions) Transform(node *ast.Paragraph, reader text.Reader, pc gm.Context) {
	const few = 32
	for node.Lines().Len() > 2*few {
		lines := node.Lines()
		cut := few
		for cut < lines.Len() && !startsDefinition(lines.At(cut), reader) {
			cut++
		}
		if first := lines.At(0); cut == lines.Len() || !startsDefinition(first, reader) {
			break
		}
		part := ast.NewParagraph()
		part.SetBlankPreviousLines(node.HasBlankPreviousLines())
		part.Lines().AppendAll(lines.Sliced(0, cut))
		node.Parent().InsertBefore(node.Parent(), node, part)
		gm.LinkReferenceParagraphTransformer.Transform(part, reader, pc)
		rest := text.NewSegments()
		left := part.Parent() != nil // some of its lines are none
		if left {
			rest.AppendAll(part.Lines().Sliced(0, part.Lines().Len()))
			part.Parent().RemoveChild(part.Parent(), part)
		}
		lines.SetSliced(cut, lines.Len())
		if left {
			rest.AppendAll(lines.Sliced(0, lines.Len()))
			node.SetLines(rest)
			return
		}
	}
	gm.LinkReferenceParagraphTransformer.Transform(node, reader, pc)
}

func startsDefinition(line text.Segment, reader text.Reader) bool {
	value := bytes.TrimLeft(line.Value(reader.Source()), " ")
	return len(value) > 0 && value[0] == '[' && bytes.Contains(value, []byte("]:"))
}

// plainKind is the kind of a paragraph that is shown as it is written.
var plainKind = ast.NewNodeKind("Plain")

type plain struct{ ast.BaseBlock }

func (*plain) Kind() ast.NodeKind              { return plainKind }
func (n *plain) Dump(source []byte, level int) { ast.DumpHelper(n, source, level, nil, nil) }
func (*plain) IsRaw() bool                     { return true }

// tables shows those with too many columns as they are written: each of their rows would
// have as many cells.
type tables struct{}

func (tables) Transform(node *ast.Paragraph, reader text.Reader, _ gm.Context) {
	for _, line := range node.Lines().Sliced(0, min(2, node.Lines().Len())) {
		if bytes.Count(line.Value(reader.Source()), []byte("|")) > widest {
			showPlain(node)
			return
		}
	}
}

// crowds shows paragraphs that are crowded as they are written.
type crowds struct{}

func (crowds) Transform(node *ast.Paragraph, reader text.Reader, _ gm.Context) {
	lines := node.Lines()
	if lines.Len() == 0 {
		return
	}
	from, to := lines.At(0).Start, lines.At(lines.Len()-1).Stop
	if to-from >= longParagraph && (lines.Len() > manyLines || crowded(reader.Source()[from:to])) {
		showPlain(node)
	}
}

func showPlain(node *ast.Paragraph) {
	if node.Parent() == nil {
		return
	}
	n := &plain{}
	n.SetLines(node.Lines())
	node.Parent().ReplaceChild(node.Parent(), node, n)
}
