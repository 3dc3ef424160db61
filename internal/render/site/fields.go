package site

import (
	"strings"

	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/render/plan"
)

// This file draws fields and the like in a list: what needs no plate of its own.

// longestFieldText is how many characters the text of a field has in a list at most.
const longestFieldText = 420

// sorted puts members apart: those that have pages of their own, those that a line and a
// short text tell whole, and those that get a plate each.
func (v view) sorted(list []*model.Declaration) (apart, plain, others []*model.Declaration) {
	for _, d := range list {
		switch {
		case plan.HasPage(d):
			apart = append(apart, d)
		case v.isPlain(d):
			plain = append(plain, d)
		default:
			others = append(others, d)
		}
	}
	return apart, plain, others
}

// isPlain reports whether a declaration is a field whose text is short, or a member of an enum:
// those stand together in their order, whatever their texts are.
func (v view) isPlain(d *model.Declaration) bool {
	switch d.Kind() {
	case model.KindEnumMember:
		return len(d.Forms()) < 2
	case model.KindField:
	case model.KindIndexer:
		if d.Module.Library.Habits.TypeFirst {
			return false
		}
	case model.KindProperty:
		if d.Speaks(model.Words).Callable != nil && len(v.plan.Links.Overloads(d)) > 1 {
			return false
		}
	case model.KindConstant:
		if d.Parent == nil {
			return false
		}
	default:
		return false
	}
	if len(d.Forms()) > 1 || len(d.Speaks(model.Words).Signature) > longestFieldText*2 {
		return false
	}
	of := v.plan.Links.TextOf(d)
	if of == nil {
		return true
	}
	sections, _ := v.plan.Links.Sections(of)
	for i := range sections.Parts {
		if k := sections.Parts[i].Kind; k != prose.Since && k != prose.Other && k != prose.SeeAlso {
			return false
		}
	}
	length := 0
	for i := range sections.Body {
		if sections.Body[i].Kind == prose.CodeBlock || sections.Body[i].Kind == prose.Table {
			return false
		}
		length += len(prose.Plain(sections.Body[i : i+1]))
	}
	return length <= longestFieldText
}

// behindName is what stands behind a member's name in its signature, on one line, as HTML.
func (v view) behindName(d *model.Declaration) string {
	text := v.tokens(v.maker.BehindName(d))
	space := ""
	if rest := strings.TrimLeft(text, " "); rest != text {
		space, text = " ", rest
	}
	if text == "" {
		return ""
	}
	return space + `<code class="short" translate="no">` + text + "</code>"
}

// fieldName is the heading of a member in a list: its name, and of an index signature
// all that stands in its brackets.
func fieldName(d *model.Declaration) string {
	if d.Kind() != model.KindIndexer {
		return memberName(d)
	}
	at := d.Speaks(model.Signature)
	head, _, closed := strings.Cut(at.Signature.Text(at.File.Text), "]")
	_, head, opened := strings.Cut(head, "[")
	if !closed || !opened {
		return memberName(d)
	}
	return "[" + head + "]"
}
