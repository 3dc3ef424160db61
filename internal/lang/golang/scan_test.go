package golang_test

import (
	"go/scanner"
	"go/token"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/lang/golang"
	"codrel/internal/lang/langtest"
	"codrel/internal/lexing"
	"codrel/internal/model"
)

// pieces writes what was found in a text as "class:text".
func pieces(text string) []string {
	var out []string
	for _, p := range (golang.FrontEnd{}).Scan(text, nil) {
		out = append(out, []string{"keyword", "number", "text", "comment"}[p.Class]+":"+p.Span.In(text))
	}
	return out
}

// expectedPieces are those that the standard library's scanner finds.
func expectedPieces(text string) []string {
	var out []string
	files := token.NewFileSet()
	var s scanner.Scanner
	s.Init(files.AddFile("", files.Base(), len(text)), []byte(text), nil, scanner.ScanComments)
	for {
		_, tok, literal := s.Scan()
		switch {
		case tok == token.EOF:
			return out
		case tok.IsKeyword():
			out = append(out, "keyword:"+tok.String())
		case tok == token.COMMENT:
			out = append(out, "comment:"+literal)
		case tok == token.STRING || tok == token.CHAR:
			out = append(out, "text:"+literal)
		case tok == token.INT || tok == token.FLOAT || tok == token.IMAG:
			out = append(out, "number:"+literal)
		}
	}
}

func TestScan(t *testing.T) {
	for _, text := range []string{
		"", "package a // b\n/* c\nd */ var e = 'f' + \"g\\\"h\" + `i\nj`", "x.y.z func1 _if if_ iff if(", "1 0x1F 1e+5 0x1e+5 0x1p-3 1_000i .5 a.5 0b11 0o7 1.e3",
		"été := \"é\"", "a//b", "a / b", "'\\''", `"\\"`, "goto fallthrough range", "x/*y*/z",
	} {
		assert.Equal(t, expectedPieces(text), pieces(text), text)
	}
	for text, want := range map[string]string{
		"\"open\nx": "text:\"open", "'": "text:'", "`raw": "text:`raw", "/* open": "comment:/* open", "\"\\": "text:\"\\", "// a\r\nb": "comment:// a", "\"a\\\nb": "text:\"a\\",
	} {
		assert.Equal(t, []string{want}, pieces(text), "broken: %q", text)
	}
}

// The pieces of real code are those of the standard library's scanner.
func TestScanOfRealCode(t *testing.T) {
	files, err := filepath.Glob("../../../internal/*/*.go")
	require.NoError(t, err)
	require.Greater(t, len(files), 50)
	for _, name := range files {
		data, err := os.ReadFile(name)
		require.NoError(t, err)
		require.Equal(t, expectedPieces(string(data)), pieces(string(data)), name)
	}
}

func BenchmarkScan(b *testing.B) {
	data, err := os.ReadFile("declarations.go")
	require.NoError(b, err)
	b.SetBytes(int64(len(data)))
	var room []lexing.Piece
	for b.Loop() {
		room = golang.FrontEnd{}.Scan(string(data), room[:0])
	}
}

// Uses stand for what a function does not declare itself.
func TestUses(t *testing.T) {
	for body, want := range map[string]string{
		"Plan()":                                                     "Plan",
		"x := Plan; _ = x":                                           "Plan",
		"Plan := 1; _ = Plan":                                        "",
		"{ Plan := 1; _ = Plan }; Plan()":                            "Plan",
		"Plan := Plan; _ = Plan":                                     "Plan",
		"var Plan = Plan":                                            "Plan",
		"fmt.Print(Plan.Name)":                                       "fmt.Print Plan.Name",
		"fmt := 1; fmt.Print()":                                      "",
		"fmt.\nPrint()":                                              "fmt",
		"var p *Plan; p.Assign()":                                    "Plan Plan:Assign",
		"p := &berth.Plan{}; p.A().B()":                              "berth.Plan berth.Plan:A",
		"p := new(Plan); (*p).A()":                                   "new Plan Plan:A",
		"p, ok := v.(*Plan); p.A(ok)":                                "Plan Plan:A",
		"p := Plan{Name: Deep}; p.Name()":                            "Plan Plan?Name Deep Plan:Name",
		"_ = []int{Deep: Deep}":                                      "int Deep Deep",
		"_ = map[int]Plan{Deep: {A: 1}}":                             "int Plan Deep",
		"for Plan := range v { Plan() }":                             "",
		"for i = range Plan { i() }":                                 "i Plan i",
		"if Plan := v; Plan { Plan() } else { Plan() }; Plan()":      "Plan",
		"switch Plan := v.(type) { case int: Plan() }; Plan()":       "int Plan",
		"select { case Plan := <-v: Plan(); case <-Plan: }":          "Plan",
		"func(Plan int, q Plan) Plan { return Plan + q.A }(1)":       "int Plan Plan Plan:A",
		"type Plan struct{ Next *Plan }; var p Plan; p.Next()":       "",
		"goto Plan; Plan: for { break Plan }":                        "",
		"const Plan = 1; Plan()":                                     "",
		"defer Plan(); go Deep(); v <- Plan; v++; Plan[0] = v[Deep]": "Plan Deep Plan Plan Deep",
		"v.Name.Deep()":                                              "any:Name",
		"_ = struct{ Plan int }{Plan: 1}":                            "int",
	} {
		facts := langtest.Read(golang.FrontEnd{}, "a.go", []byte("package a\n\nfunc F(v any) {\n"+body+"\n}\n"))
		langtest.Valid(t, facts)
		require.Empty(t, facts.Problems, body)
		var got []string
		for use := range facts.Inside.Uses.All() {
			text := use.Span.In(facts.Text)
			switch use.Form {
			case model.UseMember:
				text = use.Type.In(facts.Text) + ":" + text
			case model.UseKey:
				text = use.Type.In(facts.Text) + "?" + text
			}
			got = append(got, text)
		}
		assert.Equal(t, strings.TrimSpace("any "+want), strings.Join(got, " "), body)
	}
}

func TestBodies(t *testing.T) {
	facts := langtest.Read(golang.FrontEnd{}, "a.go", []byte("package a\n\nfunc F() { func() { x() }() }\n\nvar V = func() {}\n\nfunc G()\n"))
	var got []string
	for _, b := range facts.Inside.Bodies {
		got = append(got, b.In(facts.Text))
	}
	assert.Equal(t, []string{"{ func() { x() }() }", "{}"}, got)
}
