package page

import (
	"strconv"
	"strings"

	"codrel/internal/link"
	"codrel/internal/look"
	"codrel/internal/model"
	"codrel/internal/prose"
)

// PartOf is a part of a comment, and where its names stand.
type PartOf struct {
	*prose.Part
	Scope link.Scope
	Form  int // that alone has it, or 0
	// Also are further forms that say the same of an entry. It may be nil.
	Also func(*prose.Entry) []int
}

// also are further forms that have an entry of the part.
func (p *PartOf) also(e *prose.Entry) []int {
	if p.Also == nil {
		return nil
	}
	return p.Also(e)
}

// InForms says which overloads alone have an item.
func (i *PartItem) InForms(texts look.Texts) string {
	if len(i.Also) == 0 {
		return texts.Say("only-in-form", "n", strconv.Itoa(i.Form))
	}
	numbers := strconv.Itoa(i.Form)
	for _, n := range i.Also {
		numbers += texts.Say("comma") + strconv.Itoa(n)
	}
	return texts.Say("only-in-forms", "n", numbers)
}

// Parts are all named sections of a comment, each kind once, in the order that people read
// them. Others are parts of another declaration's comment that go with them.
func (b *Builder) Parts(s *prose.Sections, others ...PartOf) (out []Part) {
	for kind := range prose.PartKind(len(prose.PartNames)) {
		if kind == prose.Authors || kind == prose.Version || b.Hidden[prose.PartNames[kind]] {
			continue
		}
		var parts []PartOf
		for _, p := range s.Of(kind) {
			parts = append(parts, PartOf{Part: p, Scope: b.Scope})
		}
		for _, p := range others {
			if p.Kind == kind {
				parts = append(parts, p)
			}
		}
		if len(parts) == 0 {
			continue
		}
		if kind != prose.Other {
			out = append(out, Part{Kind: kind, History: kind == prose.Since && changes(parts), Items: b.items(parts)})
			continue
		}
		for _, p := range parts {
			out = append(out, Part{Kind: kind, Title: p.Title, Items: b.items([]PartOf{p})})
		}
	}
	return out
}

// changes reports whether notes on versions say more than since when there is a thing.
func changes(parts []PartOf) bool {
	for _, p := range parts {
		for i := range p.Entries {
			if p.Entries[i].Default != "" {
				return true
			}
		}
	}
	return false
}

func (b *Builder) items(parts []PartOf) (out []PartItem) {
	own := b.Scope
	defer func() { b.Scope = own }()
	for _, p := range parts {
		b.Scope = p.Scope
		for i := range p.Entries {
			e := &p.Entries[i]
			if e.Name == "" && len(e.Type) == 0 {
				b.entry = described{kind: p.Kind, set: true}
				out = append(out, PartItem{Form: p.Form, Also: p.also(e), Blocks: b.Blocks(e.Text), Remark: p.Form > 0})
				b.entry = described{}
				continue
			}
			out = append(out, PartItem{Form: p.Form, Also: p.also(e), Entry: b.described(p.Kind, e)})
		}
		if len(p.Body) > 0 {
			out = append(out, PartItem{Blocks: b.Blocks(p.Body)})
		}
	}
	return out
}

// described is one parameter, result or failure with its description.
func (b *Builder) described(kind prose.PartKind, e *prose.Entry) *Entry {
	out := &Entry{Name: e.Name, To: b.named(kind, e.Name), Type: b.Inlines(e.Type), Default: e.Default, Optional: e.Optional}
	b.entry = described{kind, e.Name, true}
	if len(e.Text) == 1 && e.Text[0].Kind == prose.Paragraph && prose.Alone(&e.Text[0], prose.Insert) == nil && !b.inheritsBlocks(&e.Text[0]) {
		out.Line = b.Inlines(e.Text[0].Children)
	} else {
		out.Text = b.Blocks(e.Text)
	}
	b.entry = described{}
	return out
}

// named is what the name of an entry means: that of a failure is a type.
func (b *Builder) named(kind prose.PartKind, name string) *Target {
	if kind != prose.Failures && kind != prose.Warnings || name == "" {
		return nil
	}
	d := b.Scope.Declaration
	if d == nil {
		return nil
	}
	return &Target{Target: b.Links.Type(d.Site().Module, b.Scope.File, name)}
}

// Inherited are the parts of another comment that go with one whose body is inherited from
// it: what the comment itself says nothing of.
func (b *Builder) Inherited(own *prose.Sections) []PartOf {
	var out []PartOf
	for i := range own.Body {
		n := prose.Alone(&own.Body[i], prose.Inherited)
		if n == nil || b.Scope.Declaration == nil {
			continue
		}
		sections, of := b.Links.TextTaken(b.Scope.Declaration, b.form, n)
		if of == nil {
			continue
		}
		for j := range sections.Parts {
			if p, ok := own.Missing(&sections.Parts[j]); ok {
				out = append(out, PartOf{Part: &p, Scope: link.ScopeOf(of)})
			}
		}
	}
	return out
}

// TypeOf is the type that a comment gives a declaration whose signature has none.
func (b *Builder) TypeOf(d *model.Declaration, typ []prose.Node) []Inline {
	if len(typ) == 0 || d.Kind().IsType() || d.Speaks(model.Words).Callable != nil && d.Kind() != model.KindProperty || saysType(d) {
		return nil
	}
	return b.Inlines(typ)
}

// saysType reports whether a signature says the type of what it declares.
func saysType(d *model.Declaration) bool {
	at, behind := d.Speaks(model.Words), false
	for t := range at.Tokens(at.Signature) {
		if behind && strings.HasPrefix(strings.TrimLeft(t.Text, "?! "), ":") {
			return true
		}
		behind = behind || t.Kind == model.TokenName
	}
	return false
}
