package site_test

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/net/html"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/render/plan"
	"codrel/internal/render/sink"
	"codrel/internal/render/site"
)

// goldenFiles is a small project with a little of everything that pages show.
var goldenFiles = map[string]string{
	"go.mod":    "module port.example\n\ngo 1.24\n",
	"README.md": "# A small port\n\nTides and berths, see [Berth](ref:Berth) and `Moor`.\n\n## Use\n\n- first\n- second\n\n| tide | metres |\n|---|--:|\n| high | 4 |\n\n```go\nport.Moor(1)\n```\n",
	"port.go": `// Package port finds berths.
//
// # How
//
// It looks at [Tide].
package port

import "errors"

// Berth is where a vessel lies.
type Berth struct {
	// Depth is the water under it, in metres.
	Depth float64
	Name  string // what it is called
	kept  int
}

// Fits reports whether a vessel of a draught floats.
func (b Berth) Fits(draught float64) bool { return b.Depth > draught }

// Tide is the water.
type Tide interface {
	// Height is the height at an hour.
	Height(hour int) (metres float64, err error)
}

// Moor moors a vessel at a berth.
//
// It fails with [ErrFull].
func Moor(vessel int) (*Berth, error) { return nil, ErrFull }

// ErrFull says that no berth is free.
var ErrFull = errors.New("port: full")

// Hours is how long a tide takes.
const Hours = 12

// Dock moors.
//
// Deprecated: use [Moor].
func Dock() {}
`,
	"moon/moon.go":      "// Package moon has phases.\npackage moon\n\nimport \"port.example\"\n\n// Full is a full moon.\nvar Full, _ = port.Moor(1)\n\nvar _, _ = port.Moor(2)\nvar _, _ = port.Moor(3)\nvar _, _ = port.Moor(4)\n",
	"port_test.go":      "package port\n\nimport \"testing\"\n\nfunc TestMoor(t *testing.T) { Moor(1) }\n",
	"clients/setup.cfg": "[metadata]\nname = clients\n",
	"clients/client.py": "\"\"\"A client.\"\"\"\n\n\nclass Client:\n    \"\"\"Asks a port.\n\n    :param host: where it is\n    :raises ValueError: without a host\n    \"\"\"\n\n    def __init__(self, host: str, *, port: int = 80):\n        self.host = host\n\n    def berths(self) -> list[str]:\n        \"\"\"Lists berths.\n\n        :returns: their names\n        \"\"\"\n        return []\n\n\nclass Calm(Client):\n    \"\"\"A calm client.\"\"\"\n\n    def berths(self) -> list[str]:\n        return [self.host]\n",
}

// goldenPages are the pages whose outlines are kept, one of each kind that a small project has.
var goldenPages = map[string]string{
	"home": "index.html", "tree": "modules.html", "index": "a-z/index.html", "lost": "404.html", "deprecated": "deprecated.html",
	"library": "reference/port.example/index.html", "module": "reference/port.example/port.example/index.html", "type": "reference/port.example/port.example/Berth.html",
	"interface": "reference/port.example/port.example/Tide.html", "class": "reference/clients/client/Client.html", "inherited": "reference/clients/client/Calm.html",
	"users": "reference/port.example/port.example/~users.html", "source": "source/moon/moon.go.html", "whole": "reference/port.example/port.example/moon/~whole.html",
	"findings": "findings.html", "coverage": "coverage.html",
}

