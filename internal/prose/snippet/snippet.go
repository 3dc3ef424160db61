// Package snippet reads the remarks in code by which documentation comments say what of it is
// shown and how: "// @start region=a", "// @end", "// @highlight", "// @replace" and "// @link"
// (the snippet syntax of Java's documentation comment specification, JEP 413).
//
// It makes nodes of what it reads and knows nothing of comments and pages.
package snippet

import (
	"regexp"
	"slices"
	"strings"

	"codrel/internal/prose/markup"
)

// A Mark is a part of the code that is shown in a way of its own.
type Mark struct {
	Type   string // "bold", "italic", "highlighted", "link" or "linkplain"
	Target string // of a link, as written
}

// Read is the part of a code that a region has, or with "" all of it, as it is to be shown:
// without remarks, with what they replace, and with the signs of [markup] around what they
// mark. found is false where there is no such region.
func Read(text, region string) (code string, marks []Mark, found bool) {
	r := reader{region: region, inside: region == ""}
	for line := range strings.Lines(markup.Plain(text)) {
		r.line(line)
	}
	return r.out.String(), r.marks, region == "" || r.found
}

// action is what a remark asks for.
type action struct {
	word, region string // its name, and that of the lines it is for, which may be "" for those up to the next end
	lines        bool   // it is for several lines
	attributes   map[string]string
	pattern      *regexp.Regexp // what it is for; nil for the whole line
}

// Of what a person would never write so much, what is beyond is shown as it is: what begins
// for several lines, and the marks of a line.
const mostOpen, mostMarks = 30, 300

type reader struct {
	region string
	inside bool
	found  bool
	ended  bool
	open   []action // those for several lines
	next   []action // those for the line that comes
	out    strings.Builder
	marks  []Mark
}

func (r *reader) line(line string) {
	code, remark := cut(line)
	own := r.next
	r.next = nil
	if remark != "" {
		forNext := strings.HasSuffix(strings.TrimSpace(remark), ":")
		for _, a := range actions(strings.TrimSuffix(strings.TrimSpace(remark), ":")) {
			switch {
			case a.word == "end":
				r.end(a.region)
			case len(r.open) == mostOpen && (a.word == "start" || a.lines):
			case a.word == "start":
				r.open = append(r.open, a)
				if a.region == r.region && r.region != "" && !r.ended {
					r.inside, r.found = true, true
				}
			case a.lines:
				r.open = append(r.open, a)
			case forNext:
				r.next = append(r.next, a)
			default:
				own = append(own, a)
			}
		}
		if strings.TrimSpace(code) == "" {
			r.next = append(own, r.next...)
			return
		}
	}
	if !r.inside {
		return
	}
	for _, a := range slices.Concat(r.open, own) {
		if a.word == "replace" {
			code = a.replaced(code)
		}
	}
	r.out.WriteString(r.marked(slices.Concat(r.open, own), code))
}

// end ends the lines of a name, or those that began last.
func (r *reader) end(name string) {
	for i := len(r.open) - 1; i >= 0; i-- {
		a := r.open[i]
		if name != "" && a.region != name {
			continue
		}
		r.open = slices.Delete(r.open, i, i+1)
		if a.word == "start" && a.region == r.region && r.region != "" {
			r.inside, r.ended = false, true
		}
		return
	}
}

// cut cuts the remark at the end of a line off it, if it is one that says how to show code.
func cut(line string) (code, remark string) {
	end := strings.TrimRight(line, "\r\n")
	for _, sign := range []string{"//", "#"} {
		i := strings.LastIndex(end, sign)
		for ; i >= 0; i = strings.LastIndex(end[:i], sign) {
			if remark := strings.TrimSpace(end[i+len(sign):]); strings.HasPrefix(remark, "@") && known[word(remark[1:])] {
				return strings.TrimRight(end[:i], " \t") + line[len(end):], remark
			}
		}
	}
	return line, ""
}

var known = map[string]bool{"start": true, "end": true, "highlight": true, "replace": true, "link": true}

func word(text string) string {
	end := strings.IndexAny(text, " \t:")
	if end < 0 {
		return text
	}
	return text[:end]
}

