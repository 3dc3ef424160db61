package prose_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/prose"
)

func TestWordsOfFences(t *testing.T) {
	f, err := prose.ReadFence(` go  excerpt=Berth.Assign from="func \"main\" \\" {.numbered} to=x`)
	assert.NoError(t, err)
	assert.Equal(t, "go", f.Language)
	assert.Equal(t, map[string]string{"excerpt": "Berth.Assign", "from": `func "main" \`, "to": "x"}, f.Values)
	assert.Equal(t, []string{"excerpt", "from", "to"}, f.Keys)
	f, err = prose.ReadFence(`excerpt=A from="open`)
	assert.EqualError(t, err, "the quotes of from are not closed")
	assert.Empty(t, f.Language)
	assert.Equal(t, "open", f.Values["from"])
	_, err = prose.ReadFence("go a=1 a=2")
	assert.EqualError(t, err, `"a" is given twice`)
}

// A fence is found by its words in lists and quotes, and new text in it stands as the old did.
func TestFencesInTexts(t *testing.T) {
	for _, c := range []struct{ text, inside, now string }{
		{"```x=1 go\na\nb\n```\n", "a\nb\n", "c\n\nd\n"},
		{"~~~~ x=1\r\na\r\n~~~\r\n~~~~~\r\n", "a\r\n~~~\r\n", "c\r\n\r\nd\r\n"},
		{"> - ```x=1\n>   a\n>\n>   b\n>   ```\n> end\n", ">   a\n>\n>   b\n", ">   c\n>\n>   d\n"},
		{"10. ``` x=1\n    ```\n", "", "    c\n\n    d\n"},
		{"  ```x=1\n  a\n ```", "  a\n", "  c\n\n  d\n"},
	} {
		at, ok := prose.FindFence(c.text, strings.Index(c.text, "x=1"))
		if assert.True(t, ok, c.text) {
			assert.Equal(t, c.inside, at.Inside.In(c.text), c.text)
			assert.Equal(t, c.now, at.Lines("c\n\nd\n"), c.text)
			assert.False(t, at.Holds("a\n"+at.Mark+"\n"), c.text)
			assert.True(t, at.Holds("a "+at.Mark+"\n    "+at.Mark+"\n"), c.text)
		}
	}
	for _, text := range []string{"```go x=1\na\n", "``x=1\na\n``\n", "x=1\n", "```x=1"} {
		_, ok := prose.FindFence(text, strings.Index(text, "x=1"))
		assert.False(t, ok, text)
	}
}

func FuzzFence(f *testing.F) {
	for _, seed := range []string{"go excerpt=A.b from=\"x y\" lines=3-4,9", "excerpt=\"", "= = =\"\\", "\t{.x}  a=b=c", "go excerpt=\xff"} {
		f.Add(seed, "> - ```"+seed+"\n>   a\n>   ```\n")
	}
	f.Fuzz(func(t *testing.T, info, text string) {
		fence, _ := prose.ReadFence(info)
		assert.Len(t, fence.Values, len(fence.Keys))
		if i := strings.Index(text, info); i > 0 {
			if at, ok := prose.FindFence(text, i); ok {
				assert.LessOrEqual(t, at.Open.End, at.Inside.Start)
				assert.LessOrEqual(t, int(at.Inside.End), len(text))
			}
		}
	})
}

// Links find headings by our anchors and by those that forges make, and by names that the text
// gives its places.
func TestAnchors(t *testing.T) {
	a := prose.NewAnchors()
	for _, text := range []string{"What's new?", "Use", "Use", "Use 2"} {
		a.Note(&prose.Node{Kind: prose.Heading, Children: []prose.Node{{Kind: prose.Text, Text: text}}})
	}
	a.Note(&prose.Node{Kind: prose.Anchor, Target: "install"})
	a.Note(&prose.Node{Kind: prose.Anchor, Target: "use"})
	a.Top("Tide", "text")
	for anchor, want := range map[string]string{
		"what-s-new": "what-s-new", "whats-new": "what-s-new", "Use": "use", "use-2": "use-2", "use-1": "use-2", "use-2-2": "use-2-2", "install": "install", "tide": "text",
	} {
		got, ok := a.Find(anchor)
		assert.True(t, ok, anchor)
		assert.Equal(t, want, got, anchor)
	}
	for _, anchor := range []string{"none", "use-9", "use-x", ""} {
		_, ok := a.Find(anchor)
		assert.False(t, ok, anchor)
	}
	assert.True(t, a.Own("install"))
	assert.False(t, a.Own("use"), "a heading has it")
}
