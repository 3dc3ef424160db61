package xmldoc_test

import (
	"bytes"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/symbols"
	"codrel/internal/xmldoc"
)

const pier = `<?xml version="1.0"?>
<doc>
    <assembly>
        <name>Pier</name>
    </assembly>
    <members>
        <member name="T:Pier.Dock` + "`1" + `">
            <summary>
            A dock of <typeparamref name="TVessel"/>.
              <c>indented</c>
            </summary>
            <typeparam name="TVessel">What lies in it.</typeparam>
        </member>
        <member name="M:Pier.Dock` + "`1" + `.Moor(` + "`0" + `,System.Nullable{System.Int32})">
            <summary>For hours.</summary>
            <param name="what">Which.</param>
            <param name="hours">How long.</param>
        </member>
        <member name="M:Pier.Dock` + "`1" + `.Moor(` + "``0[]" + `)"><summary>All.</summary></member>
        <member name="M:Pier.Dock` + "`1" + `.#ctor"><summary>Makes one.</summary></member>
        <member name="M:Pier.Dock` + "`1" + `.Pier#IShut#Shut"><summary>Not by this name.</summary></member>
        <member name="P:Pier.Dock` + "`1" + `.Item(System.Int32)"><summary>By number.</summary></member>
        <member name="F:Pier.Dock` + "`1" + `.Part.Of"><summary>In a type without a text.</summary></member>
        <member name="E:Pier.Dock` + "`1" + `.Full"><summary>It is full.</summary></member>
        <member name="T:Pier.Dock"><summary>Makes docks.</summary></member>
        <member name="M:Pier.Dock.op_Addition(Pier.Dock,Pier.Dock)"><summary>Both.</summary></member>
        <member name="T:Plain"><summary>In no namespace.</summary></member>
        <!-- Badly formed XML comment ignored for member "T:Bad" -->
        <member><summary>Nobody's.</summary></member>
        <member name="nonsense">No identifier.</member>
    </members>
</doc>
`

func TestNames(t *testing.T) {
	f, err := xmldoc.Parse(pier)
	require.NoError(t, err)
	table, texts := f.Names()
	assert.Equal(t, "Pier", table.Name)
	require.Len(t, table.Libraries, 1)
	lib := table.Libraries[0]
	assert.Equal(t, "csharp", lib.Language)
	require.Len(t, lib.Modules, 2)
	assert.Equal(t, "Pier", lib.Modules[0].Path)
	assert.Equal(t, "global", lib.Modules[1].Path)
	assert.Equal(t, []string{"Plain"}, lib.Modules[1].Tops())

	holders := lib.Modules[0].Holders
	require.Len(t, holders, 2)
	assert.Equal(t, 0, holders[0].Arity)
	assert.Equal(t, map[string][]string{"operator": {"operator +"}}, holders[0].Names)
	dock := holders[1]
	assert.Equal(t, symbols.Holder{
		Name: "Dock", Kind: "class", Arity: 1, Open: true,
		Scope: symbols.Scope{
			Names: map[string][]string{"method": {"Moor"}, "constructor": {"Dock"}, "indexer": {"this[]"}, "event": {"Full"}},
			Forms: map[string][]symbols.Form{"Moor": {{"what:TVessel", "hours:int?"}, {":``0[]"}}},
			Holders: []symbols.Holder{{
				Name: "Part", Kind: "class", Open: true, Scope: symbols.Scope{Names: map[string][]string{"field": {"Of"}}},
			}},
		},
	}, dock)
	assert.Equal(t, map[string]map[string]string{
		"Pier": {
			"Dock": "<summary>Makes docks.</summary>", "Dock.operator +": "<summary>Both.</summary>", "Dock.operator +(Dock,Dock)": "<summary>Both.</summary>",
			"Dock-1":                    "<summary>\nA dock of <typeparamref name=\"TVessel\"/>.\n  <c>indented</c>\n</summary>\n<typeparam name=\"TVessel\">What lies in it.</typeparam>",
			"Dock-1.Moor":               "<summary>For hours.</summary>\n<param name=\"what\">Which.</param>\n<param name=\"hours\">How long.</param>",
			"Dock-1.Moor(TVessel,int?)": "<summary>For hours.</summary>\n<param name=\"what\">Which.</param>\n<param name=\"hours\">How long.</param>",
			"Dock-1.Moor(``0[])":        "<summary>All.</summary>", "Dock-1.Dock": "<summary>Makes one.</summary>", "Dock-1.Dock()": "<summary>Makes one.</summary>",
			"Dock-1.this[]": "<summary>By number.</summary>", "Dock-1.this[](int)": "<summary>By number.</summary>",
			"Dock-1.Part.Of": "<summary>In a type without a text.</summary>", "Dock-1.Full": "<summary>It is full.</summary>",
		},
		"global": {"Plain": "<summary>In no namespace.</summary>"},
	}, texts)
}

func TestWrittenIsReadAgain(t *testing.T) {
	f, err := xmldoc.Parse(pier)
	require.NoError(t, err)
	f.Assembly = "A & <B>"
	var out bytes.Buffer
	require.NoError(t, xmldoc.Write(&out, f))
	again, err := xmldoc.Parse(out.String())
	require.NoError(t, err)
	assert.Equal(t, f, again)
	windows, err := xmldoc.Parse(strings.ReplaceAll(out.String(), "\n", "\r\n"))
	require.NoError(t, err)
	assert.Equal(t, f, windows)
}

func TestBadFiles(t *testing.T) {
	foreign := "it is no documentation file of a C# compiler: those begin with <doc> and have <members>"
	for text, want := range map[string]string{
		"": foreign, "no XML": foreign, "<html><body/></html>": foreign, "<doc></doc>": foreign, "{}": foreign, "\x00\x01": foreign,
		pier[:400]:                   "it is cut short or damaged at line",
		"<doc>\n<members>\n<member ": "it is cut short or damaged at line 3",
		"<doc><members></doc>":       "it is cut short or damaged at line 1",
		"<doc><members><member name='T:A'><b></member></members></doc>": "it is cut short or damaged",
	} {
		_, err := xmldoc.Parse(text)
		assert.ErrorContains(t, err, want, "%.40s", text)
	}
}

func TestSound(t *testing.T) {
	for text, want := range map[string]bool{
		"": true, "words": true, "<summary>a &lt; b</summary><param name='x'/>": true, "<![CDATA[<x>]]>": true,
		"<summary>": false, "</member><member>": false, "a & b": false, "<b a></b>": false, "</member>": false, "\x01": false,
	} {
		assert.Equal(t, want, xmldoc.Sound(text), text)
	}
}

func FuzzParse(f *testing.F) {
	f.Add(pier)
	f.Add("<doc><members><member name='M:a.b``9(c{d,`0},'>x</member></members></doc>")
	f.Fuzz(func(t *testing.T, text string) {
		file, err := xmldoc.Parse(text)
		if err != nil {
			return
		}
		table, texts := file.Names()
		for _, m := range table.Libraries[0].Modules {
			assert.NotEmpty(t, m.Path)
			assert.Contains(t, texts, m.Path)
		}
	})
}
