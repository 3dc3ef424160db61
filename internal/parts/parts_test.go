package parts_test

import (
	"bytes"
	"fmt"
	"reflect"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/finding"
	"codrel/internal/lang/langtest"
	"codrel/internal/lang/script"
	"codrel/internal/model"
	"codrel/internal/parts"
	"codrel/internal/source"
)

const text = "type Berth = { depth: number }\n// of the quay\nfunction moor(vessel, at) { return vessel.name }\n"

// fill sets every field of a value to something that is not zero, however deep.
func fill(v reflect.Value, n *int) {
	*n++
	switch v.Kind() {
	case reflect.Bool:
		v.SetBool(true)
	case reflect.Int, reflect.Int32, reflect.Int64:
		v.SetInt(int64(1 + *n%5))
	case reflect.Uint8:
		v.SetUint(1)
	case reflect.String:
		v.SetString(fmt.Sprint("text ", *n))
	case reflect.Slice:
		list := reflect.MakeSlice(v.Type(), 2, 2)
		fill(list.Index(0), n)
		fill(list.Index(1), n)
		v.Set(list)
	case reflect.Pointer:
		v.Set(reflect.New(v.Type().Elem()))
		fill(v.Elem(), n)
	case reflect.Struct:
		switch v.Interface().(type) {
		case source.Span:
			v.Set(reflect.ValueOf(source.NewSpan(1+*n%20, 30+*n%20)))
			return
		case source.Lines:
			v.Set(reflect.ValueOf(source.NewLines(text)))
			return
		case model.Uses:
			var uses model.Uses
			uses.Add(model.Use{Form: model.UseBare, Span: source.NewSpan(5, 10)})
			uses.Add(model.Use{Form: model.UseMember, Span: source.NewSpan(12, 13), Type: source.NewSpan(2, 4)})
			v.Set(reflect.ValueOf(uses))
			return
		}
		for i := range v.NumField() {
			if v.Type().Field(i).IsExported() {
				fill(v.Field(i), n)
			}
		}
	default:
		panic("nothing to fill a " + v.Kind().String() + " with")
	}
}

// everything is facts in which nothing is left out, and that fit their text.
func everything() *model.Facts {
	f, n := &model.Facts{}, 0
	fill(reflect.ValueOf(f).Elem(), &n)
	f.Path, f.Language, f.Text, f.Lines = "port/berth.js", "javascript", text, source.NewLines(text)
	tokens := func() model.Tokens {
		packed := model.AppendToken(nil, text, model.TokenKeyword, text[0:4])
		return model.Tokens(model.AppendToken(packed, text, model.TokenName, "a text of its own"))
	}
	f.Occurrences[0].Parent, f.Occurrences[1].Parent = -1, 0
	f.Occurrences[1].GroupDoc = f.Occurrences[0].GroupDoc
	for i := range f.Occurrences {
		o := &f.Occurrences[i]
		o.Signature, o.Callable.Receiver = tokens(), tokens()
		for _, list := range [][]model.Param{o.Callable.Params, o.Callable.Results, o.Extra.TypeParams} {
			for k := range list {
				list[k].Type = tokens()
			}
		}
		for k := range o.Extra.Bases {
			o.Extra.Bases[k].Type = tokens()
		}
	}
	for i := range f.Given {
		f.Given[i].Of, f.Given[i].Bounds, f.Given[i].Base.Type = tokens(), tokens(), tokens()
	}
	return f
}

func written(t *testing.T, h parts.Header, files ...*parts.File) []byte {
	t.Helper()
	var out bytes.Buffer
	w, err := parts.NewWriter(&out, h)
	require.NoError(t, err)
	for _, f := range files {
		require.NoError(t, w.File(f))
	}
	require.NoError(t, w.Close())
	return out.Bytes()
}

func read(t *testing.T, name string, data []byte) *parts.Part {
	t.Helper()
	p, err := parts.Read(t.Context(), name, data, 2)
	require.NoError(t, err)
	return p
}

var port = parts.Header{Program: "0.1.0", Libraries: []parts.Library{{Name: "port", Language: "javascript", Root: "."}}}

