package site_test

import (
	"bytes"
	"encoding/json"
	"maps"
	"slices"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/lang"
	"codrel/internal/lang/madeup"
	"codrel/internal/model"
	"codrel/internal/render/plan"
	"codrel/internal/render/sink"
	"codrel/internal/render/site"
	"codrel/internal/render/stream"
	"codrel/internal/settings"
)

// madeupFiles have all that the made-up language can do and others cannot.
var madeupFiles = fstest.MapFS{
	"port.mad": {Data: []byte(`/ All of the port.
space Port
/ A place.
type Place
/ The tides.
space Port.Tides
/ A berth with two parameters. See {@link Quay}, {@link Port.Place} and {@link late}; the
/ macro is {@link macro:Berth}, the value {@link constant:Berth}, the type {@link class:Berth}.
type Berth<A, B>: Place
  section slots
  / How deep.
  field depth: int
  / Moors by name.
  / @param vessel Which.
  fn moor(vessel: text)
  / Moors at a time.
  / @param vessel Which.
  / @param wrong Not there.
  fn moor(vessel: text, at: int = 3): Quay
/ The same name without parameters. See {@link Berth<A, B>}.
type Berth
/ As a value.
value Berth: int
/ As a macro.
macro Berth(x)
/ With a dot.
type "a.b"
  / Inside.
  fn inside()
/ On deep water.
fn sound(a: int) when deep
/ On shallow water.
fn sound(a: int) when shallow
type Gate
  / Opens with a key.
  hidden fn open(secret: Key)
  / Opens at a time.
  fn open(at: int)
  / Opens at high water.
  fn open(at: text) when deep
  fn open(at: text, wide: int)
type Lock: Tides::Gate
  / Opens slowly.
  fn open(at: int)
  fn open(at: text)
  fn open()
/ Only Gate takes it, where users do not see.
type Key
/ Takes something else.
type Sluice: Gate
  / Opens for a quay.
  fn open(quay: Quay)
fn late(): Port::Tides::Quay
fn soon() text common/tides
fn once(): Quay text common/tides
nonsense here
`)},
	"quay.mad": {Data: []byte(`space Port.Tides
/ A quay.
part type Quay
  / Long.
  field length: int
for Quay as Show
  / Shown.
  fn text()
for Quay as Debug
  / For who debugs.
  fn text()
`)},
	"more.mad": {Data: []byte("space Port.Tides\npart type Quay\n  / Wide.\n  field width: int\n")},
	"tell.mad": {Data: []byte("/ Told in another file.\nabout Port.Tides.late\n/ In common.\nabout common/tides\n")},
}

func madeUp(t *testing.T) (*build.Snapshot, *sink.Memory) {
	t.Helper()
	s, err := build.Run(t.Context(), madeupFiles, build.Options{Settings: &settings.Settings{}, FrontEnds: []lang.FrontEnd{madeup.FrontEnd{}}, Folder: "port", Inside: true})
	require.NoError(t, err)
	var m sink.Memory
	p := plan.New(s.Links, plan.Options{Source: plan.FullSource, Findings: -1})
	require.NoError(t, site.New(p, site.Options{FrontEnds: s.FrontEnds, Files: madeupFiles, Workers: 2}).Write(t.Context(), &m))
	return s, &m
}

