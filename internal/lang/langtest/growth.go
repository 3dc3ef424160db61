package langtest

import (
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/require"

	"codrel/internal/growth"
	"codrel/internal/lang"
	"codrel/internal/lexing"
	"codrel/internal/source"
)

// Growth requires that a front end reads in time that is in proportion to what it reads.
// The forms that it tries are made of the front end's own fixtures, so that a new language
// has them by having fixtures: every line of them and every mark and keyword, over and
// over, on lines of its own and on one line, and everything that opens something, nested.
// Further forms are of the language alone.
func Growth(t *testing.T, end lang.FrontEnd, folder string, more ...growth.Form) {
	if testing.Short() {
		t.Skip("measures for a minute")
	}
	for _, ending := range end.Extensions()[:1] {
		forms := append(Shapes(t, end, folder), more...); t.Logf("%d forms", len(forms)); for _, form := range forms {
			if trouble := growth.Trouble(form, func(text string) { read(end, "growth"+ending, text) }); trouble != "" {
				t.Error(trouble)
			}
		}
	}
}

func read(end lang.FrontEnd, path, text string) {
	end.Read(lang.File{Path: path, Text: source.Decode([]byte(text)), Deep: true})
	if scanner, ok := end.(lang.Scanner); ok {
		scanner.Scan(text, nil)
	}
}

var (
	words  = regexp.MustCompile(`[\pL_][\pL_0-9]*`)
	digits = regexp.MustCompile(`[0-9]+`)
	marks  = regexp.MustCompile(`[^\pL\pN_\s]{1,3}`)
)

// Shapes are the forms that follow from the fixtures of a folder.
func Shapes(t *testing.T, end lang.FrontEnd, folder string) []growth.Form {
	paths, err := filepath.Glob(filepath.Join(folder, "*.txt"))
	require.NoError(t, err)
	require.NotEmpty(t, paths)
	var forms []growth.Form
	seen := map[string]bool{}
	once := func(form growth.Form, shape string) {
		if !seen[shape] {
			seen[shape] = true
			forms = append(forms, form)
		}
	}
	repeat := func(text string) { once(growth.Repeat(strings.ReplaceAll(text, "\n", `\n`), text), text) }
	for _, path := range paths {
		archive, err := txtar.ParseFile(path)
		require.NoError(t, err)
		for _, f := range archive.Files {
			if f.Name == "facts" || !slices.Contains(end.Extensions(), filepath.Ext(f.Name)) {
				continue
			}
			text := string(f.Data)
			for line := range strings.Lines(text) {
				shape := digits.ReplaceAllString(words.ReplaceAllString(strings.TrimSpace(line), "a"), "0")
				once(growth.Repeat(strings.TrimRight(line, "\n")+`\n`, line), "lines of "+shape)
				once(growth.Repeat(strings.TrimSpace(line), strings.TrimSpace(line)+" "), "line of "+shape)
				if first, rest, ok := strings.Cut(strings.TrimSpace(line), " "); ok {
					once(growth.Around(first+" ("+rest+" …", "", first+" "+rest, ", "+rest), "list of "+shape)
				}
				if opens := strings.TrimSpace(line); strings.HasSuffix(opens, ":") || strings.HasSuffix(opens, "{") {
					once(nested(opens), "nested "+shape)
				}
			}
			tokens := marks.FindAllString(text, -1)
			if scanner, ok := end.(lang.Scanner); ok {
				for _, p := range scanner.Scan(text, nil) {
					if p.Class == lexing.Keyword {
						tokens = append(tokens, p.Span.In(text))
					}
				}
			}
			for _, token := range tokens {
				repeat(token)
				repeat(token + " ")
				repeat(token + "\n")
				repeat("a " + token + " ")
				repeat("a" + token + "a ")
				repeat("a " + token + "\n")
			}
		}
	}
	for _, pair := range []string{"()", "[]", "{}", "<>"} {
		for _, before := range []string{"", "a", "a,", "a:", "=", "=>", "...", "*", "a=a", "\n"} {
			open, closing := before+pair[:1], pair[1:]
			once(growth.Around(open+"…"+closing, open, "a", closing), open+closing)
		}
	}
	return forms
}

// nested are blocks in blocks by indentation, as many as there are lines behind them
// that stand as deep as the innermost.
func nested(opens string) growth.Form {
	return growth.Form{Name: opens + " nested", Make: func(n int) string {
		deep := 1
		for deep*deep < n {
			deep++
		}
		var b strings.Builder
		for i := range deep {
			b.WriteString(strings.Repeat(" ", i) + opens + "\n")
		}
		for range deep {
			b.WriteString(strings.Repeat(" ", deep) + opens + " pass\n")
		}
		return b.String()
	}}
}
