package link_test

import (
	"io/fs"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/settings"
	"codrel/internal/symbols"
)

// pilot is a project that uses another one, whose file of names is given.
func pilot(t testing.TB, table string) *build.Snapshot {
	t.Helper()
	set := settings.Default()
	set.Elsewhere = []settings.Elsewhere{{Symbols: settings.Word{Text: "tidebook"}, Site: "https://tidebook.example/docs/"}}
	texts := `{"codrel":"texts","version":1,"texts":{"tidebook.example/tide":{"Predictor.At":"At is the height; see [Curve]."}}}`
	files := map[string]string{
		"go.mod": "module pilot.example/pilot\n",
		"a.go":   "// Package pilot uses [tide.Predictor].\npackage pilot\n\nimport \"tidebook.example/tide\"\n\n// Gate is one.\ntype Gate struct{ tide.Curve }\n\nfunc (Gate) At(hour int) tide.Height { return 0 }\n\nfunc (Gate) Name() string { return \"\" }\n",
		"b.py":   "\"\"\"See :class:`tidebook.Client`.\"\"\"\nfrom tidebook import Client\nclass Calm(Client):\n    def close(self): pass\n",
	}
	return buildtest.Run(t, buildtest.Files(files), build.Options{Settings: set, Folder: "pilot", Inside: true, Outside: build.Outside{Read: func(path string) ([]byte, error) {
		switch path {
		case "tidebook/symbols.json":
			return []byte(table), nil
		case "tidebook/symbols-texts.json":
			return []byte(texts), nil
		}
		return nil, fs.ErrInvalid
	}}})
}

const tidebookNames = `{"codrel":"symbols","version":1,"name":"Tidebook","libraries":[
	{"name":"engine","language":"go","modules":[{"path":"tidebook.example/tide","names":{"type":["Height"],"function":["New"]},"gone":["New"],"holders":[
		{"name":"Predictor","kind":"interface","asks":{"At":"(int)(tidebook.example/tide#Height)","Name":"()(string)"},"names":{"method":["At","Name"]}},
		{"name":"Curve","kind":"struct","bases":["#Base"],"names":{"method":["Low"]}},
		{"name":"Base","kind":"struct","open":true,"names":{"field":["Age"]}}]}]},
	{"name":"python","language":"python","modules":[{"path":"tidebook","gives":{"Client":"tidebook.client#Client"}},
		{"path":"tidebook.client","holders":[{"name":"Client","kind":"class","names":{"method":["close"]}}]}]}]}`

func TestRelationsElsewhere(t *testing.T) {
	s := pilot(t, tidebookNames)
	gate := declared(t, s, "go", "Gate")
	r := s.Links.Relations(gate)
	assert.Equal(t, "Predictor", paths(r.Implements), "by signatures that name types of the other project")
	assert.Equal(t, "Curve", paths(r.Embeds))
	assert.Equal(t, "Client", paths(s.Links.Relations(declared(t, s, "python", "Calm")).Extends), "through what a module gives on")
	assert.Equal(t, "Client.close", paths(s.Links.Relations(declared(t, s, "python", "Calm.close")).Overrides))

	at := declared(t, s, "go", "Gate.At")
	of := s.Links.TextOf(at)
	require.NotNil(t, of)
	assert.Equal(t, "Predictor.At", of.Path())
	assert.Equal(t, "Tidebook", of.Module.Library.Elsewhere.Project)
	nodes, from := s.Links.Summary(at)
	assert.NotEmpty(t, nodes)
	assert.Equal(t, "Curve", s.Links.Resolve(from, "Curve", link.Bracketed).Target.Declaration.Path(), "names in its text mean what they mean there")

	scope := link.ScopeOf(gate)
	for written, want := range map[string]string{
		"tide.Curve.Low": "Curve.Low", "tide.Curve.Age": "Base.Age", "Gate.Low": "Curve.Low", "Gate.Age": "Base.Age", "engine:Height": "Height",
		"python:Client.close": "Client.close", "tidebook.client.Client": "Client", "tide.Gone": "", "tide.Curve.Whatever": "", "engine:Client": "",
	} {
		got := ""
		if d := s.Links.Resolve(scope, written, link.Explicit).Target.Declaration; d != nil {
			got = d.Path()
		}
		assert.Equal(t, want, got, written)
	}
	assert.True(t, s.Links.Resolve(scope, "tide.New", link.Explicit).Target.Declaration.Deprecated())
	assert.Empty(t, s.Links.Imports(gate.Module), "other projects' modules are no part of the graph")
	assert.NotContains(t, s.Links.Symbols().Libraries[0].Modules[0].Tops(), "Predictor", "a site makes its own names known")
	assert.Equal(t, []string{"tidebook.example/tide#Curve"}, holder(t, s, "Gate"))
	for _, lib := range s.Project.Libraries {
		assert.Nil(t, lib.Elsewhere)
	}
}

