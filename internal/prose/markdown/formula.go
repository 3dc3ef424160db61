package markdown

import (
	"bytes"
	"slices"
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

// ends says whether the mark stands below the line that a reader is at, before an empty line and
// as far as a formula is long.
func ends(mark []byte, reader text.Reader, pc gm.Context) bool {
	closings, _ := pc.Get(closingsKey).(map[string][]int)
	if closings == nil {
		closings = closingsOf(reader.Source())
		pc.Set(closingsKey, closings)
	}
	_, segment := reader.PeekLine()
	at, ok := following(closings[string(mark)], segment.Stop)
	if !ok || at+len(mark) > segment.Stop+longestDisplay {
		return false
	}
	empty, ok := following(closings["\n\n"], segment.Stop)
	return !ok || at < empty
}

// closingsKey is where a parse keeps where formulas of its text may end.
var closingsKey = gm.NewContextKey()

// closingsOf are the offsets of each mark that may end a formula, in order. All are found in one
// look at the text: formulas that have no end stand in rows, each with an end of its own.
func closingsOf(text []byte) map[string][]int {
	out := map[string][]int{}
	for i := 0; i+1 < len(text); i++ {
		mark := ""
		switch two := string(text[i : i+2]); two {
		case "$$", `\]`, "\n\n":
			mark = two
		case `\e`:
			if line, _, _ := bytes.Cut(text[i:min(len(text), i+longestName)], []byte("\n")); bytes.HasPrefix(line, []byte(`\end{`)) {
				name, _, closed := bytes.Cut(line, []byte("}"))
				if closed {
					mark = string(name) + "}"
				}
			}
		}
		if mark != "" {
			out[mark] = append(out[mark], i)
		}
	}
	return out
}

// longestName is how many bytes the end of an environment has at most.
const longestName = 80

// following is the first of ordered offsets that is not before another one.
func following(offsets []int, from int) (int, bool) {
	i, _ := slices.BinarySearch(offsets, from)
	if i == len(offsets) {
		return 0, false
	}
	return offsets[i], true
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
