package look_test

import (
	"slices"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/check"
	"codrel/internal/look"
	"codrel/internal/settings"
	"codrel/internal/source"
)

func word(text string) settings.Word {
	return settings.Word{Text: text, At: source.Position{Line: 3, Column: 9}}
}

// problems reads a look and says what was found.
func problems(t *testing.T, files fstest.MapFS, set settings.Look) (*look.Look, []string) {
	t.Helper()
	l, findings := look.Read(files, set, "codrel.yaml")
	var out []string
	for i := range findings {
		assert.Equal(t, "codrel.yaml", findings[i].Place.File)
		assert.Equal(t, source.Position{Line: 3, Column: 9}, findings[i].Place.At)
		out = append(out, check.Text(&findings[i]))
	}
	return l, out
}

func TestAccent(t *testing.T) {
	for accent, want := range map[string]string{
		"#0b6e6e": "", "#c00": "", "#1d4ed8": "", "#ff8800": "", "#2e7d32": "",
		"#ffe14d": "light", "#7fdbda": "light", "#ffffff": "light", "#000000": "dark",
	} {
		l, found := problems(t, nil, settings.Look{Accent: word(accent)})
		for scheme, surfaces := range map[string][]string{l.Light: {"#f5f7f6", "#fbfcfb"}, l.Dark: {"#13181a", "#181e20"}} {
			c, ok := look.ParseColour(scheme)
			require.True(t, ok, accent)
			for _, s := range surfaces {
				paper, _ := look.ParseColour(s)
				assert.GreaterOrEqual(t, look.Contrast(c, paper), 4.5, "%s on %s, for %s", scheme, s, accent)
			}
		}
		if want == "" {
			assert.Empty(t, found, accent)
			continue
		}
		require.Len(t, found, 1, accent)
		assert.Contains(t, found[0], "too little contrast in the "+want+" scheme", accent)
	}
	for _, bad := range []string{"teal", "#12", "#12345", "#gggggg", "0b6e6e", "#0b6e6e80"} {
		l, found := problems(t, nil, settings.Look{Accent: word(bad)})
		assert.Equal(t, []string{bad + " is not a colour; write it as #rrggbb"}, found)
		assert.Empty(t, l.Light)
	}
}

func TestContrast(t *testing.T) {
	black, _ := look.ParseColour("#000")
	white, _ := look.ParseColour("#fff")
	grey, _ := look.ParseColour("#767676")
	assert.InDelta(t, 21, look.Contrast(black, white), 0.01)
	assert.InDelta(t, 4.54, look.Contrast(grey, white), 0.01, "the known border of level AA")
	assert.Equal(t, "#767676", grey.String())
}

func TestFiles(t *testing.T) {
	files := fstest.MapFS{
		"logo.svg": {Data: []byte("<svg/>")}, "logo.txt": {Data: []byte("x")}, "big.png": {Data: make([]byte, 600<<10)}, "folder/x": {},
		"sea.css": {Data: []byte(".prose { color: blue }")}, "open.css": {Data: []byte("a {")}, "net.css": {Data: []byte("a { background: url( 'https://x.example/a.png') }")}, "import.css": {Data: []byte("@import \"x.css\";")},
		"foot.html": {Data: []byte("<p>By <a href=\"https://harbour.example/\">us</a><br></p>\n")}, "head.html": {Data: []byte(`<meta name="author" content="Tide"><link rel="me" href="https://x.example">`)},
	}
	for text, problem := range map[string]string{
		"<p>": "<p> is not closed", "</p>": "</p> closes nothing", "<b><i></b></i>": "</b> closes nothing", "<script>x</script>": "<script> does nothing on pages that run no foreign code",
		"<p onclick=x></p>": "the attribute onclick does nothing on pages that run no foreign code", "<img src=\"https://x.example/a.png\">": "it asks the network for something, which no page may",
		"<a href=\" JavaScript:x\"></a>": "the pages run no foreign code", "<body></body>": "<body> is there already", "\xff": "it is no text",
	} {
		files["bad.html"] = &fstest.MapFile{Data: []byte(text)}
		l, found := problems(t, files, settings.Look{Footer: word("bad.html")})
		assert.Equal(t, []string{"bad.html is left out: " + problem}, found, text)
		assert.Empty(t, l.Footer)
	}
	l, found := problems(t, files, settings.Look{Logo: word("logo.svg"), Style: word("sea.css"), Footer: word("foot.html"), Head: word("head.html")})
	assert.Empty(t, found)
	assert.Equal(t, "logo.svg", l.LogoFile)
	assert.True(t, l.Styled())
	assert.True(t, strings.HasPrefix(l.Footer, "<p>By"))
	assert.Contains(t, l.Head, "author")
	for file, problem := range map[string]string{
		"gone.svg": "there is no such file", "logo.txt": "a logo is an image: svg, png, jpg, gif, webp or avif", "big.png": "it is larger than 512 kB", "folder": "it is no file that can be read",
	} {
		l, found := problems(t, files, settings.Look{Logo: word(file)})
		assert.Equal(t, []string{file + " is left out: " + problem}, found)
		assert.Empty(t, l.LogoFile)
	}
	for file, problem := range map[string]string{"open.css": "a bracket is not closed, or not opened", "net.css": "it asks the network for something, which no page may", "import.css": "it asks the network for something, which no page may"} {
		_, found := problems(t, files, settings.Look{Style: word(file)})
		assert.Equal(t, []string{file + " is left out: " + problem}, found)
	}
	_, found = problems(t, files, settings.Look{Head: word("foot.html")})
	assert.Equal(t, []string{"foot.html is left out: <p> has no place in the head of a page"}, found)
}

func TestTexts(t *testing.T) {
	for _, locale := range look.Locales() {
		l, found := problems(t, nil, settings.Look{Locale: word(locale)})
		assert.Empty(t, found)
		assert.Equal(t, locale, l.Locale)
		plain := look.Plain().Texts
		for key := range plain {
			assert.Contains(t, l.Texts, key, "%s has no text %s", locale, key)
			assert.Equal(t, look.Slots(plain[key]), look.Slots(l.Texts[key]), "%s: %s", locale, key)
		}
		assert.Len(t, l.Texts, len(plain), locale)
	}
	l, found := problems(t, nil, settings.Look{Locale: word("fr")})
	assert.Equal(t, []string{"there are no texts for the locale fr; available: de and en"}, found)
	assert.Equal(t, "en", l.Locale)

	l, found = problems(t, nil, settings.Look{Locale: word("de"), Texts: []settings.Text{
		{Key: word("overview"), Value: word("Kurz")}, {Key: word("overveiw"), Value: word("x")}, {Key: word("written"), Value: word("{file}")}, {Key: word("zzz"), Value: word("x")}, {Key: word("makers"), Value: word(" ")},
	}})
	assert.Equal(t, []string{"there is no text with the key overveiw; did you mean overview?", `the text written must have the same placeholders as "Defined in {file}, line {line}."`, "there is no text with the key zzz", `the text makers is empty; "Constructors" is used`}, found)
	assert.Equal(t, "Kurz", l.Texts.Say("overview"))
	assert.Equal(t, "Definiert in a, Zeile 3.", l.Texts.Say("written", "file", "a", "line", "3"))
	assert.Equal(t, "1 Datei, 2 Dateien", l.Texts.Count(1, "file")+", "+l.Texts.Count(2, "file"))
	assert.True(t, l.Translated())
	assert.False(t, look.Plain().Translated())
	assert.Equal(t, []look.Part{{Words: "Teil von "}, {Slot: "module"}, {Words: "."}}, slices.Collect(l.Texts.Parts("part-of")))
}
