package link_test

import (
	"path"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
)

// logbook is a distribution of Perl.
var logbook = map[string]string{
	"lib/Tide/Log.pm":         "package Tide::Log;\n\n=head1 NAME\n\nTide::Log - reads, see L<Tide::Log::Line>, L<Tide::Log::Lines>, L<Tide::Chart>, L<File::Spec>, L<Carp>, L</read>, L<Tide::Log::Line/hour>, L<the page|Tide::Log::Format>, L<crontab(5)>, L<Tide::Log::Line/\"METHODS\">\n\n=head2 read\n\nReads with C<own>, see L</add>.\n\n=cut\n\nsub read { add(1); Tide::Log::Line::hour(); Tide::Log::Line->new }\nsub add { }\n\npackage Tide::Log::Inner;\nsub inner { }\n1;\n",
	"lib/Tide/Log/Line.pm":    "package Tide::Log::Line;\n\n=head1 NAME\n\nTide::Log::Line - a line\n\n=cut\n\nsub hour { }\nsub new { }\n1;\n",
	"lib/Tide/Log/Format.pod": "=head1 NAME\n\nTide::Log::Format - how lines are written\n",
	"bin/log":                 "#!/usr/bin/perl\nuse Tide::Log;\n\n=head1 NAME\n\nlog - prints a log\n\n=cut\n\nprint 1;\n",
}

func TestModulesOfPerl(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(logbook), build.Options{Inside: true})
	require.Len(t, s.Project.Libraries, 1)
	got := map[string]int{}
	for _, m := range s.Project.Libraries[0].Modules {
		got[m.Path] = m.Count()
	}
	assert.Equal(t, map[string]int{"Tide::Log": 2, "Tide::Log::Inner": 1, "Tide::Log::Line": 2, "Tide::Log::Format": 0, "log": 0}, got)
}

// References in POD lead to modules of the library, and to what these declare; others may come from anywhere.
func TestReferencesOfPerl(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(logbook), build.Options{Inside: true})
	led := map[string]string{}
	for _, m := range s.Project.Libraries[0].Modules {
		for _, f := range m.Files {
			if f.ModuleDoc == nil {
				continue
			}
			sections := s.Links.Comments.Of(m.Library.Habits, f, f.ModuleDoc)
			prose.Walk(sections.Body, func(n *prose.Node) bool {
				if n.Kind != prose.Reference && n.Kind != prose.Code {
					return true
				}
				name := n.Target + n.Text
				if n.Named != nil && len(n.Named.Path) > 0 {
					name += "/" + n.Named.Section
				}
				switch r := s.Links.ResolveNode(link.Scope{Module: m, File: f}, n); {
				case r.Target.Heading != "":
					led[name] = "heading " + r.Target.Heading + " of " + r.Target.Module.Path
				case r.Target.Module != nil:
					led[name] = "module " + r.Target.Module.Path
				case r.Target.Declaration != nil:
					led[name] = r.Target.Declaration.Module.Path + " " + r.Target.Declaration.Name
				case r.Outcome == link.External:
					led[name] = "outside"
				default:
					led[name] = ""
				}
				return n.Kind != prose.Reference
			})
		}
	}
	assert.Equal(t, map[string]string{
		"Tide::Log::Line": "module Tide::Log::Line", "Tide::Log::Lines": "", "Tide::Chart": "outside", "File::Spec": "outside", "Carp": "", "read": "Tide::Log read",
		"Tide::Log::Line/hour": "Tide::Log::Line hour", "Tide::Log::Line/METHODS": "module Tide::Log::Line", "Tide::Log::Format": "module Tide::Log::Format", "crontab(5)": "",
	}, led)
	assert.Equal(t, []string{"Tide::Log::Lines", "METHODS"}, leadNowhere(s), "a module has no such heading")
}

// References to sections lead to headings, to what is declared, and to headings above entries.
func TestHeadingsOfPerl(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(map[string]string{
		"lib/Quay.pm": "package Quay;\n\n=head1 NAME\n\nQuay - berths\n\n=head1 READING A LOG\n\nx\n\n=over\n\n=item -fast / -slow\n\nHow.\n\n=back\n\n=head1 METHODS\n\n=head2 $quay->moor($ship)\n\nMoors.\n\n=head2 DEPTH\n\nDeep.\n\n=cut\n\nsub moor { }\nuse constant DEPTH => 3;\n1;\n",
	}), build.Options{})
	m := s.Project.Libraries[0].Modules[0]
	for section, want := range map[string]string{
		"READING A LOG": "reading-a-log", "Reading a log": "reading-a-log", "-fast / -slow": "reading-a-log", "-fast": "reading-a-log", "METHODS": "-part-methods",
		"moor": "Quay.moor", "$quay->moor($ship)": "Quay.moor", "moor()": "Quay.moor", "DEPTH": "Quay.DEPTH", "moor a ship": "", "LICENCE": "",
	} {
		r := s.Links.ResolveName(link.Scope{Module: m, File: m.Files[0]}, prose.Name{Section: section}, link.Explicit)
		got := r.Target.Heading
		if r.Target.Declaration != nil {
			got = m.Path + "." + r.Target.Declaration.Name
		}
		assert.Equal(t, want, got, section)
		assert.Equal(t, want == "", r.NoHeading, section)
	}
	assert.Equal(t, "METHODS", s.Links.NearHeading(m, "METHOD"))
	assert.Empty(t, s.Links.NearHeading(m, "LICENCE"))
}

