package look

import (
	"io"
	"slices"
	"strings"
	"unicode/utf8"

	"golang.org/x/net/html"
)

// This file decides which HTML may stand around every page. What is taken is known to be
// harmless; all else is not: an element that swallows what follows, an attribute that asks
// another place for something. It is written anew from its tokens, so that no browser reads
// it in another way than it was judged.

// elements are those that may stand above and below a page, and the attributes that each may
// have besides those that all may have.
var elements = func() map[string][]string {
	set := map[string][]string{
		"a": {"href", "rel", "target", "hreflang", "download", "type"}, "img": {"src", "alt", "width", "height", "loading", "decoding"},
		"details": {"open", "name"}, "ol": {"start", "reversed", "type"}, "li": {"value"}, "time": {"datetime"}, "data": {"value"},
		"td": {"colspan", "rowspan", "headers"}, "th": {"colspan", "rowspan", "headers", "scope", "abbr"}, "col": {"span"}, "colgroup": {"span"},
		"del": {"datetime"}, "ins": {"datetime"},
	}
	for _, name := range strings.Fields(`abbr address article aside b bdi bdo blockquote br caption center cite code dd dfn div dl dt em figcaption figure footer
		h1 h2 h3 h4 h5 h6 header hgroup hr i kbd mark menu nav p pre q rp rt ruby s samp search section small span strong sub summary sup table tbody tfoot thead tr
		u ul var wbr`) {
		set[name] = nil
	}
	return set
}()

// drawn are the elements of drawings in the page. What they may refer to is in the page too.
var drawn = asSet(`svg g path circle rect line polyline polygon ellipse text tspan title desc defs use symbol lineargradient radialgradient stop clippath mask marker pattern`)

// common are the attributes that all elements may have, with those that begin with "aria-"
// and "data-".
var common = asSet(`class id lang dir title role hidden tabindex translate itemprop itemscope itemtype align`)

// naming are the kinds of links in the head of a page that only name a place.
var naming = asSet(`author me license help search alternate canonical privacy-policy terms-of-service pgpkey webmention sitemap bookmark prev next up start contents index`)

func asSet(words string) map[string]bool {
	set := map[string]bool{}
	for word := range strings.FieldsSeq(words) {
		set[word] = true
	}
	return set
}

var void = asSet(`area base br col embed hr img input link meta source track wbr`)

// markup is HTML for a place in every page, "head" or "body", as it is to be written, or
// what keeps it from being put there.
func markup(text, where string) (written, problem string) {
	if !utf8.ValidString(text) {
		return "", "it is no text"
	}
	m := marker{where: where}
	z := html.NewTokenizer(strings.NewReader(text))
	for {
		kind := z.Next()
		if kind == html.ErrorToken {
			switch {
			case z.Err() != io.EOF:
				return "", "it cannot be read as HTML"
			case len(z.Raw()) > 0:
				return "", "it ends within a tag"
			case len(m.open) > 0:
				return "", "<" + m.open[len(m.open)-1] + "> is not closed"
			}
			return strings.TrimSpace(m.out.String()), ""
		}
		if kind == html.CommentToken && !closesComment(string(z.Raw())) {
			return "", "a comment is not closed"
		}
		if problem := m.token(z.Token()); problem != "" {
			return "", problem
		}
	}
}

// closesComment reports whether what was read as a comment is closed where it ends.
func closesComment(raw string) bool {
	return strings.HasPrefix(raw, "<!--") && len(raw) >= len("<!---->") && strings.HasSuffix(raw, "-->")
}

// marker writes tokens that may be written.
type marker struct {
	where string
	open  []string
	out   strings.Builder
}

func (m *marker) token(t html.Token) (problem string) {
	switch t.Type {
	case html.CommentToken:
		return ""
	case html.DoctypeToken:
		return "<!DOCTYPE> is there already"
	case html.TextToken:
		if m.where == "head" && strings.TrimSpace(t.Data) != "" {
			return "text has no place in the head of a page"
		}
	case html.StartTagToken, html.SelfClosingTagToken:
		drawing := slices.Contains(m.open, "svg") || t.Data == "svg"
		if problem := m.wrongElement(t, drawing); problem != "" {
			return problem
		}
		switch {
		case t.Type == html.SelfClosingTagToken && !drawing && !void[t.Data]:
			return "<" + t.Data + "> is not closed" // "/>" closes nothing in HTML
		case t.Type == html.StartTagToken && (drawing || !void[t.Data]):
			m.open = append(m.open, t.Data)
		}
	case html.EndTagToken:
		if len(m.open) == 0 || m.open[len(m.open)-1] != t.Data {
			return "</" + t.Data + "> closes nothing"
		}
		m.open = m.open[:len(m.open)-1]
	}
	m.out.WriteString(t.String())
	return ""
}

