package settings

import (
	"errors"
	"fmt"
	"net/url"
	"path"
	"slices"
	"strconv"
	"strings"

	"github.com/bmatcuk/doublestar/v4"
	"go.yaml.in/yaml/v3"

	"codrel/internal/finding"
	"codrel/internal/model"
	"codrel/internal/source"
)

// Problem is one thing that is wrong in a settings file.
type Problem struct {
	File    string
	Line    int // from 1; 0 where the file as a whole is meant
	Column  int
	Message string // what is wrong and what to do
}

// Error says the problem as "file:line:column: message".
func (p Problem) Error() string {
	if p.Line == 0 {
		return p.File + ": " + p.Message
	}
	return fmt.Sprintf("%s:%d:%d: %s", p.File, p.Line, p.Column, p.Message)
}

// Known are the words that a settings file may name and that other packages own.
type Known struct {
	Version   string   // of this program
	Rules     []string // names of rules
	Languages []string
	Meanings  []string // what words of comments may mean
	Sections  []string // names of sections of comments
}

// Parse reads a settings file. The error joins one [Problem] for each thing
// that is wrong, in the order of the file; settings are nil then.
func Parse(file string, data []byte, known Known) (*Settings, error) {
	s := Default()
	r := reader{file: file, known: known, places: s.places}
	var document yaml.Node
	if err := yaml.Unmarshal(data, &document); err != nil {
		return nil, r.syntax(err)
	}
	if len(document.Content) == 0 {
		return s, nil
	}
	root := document.Content[0]
	if root.Kind == yaml.ScalarNode && root.Tag == "!!null" {
		return s, nil
	}
	r.needs(root)
	if len(r.problems) == 0 {
		r.project(root, s)
	}
	return s.unless(r.problems)
}

func (s *Settings) unless(problems []error) (*Settings, error) {
	if len(problems) > 0 {
		return nil, errors.Join(problems...)
	}
	return s, nil
}

// reader walks the nodes of a settings file and collects what is wrong.
type reader struct {
	file     string
	known    Known
	problems []error
	places   map[string]Problem
}

// note keeps where a value stands, for problems that show later.
func (r *reader) note(n *yaml.Node, key, value string) {
	r.places[key+"\x00"+value] = Problem{File: r.file, Line: n.Line, Column: n.Column}
}

func (r *reader) fail(n *yaml.Node, format string, args ...any) {
	r.problems = append(r.problems, Problem{File: r.file, Line: n.Line, Column: n.Column, Message: fmt.Sprintf(format, args...)})
}

// syntax turns the YAML package's error, which has its line in its text only, into a problem.
func (r *reader) syntax(err error) error {
	text := strings.TrimPrefix(err.Error(), "yaml: ")
	p := Problem{File: r.file, Line: 1, Column: 1, Message: "not valid YAML: " + text}
	if rest, ok := strings.CutPrefix(text, "line "); ok {
		number, message, _ := strings.Cut(rest, ": ")
		if line, err := strconv.Atoi(number); err == nil {
			p.Line, p.Message = line, "not valid YAML: "+message
		}
	}
	return p
}

// needs is checked first: a newer file may hold keys that this program cannot know.
func (r *reader) needs(root *yaml.Node) {
	if root.Kind != yaml.MappingNode {
		return
	}
	for i := 0; i+1 < len(root.Content); i += 2 {
		if root.Content[i].Value != "needs" {
			continue
		}
		n := root.Content[i+1]
		wanted, ok := strings.CutPrefix(strings.ReplaceAll(n.Value, " ", ""), ">=")
		if !ok || !isVersion(wanted) {
			r.fail(n, `"needs" must be the oldest version that may read this file, such as ">=0.1"`)
		} else if older(r.known.Version, wanted) {
			r.fail(n, "this file needs Codrel %s or newer; this is %s", wanted, r.known.Version)
		}
	}
}

