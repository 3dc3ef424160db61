package policy

import (
	"go/parser"
	"go/token"
	"io/fs"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// allowed says which of our packages each may import; whatever is not here is a
// failure. Lower lines may import upper ones, and never the other way round.
// Packages of the same stage do not know one another.
const allowed = `
source:            -
growth:            -
nearest:           -
memberid:          -
xmlpath:           -
picture:           -
finding:           source
model:             finding source
prose:             source
prose/formula:     prose source
prose/markdown:    prose prose/formula source
prose/markup:      -
prose/snippet:     prose prose/markup source
lexing:            model source
lang:              lexing model source
lang/golang:       lang lexing model source
lang/cfamily:      lang lexing model source
lang/csharp:       lang lexing model prose/markup source xmlpath
lang/java:         lang lexing model prose/markup prose/snippet source
lang/perl:         finding lang lexing model source
lang/rust:         finding lang lexing model source
lang/python:       lang lexing model source
lang/script:       lang lexing model source
lang/madeup:       lang lexing model finding source
lang/langtest:     growth lang lexing model source
languages:         lang lang/cfamily lang/csharp lang/golang lang/java lang/perl lang/python lang/rust lang/script
comment/gocomment:     model prose source
comment/commenttest:   model prose source
comment/docstring:     model nearest prose prose/formula prose/markdown source
comment/blocktags:     model nearest prose prose/markdown prose/markup prose/snippet source
comment/htmltags:  model nearest prose prose/markup prose/snippet source
comment/xmltags:   memberid model nearest prose prose/markup source xmlpath
comment/crossmarks: model prose prose/markdown
comment/pod:        model prose source
comment:           comment/blocktags comment/crossmarks comment/docstring comment/gocomment comment/htmltags comment/pod comment/xmltags model prose prose/markdown source
parallel:          -
todo:              lang model parallel source
join:              lang model parallel
parts:             finding model parallel source
settings:          finding model nearest source
look:              finding nearest settings
guide:             finding model nearest settings source
discover:          lang model settings source
proposal:          discover lang settings
symbols:           -
xmldoc:            memberid symbols
link:              comment lang model nearest parallel prose source symbols
excerpt:           finding lang link model nearest prose source
check:             comment excerpt finding lang link model nearest parallel picture prose source
build:             check discover finding guide join lang link look model nearest parallel parts prose settings source symbols xmldoc
search:            nearest
render/plan:       link model parallel prose search
render/page:       excerpt lang link look model prose render/plan source
render/modules:    link model
render/sink:       -
render/colour:     -
render/stream:     link model
render/terminal:   lang link look model prose render/page render/plan
render/editors:    comment/xmltags finding link memberid model xmldoc
render/site:       lang lexing link look model parallel picture prose render/colour render/modules render/page render/plan render/sink search source symbols
render/site/sitetest: parallel
build/buildtest:   build lang languages model
demo:              -
vcs:               -
recall:            parallel
workspace:         build check finding lang languages model parts proposal prose recall render/plan render/sink render/site search settings source symbols todo vcs
preview:           check finding render/plan render/site search source workspace
cli:               build check demo finding languages model nearest preview proposal render/editors render/modules render/plan render/stream render/terminal search settings symbols workspace xmldoc
cmd/codrel:        cli
`

// forbidden says who alone may import a package from outside ("only"), or who
// may not ("not"). A name stands for the packages below it too, and with "="
// for itself alone.
const forbidden = `
only prose/markdown           github.com/yuin/goldmark
only render/site              github.com/a-h/templ
only cli                      github.com/spf13/cobra
only cli                      github.com/schollz/progressbar/v3
only settings,guide           go.yaml.in/yaml/v3
only picture                  golang.org/x/image
only look,prose/markdown      golang.org/x/net
only look                     github.com/tdewolff/parse/v2
only render/site              github.com/tdewolff/minify/v2
only recall                   github.com/cespare/xxhash/v2
only xmlpath                  github.com/antchfx/xmlquery
only xmlpath                  github.com/antchfx/xpath
only preview                  net/http
only preview                  github.com/fsnotify/fsnotify
only cli,example,vcs          os/exec
only render/colour            github.com/alecthomas/chroma/v2
only -                        go/doc
only -                        =log
only lang/golang              go/ast
only lang/golang              go/parser
not  lang                     regexp
not  lexing                   regexp
`

type imports map[string]map[string]bool // package to what it imports

func read(t *testing.T) imports {
	t.Helper()
	root, err := filepath.Abs("../..")
	require.NoError(t, err)
	all := imports{}
	for _, dir := range []string{"internal", "cmd", "demo"} {
		require.NoError(t, filepath.WalkDir(filepath.Join(root, dir), func(p string, e fs.DirEntry, err error) error {
			if err != nil {
				return err
			}
			if e.IsDir() && (e.Name() == "testdata" || strings.HasPrefix(e.Name(), "_")) {
				return filepath.SkipDir
			}
			if !strings.HasSuffix(p, ".go") || strings.HasSuffix(p, "_test.go") {
				return nil
			}
			rel, _ := filepath.Rel(root, filepath.Dir(p))
			name := strings.TrimPrefix(filepath.ToSlash(rel), "internal/")
			file, err := parser.ParseFile(token.NewFileSet(), p, nil, parser.ImportsOnly)
			if err != nil {
				return err
			}
			if all[name] == nil {
				all[name] = map[string]bool{}
			}
			for _, i := range file.Imports {
				all[name][strings.Trim(i.Path.Value, `"`)] = true
			}
			return nil
		}))
	}
	require.Greater(t, len(all), 15)
	return all
}

func TestOwnImports(t *testing.T) {
	all := read(t)
	policy := map[string][]string{}
	for line := range strings.Lines(allowed) {
		if name, list, ok := strings.Cut(strings.TrimSpace(line), ":"); ok {
			assert.NotContains(t, policy, name)
			policy[name] = strings.Fields(list)
			for _, dep := range policy[name] {
				if dep != "-" {
					assert.Contains(t, policy, dep, "%s stands above what it is made of", name)
				}
			}
		}
	}
	for name, deps := range all {
		if name == "policy" {
			continue
		}
		list, ok := policy[name]
		assert.True(t, ok, "package %s is not in the policy", name)
		for dep := range deps {
			own, ok := strings.CutPrefix(dep, "codrel/")
			if own = strings.TrimPrefix(own, "internal/"); ok {
				assert.Contains(t, list, own, "%s may not import %s", name, own)
			}
		}
	}
	for name, list := range policy {
		for _, dep := range list {
			used := all[name]["codrel/internal/"+dep] || all[name]["codrel/"+dep]
			assert.True(t, dep == "-" || used, "%s no longer imports %s; take it out of the policy", name, dep)
		}
	}
}

func TestOutsideImports(t *testing.T) {
	all := read(t)
	for line := range strings.Lines(forbidden) {
		fields := strings.Fields(line)
		if len(fields) != 3 {
			continue
		}
		verb, who, what := fields[0], strings.Split(fields[1], ","), fields[2]
		for name, deps := range all {
			among := false
			for _, w := range who {
				among = among || name == w || strings.HasPrefix(name, w+"/")
			}
			if strings.HasPrefix(name, "render/site/sitetest") || name == "policy" {
				continue
			}
			for dep := range deps {
				if dep != strings.TrimPrefix(what, "=") && !strings.HasPrefix(dep, what+"/") {
					continue
				}
				assert.Equal(t, verb == "only", among, "%s may not import %s", name, dep)
			}
		}
	}
}