const pier = `<doc><assembly><name>Pier</name></assembly><members>
<member name="T:Pier.Dock` + "`1" + `"><summary>A dock of things.</summary><typeparam name="T">Of what.</typeparam></member>
<member name="M:Pier.Dock` + "`1" + `.Moor(` + "`0" + `,System.Int32)"><summary>For hours.</summary></member>
<member name="M:Pier.Dock` + "`1" + `.Moor(System.String)"><summary>For ever.</summary></member>
<member name="T:Pier.Dock"><summary>Makes docks.</summary></member>
<member name="M:Pier.ITold.Tell(System.String)"><summary>Tells.</summary></member>
</members></doc>`

// What a compiler's documentation file says lends texts, by forms, and means names.
func TestDocumentationFile(t *testing.T) {
	set := settings.Default()
	set.Elsewhere = []settings.Elsewhere{{XML: settings.Word{Text: "lib/Pier.xml"}}, {Modules: "Pier", Page: "https://pier.example/{module}/{name}"}}
	s := buildtest.Run(t, buildtest.Files(map[string]string{"a.cs": `using Pier;
namespace Tide {
/// <summary>A berth.</summary>
public class Berth : Dock<Vessel>, ITold {
 public override void Moor(Vessel what, int hours) {}
 public override void Moor(string? what) {}
 public void Tell(string? what) {}
}
/// <summary>What comes.</summary>
public class Vessel {} }
`}), build.Options{Settings: set, Folder: "tide", Outside: build.Outside{Read: func(path string) ([]byte, error) {
		if path == "lib/Pier.xml" {
			return []byte(pier), nil
		}
		return nil, fs.ErrNotExist
	}}})
	assert.Empty(t, s.Findings)
	moor := declared(t, s, "csharp", "Berth.Moor")
	var texts []string
	for _, form := range s.Links.FormsInReach(moor) {
		text := s.Links.TextOfForm(moor, &form)
		require.NotNil(t, text.Doc)
		texts = append(texts, text.Doc.Text+" of "+text.Of.Path()+" in "+text.Of.Module.Library.Elsewhere.Project)
	}
	assert.Equal(t, []string{"<summary>For hours.</summary> of Dock.Moor in Pier", "<summary>For ever.</summary> of Dock.Moor in Pier"}, texts)
	assert.Equal(t, "ITold", paths(s.Links.Relations(declared(t, s, "csharp", "Berth")).Implements))

	scope := link.ScopeOf(declared(t, s, "csharp", "Berth"))
	for written, arity := range map[string]int32{"Dock": 0, "Dock<T>": 1, "Pier.Dock<T>": 1} {
		to := s.Links.Resolve(scope, written, link.MayBeExternal).Target
		require.NotNil(t, to.Declaration, written)
		assert.Equal(t, arity, to.Declaration.Arity(), written)
		assert.True(t, s.Links.Pageless(to))
		assert.Equal(t, "https://pier.example/Pier/Dock", s.Links.OutsideAddress(to))
	}
	assert.False(t, s.Links.Pageless(link.Target{Declaration: moor}))
	assert.Equal(t, link.External, s.Links.Resolve(scope, "Undocumented", link.MayBeExternal).Outcome, "only what has a text is in the file")
}