func (r *reader) project(root *yaml.Node, s *Settings) {
	r.mapping(root, "", keys{
		"needs":   func(*yaml.Node) {},
		"name":    func(n *yaml.Node) { r.text(n, &s.Name) },
		"version": func(n *yaml.Node) { r.text(n, &s.Version) },
		"home": func(n *yaml.Node) {
			r.path(n, &s.Home)
			r.note(n, "home", s.Home)
		},
		"fragments": func(n *yaml.Node) {
			r.path(n, &s.Fragments)
			r.note(n, "fragments", s.Fragments)
		},
		"guides":     func(n *yaml.Node) { r.guides(n, &s.Guides) },
		"reach":      func(n *yaml.Node) { r.reach(n, &s.Reach) },
		"read":       func(n *yaml.Node) { r.list(n, "read", func(n *yaml.Node) { r.read(n, s) }) },
		"generated":  func(n *yaml.Node) { r.patterns(n, "generated", &s.Generated) },
		"describe":   func(n *yaml.Node) { r.describe(n, s) },
		"vocabulary": func(n *yaml.Node) { r.vocabulary(n, s) },
		"links":      func(n *yaml.Node) { r.links(n, s) },
		"checks":     func(n *yaml.Node) { r.checks(n, &s.Checks) },
		"write":      func(n *yaml.Node) { r.write(n, &s.Write) },
		"look":       func(n *yaml.Node) { r.look(n, &s.Look) },
		"site":       func(n *yaml.Node) { r.site(n, &s.Site) },
	})
}

func (r *reader) reach(n *yaml.Node, to *model.Reach) {
	reach, ok := model.ParseReach(n.Value)
	if !ok {
		r.fail(n, "reach must be public, protected, internal or private, not %q", n.Value)
		return
	}
	*to = reach
}

// guides takes the folder of the guides and their order: paths in that folder, and parts with
// such paths.
func (r *reader) guides(n *yaml.Node, g *Guides) {
	step := func(n *yaml.Node, part string) {
		s := Step{Part: part}
		r.wordOfPath(n, &s.Word)
		g.Order = append(g.Order, s)
	}
	r.mapping(n, "guides", keys{
		"folder": func(n *yaml.Node) {
			r.path(n, &g.Folder)
			r.note(n, "guides", g.Folder)
		},
		"order": func(n *yaml.Node) {
			r.list(n, "order", func(n *yaml.Node) {
				if n.Kind != yaml.MappingNode {
					step(n, "")
					return
				}
				part, first := "", len(g.Order)
				r.mapping(n, "order", keys{
					"part":   func(n *yaml.Node) { r.text(n, &part) },
					"guides": func(n *yaml.Node) { r.list(n, "guides", func(n *yaml.Node) { step(n, "") }) },
				})
				if part == "" || len(g.Order) == first {
					r.fail(n, `a part in "order" needs its name and its guides, such as {part: Drivers, guides: [gauge.md]}`)
				}
				for i := first; i < len(g.Order); i++ {
					g.Order[i].Part = part
				}
			})
		},
	})
}

func (r *reader) read(n *yaml.Node, s *Settings) {
	var read Read
	r.mapping(n, "read", keys{
		"path": func(n *yaml.Node) {
			r.path(n, &read.Path)
			r.note(n, "read", read.Path)
		},
		"language": func(n *yaml.Node) { r.oneOf(n, "language", r.known.Languages, &read.Language) },
		"skip":     func(n *yaml.Node) { r.patterns(n, "skip", &read.Skip) },
		"open":     func(n *yaml.Node) { r.patterns(n, "open", &read.Open) },
		"macros": func(n *yaml.Node) {
			read.Macros = map[string]string{}
			r.pairs(n, "macros", `names with what each stands for, such as {TIDE_BEGIN: "namespace tide {"}`, func(name, means *yaml.Node) {
				var text string
				r.text(means, &text)
				read.Macros[name.Value] = text
			})
		},
		"comments": func(n *yaml.Node) {
			which := ""
			r.oneOf(n, "comments", []string{"marked", "any"}, &which)
			read.Plain = which == "any"
		},
	})
	if read.Path == "" && n.Kind == yaml.MappingNode {
		r.fail(n, `an entry of "read" needs the path of a folder, such as {path: engine}`)
	}
	s.Read = append(s.Read, read)
}

// describe takes the files that describe modules, by the modules' paths.
func (r *reader) describe(n *yaml.Node, s *Settings) {
	s.Describe = map[string]string{}
	r.pairs(n, "describe", "modules with a Markdown file each, such as {Tide.Board: docs/board.md}", func(module, file *yaml.Node) {
		name := ""
		r.path(file, &name)
		r.note(file, "describe", name)
		r.note(module, "describe", module.Value)
		s.Describe[module.Value] = name
	})
}

