package site

import (
	"slices"
	"strings"

	"codrel/internal/model"
	"codrel/internal/render/page"
)

// This file draws signatures.

var tokenClasses = map[model.TokenKind]string{
	model.TokenComment: "l", model.TokenKeyword: "k", model.TokenName: "n", model.TokenParameter: "p", model.TokenLiteral: "l", model.TokenTypeParam: "t",
}

// signature draws the signature of one occurrence.
func (v view) signature(d *model.Declaration, at model.At) string {
	return v.tokens(v.maker.Signature(d, at))
}

// declared draws what a plate shows of one occurrence.
func (v view) declared(d *model.Declaration, at model.At) string {
	return v.tokens(v.maker.Plate(d, at))
}

// tokens draws the pieces of a signature: types as links, the rest by what it is.
func (v view) tokens(list []page.Token) string {
	var b strings.Builder
	for i := range list {
		v.token(&b, &list[i])
	}
	return b.String()
}

func (v view) token(b *strings.Builder, t *page.Token) {
	text := breakable(t.Text)
	if t.Whole {
		text = escape(t.Text)
	}
	switch class := tokenClasses[t.Kind]; {
	case t.Kind == model.TokenType:
		href := v.href(t.To.Target)
		if t.Short != "" && href != "" {
			text = breakable(t.Short)
		}
		if href != "" && href != v.to(v.page.Address) {
			text = `<a href="` + escape(href) + `">` + text + `</a>`
		}
		b.WriteString(text)
	case t.To != nil:
		b.WriteString(`<a class="` + class + `" href="` + escape(v.href(t.To.Target)) + `">` + text + "</a>")
	case class == "":
		b.WriteString(escape(t.Text))
	default:
		b.WriteString(`<span class="` + class + `">` + text + `</span>`)
	}
}

// short is a signature for an overview.
func (v view) short(d *model.Declaration) string { return v.maker.Short(d) }

// How many differing signatures a plate shows; what is more is counted.
const (
	mostVariants  = 6 // of several builds
	mostOverloads = 60
)

// formsShown are the signatures on a declaration's plate, their anchors where they are
// overloads, and how many more there are.
func (v view) formsShown(d *model.Declaration) (forms []model.At, anchors []string, more int) {
	if forms = v.plan.Links.Overloads(d); forms == nil {
		forms = d.Forms()
		if seen := v.plan.Links.FormsInReach(d); len(forms) > 1 && len(d.Split()) > 1 {
			forms = []model.At{seen[0].Head()}
		}
		more = max(0, len(forms)-mostVariants)
		return withType(d, forms[:len(forms)-more]), nil, more
	}
	more = max(0, len(forms)-mostOverloads)
	forms = forms[:len(forms)-more]
	anchors = v.formAnchors(d, forms)
	if all := withType(d, forms); len(all) > len(forms) {
		return all, append(anchors, ""), more
	}
	return forms, anchors, more
}

// withType adds to the forms of a callable the type that shares its name.
func withType(d *model.Declaration, forms []model.At) []model.At {
	typ := page.TypeForm(d)
	if !typ.Kind.IsType() || typ.Kind == model.KindNamespace || slices.ContainsFunc(forms, func(at model.At) bool { return at.Kind.IsType() }) {
		return forms
	}
	return append(slices.Clone(forms), typ)
}
