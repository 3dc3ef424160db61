package markdown

import (
	"bytes"
	"strings"

	"github.com/yuin/goldmark/ast"
	gm "github.com/yuin/goldmark/parser"
	"github.com/yuin/goldmark/text"
	"github.com/yuin/goldmark/util"

	"codrel/internal/prose/formula"
)

// This file keeps formulas out of the hands of Markdown, to which their
// backslashes, stars and underscores mean something else.

func formulas() []gm.Option {
	return []gm.Option{
		gm.WithInlineParsers(util.Prioritized(spans{}, 50)),
		gm.WithBlockParsers(util.Prioritized(displays{}, 50)),
	}
}

var (
	spanKind    = ast.NewNodeKind("FormulaSpan")
	displayKind = ast.NewNodeKind("FormulaBlock")
)

// formulaSpan is a formula in a line.
type formulaSpan struct {
	ast.BaseInline
	found    formula.Found
	from, to int
}

func (*formulaSpan) Kind() ast.NodeKind              { return spanKind }
func (n *formulaSpan) Dump(source []byte, level int) { ast.DumpHelper(n, source, level, nil, nil) }

// spans finds formulas in lines.
type spans struct{}

func (spans) Trigger() []byte { return []byte{'$', '\\'} }

func (spans) Parse(_ ast.Node, block text.Reader, _ gm.Context) ast.Node {
	line, segment := block.PeekLine()
	if len(line) < 3 || line[0] == '\\' && line[1] != '(' && line[1] != '[' {
		return nil
	}
	// The sign before it tells money and names from formulas.
	before := block.PrecendingCharacter()
	lead := ""
	if before != '\n' {
		lead = string(before)
	}
	at, where := block.Position()
	var b strings.Builder
	b.WriteString(lead)
	for b.Len() < longestFormula { // lines and bytes are bounded, or each sign would look to the end
		b.Write(line[:min(len(line), longestFormula)])
		if len(line) > longestFormula {
			break
		}
		block.AdvanceLine()
		if line, _ = block.PeekLine(); line == nil {
			break
		}
	}
	block.SetPosition(at, where)
	found, ok := formula.At(b.String(), len(lead))
	if !ok {
		return nil
	}
	rest := found.End - len(lead)
	n := &formulaSpan{found: found, from: segment.Start}
	for rest > 0 {
		line, segment = block.PeekLine()
		if line == nil {
			break
		}
		n.to = segment.Start + min(rest, len(line))
		if rest < len(line) {
			block.Advance(rest)
			break
		}
		rest -= len(line)
		block.AdvanceLine()
	}
	return n
}

// displayBlock is a formula between lines of "$$", "\[" and "\]", or in an environment.
type displayBlock struct {
	ast.BaseBlock
	end []byte
}

func (*displayBlock) Kind() ast.NodeKind              { return displayKind }
func (n *displayBlock) Dump(source []byte, level int) { ast.DumpHelper(n, source, level, nil, nil) }
func (*displayBlock) IsRaw() bool                     { return true }

// displays finds formulas that are blocks.
type displays struct{}

func (displays) Trigger() []byte { return []byte{'$', '\\'} }

func (displays) Open(_ ast.Node, reader text.Reader, pc gm.Context) (ast.Node, gm.State) {
	line, _ := reader.PeekLine()
	if pc.BlockOffset() < 0 {
		return nil, gm.NoChildren
	}
	n := &displayBlock{}
	switch first := strings.TrimSpace(string(line)); {
	case first == "$$":
		n.end = []byte("$$")
	case first == `\[`:
		n.end = []byte(`\]`)
	case strings.HasPrefix(first, `\begin{`) && strings.HasSuffix(first, "}"):
		n.end = []byte(`\end{` + first[len(`\begin{`):])
	default:
		return nil, gm.NoChildren
	}
	if !ends(n.end, reader, pc) {
		return nil, gm.NoChildren
	}
	if n.end[0] == '\\' && n.end[1] == 'e' {
		_, segment := reader.PeekLine()
		n.Lines().Append(segment)
	}
	return n, gm.NoChildren
}

// How many bytes a formula has at most in a line of text, and as a block.
const (
	longestFormula = 4 << 10
	longestDisplay = 32 << 10
)

// ends says whether the mark stands below the line that a reader is at, before an empty line.
func ends(mark []byte, reader text.Reader, pc gm.Context) bool {
	_, segment := reader.PeekLine()
	from := min(segment.Stop, len(reader.Source()))
	at := nextIn(pc, reader.Source(), string(mark), from)
	if at < 0 {
		return false
	}
	empty := nextIn(pc, reader.Source(), "\n\n", from)
	return empty < 0 || at < empty
}

// marksKey is where a parse keeps what it found of each mark.
var marksKey = gm.NewContextKey()

// sought is what a search for a mark found: it does not stand between the two offsets, or
// stands at the second one first.
type sought struct {
	from, to int
	found    bool
}

// nextIn is where a mark stands first from an offset on, as far as a formula is long, or -1. It
// looks at a part of the text once for each mark: formulas that have no end stand in rows.
func nextIn(pc gm.Context, text []byte, mark string, from int) int {
	known, _ := pc.Get(marksKey).(map[string]sought)
	if known == nil {
		known = map[string]sought{}
		pc.Set(marksKey, known)
	}
	until := min(from+longestDisplay, len(text))
	was, ok := known[mark]
	if !ok || from < was.from || from > was.to {
		was = sought{from: from, to: from}
	}
	if !was.found && was.to < until {
		begin := max(from, was.to-len(mark)+1) // the mark may lie across the old end
		if i := bytes.Index(text[begin:until], []byte(mark)); i >= 0 {
			was.to, was.found = begin+i, true
		} else {
			was.to = until
		}
	}
	known[mark] = was
	if was.found && was.to+len(mark) <= until {
		return was.to
	}
	return -1
}

func (displays) Continue(node ast.Node, reader text.Reader, _ gm.Context) gm.State {
	n := node.(*displayBlock)
	line, segment := reader.PeekLine()
	if bytes.Equal(bytes.TrimSpace(line), n.end) {
		if n.end[1] == 'e' {
			n.Lines().Append(segment)
		}
		reader.AdvanceToEOL()
		return gm.Close
	}
	n.Lines().Append(segment)
	return gm.Continue | gm.NoChildren
}

func (displays) Close(ast.Node, text.Reader, gm.Context) {}
func (displays) CanInterruptParagraph() bool             { return true }
func (displays) CanAcceptIndentedLine() bool             { return false }