// vocabulary takes, by language, words of comments and what they mean.
func (r *reader) vocabulary(n *yaml.Node, s *Settings) {
	r.pairs(n, "vocabulary", "languages with words, such as {python: {glossary: notes}}", func(language, words *yaml.Node) {
		name := ""
		r.oneOf(language, "language", r.known.Languages, &name)
		own := map[string]string{}
		r.pairs(words, language.Value, "words with what each means, such as {glossary: notes}", func(word, means *yaml.Node) {
			meaning := ""
			r.oneOf(means, "meaning", r.known.Meanings, &meaning)
			own[strings.ToLower(strings.TrimPrefix(word.Value, "@"))] = meaning
		})
		if s.Vocabulary == nil {
			s.Vocabulary = map[string]map[string]string{}
		}
		s.Vocabulary[name] = own
	})
}

// pairs calls each for the keys and values of a mapping whose keys are the user's.
func (r *reader) pairs(n *yaml.Node, of, what string, each func(key, value *yaml.Node)) {
	if n.Kind != yaml.MappingNode {
		r.fail(n, "%q must have %s, not %s", of, what, shape(n))
		return
	}
	seen := map[string]bool{}
	for i := 0; i+1 < len(n.Content); i += 2 {
		key, value := n.Content[i], n.Content[i+1]
		if value.Kind == yaml.AliasNode {
			value = value.Alias
		}
		if seen[key.Value] {
			r.fail(key, "the key %q is given twice", key.Value)
			continue
		}
		seen[key.Value] = true
		each(key, value)
	}
}

func (r *reader) links(n *yaml.Node, s *Settings) {
	r.mapping(n, "links", keys{
		"source": func(n *yaml.Node) {
			r.address(n, &s.Source, "path")
			r.placeholders(n, "path", "line", "revision")
		},
		"edit": func(n *yaml.Node) {
			r.address(n, &s.Edit, "path")
			r.placeholders(n, "path")
		},
		"editor": func(n *yaml.Node) { r.editor(n, &s.Editor) },
		"elsewhere": func(n *yaml.Node) {
			r.list(n, "elsewhere", func(n *yaml.Node) {
				var e Elsewhere
				r.mapping(n, "elsewhere", keys{
					"modules": func(n *yaml.Node) { r.pattern(n, &e.Modules) },
					"page": func(n *yaml.Node) {
						r.address(n, &e.Page, "module")
						r.placeholders(n, "module", "name")
					},
					"symbols": func(n *yaml.Node) { r.word(n, &e.Symbols) },
					"xml":     func(n *yaml.Node) { r.word(n, &e.XML) },
					"site":    func(n *yaml.Node) { r.siteElsewhere(n, &e.Site) },
				})
				r.whole(n, e)
				s.Elsewhere = append(s.Elsewhere, e)
			})
		},
	})
}

// whole asks of an entry of "elsewhere" that it is of one of the three sorts.
func (r *reader) whole(n *yaml.Node, e Elsewhere) {
	pattern, named, file := e.Modules != "" || e.Page != "", e.Symbols.Text != "" || e.Site != "", e.XML.Text != ""
	switch {
	case n.Kind != yaml.MappingNode:
	case pattern && named || pattern && file || named && file:
		r.fail(n, `an entry of "elsewhere" has either "modules" and "page", or "symbols" and perhaps "site", or "xml"`)
	case pattern && (e.Modules == "" || e.Page == ""):
		r.fail(n, `an entry of "elsewhere" needs both "modules" and "page"`)
	case !pattern && !file && e.Symbols.Text == "":
		r.fail(n, `an entry of "elsewhere" needs the symbols of another project, such as {symbols: ../other/codrel-site}, or "modules" and "page", or the documentation file of a C# compiler, such as {xml: lib/Tide.xml}`)
	}
}

// siteElsewhere takes an address or a folder.
func (r *reader) siteElsewhere(n *yaml.Node, to *string) {
	if strings.HasPrefix(n.Value, "http:") || strings.HasPrefix(n.Value, "https:") {
		r.site(n, to)
		return
	}
	r.text(n, to)
	if strings.Contains(n.Value, ":") {
		r.fail(n, "%q is neither a web address, such as https://other.example/docs/, nor a folder", n.Value)
	}
}

