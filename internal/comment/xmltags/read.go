package xmltags

import (
	"html"
	"strings"

	"codrel/internal/prose"
	"codrel/internal/prose/markup"
)

// This file makes elements of a text, of broken XML as well: what is never closed ends where
// that ends which it stands in.

// deepest is how many elements in one another are told apart.
const deepest = 60

// reading is a text on its way to elements.
type reading struct {
	*parser
	open []*node // the first is no element: all stand in it
	many map[string]int
}

// read gives what stands at the top of the text.
func (p *parser) read() []*node {
	r := reading{parser: p, open: []*node{{to: len(p.text)}}, many: map[string]int{}}
	for at := 0; at < len(p.text); {
		switch c := p.text[at]; c {
		case '<':
			at = max(at+1, r.angle(at))
		case '&':
			at = max(at+1, r.entity(at))
		default:
			end := strings.IndexAny(p.text[at:], "<&")
			if end < 0 {
				end = len(p.text) - at
			}
			r.add(p.text[at:at+end], at, at+end)
			at += end
		}
	}
	for len(r.open) > 1 {
		r.unclosed(len(p.text))
	}
	return r.open[0].kids
}

// add puts a text behind what is there.
func (r *reading) add(words string, from, to int) {
	in := r.open[len(r.open)-1]
	if last := len(in.kids) - 1; last >= 0 && in.kids[last].text() && in.kids[last].to == from && len(in.kids[last].words) < longestJoined {
		in.kids[last].words += words
		in.kids[last].to = to
		return
	}
	in.kids = append(in.kids, &node{words: words, from: from, to: to})
}

// longestJoined is how long a text grows by what follows it.
const longestJoined = 2000

// angle reads what "<" begins, and gives the offset behind it.
func (r *reading) angle(at int) int {
	rest := r.text[at:]
	switch {
	case strings.HasPrefix(rest, "<!--"):
		return at + past(rest, "-->")
	case strings.HasPrefix(rest, "<?"):
		return at + past(rest, "?>")
	case strings.HasPrefix(rest, "<![CDATA["):
		end := at + past(rest, "]]>")
		r.add(strings.TrimSuffix(r.text[at+len("<![CDATA["):end], "]]>"), at, end)
		return end
	}
	tag, ok := markup.ReadTag(rest)
	if !ok {
		r.flaw(prose.Unescaped, at, at+1, "<", "&lt;")
		r.add("<", at, at+1)
		return at + 1
	}
	end := at + tag.Length
	switch {
	case tag.Closing:
		r.close(tag, at, end)
	case tag.Empty || void[tag.Name]:
		in := r.open[len(r.open)-1]
		in.kids = append(in.kids, &node{tag: tag, from: at, inside: end, end: end, to: end})
	case len(r.open) > deepest:
		r.add(r.text[at:end], at, end)
	default:
		n := &node{tag: tag, from: at, inside: end, end: len(r.text), to: len(r.text)}
		in := r.open[len(r.open)-1]
		in.kids = append(in.kids, n)
		r.open = append(r.open, n)
		r.many[tag.Name]++
	}
	return end
}

// void are elements of HTML that hold nothing; people do not close them.
var void = map[string]bool{"br": true, "hr": true, "img": true}

// past is the offset behind what ends something, or of the end.
func past(text, end string) int {
	if i := strings.Index(text, end); i >= 0 {
		return i + len(end)
	}
	return len(text)
}

// close ends the element that a tag closes, and what is open in it. What closes nothing is
// a flaw and not shown, unless nothing is known by its name.
func (r *reading) close(tag markup.Tag, at, end int) {
	if r.many[tag.Name] == 0 {
		if _, known := elements[tag.Name]; !known {
			r.flaw(prose.Unescaped, at, at+1, "<", "&lt;")
			r.add(r.text[at:end], at, end)
		} else if tag.Name != "p" && !void[tag.Name] {
			r.flaw(prose.Unopened, at, end, r.text[at:end], "")
		}
		return
	}
	for r.open[len(r.open)-1].tag.Name != tag.Name {
		r.unclosed(at)
	}
	n := r.pop()
	n.end, n.to = at, end
}

func (r *reading) pop() *node {
	n := r.open[len(r.open)-1]
	r.open = r.open[:len(r.open)-1]
	r.many[n.tag.Name]--
	return n
}

// unclosed ends an element that nothing closes. One whose name is not known is no element:
// its tag is a text, as of "List<Berth>" that nobody wrote as XML asks.
func (r *reading) unclosed(at int) {
	n := r.pop()
	n.end, n.to = at, at
	if n.tag.Name == "p" || n.tag.Name == "li" { // as HTML has it
		return
	}
	r.flaw(prose.Unclosed, n.from, n.inside, r.text[n.from:n.inside], "")
	if _, known := elements[n.tag.Name]; known {
		return
	}
	in := r.open[len(r.open)-1]
	in.kids = append(in.kids[:len(in.kids)-1], &node{words: r.text[n.from:n.inside], from: n.from, to: n.inside})
	in.kids = append(in.kids, n.kids...)
}

// entity reads what "&" begins, and gives the offset behind it.
func (r *reading) entity(at int) int {
	end := at + 1
	for end < len(r.text) && end-at < longestEntity && (markup.IsLetter(r.text[end]) || r.text[end] >= '0' && r.text[end] <= '9' || r.text[end] == '#') {
		end++
	}
	if end < len(r.text) && r.text[end] == ';' && end > at+1 {
		if made := html.UnescapeString(r.text[at : end+1]); made != r.text[at:end+1] {
			r.add(made, at, end+1)
			return end + 1
		}
	}
	r.flaw(prose.Unescaped, at, at+1, "&", "&amp;")
	r.add("&", at, at+1)
	return at + 1
}

// longestEntity is more bytes than the name of any character has.
const longestEntity = 32