// Each kind of page says what it said before: outlines of pages are kept in testdata/pages.
// CODREL_GOLDEN=write writes them anew, to be read before they are kept.
func TestGoldenPages(t *testing.T) {
	files := buildtest.Files(goldenFiles)
	s := buildtest.Run(t, files, build.Options{Folder: "port", Inside: true, TestNames: true})
	p := plan.New(s.Links, plan.Options{Source: plan.FullSource, Findings: 1, Coverage: true, Whole: func(m string) bool { return strings.HasSuffix(m, "moon") }})
	report := &site.Report{Documented: s.Coverage.Documented, Total: s.Coverage.Total, Findings: []site.Finding{{Severity: "warning", Rule: "undocumented", Text: "something has no doc comment", File: "moon/moon.go", Line: 6, Column: 5}}}
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			report.Modules = append(report.Modules, site.Share{Module: m, Documented: s.Modules[m].Documented, Total: s.Modules[m].Total})
		}
	}
	var m sink.Memory
	require.NoError(t, site.New(p, site.Options{FrontEnds: s.FrontEnds, Files: files, Report: report, Workers: 2}).Write(t.Context(), &m))
	for name, address := range goldenPages {
		t.Run(name, func(t *testing.T) {
			data := m.Get(address)
			require.NotNil(t, data, address)
			got := outline(t, string(data))
			file := filepath.Join("testdata", "pages", name+".txt")
			if os.Getenv("CODREL_GOLDEN") == "write" {
				require.NoError(t, os.MkdirAll(filepath.Dir(file), 0o755))
				require.NoError(t, os.WriteFile(file, []byte(got), 0o644))
			}
			want, err := os.ReadFile(file)
			require.NoError(t, err)
			assert.Equal(t, string(want), got)
		})
	}
}

// outline is what a page says in lines: its title, and the parts of its body with links as
// "text (address)".
func outline(t *testing.T, page string) string {
	t.Helper()
	doc, err := html.Parse(strings.NewReader(page))
	require.NoError(t, err)
	o := outliner{}
	o.node(doc)
	o.end()
	return o.out.String()
}

type outliner struct {
	out    strings.Builder
	line   strings.Builder
	indent int
	pre    bool
}

// end ends the line.
func (o *outliner) end() {
	text := o.line.String()
	if !o.pre {
		text = strings.Join(strings.Fields(text), " ")
	}
	o.line.Reset()
	if strings.TrimSpace(text) == "" {
		return
	}
	for _, line := range strings.Split(strings.TrimRight(text, "\n"), "\n") {
		fmt.Fprintln(&o.out, strings.TrimRight(strings.Repeat("  ", o.indent)+line, " \t"))
	}
}

// marks stand before the lines of elements.
var marks = map[string]string{
	"h1": "# ", "h2": "## ", "h3": "### ", "h4": "#### ", "h5": "##### ", "h6": "###### ", "li": "- ", "dt": "* ", "dd": "  ", "title": "title: ",
	"p": "", "div": "", "section": "", "article": "", "aside": "[aside] ", "nav": "[nav] ", "main": "", "header": "", "footer": "", "ul": "", "ol": "", "dl": "",
	"table": "", "tr": "| ", "thead": "", "tbody": "", "blockquote": "> ", "pre": "", "figure": "", "details": "", "summary": "+ ", "form": "",
}

func (o *outliner) node(n *html.Node) {
	if n.Type == html.TextNode {
		o.line.WriteString(n.Data)
		return
	}
	if n.Type == html.ElementNode {
		switch n.Data {
		case "script", "style", "button", "label", "svg", "link", "meta":
			return
		case "wbr":
			return
		case "br":
			o.line.WriteString(" / ")
			return
		case "a":
			o.children(n)
			if href := attribute(n, "href"); href != "" && !strings.HasPrefix(href, "#L") {
				o.line.WriteString(" (" + href + ")")
			}
			return
		case "td", "th":
			o.children(n)
			o.line.WriteString(" | ")
			return
		}
		if mark, block := marks[n.Data]; block {
			o.end()
			pre := o.pre
			o.pre = n.Data == "pre"
			o.line.WriteString(mark)
			if id := attribute(n, "id"); id != "" && n.Data != "pre" {
				o.line.WriteString("{" + id + "} ")
			}
			if n.Data == "ul" || n.Data == "ol" || n.Data == "pre" {
				o.indent++
			}
			o.children(n)
			o.end()
			if n.Data == "ul" || n.Data == "ol" || n.Data == "pre" {
				o.indent--
			}
			o.pre = pre
			return
		}
	}
	o.children(n)
}

func (o *outliner) children(n *html.Node) {
	for c := n.FirstChild; c != nil; c = c.NextSibling {
		o.node(c)
	}
}

func attribute(n *html.Node, name string) string {
	for _, a := range n.Attr {
		if a.Key == name {
			return a.Val
		}
	}
	return ""
}