func (r *reader) checks(n *yaml.Node, c *Checks) {
	r.mapping(n, "checks", keys{
		"fail-on": func(n *yaml.Node) { c.FailOn = r.severity(n) },
		"rules":   func(n *yaml.Node) { c.Rules = r.rules(n) },
		"inherited-text": func(n *yaml.Node) {
			word := ""
			r.choice(n, "inherited-text", []string{"asked", "counts"}, &word)
			c.AskInherited = word == "asked"
		},
		"file-fields": func(n *yaml.Node) {
			r.list(n, "file-fields", func(n *yaml.Node) {
				field := ""
				r.text(n, &field)
				if field == "" {
					r.fail(n, `an entry of "file-fields" must be a word, such as license`)
				}
				c.FileFields = append(c.FileFields, field)
			})
		},
		"folders": func(n *yaml.Node) {
			r.list(n, "folders", func(n *yaml.Node) {
				var f FolderRules
				r.mapping(n, "folders", keys{
					"path":  func(n *yaml.Node) { r.pattern(n, &f.Path) },
					"rules": func(n *yaml.Node) { f.Rules = r.rules(n) },
				})
				if n.Kind == yaml.MappingNode && f.Path == "" {
					r.fail(n, `an entry of "folders" needs a path, such as {path: "cmd/**", rules: {undocumented: off}}`)
				}
				c.Folders = append(c.Folders, f)
			})
		},
	})
}

func (r *reader) rules(n *yaml.Node) map[string]finding.Severity {
	out := map[string]finding.Severity{}
	if n.Kind != yaml.MappingNode {
		r.fail(n, `"rules" must have names of rules with a severity each, such as {undocumented: off}`)
		return out
	}
	for i := 0; i+1 < len(n.Content); i += 2 {
		name := ""
		r.oneOf(n.Content[i], "rule", r.known.Rules, &name)
		out[name] = r.severity(n.Content[i+1])
	}
	return out
}

func (r *reader) severity(n *yaml.Node) finding.Severity {
	word := n.Value
	if n.Tag == "!!bool" && n.Value == "false" { // YAML 1.1 reads a bare off so
		word = "off"
	}
	s, ok := finding.ParseSeverity(word)
	if !ok {
		r.fail(n, "a severity must be error, warning, note or off, not %q", n.Value)
	}
	return s
}

func (r *reader) write(n *yaml.Node, w *Write) {
	r.mapping(n, "write", keys{
		"site": func(n *yaml.Node) { r.text(n, &w.Site) },
		"keep": func(n *yaml.Node) { r.patterns(n, "keep", &w.Keep) },
		"pages": func(n *yaml.Node) {
			r.list(n, "pages", func(n *yaml.Node) {
				page := ""
				r.oneOf(n, "page", []string{"coverage", "findings", "to-dos"}, &page)
				w.Pages = append(w.Pages, page)
			})
		},
		"hide": func(n *yaml.Node) {
			r.list(n, "hide", func(n *yaml.Node) {
				section := ""
				r.oneOf(n, "section", r.known.Sections, &section)
				w.Hide = append(w.Hide, section)
			})
		},
		"whole": func(n *yaml.Node) {
			r.list(n, "whole", func(n *yaml.Node) {
				var p string
				r.pattern(n, &p)
				r.note(n, "whole", p)
				w.Whole = append(w.Whole, p)
			})
		},
		"source": func(n *yaml.Node) {
			r.choice(n, "source", []string{"full", "signatures", "none"}, &w.Source)
		},
	})
	if w.Site == "" {
		w.Site = DefaultSite
	}
}

// look takes files and words as they are; package look says which can be used.
func (r *reader) look(n *yaml.Node, l *Look) {
	r.mapping(n, "look", keys{
		"accent": func(n *yaml.Node) { r.word(n, &l.Accent) },
		"logo":   func(n *yaml.Node) { r.wordOfPath(n, &l.Logo) },
		"style":  func(n *yaml.Node) { r.wordOfPath(n, &l.Style) },
		"head":   func(n *yaml.Node) { r.wordOfPath(n, &l.Head) },
		"header": func(n *yaml.Node) { r.wordOfPath(n, &l.Header) },
		"footer": func(n *yaml.Node) { r.wordOfPath(n, &l.Footer) },
		"locale": func(n *yaml.Node) { r.word(n, &l.Locale) },
		"texts":  func(n *yaml.Node) { r.texts(n, l) },
	})
}

