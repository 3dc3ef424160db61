package prose_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/prose"
)

func TestSummary(t *testing.T) {
	text := func(s string) prose.Node { return prose.Node{Kind: prose.Text, Text: s} }
	for name, c := range map[string]struct {
		in   []prose.Node
		want string
	}{
		"first sentence":     {[]prose.Node{text("One. Two.")}, "One."},
		"small letter":       {[]prose.Node{text("A file e.g. this one. Two.")}, "A file e.g. this one."},
		"abbreviation":       {[]prose.Node{text("By Dr. No. Two.")}, "By Dr. No. Two."},
		"initial":            {[]prose.Node{text("By J. Brook. Two.")}, "By J. Brook."},
		"no stop":            {[]prose.Node{text("No stop")}, "No stop"},
		"stop at a node":     {[]prose.Node{text("See "), {Kind: prose.Code, Text: "a. B"}, text(" here. More.")}, "See a. B here."},
		"inside emphasis":    {[]prose.Node{{Kind: prose.Emphasis, Children: []prose.Node{text("All. More")}}, text(" after.")}, "All."},
		"number":             {[]prose.Node{text("Version 2.5 is out. More.")}, "Version 2.5 is out."},
		"ideographic stop":   {[]prose.Node{text("水位。 次")}, "水位。"},
		"question and shout": {[]prose.Node{text("Why? Because!")}, "Why?"},
	} {
		got := prose.Plain(prose.Summary([]prose.Node{{Kind: prose.Heading}, {Kind: prose.Paragraph, Children: c.in}}))
		assert.Equal(t, c.want, got, name)
	}
	assert.Nil(t, prose.Summary(nil))
}

func TestAllowedAddress(t *testing.T) {
	for _, address := range []string{"https://a.example/", "HTTP://a.example", "mailto:a@b.example", "docs/x.md", "#part", "?q=1", "a/b:c", "../up"} {
		assert.True(t, prose.AllowedAddress(address), address)
	}
	for _, address := range []string{"javascript:alert(1)", "JaVaScRiPt:x", "java\nscript:x", " javascript:x", "\x01javascript:x", "data:text/html,x", "vbscript:x", "file:///etc/passwd", "//evil.example/x", "", "\t", "http://address:port", "https://"} {
		assert.False(t, prose.AllowedAddress(address), address)
	}
}

func TestSlug(t *testing.T) {
	for text, want := range map[string]string{
		"A first plan": "a-first-plan", "設定": "設定", "Café & Bar!": "café-bar", "…": "section", "C++": "c",
	} {
		assert.Equal(t, want, prose.Slug(text))
	}
}

func TestRaised(t *testing.T) {
	for text, want := range map[string][2]string{ // above the line, and below it
		"3": {"³", "₃"}, "12": {"¹²", "₁₂"}, "n": {"^n", "_n"}, "2k": {"^2k", "_2k"}, "i,j": {"^(i,j)", "_(i,j)"},
		"-1": {"^(-1)", "_(-1)"}, "st": {"st", "_st"}, "[2]": {"[2]", "[2]"}, "": {"", ""},
	} {
		assert.Equal(t, want, [2]string{prose.Raised(prose.Superscript, text), prose.Raised(prose.Subscript, text)})
	}
	text := func(kind prose.Kind, s string) prose.Node { return prose.Node{Kind: kind, Text: s} }
	nodes := []prose.Node{text(prose.Text, "Takes 10"), {Kind: prose.Superscript, Children: []prose.Node{text(prose.Text, "3")}}, text(prose.Break, ""),
		{Kind: prose.Emphasis, Children: []prose.Node{text(prose.Text, "litres of H"), text(prose.Subscript, "2"), text(prose.Text, "O")}}}
	assert.Equal(t, "Takes 10³ litres of H₂O", prose.Line(nodes))
	assert.Contains(t, prose.Plain(nodes), "103", "addresses of headings stay what they were")
}
