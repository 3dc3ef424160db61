package lexing_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lexing"
)

// settled are the tokens that are left of a text, each with the conditions that it stands
// under.
func settled(text string) (tokens string, sound bool) {
	var s lexing.Stream
	csharp.Lex(text, &s)
	branches := s.Settle(text, &lexing.Shape{Rather: "public"})
	var all []string
	for _, t := range s.Tokens {
		word := text[t.From:t.To]
		if when := branches.At(t.From); len(when) > 0 {
			word += "[" + strings.Join(when, ", ") + "]"
		}
		all = append(all, word)
	}
	return strings.Join(all, " "), s.Sound()
}

// What is left of a text with branches: all of them where each is whole, else one.
func TestSettle(t *testing.T) {
	for text, want := range map[string]string{
		"a;\nb;":                        "a ; b ;",
		"#if A\na;\n#endif\nb;":         "a[A] ;[A] b ;",
		"#if A\na;\n#else\nb;\n#endif":  "a[A] ;[A] b[!A] ;[!A]",
		"#if !A\na;\n#else\nb;\n#endif": "a[!A] ;[!A] b[A] ;[A]",
		"#if A && B // why\na;\n#elif C\nb;\n#else\nc;\n#endif":            "a[A && B] ;[A && B] b[C] ;[C] c[!(A && B) && !C] ;[!(A && B) && !C]",
		"#ifdef A\na;\n#endif\n#ifndef B\nb;\n#endif":                      "a[A] ;[A] b[!B] ;[!B]",
		"#if A\n#if B\na;\n#endif\nb;\n#endif\nc;":                         "a[A, B] ;[A, B] b[A] ;[A] c ;",
		"#if A\nx {\n#else\ny {\n#endif\nb; }":                             "x { b ; }",
		"#if A\nx {\n#else\ny {\n#endif\nb;\n#if A\n}\n#else\n} }\n#endif": "x { b ; }",
		"#if A\nx\n#else\ny\n#endif\nz;":                                   "x z ;",
		"x\n#if A\n: a;\n#else\n: b;\n#endif":                              "x : a ;",
		"#if A\n{\n#endif\nb;\n#if A\n}\n#endif":                           "{ b ; }",
		"#if A\n{\n#else\n#endif\nb;\n#if !A\n#else\n}\n#endif":            "{ b ; }",
		"#if A\ninternal\n#else\npublic\n#endif\nx;\n#if !A\n{\n#endif\n}": "public x ; { }",
		"#if A\na;\n#elif B\n#endif\nb;":                                   "a[A] ;[A] b ;",
		"#if A\na;":                                                        "a[A] ;[A]",
		"#endif\n#else\n#elif\na;":                                         "a ;",
		"#region Don't { \"\na;\n#endregion":                               "a ;",
	} {
		got, sound := settled(text)
		assert.Equal(t, want, got, text)
		assert.True(t, sound, text)
	}
	_, sound := settled("#if A\n{\n#endif\n")
	assert.False(t, sound)
}

// A string with nothing but quotes around it, code in strings over lines, and blanks of
// several bytes.
func TestFences(t *testing.T) {
	shape := lexing.Shape{
		Names: lexing.NameBytes(""), Blanks: []string{"\u00a0", "\ufeff"}, Comments: slashes,
		Strings: []lexing.StringShape{
			{Prefixes: []string{"$$"}, Fence: '"', Fences: 3, Lines: true, Hole: "{{"}, {Fence: '"', Fences: 3, Lines: true},
			{Prefixes: []string{"$"}, Open: `"`, Escape: '\\', Hole: "{", HoleLines: true}, {Open: `"`, Escape: '\\'},
		},
	}
	for text, want := range map[string]string{
		`a """b "" c""" d`:         `a | """b "" c""" | d`,
		`""""b """ c"""" d`:        `""""b """ c"""" | d`,
		`"" a`:                     `"" | a`,
		"\"\"\"\na\n\"\"\" b":      "\"\"\"\na\n\"\"\" | b",
		`$$"""{a} {{b}} c""" d`:    `$$"""{a}  | { | b | } | } c""" | d`,
		"$\"{\na\n} b\" c":         `$" | { | a | } |  b" | c`,
		"int\u00a0a\ufeff;\u00a0b": "int | a | ; | b",
		"\ufeffint naïve":          "int | naïve",
	} {
		tokens, _, unclosed := shown(&shape, text)
		assert.Equal(t, want, tokens, text)
		assert.Equal(t, -1, unclosed, text)
	}
	_, _, unclosed := shown(&shape, `a """b`)
	assert.Equal(t, 2, unclosed)
}

// Time is in proportion to the length, however many branches stand in one another.
func TestManyBranches(t *testing.T) {
	const many = 50_000
	for _, text := range []string{
		strings.Repeat("#if A\na;\n", many), strings.Repeat("#if A\n{\n", many) + strings.Repeat("}\n#endif\n", many),
		"#if A\n" + strings.Repeat("#elif B\na {\n", many) + "#endif", strings.Repeat("#if A\na;\n#else\nb;\n#endif\n", many), strings.Repeat("#endif\n", many),
	} {
		var s lexing.Stream
		csharp.Lex(text, &s)
		branches := s.Settle(text, &lexing.Shape{Rather: "public"})
		for i := 0; i < len(text); i += len(text) / 1000 {
			assert.LessOrEqual(t, len(branches.At(int32(i))), 16)
		}
	}
}