// actions are what a remark asks for: it may hold several.
func actions(remark string) (out []action) {
	for remark != "" {
		rest, ok := strings.CutPrefix(remark, "@")
		if !ok {
			break
		}
		a := action{word: word(rest)}
		if !known[a.word] {
			break
		}
		a.attributes, remark = attributes(strings.TrimSpace(rest[len(a.word):]))
		a.region, a.lines = a.attributes["region"], has(a.attributes, "region")
		pattern := a.attributes["regex"]
		if substring := a.attributes["substring"]; substring != "" {
			pattern = regexp.QuoteMeta(substring)
		}
		if pattern != "" {
			var err error
			if a.pattern, err = regexp.Compile(pattern); err != nil {
				continue // of another dialect: the code is shown as it is
			}
		}
		out = append(out, a)
	}
	return out
}

func has(attributes map[string]string, name string) bool { _, ok := attributes[name]; return ok }

// Attributes reads what stands between the tag of a snippet and its code: "name=value name", the
// values with or without quotes, over several lines.
func Attributes(text string) map[string]string {
	out, _ := attributes(strings.Join(strings.Fields(text), " "))
	return out
}

// attributes reads "name=value name", with or without quotes, up to the next "@".
func attributes(text string) (out map[string]string, rest string) {
	out = map[string]string{}
	for text != "" && text[0] != '@' {
		end := strings.IndexAny(text, "= \t")
		if end < 0 {
			out[text] = ""
			return out, ""
		}
		name := text[:end]
		text = strings.TrimLeft(text[end:], " \t")
		if !strings.HasPrefix(text, "=") {
			out[name] = ""
			continue
		}
		text = strings.TrimLeft(text[1:], " \t")
		value := ""
		if text != "" && (text[0] == '"' || text[0] == '\'') {
			value, text, _ = strings.Cut(text[1:], text[:1])
		} else {
			value = word(text)
			text = text[len(value):]
		}
		out[name] = value
		text = strings.TrimLeft(text, " \t")
	}
	return out, text
}

// replaced is a line with what the action replaces.
func (a action) replaced(line string) string {
	replacement := groups.ReplaceAllString(a.attributes["replacement"], "$${$1}")
	if a.pattern == nil {
		end := line[len(strings.TrimRight(line, "\r\n")):]
		return a.attributes["replacement"] + end
	}
	if a.attributes["substring"] != "" {
		return strings.ReplaceAll(line, a.attributes["substring"], a.attributes["replacement"])
	}
	return a.pattern.ReplaceAllString(line, replacement)
}

// groups are the names of groups in a replacement.
var groups = regexp.MustCompile(`\$(\d+)`)

// marked is a line with the signs of marks around what actions mark. Marks stand apart: of two
// that meet the first counts.
func (r *reader) marked(all []action, line string) string {
	body := strings.TrimRight(line, "\r\n")
	type part struct {
		from, to int
		mark     Mark
	}
	var parts []part
	for _, a := range all {
		if a.word != "highlight" && a.word != "link" {
			continue
		}
		var spans [][]int
		if a.pattern != nil {
			spans = a.pattern.FindAllStringIndex(body, mostMarks)
		} else if text := strings.TrimLeft(body, " \t"); text != "" {
			spans = [][]int{{len(body) - len(text), len(body)}}
		}
		for _, s := range spans {
			meets := func(p part) bool { return s[0] < p.to && p.from < s[1] }
			if len(parts) == mostMarks {
				break
			}
			if s[0] < s[1] && !slices.ContainsFunc(parts, meets) {
				parts = append(parts, part{s[0], s[1], a.mark()})
			}
		}
	}
	slices.SortFunc(parts, func(a, b part) int { return a.from - b.from })
	var b strings.Builder
	at := 0
	for _, p := range parts {
		b.WriteString(body[at:p.from] + markup.Open + body[p.from:p.to] + markup.Close)
		r.marks = append(r.marks, p.mark)
		at = p.to
	}
	b.WriteString(body[at:])
	return b.String() + line[len(body):]
}

// mark is how the action marks code.
func (a action) mark() Mark {
	m := Mark{Type: a.attributes["type"], Target: a.attributes["target"]}
	switch {
	case a.word == "link" && m.Type != "linkplain":
		m.Type = "link"
	case m.Type == "":
		m.Type = "bold"
	}
	return m
}
