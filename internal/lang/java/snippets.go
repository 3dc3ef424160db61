package java

import (
	"html"
	"path"
	"slices"
	"strings"

	"codrel/internal/model"
	"codrel/internal/prose/markup"
	"codrel/internal/prose/snippet"
)

// This file puts code of other files into comments that show it: "{@snippet file=...}" and
// "{@snippet class=...}" (JEP 413).

const snippetTag = "{@snippet "

// withSnippets is a comment with the code of other files that it shows.
func (r *reader) withSnippets(doc *model.Doc) *model.Doc {
	if r.other == nil || !strings.Contains(doc.Text, snippetTag) {
		return doc
	}
	for at, n := 0, 0; n < mostSnippets; n++ {
		i := strings.Index(doc.Text[at:], snippetTag)
		if i < 0 {
			break
		}
		at += i
		end := strings.IndexAny(doc.Text[at+len(snippetTag):], ":}")
		if end < 0 {
			break
		}
		end += at + len(snippetTag)
		attributes := snippet.Attributes(doc.Text[at+len(snippetTag) : end])
		if doc.Text[end] == ':' || attributes["file"] == "" && attributes["class"] == "" {
			at = end // the code stands here
			continue
		}
		text := r.snippet(doc, at, end+1, attributes)
		doc = doc.Replaced(at, end+1, text)
		at += len(text)
	}
	return doc
}

// mostSnippets is how many snippets of other files a comment shows.
const mostSnippets = 50

// snippet is the code that a snippet shows, as HTML.
func (r *reader) snippet(doc *model.Doc, from, to int, attributes map[string]string) string {
	file := attributes["file"]
	if file == "" {
		file = strings.ReplaceAll(attributes["class"], ".", "/") + ".java"
	}
	places := doc.Places()
	missing := model.Untaken{Span: places.Span(from, to), File: file}
	text, found := r.snippetFile(file)
	if !found {
		r.Facts.Untaken = append(r.Facts.Untaken, missing)
		return ""
	}
	code, marks, found := snippet.Read(text, attributes["region"])
	if !found {
		missing.Part = attributes["region"]
		r.Facts.Untaken = append(r.Facts.Untaken, missing)
		return ""
	}
	return `<pre><code class="language-java">` + marked(snippetSigns.Replace(html.EscapeString(markup.Undented(code))), marks) + "</code></pre>"
}

// marked is the HTML of code with the marks of a snippet as elements and links.
func marked(code string, marks []snippet.Mark) string {
	var b strings.Builder
	var closing string
	for n := 0; ; {
		i := strings.Index(code, markup.Open)
		if j := strings.Index(code, markup.Close); j >= 0 && (i < 0 || j < i) {
			b.WriteString(code[:j] + closing)
			code = code[j+len(markup.Close):]
			continue
		}
		if i < 0 || n == len(marks) {
			return b.String() + code
		}
		b.WriteString(code[:i])
		code = code[i+len(markup.Open):]
		m := marks[n]
		n++
		switch {
		case m.Target != "":
			b.WriteString("{@link " + m.Target + " ")
			closing = "}"
		case m.Type == "italic":
			b.WriteString("<i>")
			closing = "</i>"
		default:
			b.WriteString("<b>")
			closing = "</b>"
		}
	}
}

// snippetSigns keep the signs of tags in code from being read as such.
var snippetSigns = strings.NewReplacer("{", "&#123;", "}", "&#125;", "@", "&#64;")

// snippetFile is a file in the folder of snippets beside the source, or in one of a folder
// above.
func (r *reader) snippetFile(file string) (text string, found bool) {
	if path.IsAbs(file) {
		return "", false
	}
	for dir := path.Dir(r.Facts.Path); ; dir = path.Dir(dir) {
		for _, folder := range []string{"snippet-files", "snippets"} {
			at := path.Join(dir, folder, file)
			if !slices.Contains(r.Facts.Takes, at) {
				r.Facts.Takes = append(r.Facts.Takes, at)
			}
			if data := r.other(at); data != nil {
				return strings.ToValidUTF8(string(data), "\uFFFD"), true
			}
		}
		if dir == "." || dir == "/" {
			return "", false
		}
	}
}
