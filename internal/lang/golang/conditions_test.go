package golang_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lang/golang"
	"codrel/internal/lang/langtest"
)

func TestConditionsOfNames(t *testing.T) {
	for name, want := range map[string]string{
		"a.go": "", "linux.go": "", "a_linux.go": "linux", "a_linux_amd64.go": "linux amd64", "a_amd64_linux.go": "linux",
		"a_linux_test.go": "linux", "a_unix.go": "", "a_b_arm64.go": "arm64", "_linux.go": "linux", "dir_linux/a.go": "",
		"a_test.go": "", "a_windows_x.go": "", "zsyscall_openbsd_mips64.go": "openbsd mips64",
	} {
		facts := langtest.Read(golang.FrontEnd{}, name, []byte("package a"))
		assert.Equal(t, want, strings.Join(facts.Conditions, " "), name)
	}
}

func TestBuildLines(t *testing.T) {
	for text, want := range map[string]struct {
		conditions string
		standalone bool
	}{
		"//go:build linux\n\npackage a":                              {"linux", false},
		"//go:build ignore\n\npackage a":                             {"", true},
		"//go:build ignore && linux\n\npackage a":                    {"", true},
		"//go:build ignore || linux\n\npackage a":                    {"ignore || linux", false},
		"//go:build !ignore\n\npackage a":                            {"!ignore", false},
		"//go:build (\n\npackage a":                                  {"", false},
		"package a\n\n//go:build linux\n":                            {"", false},
		"// Copyright\n\n//go:build cgo\n// +build cgo\n\npackage a": {"cgo", false},
	} {
		facts := langtest.Read(golang.FrontEnd{}, "a.go", []byte(text))
		assert.Equal(t, want.conditions, strings.Join(facts.Conditions, " "), text)
		assert.Equal(t, want.standalone, facts.Standalone, text)
	}
}

func TestImports(t *testing.T) {
	facts := langtest.Read(golang.FrontEnd{}, "a.go", []byte("package a\n\nimport (\n\t\"fmt\"\n\tx \"a.example/y\"\n\t. \"b.example/go-z\"\n\t_ \"c.example/yaml.v3\"\n\t\"d.example/engine/v2\"\n)\n"))
	var got []string
	for _, i := range facts.Imports {
		got = append(got, i.Name+" "+i.Path+" "+i.Assumed)
	}
	assert.Equal(t, []string{" fmt fmt", "x a.example/y y", ". b.example/go-z z", "_ c.example/yaml.v3 yaml", " d.example/engine/v2 engine"}, got)
}

// What the parser mends is kept, and nothing is invented for it.
func TestBrokenPieces(t *testing.T) {
	for _, text := range []string{
		"package a\nfunc", "package a\ntype", "package a\nvar", "package a\nconst (", "package a\ntype T struct {", "package a\nfunc (", "package a\nfunc (a.b.c) m()",
		"package a\ntype T interface { A(", "package a\nvar x, = 1", "package a\nfunc f(a, b", "package a\ntype T[", "package a\ntype T[P any", "package a\nimport \"",
		"package", "/*", "//", "package a\n//\n", "package a\n/* x", "package a\nfunc f() { `", "package a; type T struct{ *[]x; x.y.z; (A) }",
	} {
		facts := langtest.Read(golang.FrontEnd{}, "a.go", []byte(text))
		langtest.Valid(t, facts)
	}
}

func TestSignatures(t *testing.T) {
	for text, want := range map[string]string{
		"func F(a, b int, c ...string) (x, y error)":                        "",
		"func F[K comparable, V any](m map[K]V) []V":                        "",
		"func (r *T[K, _]) M(f func(a int) (b, c bool))":                    "",
		"func F(c chan<- int, d <-chan []T, e chan T)":                      "",
		"func F(a [4]int, b [N]pkg.T, c [2*N]int)":                          "",
		"func F(a struct{}, b interface{}, c struct{ X, Y int; Z string })": "",
		"func F(a interface{ M(x int) error; fmt.Stringer })":               "",
		"func F() (int)":                                          "func F() int",
		"func F ( a int ,\n b string )":                           "func F(a int, b string)",
		"type A = map[string]*B":                                  "",
		"type T[P ~int | ~string] struct{ x P }":                  "type T[P ~int | ~string] struct",
		"type I interface{ M(); A | B; ~int }":                    "type I interface { A | B; ~int }",
		"var x = &T{1, 2}":                                        "var x = &T{…}",
		"var f = func(a int) { return }":                          "var f = func(a int) {…}",
		"var s = `one\ntwo`":                                      "var s = `one …",
		"const c = 'x'":                                           "",
		"const big = 1 << 62":                                     "",
		"var a, b = f()":                                          "var a = f()",
		"var deep *******************************************int": "var deep " + strings.Repeat("*", 32) + "…",
	} {
		if want == "" {
			want = text
		}
		facts := langtest.Read(golang.FrontEnd{}, "a.go", []byte("package a\n"+text))
		assert.Equal(t, want, facts.Occurrences[0].Signature.Text(facts.Text), text)
	}
}
