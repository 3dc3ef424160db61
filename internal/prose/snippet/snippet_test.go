package snippet_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/prose/markup"
	"codrel/internal/prose/snippet"
)

// shown is a snippet with its marks written as "[type target|text]".
func shown(text, region string) string {
	code, marks, found := snippet.Read(text, region)
	if !found {
		return "none"
	}
	for _, m := range marks {
		kind := m.Type
		if m.Target != "" {
			kind += " " + m.Target
		}
		code = strings.Replace(code, markup.Open, "["+kind+"|", 1)
	}
	return strings.ReplaceAll(code, markup.Close, "]")
}

func TestRead(t *testing.T) {
	for name, c := range map[string]struct{ text, region, want string }{
		"no remark":           {"a();\nb(); // why @this\n", "", "a();\nb(); // why @this\n"},
		"a word":              {"moor(2); // @highlight substring=\"moor\"\n", "", "[bold|moor](2);\n"},
		"a line":              {"  moor(2); // @highlight\n", "", "  [bold|moor(2);]\n"},
		"by pattern":          {"int a = 1, b = 2; // @highlight regex='[0-9]' type=highlighted\n", "", "int a = [highlighted|1], b = [highlighted|2];\n"},
		"a link":              {"Berth b; // @link substring=\"Berth\" target=\"tide.Berth#moor(int)\"\n", "", "[link tide.Berth#moor(int)|Berth] b;\n"},
		"two":                 {"b.moor(a); // @link substring=moor target=\"#moor\" @highlight substring=b type=italic\n", "", "[italic|b].[link #moor|moor](a);\n"},
		"what meets":          {"aaa // @highlight substring=aa @highlight substring=a type=italic\n", "", "[bold|aa][italic|a]\n"},
		"replaced":            {"key = \"1234\"; // @replace regex='\"\\d+\"' replacement=\"...\"\n", "", "key = ...;\n"},
		"by groups":           {"a.b // @replace regex='(\\w)\\.(\\w)' replacement=\"$2.$1\"\n", "", "b.a\n"},
		"a whole line":        {"secret(); // @replace replacement=\"...\"\nb();\n", "", "...\nb();\n"},
		"for the next line":   {"// @highlight substring=\"b\" :\na b\nb\n", "", "a [bold|b]\nb\n"},
		"on its own":          {"// @highlight substring=b\na b\nb\n", "", "a [bold|b]\nb\n"},
		"several lines":       {"a\n// @highlight region substring=\"a\"\na b\na\n// @end\na\n", "", "a\n[bold|a] b\n[bold|a]\na\n"},
		"lines in lines":      {"// @highlight region=x substring=\"a\"\n// @replace region=y substring=\"b\" replacement=c\nab\n// @end region=x\nab\n// @end\nab\n", "", "[bold|a]c\nac\nab\n"},
		"a region":            {"before\n// @start region=\"plan\"\nin\n// @start region=inner\nmore\n// @end\nin\n// @end\nafter\n", "plan", "in\nmore\nin\n"},
		"an inner region":     {"before\n// @start region=\"plan\"\nin\n// @start region=inner\nmore\n// @end\nin\n// @end\nafter\n", "inner", "more\n"},
		"all of it":           {"before\n// @start region=\"plan\"\nin\n// @end\nafter\n", "", "before\nin\nafter\n"},
		"no such region":      {"// @start region=a\nb\n// @end\n", "b", "none"},
		"a region never shut": {"a\n# @start region=r\nb\n", "r", "b\n"},
		"properties":          {"port=80 # @highlight substring=80\n", "", "port=[bold|80]\n"},
		"no pattern":          {"a // @highlight regex='(?<=x'\n", "", "a\n"},
		"another word":        {"a // @see b\n", "", "a // @see b\n"},
		"Windows":             {"a // @highlight substring=a\r\nb\r\n", "", "[bold|a]\r\nb\r\n"},
		"nothing closed":      {"a // @highlight substring=\"a\n", "", "[bold|a]\n"},
		"empty":               {"", "", ""},
	} {
		assert.Equal(t, c.want, shown(c.text, c.region), name)
	}
}

func TestAttributes(t *testing.T) {
	for text, want := range map[string]map[string]string{
		"":                               {},
		" lang=java\n id = \"a b\" bare": {"lang": "java", "id": "a b", "bare": ""},
		"file='x/A.java'\tregion=\n":     {"file": "x/A.java", "region": ""},
		"region=":                        {"region": ""},
		"class=\"open":                   {"class": "open"},
	} {
		assert.Equal(t, want, snippet.Attributes(text), text)
	}
}

func FuzzRead(f *testing.F) {
	f.Add("a(); // @highlight substring=\"a\" @link regex='b' target=c\n// @start region=x\nb\n// @end\n", "x")
	f.Add("(); // @highlight substring=\"a!\xfd@", "")
	f.Fuzz(func(t *testing.T, text, region string) {
		code, marks, _ := snippet.Read(text, region)
		plain, spans := markup.Unmarked(code)
		assert.Len(t, spans, len(marks))
		assert.Equal(t, markup.Plain(code), plain)
	})
}
