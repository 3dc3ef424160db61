package site

import (
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

// formsShown are the signatures on a declaration's plate, their anchors where they are
// overloads, and how many more there are.
func (v view) formsShown(d *model.Declaration) (forms []model.At, anchors []string, more int) {
	shown := v.maker.Signatures(d)
	if shown.Overloads == 0 {
		return shown.Forms, nil, shown.More
	}
	anchors = v.formAnchors(d, shown.Forms[:shown.Overloads])
	for len(anchors) < len(shown.Forms) {
		anchors = append(anchors, "")
	}
	return shown.Forms, anchors, shown.More
}
