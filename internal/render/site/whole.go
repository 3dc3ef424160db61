package site

import (
	"strconv"
	"strings"
	"unicode/utf8"

	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/prose"
)

// This file draws the declaration of a type whole, with what it holds, on its plate.

const (
	mostHeld      = 40 // members that a plate shows; the rest is counted
	longestRemark = 52 // characters of a member's text that stand beside it
	longestHeld   = 64 // of the line with it
)

// declared draws what a plate shows of one occurrence: the signature, and for a type
// that is made of its members those too.
func (v view) declared(d *model.Declaration, at model.At) string {
	holder, ok := v.options.FrontEnds[d.Module.Library.Language].(lang.MemberBlocks)
	if !ok || at.Occurrence != typeForm(d).Occurrence {
		return v.signature(d, at)
	}
	form, ok := holder.BlockStyle(d)
	if !ok {
		return v.signature(d, at)
	}
	held, more, hidden := v.held(d, form)
	head := v.signature(d, at)
	lines := v.ownLines(&head)
	if len(held)+len(lines)+hidden == 0 {
		if form.Close != "" && !strings.HasSuffix(head, form.Close) {
			head += form.Open + form.Close
		}
		return head
	}
	for _, member := range held {
		lines = append(lines, v.heldLine(member, form))
	}
	aside := func(n int, thing string) {
		if n > 0 {
			lines = append(lines, `<span class="l">`+escape(form.Remark+v.count(n, thing))+"</span>")
		}
	}
	aside(more, "more-member")
	aside(hidden, "hidden-member")
	text := head + form.Open + "\n\t" + strings.Join(lines, "\n\t")
	if form.Close != "" {
		text += "\n" + form.Close
	}
	return text
}

// typeForm is the occurrence that makes a declaration the type it is, where it has one:
// a type may share its name with a function.
func typeForm(d *model.Declaration) model.At {
	if main := d.Speaks(model.Words); main.Kind.IsType() && main.Kind != model.KindNamespace || !d.Kind().IsType() {
		return main
	}
	return d.Speaks(model.Nature)
}

// inNamespace reports whether a member stands in a namespace of its type's name, not in
// the type.
func inNamespace(member *model.Declaration) bool {
	at := member.Speaks(model.Words)
	return at.Parent >= 0 && at.File.Occurrences[at.Parent].Kind == model.KindNamespace
}

// ownLines takes off a signature what it says itself of what the type holds, as the
// types that an interface embeds.
func (v view) ownLines(head *string) []string {
	before, inside, ok := strings.Cut(*head, "{ ")
	inside, closed := strings.CutSuffix(inside, " }")
	if !ok || !closed {
		before, inside, ok = strings.Cut(*head, " {}")
		if ok && inside == "" {
			*head = before
		}
		return nil
	}
	*head = strings.TrimRight(before, " ")
	return strings.Split(inside, "; ")
}

// held are the members that a plate shows, how many more there are, and how many are
// kept from users.
func (v view) held(d *model.Declaration, form lang.BlockStyle) (shown []*model.Declaration, more, hidden int) {
	for _, member := range d.Members {
		switch k := member.Kind(); {
		case k == model.KindField, k == model.KindProperty, k == model.KindEnumMember, k == model.KindConstant && d.Kind() == model.KindEnum, k == model.KindIndexer && form.Methods:
		case form.Methods && k.IsCallable():
		default:
			continue
		}
		switch {
		case inNamespace(member):
		case member.Blank() || member.Origin != nil && member.Origin.Parent != nil:
		case !v.plan.Links.InReach(member):
			hidden++
		case len(shown) == mostHeld:
			more++
		default:
			shown = append(shown, member)
		}
	}
	return shown, more, hidden
}

// heldLine is a member on one line of its type's declaration, with a short text beside it.
func (v view) heldLine(member *model.Declaration, form lang.BlockStyle) string {
	at := member.Speaks(model.Signature)
	var b strings.Builder
	width := 0
	for t := range at.Tokens(at.Signature) {
		if t.Kind == model.TokenComment {
			continue
		}
		width += utf8.RuneCountInString(t.Text)
		if t.Kind == model.TokenName {
			b.WriteString(`<a class="n" href="` + escape(v.toDeclaration(member)) + `">` + breakable(t.Text) + "</a>")
			continue
		}
		v.token(&b, member, at, t)
	}
	b.WriteString(form.End)
	if forms := len(v.plan.Links.Overloads(member)); forms > 1 {
		b.WriteString(` <span class="l">` + escape(form.Remark+v.say("forms", "n", strconv.Itoa(forms))) + "</span>")
	} else if text := v.remark(member); text != "" && width+utf8.RuneCountInString(text) < longestHeld {
		b.WriteString(` <span class="l">` + escape(form.Remark+text) + "</span>")
	}
	return b.String()
}

// remark is the first sentence on a member, where it is short enough to stand beside it.
func (v view) remark(member *model.Declaration) string {
	d := v.plan.Links.TextOf(member)
	if d == nil || member.Kind().IsCallable() {
		return ""
	}
	sections, _ := v.plan.Links.Sections(d)
	text := strings.Join(strings.Fields(prose.Plain(prose.Summary(sections.Body))), " ")
	if utf8.RuneCountInString(text) > longestRemark {
		return ""
	}
	return text
}