// Nothing of the facts is lost: a field that is added to them and not written fails here.
func TestNothingIsLost(t *testing.T) {
	f := everything()
	data := written(t, port, &parts.File{Path: f.Path, Library: "port", Size: int64(len(text)), Sum: "00", StreamOnly: true, Facts: f})
	p := read(t, "a.jsonl", data)
	require.Len(t, p.Files, 1)
	got := p.Files[0]
	assert.Equal(t, f, got.Facts)
	assert.Same(t, got.Facts.Occurrences[0].GroupDoc, got.Facts.Occurrences[1].GroupDoc, "a comment on a group is one comment")
	assert.NotSame(t, got.Facts.Occurrences[0].Doc, got.Facts.Occurrences[1].Doc)
	assert.Equal(t, []any{"port/berth.js", "port", int64(len(text)), "00", true}, []any{got.Path, got.Library, got.Size, got.Sum, got.StreamOnly})
	assert.Equal(t, port.Libraries, p.Libraries)
}

func TestFactsOfCode(t *testing.T) {
	code := "/** A berth. */\nexport class Berth {\n  /** @param {Vessel} v who lies there */\n  moor(v, ...rest) { return v.name }\n}\nimport { Tide as T } from './tide.js'\n"
	f := langtest.Read(script.FrontEnd{}, "port/berth.js", []byte(code))
	p := read(t, "a.jsonl", written(t, port, &parts.File{Path: f.Path, Library: "port", Facts: f}))
	assert.Equal(t, f, p.Files[0].Facts)
}

func TestUnreadableFile(t *testing.T) {
	problem := finding.Finding{Rule: finding.UnreadableSource, Place: finding.Place{File: "x.js"}, Arguments: []finding.Argument{{Name: "problem", Value: "gone"}}}
	p := read(t, "a.jsonl", written(t, port, &parts.File{Path: "x.js", Library: "port", Problems: []finding.Finding{problem}}))
	assert.Nil(t, p.Files[0].Facts)
	assert.Equal(t, []finding.Finding{problem}, p.Files[0].Problems)
}

func TestWrongStreams(t *testing.T) {
	whole := string(written(t, port, &parts.File{Path: "a.js", Library: "port", Facts: everything()}, &parts.File{Path: "b.js", Library: "port"}))
	lines := strings.SplitAfter(whole, "\n")
	for what, c := range map[string]struct{ data, says string }{
		"empty":              {"", "a.jsonl: it is empty"},
		"foreign":            {"{\"file\":\"a.go\"}\n", "a.jsonl: it is no stream of facts"},
		"no JSON":            {"hello\n", "a.jsonl: it is no stream of facts"},
		"another version":    {"{\"facts\":2,\"program\":\"9.0\"}\n", "Codrel 9.0 wrote it in version 2 of its form, and this one reads version 1"},
		"cut behind a line":  {lines[0] + lines[1], "a.jsonl: it is cut short"},
		"cut in a line":      {whole[:len(whole)/2], "a.jsonl: it is cut short"},
		"only the beginning": {lines[0], "a.jsonl: it is cut short"},
		"a line is missing":  {lines[0] + lines[2] + lines[3], "a.jsonl: it is damaged: its contents do not have the sum"},
		"a byte is another":  {strings.Replace(whole, "quay", "quai", 1), "a.jsonl: it is damaged"},
	} {
		_, err := parts.Read(t.Context(), "a.jsonl", []byte(c.data), 1)
		var wrong *parts.Error
		require.ErrorAs(t, err, &wrong, what)
		assert.Contains(t, err.Error(), c.says, what)
	}
}