func (m *marker) wrongElement(t html.Token, drawing bool) string {
	attributes, known := elements[t.Data]
	switch {
	case t.Data == "script" || t.Data == "style" || t.Data == "base" || t.Data == "iframe":
		return "<" + t.Data + "> does nothing on pages that run no foreign code"
	case t.Data == "html" || t.Data == "head" || t.Data == "body" || t.Data == "title" && !drawing || t.Data == "main":
		return "<" + t.Data + "> is there already"
	case m.where == "head":
		return wrongInHead(t)
	case drawing && !drawn[t.Data]:
		return "<" + t.Data + "> has no place in a drawing"
	case !drawing && !known:
		return "<" + t.Data + "> is no element that may stand around a page"
	}
	for _, a := range t.Attr {
		if problem := wrongAttribute(t.Data, a, attributes, drawing); problem != "" {
			return problem
		}
	}
	return ""
}

func wrongInHead(t html.Token) string {
	if t.Data != "meta" && t.Data != "link" {
		return "<" + t.Data + "> has no place in the head of a page"
	}
	for _, a := range t.Attr {
		switch {
		case a.Key == "http-equiv" || a.Key == "charset":
			return "the attribute " + a.Key + " changes what the page itself says"
		case t.Data == "meta" && !slices.Contains([]string{"name", "content", "property", "itemprop", "media", "lang", "id"}, a.Key),
			t.Data == "link" && !slices.Contains([]string{"rel", "href", "hreflang", "type", "title", "media", "id"}, a.Key):
			return "the attribute " + a.Key + " is none that <" + t.Data + "> may have"
		case a.Key == "name" && slices.Contains([]string{"viewport", "color-scheme", "referrer"}, strings.ToLower(strings.TrimSpace(a.Val))):
			return "<meta name=" + strings.ToLower(strings.TrimSpace(a.Val)) + "> changes what the page itself says"
		case a.Key == "rel":
			for rel := range strings.FieldsSeq(strings.ToLower(a.Val)) {
				if !naming[rel] {
					return asksNetwork
				}
			}
		case a.Key == "href" && !harmless(a.Val):
			return "the pages run no foreign code"
		}
	}
	if t.Data == "link" && !slices.ContainsFunc(t.Attr, func(a html.Attribute) bool { return a.Key == "rel" }) {
		return "<link> says nothing without rel"
	}
	return ""
}

func wrongAttribute(element string, a html.Attribute, own []string, drawing bool) string {
	switch {
	case strings.HasPrefix(a.Key, "on") || a.Key == "style":
		return "the attribute " + a.Key + " does nothing on pages that run no foreign code"
	case strings.HasPrefix(a.Key, "aria-"), strings.HasPrefix(a.Key, "data-"), common[a.Key]:
		return ""
	case drawing:
		return wrongInDrawing(a)
	case !slices.Contains(own, a.Key):
		return "the attribute " + a.Key + " is none that <" + element + "> may have"
	case a.Key == "href" && !harmless(a.Val):
		return "the pages run no foreign code"
	case a.Key == "src" && !beside(a.Val):
		return asksNetwork
	}
	return ""
}

// wrongInDrawing looks at an attribute of a drawing: addresses may lead to other parts of
// the drawing only.
func wrongInDrawing(a html.Attribute) string {
	value := plainAddress(strings.ToLower(a.Val))
	switch {
	case strings.HasSuffix(a.Key, "href"), a.Key == "src", a.Key == "from", a.Key == "to", a.Key == "values":
		if !strings.HasPrefix(value, "#") {
			return asksNetwork
		}
	case strings.Contains(value, `\`):
		return asksNetwork
	case strings.Contains(value, "url(") && strings.Count(value, "url(#") != strings.Count(value, "url("):
		return asksNetwork
	case strings.Contains(value, "image"), strings.Contains(value, "src("):
		return asksNetwork
	}
	return ""
}

// plainAddress is an address as browsers see it: without the blanks and line ends that they
// leave out (WHATWG URL, "URL parsing").
func plainAddress(address string) string {
	address = strings.TrimFunc(address, func(c rune) bool { return c <= ' ' })
	return strings.NewReplacer("\t", "", "\n", "", "\r", "").Replace(address)
}

// scheme is that of an address, in small letters, or "".
func scheme(address string) string {
	end := strings.IndexAny(address, ":/?#\\")
	if end < 0 || address[end] != ':' {
		return ""
	}
	return strings.ToLower(address[:end])
}

// harmless reports whether a link leads to a place and runs nothing.
func harmless(address string) bool {
	switch scheme(plainAddress(address)) {
	case "", "http", "https", "mailto", "tel":
		return true
	}
	return false
}

// beside reports whether an address can only be that of a file of the site.
func beside(address string) bool {
	address = plainAddress(address)
	return scheme(address) == "" && !strings.HasPrefix(address, "//") && !strings.Contains(address, `\`)
}
