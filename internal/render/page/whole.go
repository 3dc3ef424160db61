package page

import (
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"codrel/internal/lang"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
)

// This file makes the declaration of a type whole, with what it holds, for its plate.

const (
	mostHeld      = 40 // members that a plate shows; the rest is counted
	longestRemark = 52 // characters of a member's text that stand beside it
	longestHeld   = 64 // of the line with it
)

// Plate is what a plate shows of one occurrence: the signature, and for a type
// that is made of its members those too.
func (m *Maker) Plate(d *model.Declaration, at model.At) []Token {
	head := m.Signature(d, at)
	holder, ok := m.FrontEnds[d.Module.Library.Language].(lang.MemberBlocks)
	if !ok || at.Occurrence != TypeForm(d).Occurrence {
		return head
	}
	form, ok := holder.BlockStyle(d)
	if !ok {
		return head
	}
	held, more, hidden := m.held(d, form)
	head, lines := ownLines(head)
	if len(held)+len(lines)+hidden == 0 {
		if n := len(head); form.Close != "" && (n == 0 || !strings.HasSuffix(head[n-1].Text, form.Close)) {
			head = append(head, mark(form.Open+form.Close))
		}
		return head
	}
	for _, member := range held {
		lines = append(lines, m.heldLine(member, form))
	}
	for _, rest := range []struct {
		n     int
		thing string
	}{{more, "more-member"}, {hidden, "hidden-member"}} {
		if rest.n > 0 {
			lines = append(lines, []Token{remarkToken(form.Remark + m.Texts.Count(rest.n, rest.thing))})
		}
	}
	size := len(head) + 2 + len(lines)
	for _, line := range lines {
		size += len(line)
	}
	out := append(append(make([]Token, 0, size), head...), mark(form.Open))
	for _, line := range lines {
		out = append(append(out, mark("\n\t")), line...)
	}
	if form.Close != "" {
		out = append(out, mark("\n"+form.Close))
	}
	return out
}

func mark(text string) Token { return Token{Kind: model.TokenPunctuation, Text: text} }

// remarkToken is a remark on the rest of a line.
func remarkToken(text string) Token {
	return Token{Kind: model.TokenComment, Text: text, Whole: true}
}

// TypeForm is the occurrence that makes a declaration the type it is, where it has one:
// a type may share its name with a function.
func TypeForm(d *model.Declaration) model.At {
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
func ownLines(head []Token) (rest []Token, lines [][]Token) {
	open := slices.IndexFunc(head, func(t Token) bool { return t.Kind == model.TokenPunctuation && strings.Contains(t.Text, "{ ") })
	if last := len(head) - 1; open < 0 || !strings.HasSuffix(head[last].Text, " }") {
		if last >= 0 && strings.HasSuffix(head[last].Text, " {}") {
			head[last].Text = strings.TrimSuffix(head[last].Text, " {}")
		}
		return head, nil
	}
	before, first, _ := strings.Cut(head[open].Text, "{ ")
	inside := append([]Token{mark(first)}, head[open+1:]...)
	inside[len(inside)-1].Text = strings.TrimSuffix(inside[len(inside)-1].Text, " }")
	rest = trimmed(append(slices.Clone(head[:open]), mark(before)))
	line := []Token{}
	for _, t := range inside {
		for t.Kind == model.TokenPunctuation && strings.Contains(t.Text, "; ") {
			end, behind, _ := strings.Cut(t.Text, "; ")
			lines = append(lines, append(line, mark(end)))
			line, t.Text = []Token{}, behind
		}
		line = append(line, t)
	}
	return rest, append(lines, line)
}

// held are the members that a plate shows, how many more there are, and how many are
// kept from users.
func (m *Maker) held(d *model.Declaration, form lang.BlockStyle) (shown []*model.Declaration, more, hidden int) {
	for _, member := range d.Members {
		switch k := member.Kind(); {
		case k == model.KindField, k == model.KindProperty, k == model.KindEnumMember, k == model.KindConstant && d.Kind() == model.KindEnum, k == model.KindIndexer && form.Methods:
		case form.Methods && k.IsCallable():
		default:
			continue
		}
		switch {
		case inNamespace(member):
		case member.Blank() || member.Origin() != nil && member.Origin().Parent != nil:
		case !m.Links.InReach(member):
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
func (m *Maker) heldLine(member *model.Declaration, form lang.BlockStyle) (out []Token) {
	at := member.Speaks(model.Signature)
	width := 0
	tokens := at.Signature.List(at.File.Text)
	out = make([]Token, 0, len(tokens)+3) // with the end and a remark
	for _, t := range tokens {
		if t.Kind == model.TokenComment {
			continue
		}
		width += utf8.RuneCountInString(t.Text)
		if t.Kind == model.TokenName {
			out = append(out, Token{Kind: t.Kind, Text: t.Text, To: &Target{Target: link.Target{Declaration: member}}})
			continue
		}
		out = append(out, m.Token(member, at, t))
	}
	out = append(out, mark(form.End))
	if forms := len(m.Links.Overloads(member)); forms > 1 {
		out = append(out, mark(" "), remarkToken(form.Remark+m.Texts.Say("forms", "n", strconv.Itoa(forms))))
	} else if text := m.remark(member); text != "" && width+utf8.RuneCountInString(text) < longestHeld {
		out = append(out, mark(" "), remarkToken(form.Remark+text))
	}
	return out
}

// remark is the first sentence on a member, where it is short enough to stand beside it.
func (m *Maker) remark(member *model.Declaration) string {
	d := m.Links.TextOf(member)
	if d == nil || member.Kind().IsCallable() {
		return ""
	}
	sections, _ := m.Links.Sections(d)
	text := prose.Line(prose.Summary(sections.Body))
	if utf8.RuneCountInString(text) > longestRemark {
		return ""
	}
	return text
}
