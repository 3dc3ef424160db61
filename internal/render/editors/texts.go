package editors

import (
	"html"
	"regexp"
	"strings"

	"codrel/internal/comment/xmltags"
	"codrel/internal/link"
	"codrel/internal/memberid"
	"codrel/internal/model"
)

// crefs are the attributes that name something in code.
var crefs = regexp.MustCompile(`\bcref\s*=\s*("[^"]*"|'[^']*')`)

// text is a comment as it stands in the file: what its elements name is written as an
// identifier, as compilers do it, so that editors find it.
func (m *maker) text(from link.Scope, text string) string {
	return crefs.ReplaceAllStringFunc(text, func(attribute string) string {
		i := strings.IndexAny(attribute, `"'`)
		cref := html.UnescapeString(attribute[i+1 : len(attribute)-1])
		return `cref="` + html.EscapeString(m.named(from, cref)) + `"`
	})
}

// named is the identifier of what a comment names, or that name with the mark of what is not found.
func (m *maker) named(from link.Scope, cref string) string {
	if _, _, isID := memberid.Cut(strings.TrimSpace(cref)); isID {
		return cref
	}
	node := xmltags.Reference(cref)
	t := m.links.ResolveNode(from, &node).Target
	switch d := t.Declaration; {
	case d != nil && d.Module.Library.Elsewhere != nil && d.Speaks(model.Words).Callable != nil:
		return "!:" + cref // types of parameters are known by their last names only
	case d != nil:
		at := d.Speaks(model.Words)
		if t.Form != nil {
			at.Occurrence = t.Form
			for _, o := range d.Occurrences {
				if o.Occurrence == t.Form {
					at = o
				}
			}
		}
		return m.id(d, at)
	case t.Module != nil:
		return "N:" + t.Module.Path
	}
	if id := m.standard(from, cref); id != "" {
		return id
	}
	return "!:" + cref
}

// standard is the identifier of a type that comes with the language, or "".
func (m *maker) standard(from link.Scope, cref string) string {
	name, arguments, _ := strings.Cut(strings.ReplaceAll(cref, "<", "{"), "{")
	if typ := memberid.TypeOf(name); typ != "" {
		return "T:" + typ
	}
	full, _, _ := m.links.StandardName(from.Module, from.File, name)
	if full == "" || strings.Contains(arguments, "}.") || strings.Contains(name, "(") {
		return ""
	}
	if arguments != "" {
		full += "`" + string(rune('1'+strings.Count(arguments, ",")))
	}
	return "T:" + full
}
