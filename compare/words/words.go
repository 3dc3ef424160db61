package main

import (
	"context"
	"regexp"
	"strings"

	"golang.org/x/net/html"

	"codrel/internal/build"
	"codrel/internal/render/plan"
	"codrel/internal/render/sink"
	"codrel/internal/render/site"
)

// run is three words in a row.
type run [3]string

// pages are all runs of words that a site's pages have.
type pages map[run]bool

// miss reports whether most of some runs stand nowhere.
func (p pages) miss(runs []run) bool {
	const most = 0.6
	missing := 0
	for _, r := range runs {
		if !p[r] {
			missing++
		}
	}
	return float64(missing) > most*float64(len(runs))
}

// onPages draws the site of a snapshot and reads it.
func onPages(ctx context.Context, s *build.Snapshot) (pages, error) {
	planned := plan.New(s.Links, plan.Options{Source: plan.NoSource, Findings: -1})
	memory := &sink.Memory{}
	if err := site.New(planned, site.Options{FrontEnds: s.FrontEnds, Workers: 2}).Write(ctx, memory); err != nil {
		return nil, err
	}
	out := pages{}
	for _, name := range memory.Paths() {
		if strings.HasPrefix(name, "reference/") && strings.HasSuffix(name, ".html") {
			for _, r := range runsOf(textOf(memory.Get(name))) {
				out[r] = true
			}
		}
	}
	return out, nil
}

// blocks are elements whose text does not go on into that of their neighbours.
var blocks = map[string]bool{
	"p": true, "li": true, "dt": true, "dd": true, "pre": true, "h1": true, "h2": true, "h3": true, "h4": true, "h5": true, "h6": true,
	"td": true, "th": true, "tr": true, "div": true, "section": true, "article": true, "ul": true, "ol": true, "dl": true, "br": true,
}

func textOf(page []byte) string {
	var b strings.Builder
	for tokens := html.NewTokenizer(strings.NewReader(string(page))); ; {
		switch tokens.Next() {
		case html.ErrorToken:
			return b.String()
		case html.TextToken:
			b.Write(tokens.Text())
		case html.StartTagToken, html.EndTagToken, html.SelfClosingTagToken:
			if name, _ := tokens.TagName(); blocks[string(name)] {
				b.WriteByte(' ')
			}
		}
	}
}

var word = regexp.MustCompile(`[A-Za-z]{3,}`)

// runsOf are the runs of three words in a text.
func runsOf(text string) []run {
	words := word.FindAllString(strings.ToLower(html.UnescapeString(text)), -1)
	var out []run
	for i := 0; i+2 < len(words); i++ {
		out = append(out, run(words[i:i+3]))
	}
	return out
}

// markup is what readers do not see of a line, with what is left of it.
var markup = []struct {
	form *regexp.Regexp
	left string
}{
	{regexp.MustCompile(`\{@\w+ [^}|]*\|([^}]*)\}`), "$1"},
	{regexp.MustCompile(`\[([^\]]*)\]\{@\w+ [^}]*\}`), "$1"},
	{regexp.MustCompile(`\{@\w+ module ?:[\w/.-]*~([^}\s]*)\}`), "$1"},
	{regexp.MustCompile(`\{@\w+ module ?:(\S*) ?([^}]*)\}`), " "},
	{regexp.MustCompile(`\{@\w+ [\w.#~:/]+(?:\([^)]*\))? ([^}]+)\}`), "$1"},
	{regexp.MustCompile(`\{@\w+ ([^}]*)\}`), "$1"},
	{regexp.MustCompile(`^\s*@\w+\s*(\{.*?\}+\s)?\s*(\[[^\]]*\]|[\w.$]+)?\s*`), ""},
	{regexp.MustCompile(`^\s*[:@]\w+ ?[^:]*:`), ""},
	{regexp.MustCompile(`\b[A-Z]\{([^}<]*)(<[^>]*>)?\}`), "$1"},
	{regexp.MustCompile("(:[a-z:+-]+:)?`~[\\w.]*\\.(\\w+)`"), "$2"},
	{regexp.MustCompile(`\]\([^)]*\)`), " "},
	{regexp.MustCompile(`<[^>]*>`), ""},
	{regexp.MustCompile(":[a-z:+-]+:`"), ""},
	{regexp.MustCompile("`|\\B\\*|\\*\\B"), ""},
}

// unseen are lines that pages say otherwise, or not at all: formulas, addresses, names
// with types, directives and private remarks.
var unseen = regexp.MustCompile(`<(?:see|paramref|typeparamref)\s|\\[a-z]{2}|\$|https?:|=\w|^\s*\w[\w, ]* : |^\s*\.\. |^\s*@(privateRemarks|internal)`)

// linesOf are the lines of a comment as people read them.
func linesOf(text string) []string {
	var out []string
	for line := range strings.SplitSeq(text, "\n") {
		if unseen.MatchString(line) || opened(line) {
			continue
		}
		for _, m := range markup {
			line = m.form.ReplaceAllString(line, m.left)
		}
		out = append(out, strings.TrimSpace(line))
	}
	return out
}

// opened reports whether an inline tag, or an element, goes on from a line or into it: a look at
// lines one by one does not see what of it is shown.
func opened(line string) bool {
	depth := 0
	for i := range len(line) {
		switch {
		case line[i] == '{':
			depth++
		case line[i] == '}':
			if depth--; depth < 0 {
				return true
			}
		}
	}
	return depth > 0 && strings.Contains(line, "{@") || strings.Count(line, "<") != strings.Count(line, ">") && strings.Contains(line, "=\"")
}
