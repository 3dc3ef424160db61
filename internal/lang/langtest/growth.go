package langtest

import (
	"path/filepath"
	"slices"
	"testing"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/require"

	"codrel/internal/growth"
	"codrel/internal/lang"
	"codrel/internal/lexing"
	"codrel/internal/source"
)

// Growth requires that a front end reads in time that is in proportion to what it reads.
// The forms that it tries follow from the front end's own fixtures, so that a new language
// has them by having fixtures. Further forms are of the language alone.
func Growth(t *testing.T, end lang.FrontEnd, folder string, more ...growth.Form) {
	if testing.Short() {
		t.Skip("measures for a minute")
	}
	texts, keywords := fixtureTexts(t, end, folder)
	path := "growth" + end.Extensions()[0]
	for _, form := range append(growth.Forms(texts, keywords), more...) {
		trouble := growth.Trouble(form, func(text string) {
			end.Read(lang.File{Path: path, Text: source.Decode([]byte(text)), Deep: true})
			if scanner, ok := end.(lang.Scanner); ok {
				scanner.Scan(text, nil)
			}
		})
		if trouble != "" {
			t.Error(trouble)
		}
	}
}

// fixtureTexts are the sources of all fixtures of a folder, and the keywords in them.
func fixtureTexts(t testing.TB, end lang.FrontEnd, folder string) (texts, keywords []string) {
	paths, err := filepath.Glob(filepath.Join(folder, "*.txt"))
	require.NoError(t, err)
	require.NotEmpty(t, paths)
	endings := end.Extensions()
	if r, ok := end.(lang.Recognizer); ok {
		endings = slices.Concat(endings, r.SharedExtensions())
	}
	for _, path := range paths {
		archive, err := txtar.ParseFile(path)
		require.NoError(t, err)
		for _, f := range archive.Files {
			if !slices.Contains(endings, filepath.Ext(f.Name)) {
				continue
			}
			text := string(f.Data)
			texts = append(texts, text)
			if scanner, ok := end.(lang.Scanner); ok {
				for _, p := range scanner.Scan(text, nil) {
					if p.Class == lexing.Keyword {
						keywords = append(keywords, p.Span.In(text))
					}
				}
			}
		}
	}
	require.NotEmpty(t, texts)
	return texts, keywords
}