// What has the right sum may still be made up: facts that do not fit their text are refused.
func TestFactsThatDoNotFit(t *testing.T) {
	for what, spoil := range map[string]func(*model.Facts){
		"a span":           func(f *model.Facts) { f.Occurrences[0].Span.End = 5000 },
		"a name's span":    func(f *model.Facts) { f.Occurrences[1].NameSpan.End = 5000 },
		"a parent":         func(f *model.Facts) { f.Occurrences[1].Parent = 2 },
		"a circle":         func(f *model.Facts) { f.Occurrences[0].Parent = 1 },
		"a signature":      func(f *model.Facts) { f.Occurrences[0].Signature = "\x01\x7f\x7f" },
		"half a signature": func(f *model.Facts) { f.Occurrences[0].Signature = "\x81\x05ab" },
		"a kind":           func(f *model.Facts) { f.Occurrences[0].Kind = 200 },
		"a comment":        func(f *model.Facts) { f.ModuleDoc.Text = "a\nb\nc\nd" },
		"an import":        func(f *model.Facts) { f.Imports[0].Span.End = 5000 },
		"a use":            func(f *model.Facts) { f.Inside.Uses.Add(model.Use{Span: source.NewSpan(20, 5000)}) },
		"a type":           func(f *model.Facts) { f.Occurrences[0].Callable.Params[0].Type = "\x00" },
	} {
		f := everything()
		spoil(f)
		_, err := parts.Read(t.Context(), "a.jsonl", written(t, port, &parts.File{Path: f.Path, Library: "port", Facts: f}), 1)
		require.ErrorContains(t, err, "a.jsonl:2: it is damaged", what)
	}
}

func TestJoin(t *testing.T) {
	quay := parts.Header{Libraries: append(port.Libraries, parts.Library{Name: "quay", Language: "go", Root: "quay"})}
	a := read(t, "a.jsonl", written(t, port, &parts.File{Path: "z.js", Library: "port"}, &parts.File{Path: "b.js", Library: "port"}))
	b := read(t, "b.jsonl", written(t, quay, &parts.File{Path: "quay/q.go", Library: "quay"}, &parts.File{Path: "m.js", Library: "port"}))
	one, err := parts.Join([]*parts.Part{a, b})
	require.NoError(t, err)
	other, err := parts.Join([]*parts.Part{b, a})
	require.NoError(t, err)
	assert.Equal(t, one, other, "their order means nothing")
	var paths []string
	for _, f := range one.Files["port"] {
		paths = append(paths, f.Path)
	}
	assert.Equal(t, []string{"b.js", "m.js", "z.js"}, paths)

	again := read(t, "c.jsonl", written(t, port, &parts.File{Path: "b.js", Library: "port"}))
	_, err = parts.Join([]*parts.Part{a, b, again})
	require.ErrorContains(t, err, "b.js is in a.jsonl too; a file may be in one part only")
	_, err = parts.Join([]*parts.Part{read(t, "d.jsonl", written(t, port, &parts.File{Path: "x.js", Library: "nobody"}))})
	require.ErrorContains(t, err, `d.jsonl: x.js belongs to a library "nobody" that no part knows`)

	changed := port
	changed.Libraries = []parts.Library{{Name: "port", Language: "typescript", Root: "."}}
	_, err = parts.Join([]*parts.Part{a, read(t, "e.jsonl", written(t, changed))})
	require.ErrorContains(t, err, `does not agree with a.jsonl on the library "port"`)
}

// Whatever bytes a stream has, reading it ends, and what is read fits together.
func FuzzRead(f *testing.F) {
	var out bytes.Buffer
	w, err := parts.NewWriter(&out, port)
	require.NoError(f, err)
	require.NoError(f, w.File(&parts.File{Path: "a.js", Library: "port", Facts: everything()}))
	require.NoError(f, w.Close())
	f.Add(out.Bytes())
	f.Add([]byte("{\"facts\":1}\n{\"files\":0,\"sumOfAll\":\"\"}\n"))
	f.Fuzz(func(t *testing.T, data []byte) {
		p, err := parts.Read(t.Context(), "a.jsonl", data, 1)
		if err != nil {
			return
		}
		for _, file := range p.Files {
			if file.Facts == nil {
				continue
			}
			for i := range file.Facts.Occurrences {
				o := &file.Facts.Occurrences[i]
				_ = o.Signature.Text(file.Facts.Text)
				_ = o.Span.In(file.Facts.Text)
			}
		}
	})
}