func (r *reader) word(n *yaml.Node, to *Word) {
	r.text(n, &to.Text)
	to.At = source.Position{Line: n.Line, Column: n.Column}
}

func (r *reader) wordOfPath(n *yaml.Node, to *Word) {
	r.path(n, &to.Text)
	to.At = source.Position{Line: n.Line, Column: n.Column}
}

func (r *reader) texts(n *yaml.Node, l *Look) {
	if n.Kind != yaml.MappingNode {
		r.fail(n, `"texts" must have keys with a text each, such as {overview: "At a glance"}`)
		return
	}
	for i := 0; i+1 < len(n.Content); i += 2 {
		var t Text
		r.word(n.Content[i], &t.Key)
		r.word(n.Content[i+1], &t.Value)
		l.Texts = append(l.Texts, t)
	}
}

// site takes the address that the site is served from.
func (r *reader) site(n *yaml.Node, to *string) {
	r.text(n, to)
	u, err := url.Parse(*to)
	if n.Kind == yaml.ScalarNode && (err != nil || u.Scheme != "https" && u.Scheme != "http" || u.Host == "" || u.RawQuery != "" || u.Fragment != "") {
		r.fail(n, "%q is not the address of a site, such as https://tidebook.example/docs/", n.Value)
	}
	*to = strings.TrimRight(*to, "/") + "/"
}

// path takes a path inside the project.
func (r *reader) path(n *yaml.Node, to *string) {
	r.text(n, to)
	clean := path.Clean(strings.ReplaceAll(*to, `\`, "/"))
	if path.IsAbs(clean) || clean == ".." || strings.HasPrefix(clean, "../") {
		r.fail(n, "%q is outside the project; paths start at the folder of this file", n.Value)
	}
	*to = clean
}

func (r *reader) pattern(n *yaml.Node, to *string) {
	r.text(n, to)
	if !doublestar.ValidatePattern(*to) {
		r.fail(n, "%q is not a valid pattern; check its brackets", n.Value)
	}
}

func (r *reader) patterns(n *yaml.Node, key string, to *[]string) {
	r.list(n, key, func(n *yaml.Node) {
		var p string
		r.pattern(n, &p)
		*to = append(*to, p)
	})
}

// address takes the pattern of a web address; it must hold the placeholder that makes it differ from page to page.
func (r *reader) address(n *yaml.Node, to *string, placeholder string) {
	r.text(n, to)
	switch {
	case n.Kind != yaml.ScalarNode:
	case !strings.HasPrefix(*to, "https://") && !strings.HasPrefix(*to, "http://"):
		r.fail(n, "%q is not a web address: it must begin with https:// or http://", n.Value)
	case !strings.Contains(*to, "{"+placeholder+"}"):
		r.fail(n, "%q needs {%s} in it; without it every link would lead to one page", n.Value, placeholder)
	}
}

// editor takes the pattern of an address that opens a place in an editor. It may have a scheme of
// that editor's, but none that runs something in the browser.
func (r *reader) editor(n *yaml.Node, to *string) {
	r.text(n, to)
	scheme, _, ok := strings.Cut(*to, ":")
	switch strings.ToLower(strings.TrimSpace(scheme)) {
	case "javascript", "data", "vbscript", "blob":
		ok = false
	}
	switch {
	case n.Kind != yaml.ScalarNode:
	case !ok || strings.ContainsAny(scheme, " /{<\"'"):
		r.fail(n, "%q is not the address by which an editor opens a file, such as editor://open?file={path}&line={line}", n.Value)
	case !strings.Contains(*to, "{path}"):
		r.fail(n, "%q needs {path} in it", n.Value)
	default:
		r.placeholders(n, "path", "line", "column")
	}
}

// placeholders takes an address with no other words in braces than those there are.
func (r *reader) placeholders(n *yaml.Node, names ...string) {
	rest := n.Value
	for {
		_, after, ok := strings.Cut(rest, "{")
		name, tail, closed := strings.Cut(after, "}")
		switch {
		case !ok:
			return
		case !closed:
			r.fail(n, "%q has a { that is not closed", n.Value)
			return
		case !slices.Contains(names, name):
			r.unknown(&yaml.Node{Value: name, Line: n.Line, Column: n.Column}, "the address has no placeholder", names)
		}
		rest = tail
	}
}
