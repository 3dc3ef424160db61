package java

import (
	"html"
	"path"
	"slices"
	"strings"

	"codrel/internal/model"
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
		attributes := readAttributes(doc.Text[at+len(snippetTag) : end])
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

// readAttributes reads "name=value" with or without quotes.
func readAttributes(text string) map[string]string {
	out := map[string]string{}
	for rest := strings.TrimSpace(text); rest != ""; rest = strings.TrimSpace(rest) {
		name, after, found := strings.Cut(rest, "=")
		if !found {
			break
		}
		after = strings.TrimSpace(after)
		value := ""
		if after != "" && (after[0] == '"' || after[0] == '\'') {
			value, after, _ = strings.Cut(after[1:], after[:1])
		} else {
			end := strings.IndexAny(after, " \t\r\n")
			if end < 0 {
				end = len(after)
			}
			value, after = after[:end], after[end:]
		}
		out[strings.TrimSpace(name)], rest = value, after
	}
	return out
}

// snippet is the code that a snippet shows, as HTML.
func (r *reader) snippet(doc *model.Doc, from, to int, attributes map[string]string) string {
	file := attributes["file"]
	if file == "" {
		file = strings.ReplaceAll(attributes["class"], ".", "/") + ".java"
	}
	places := doc.Places()
	missing := model.Untaken{Span: places.Span(from, to), File: file}
	code, found := r.snippetFile(file)
	if !found {
		r.Facts.Untaken = append(r.Facts.Untaken, missing)
		return ""
	}
	code, found = region(code, attributes["region"])
	if !found {
		missing.Part = attributes["region"]
		r.Facts.Untaken = append(r.Facts.Untaken, missing)
		return ""
	}
	return "<pre>" + snippetSigns.Replace(html.EscapeString(code)) + "</pre>"
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

// region is the part of a snippet's file with a name, or all of it, without the remarks that
// say how to show it.
func region(text, name string) (code string, found bool) {
	var out strings.Builder
	found = name == ""
	inside, depth := found, 0
	for line := range strings.Lines(text) {
		before, mark, marked := strings.Cut(line, "@")
		if marked = marked && (strings.Contains(before, "//") || strings.Contains(before, "#")); marked {
			word, rest, _ := strings.Cut(strings.TrimSpace(mark), " ")
			switch word {
			case "start":
				if inside && name != "" {
					depth++
				} else if readAttributes(rest)["region"] == name && name != "" {
					inside, found = true, true
				}
				continue
			case "end":
				if inside && name != "" {
					if depth--; depth < 0 {
						return out.String(), true
					}
				}
				continue
			case "highlight", "replace", "link":
				if line = strings.TrimRight(before, " \t/#"); strings.TrimSpace(line) == "" {
					continue
				}
				line += "\n"
			}
		}
		if inside {
			out.WriteString(line)
		}
	}
	return out.String(), found
}
