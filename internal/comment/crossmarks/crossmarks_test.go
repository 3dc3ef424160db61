package crossmarks_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/comment/commenttest"
	"codrel/internal/comment/crossmarks"
	"codrel/internal/growth"
	"codrel/internal/model"
	"codrel/internal/prose"
)

const fixture = "testdata/texts.txt"

func parse(doc *model.Doc) *prose.Sections { return crossmarks.Parse(doc, nil) }

func TestFixture(t *testing.T) { commenttest.Fixture(t, fixture, parse) }

func FuzzParse(f *testing.F) { commenttest.Fuzz(f, fixture, parse) }

func BenchmarkParse(b *testing.B) { commenttest.Benchmark(b, fixture, parse) }

func TestGrowth(t *testing.T) {
	growth.Comments(t, fixture, func(text string) { parse(commenttest.DocOf(text)) })
}

// References stand where their brackets do, whatever became of these on the way.
func TestSpans(t *testing.T) {
	text := "See [`Tide`] and [the gauge](Gauge),\nor [struct@Low]."
	got := commenttest.Shown(text, parse(commenttest.DocOf(text)), func(n *prose.Node) bool { return n.Kind == prose.Reference })
	assert.Len(t, got, 3)
	for shown, stands := range got {
		assert.NotEmpty(t, stands, shown)
	}
}

// target is the name that the last reference of a text leads to; empty if it has none.
func target(text string) string {
	got := ""
	prose.Walk(parse(commenttest.DocOf(text)).Body, func(n *prose.Node) bool {
		if n.Kind == prose.Reference {
			got = n.Target
		}
		return true
	})
	return got
}

// What stands in brackets is a name, or it is left as it is written.
func TestNames(t *testing.T) {
	for text, want := range map[string]string{
		"[Tide]": "Tide", "[`Tide`]": "Tide", "[tide::Low]": "tide::Low", "[::std::fmt]": "std::fmt", "[height()]": "height", "[tide!]": "macro:tide", "[tide!()]": "macro:tide", "[tide!{}]": "macro:tide", "[tide![]]": "macro:tide", "[low::tide!]": "macro:low::tide", "[mod@low]": "module:low",
		"[struct@Tide]": "Tide", "[fn@low::height]": "low::height", "[macro@tide]": "macro:tide", "[prim@u8]": "u8", "[Vec<u8>]": "Vec", "[Self::at]": "Self::at", "[crate]": "crate",
		"[text](Tide)": "Tide", "[text](`Tide`)": "Tide", "[text](struct@Tide)": "Tide", "[text](height())": "height", "[text](Tide \"said\")": "Tide", "[text](<Tide>)": "Tide", "[text][Tide]": "Tide",
		"[`a::B`](struct.B.html)": "B", "[x](../a/enum.Kind.html#variant.Low)": "Kind::Low", "[x](trait.Gauge.html#tymethod.read)": "Gauge::read", "[Tide#part]": "Tide",
		"[x](index.html)": "", "[x](https://a.example/struct.B.html)": "", "[x](mailto:a@b.example)": "", "[x](a.b)": "", "[a b]": "", "[1]": "", "[]": "", "[ ]": "", "[x]: y": "",
		"`[Tide]`": "", "``[Tide]``": "", "\\[Tide]": "", "![Tide](tide.png)": "", "[banana@Tide]": "", "[a-b]": "", "[a::]": "", "[[Tide]": "Tide", "[Tide": "", "Tide]": "", "- [ ] Tide": "", "- [x] Tide": "", "1. [X] Tide": "", "[x] Tide": "x",
		"[höhe::Maß]": "höhe::Maß",
	} {
		assert.Equal(t, want, target(text), text)
	}
}

// Names at other places mean what they are defined as, whether before or behind.
func TestDefinitions(t *testing.T) {
	for text, want := range map[string]string{
		"[tide] is one.\n\n[tide]: crate::Tide":            "crate::Tide",
		"[tide]: crate::Tide\n\nA [tide].":                 "crate::Tide",
		"[The Tide][tide].\n\n[TIDE]: crate::Tide":         "crate::Tide",
		"[`tide`] is one.\n\n[`tide`]: crate::Tide":        "crate::Tide",
		"[tide][] is one.\n\n[tide]: crate::low()":         "crate::low",
		"[tide] is one.\n\n[tide]: https://tide.example":   "",
		"[tide] is one.\n\n[tide]:\nhttps://tide.example":  "",
		"[Tide] is one.\n\n[^1]: Said of it.":              "Tide",
		"[tide] is one.\n\n    [tide]: crate::Tide":        "tide",
		"[Tide] is one.\n\n[other]: crate::Other":          "Tide",
		"[tide] is one.\n\n[tide]: <crate::Tide> \"said\"": "crate::Tide",
	} {
		assert.Equal(t, want, target(text), text)
	}
}

// Examples are Rust unless they say otherwise, without the lines that are for the compiler.
func TestExamples(t *testing.T) {
	for text, want := range map[string]string{
		"```\n# a\nb\n```":                    "rust|b",
		"```rust\n#\n## a\n```":               "rust|# a",
		"```no_run\na\n```":                   "rust example=builds|a",
		"```should_panic,edition2021\na\n```": "rust example=stops edition=2021|a",
		"```compile_fail,E0123\na\n```":       "rust example=refused|a",
		"```ignore-windows\na\n```":           "rust except=windows|a",
		"```ignore,no_run\na\n```":            "rust example=shown|a",
		"```text\n# a\n```":                   "text|# a",
		"```toml\n# a\n```":                   "toml|# a",
		"    # a\n    b":                      "rust|b",
		"~~~\n#[derive(A)]\n#!\n# \n~~~":      "rust|#[derive(A)]\n#!",
		"````\n```\n# a\n````":                "rust|```",
	} {
		got := ""
		prose.Walk(parse(commenttest.DocOf(text)).Body, func(n *prose.Node) bool {
			if n.Kind == prose.CodeBlock {
				got = n.Info + "|" + n.Text
			}
			return true
		})
		assert.Equal(t, want, strings.TrimSuffix(got, "\n"), text)
	}
	for text, want := range map[string]string{
		"```\n# use a::*;\nb(); # c\n#\n## d\n  # e\n```": "use a::*;\nb(); # c\n\n# d\ne", "```\nb();\n```": "",
	} {
		assert.Equal(t, want, parse(commenttest.DocOf(text)).Body[0].Target, "what is run of an example")
	}
}