// A language with all that others lack goes through reading, joining, linking, checks, pages
// and stream, and no package has a case for it.
func TestMadeUpLanguage(t *testing.T) {
	s, m := madeUp(t)
	requireSound(t, asFS(m))

	var modules []string
	for _, mod := range s.Project.Libraries[0].Modules {
		modules = append(modules, mod.Path)
	}
	assert.Equal(t, []string{"Port", "Port.Tides", "tell"}, modules, "what occurrences say, not files")

	var out bytes.Buffer
	reach, _ := model.ParseReach("private")
	require.NoError(t, stream.Write(&out, s.Project, stream.Want{Reach: reach}))
	var ids []string
	for line := range strings.Lines(out.String()) {
		var symbol struct{ ID, Module, Section string }
		require.NoError(t, json.Unmarshal([]byte(line), &symbol))
		assert.Equal(t, strings.Contains(symbol.ID, "Berth-2."), symbol.Section == "slots", symbol.ID)
		ids = append(ids, strings.TrimPrefix(symbol.ID, "port/"))
	}
	slices.Sort(ids)
	assert.Equal(t, []string{
		"Port#Place",
		"Port.Tides#Berth", "Port.Tides#Berth-2", "Port.Tides#Berth-2.depth", "Port.Tides#Berth-2.moor", "Port.Tides#Berth-2.moor",
		"Port.Tides#Gate", "Port.Tides#Gate.open", "Port.Tides#Gate.open", "Port.Tides#Gate.open", "Port.Tides#Gate.open", "Port.Tides#Key",
		"Port.Tides#Lock", "Port.Tides#Lock.open", "Port.Tides#Lock.open", "Port.Tides#Lock.open",
		"Port.Tides#Quay", "Port.Tides#Quay", "Port.Tides#Quay.Debug:text", "Port.Tides#Quay.Show:text", "Port.Tides#Quay.length", "Port.Tides#Quay.width",
		"Port.Tides#Sluice", "Port.Tides#Sluice.open",
		"Port.Tides#a.b", "Port.Tides#a.b.inside", "Port.Tides#late", "Port.Tides#macro:Berth", "Port.Tides#once", "Port.Tides#soon", "Port.Tides#sound", "Port.Tides#sound", "Port.Tides#value:Berth",
	}, ids)

	const folder = "reference/port/Port.Tides/"
	page := func(name string) string {
		require.Contains(t, m.Paths(), folder+name)
		return string(m.Get(folder + name))
	}
	berth := page("Berth-2.html")
	assert.Contains(t, text(berth), "A berth with two parameters.")
	assert.Contains(t, berth, `id="depth"`)
	assert.Contains(t, berth, `<a href="Quay.html">`)
	assert.Contains(t, page("Berth.html"), `See <a href="Berth-2.html"><code translate="no">Berth&lt;A, B&gt;</code></a>`, "the one with as many type parameters")
	assert.Contains(t, berth, `<a href="index.html#macro:Berth">`, "the one of a name space")
	assert.Contains(t, berth, `<a href="index.html#value:Berth">`, "the one of a kind")
	assert.Contains(t, berth, `<a href="../Port/Place.html">`, "a base in another module of the file")
	assert.Contains(t, text(page("Berth.html")), "The same name without parameters.")
	assert.Contains(t, page("a~2e~b.html"), `id="inside"`)
	quay := page("Quay.html")
	for _, id := range []string{"length", "width", "Show:text", "Debug:text"} {
		assert.Contains(t, quay, `id="`+id+`"`, "parts, and what implements something")
	}
	module := page("index.html")
	assert.Contains(t, text(module), "The tides.")
	assert.Contains(t, module, `id="value:Berth"`)
	assert.Contains(t, module, `id="macro:Berth"`)
	assert.Contains(t, module, ">Macros</h2>", "a macro is no method")
	assert.Contains(t, text(module), "Told in another file.")
	assert.Equal(t, 2, strings.Count(module, "<p>In common.</p>"), "a text that two declarations name")
	assert.Contains(t, text(module), "On deep water.")
	assert.Contains(t, text(module), "On shallow water.")

	var found []string
	for _, f := range s.Findings {
		found = append(found, f.Rule+" "+f.Place.File+" "+f.Arg("name")+f.Arg("parameter"))
	}
	said := strings.Join(found, "\n")
	assert.Contains(t, said, "unreadable-source port.mad")
	assert.Contains(t, said, "phantom-parameter port.mad Berth.moorwrong", "in the comment of the second overload")
	assert.Contains(t, said, "undocumented port.mad Gate.open", "one overload has no comment")
	gate := text(page("Gate.html"))
	for _, form := range []string{"open(at: int)", "open(at: text)", "open(at: text, wide: int)", "Opens at a time.", "Opens at high water."} {
		assert.Contains(t, gate, form, "a condition makes no builds of overloads")
	}
	assert.Contains(t, page("index.html"), `id="late()"`, "the address of an only form, which stays when another comes")
	lock := text(page("Lock.html"))
	assert.Contains(t, lock, "Opens slowly.")
	assert.Contains(t, lock, "Opens at high water.", "the text of the form whose place the second one takes")
	assert.NotContains(t, lock, "Opens at a time.", "its place is taken by one with a text")
	assert.Equal(t, 2, strings.Count(said, "undocumented port.mad"+" Gate.open")+strings.Count(said, "undocumented port.mad Lock.open"), "one form of each has no text at all")
	assert.Contains(t, lock, "Text inherited from Gate.open")
	tides := s.Project.Libraries[0].Modules[1]
	assert.Empty(t, s.Links.Relations(tides.Lookup("Key")).TakenBy, "by an overload that is kept from users")
	assert.Len(t, s.Links.Relations(tides.Lookup("Lock.open")).Overrides, 1)
	assert.Empty(t, s.Links.Relations(tides.Lookup("Sluice.open")).Overrides, "an overload takes the place of one with the same parameters")
	assert.NotContains(t, gate, "secret", "an overload that is kept from users")
	assert.NotContains(t, gate, "with a key")
}

// A saved file whose comments describe what others declare changes what these say.
func TestMadeUpLanguageRelinks(t *testing.T) {
	s, _ := madeUp(t)
	files := maps.Clone(madeupFiles)
	files["tell.mad"] = &fstest.MapFile{Data: []byte("/ Told anew.\nabout Port.Tides.late\n")}
	again, err := build.Update(t.Context(), files, s, "tell.mad")
	require.NoError(t, err)
	tides := again.Project.Libraries[0].Modules[1]
	doc, file := tides.Lookup("late").Doc()
	require.NotNil(t, doc)
	assert.Equal(t, "Told anew.", doc.Text)
	assert.Equal(t, "tell.mad", file.Path)
	assert.False(t, tides.Lookup("soon").Documented(), "the text that it names is gone")
}