// Names in the code lead to subs and packages.
func TestUsesOfPerl(t *testing.T) {
	uses := usesIn(t, "lib/Tide/Log.pm", logbook)
	assert.Equal(t, []string{"add is Tide::Log add", "Tide::Log::Line::hour is Tide::Log::Line hour", "Tide::Log::Line is module Tide::Log::Line"}, uses)
	var kinds []model.Kind
	for _, m := range buildtest.Run(t, buildtest.Files(logbook), build.Options{}).Project.Libraries[0].Modules {
		for d := range m.Declarations {
			kinds = append(kinds, d.Kind())
		}
	}
	assert.Equal(t, []model.Kind{model.KindFunction, model.KindFunction, model.KindFunction, model.KindFunction, model.KindFunction}, kinds)
}

// A file of documentation beside a module describes what the module declares.
func TestTextsBesideModulesOfPerl(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(map[string]string{
		"lib/Quay.pm":  "package Quay;\n\n=head2 sink\n\nHere.\n\n=cut\n\nsub new { }\nsub moor { }\nsub depth { }\nsub silent { }\nsub sink { }\n\npackage Quay::Inner;\nsub moor { }\n1;\n",
		"lib/Quay.pod": "=head1 NAME\n\nQuay - berths\n\n=head1 METHODS\n\nAll die.\n\n=head2 new(%how)\n\nMakes one.\n\n=head2 moor\n\nMoors.\n\n=head2 depth\n\nDEPRECATED: use moor.\n\n=head2 sink\n\nThere.\n\n=head1 AUTHOR\n\nSomebody\n",
		"lib/Sea.pod":  "=head1 NAME\n\nSea - salt\n\n=head2 moor\n\nNothing is declared.\n",
	}), build.Options{})
	text := func(f *model.Facts, doc *model.Doc) string {
		var b strings.Builder
		for i, n := range s.Links.Comments.Of(s.Project.Libraries[0].Habits, f, doc).Body {
			if i > 0 {
				b.WriteString(" | ")
			}
			b.WriteString(prose.Plain(n.Children))
		}
		return b.String()
	}
	said, modules := map[string]string{}, map[string]string{}
	for _, m := range s.Project.Libraries[0].Modules {
		for _, doc := range m.Doc {
			modules[m.Path] += text(doc.File, doc.Doc)
		}
		for d := range m.Declarations {
			if of := s.Links.TextOf(d); of != nil {
				at := d.Speaks(model.Words)
				said[m.Path+" "+d.Name] = path.Base(at.File.Path) + ": " + text(at.File, at.Doc)
			}
		}
	}
	assert.Equal(t, map[string]string{
		"Quay new": "Quay.pod: Makes one.", "Quay moor": "Quay.pod: Moors.", "Quay depth": "Quay.pod: ", "Quay sink": "Quay.pm: Here.",
	}, said)
	assert.Equal(t, map[string]string{"Quay": "Berths | METHODS | sink | There. | AUTHOR | Somebody", "Sea": "Salt | moor | Nothing is declared."}, modules, "what has a text keeps it, and the other stays where it was")
	assert.True(t, s.Project.Libraries[0].Modules[0].Find("depth").Deprecated())
	group := s.Project.Libraries[0].Library.Groups["Quay METHODS"]
	require.NotNil(t, group.Group)
	assert.Equal(t, "All die.", group.Doc.Text)
}

// A remark before the name of a package hides it from users, unless some file shows or describes it.
func TestHiddenPackages(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(map[string]string{
		"lib/Tide/Log.pm":   "package Tide::Log;\nsub a { }\npackage # hide from PAUSE\n  Tide::Log::Inner;\nsub b { }\npackage\n  Tide::Log::Next;\nsub c { }\npackage # here too\n Tide::Other;\nsub d { }\n1;\n",
		"lib/Tide/Other.pm": "package Tide::Other;\nsub x { }\n1;\n",
		"lib/Tide/Own.pm":   "package # hidden\n  Tide::Own;\nsub x { }\n1;\n",
		"lib/Tide/Told.pm":  "package # hidden\n  Tide::Told;\nsub x { }\n1;\n\n=head1 NAME\n\nTide::Told - tells\n",
	}), build.Options{})
	var shown []string
	for _, m := range s.Project.Libraries[0].Modules {
		if s.Links.ModuleInReach(m) {
			shown = append(shown, m.Path)
		}
	}
	assert.Equal(t, []string{"Tide::Log", "Tide::Log::Next", "Tide::Other", "Tide::Told"}, shown)
}