// Types that are told apart by how many type parameters they have are so over projects.
func TestArityElsewhere(t *testing.T) {
	first := buildtest.Run(t, buildtest.Files(map[string]string{"a.cs": `namespace Pier {
/// <summary>a</summary>
public class Dock { }
/// <summary>a</summary>
public class Dock<T> {
 /// <summary>One.</summary>
 public virtual void Moor(int a) {}
 /// <summary>Two.</summary>
 public virtual void Moor(string a) {}
}
/// <summary>a</summary>
public class Below : Dock<int> { } }
`}), build.Options{Folder: "pier"})
	names, err := symbols.Write(first.Links.Symbols())
	require.NoError(t, err)
	texts, err := symbols.WriteTexts(first.Links.MemberTexts())
	require.NoError(t, err)
	set := settings.Default()
	set.Elsewhere = []settings.Elsewhere{{Symbols: settings.Word{Text: "pier"}, Site: "https://pier.example/"}}
	s := buildtest.Run(t, buildtest.Files(map[string]string{"a.cs": `using Pier;
namespace Tide {
/// <summary>a</summary>
public class Berth : Below {
 public override void Moor(string a) {}
} }
`}), build.Options{Settings: set, Folder: "tide", Outside: build.Outside{Read: func(path string) ([]byte, error) {
		switch path {
		case "pier/symbols.json":
			return names, nil
		case "pier/symbols-texts.json":
			return texts, nil
		}
		return nil, fs.ErrInvalid
	}}})
	assert.Empty(t, s.Findings)
	moor := declared(t, s, "csharp", "Berth.Moor")
	form := s.Links.FormsInReach(moor)[0]
	text := s.Links.TextOfForm(moor, &form)
	require.NotNil(t, text.Doc)
	assert.Equal(t, "<summary>Two.</summary>", text.Doc.Text, "the text is that of the form")
	assert.EqualValues(t, 1, text.Of.Parent.Arity())
}

// holder is the bases that the project's own file of names gives a type.
func holder(t *testing.T, s *build.Snapshot, name string) []string {
	t.Helper()
	for _, h := range s.Links.Symbols().Libraries[0].Modules[0].Holders {
		if h.Name == name {
			var out []string
			for _, b := range h.Bases {
				out = append(out, b[len("engine:"):])
			}
			return out
		}
	}
	return nil
}

// Whatever a file of names says, asking for its names ends, and ends well.
func FuzzElsewhere(f *testing.F) {
	f.Add(tidebookNames)
	f.Add(`{"codrel":"symbols","version":1,"libraries":[{"language":"go","modules":[{"path":"tidebook.example/tide","holders":[{"name":"Curve","kind":"struct","bases":["#Curve","#B"]},{"name":"B","kind":"struct","bases":["#Curve",":#","a:b#c"]}],"gives":{"X":"#X","Y":"tidebook.example/tide#"}}]}]}`)
	f.Fuzz(func(t *testing.T, table string) {
		s := pilot(t, table)
		gate := declared(t, s, "go", "Gate")
		for _, written := range []string{"tide.Curve", "tide.Curve.Low.At", "Gate.Age", "X.Y", "engine:Height", "tidebook.Client", "tide"} {
			r := s.Links.Resolve(link.ScopeOf(gate), written, link.Explicit)
			if d := r.Target.Declaration; d != nil {
				_ = s.Links.TextOf(d)
				assert.NotEmpty(t, d.Occurrences)
				assert.Equal(t, model.Public, s.Links.Visibility(d))
			}
		}
		_ = s.Links.Symbols()
	})
}
