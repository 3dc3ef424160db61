package page

import (
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/look"
	"codrel/internal/model"
)

// This file says under which conditions something exists.

// When are conditions as pages say them.
type When struct {
	Text   string
	worded bool // in words, not as the source has them
}

// None reports whether there are no conditions.
func (w When) None() bool { return w.Text == "" }

// Key is the key of a text that has the conditions at its end, or in it: one for conditions as they
// are written, and one for words.
func (w When) Key(key string) string {
	switch {
	case w.None():
		return key
	case w.worded:
		return strings.TrimPrefix(key+"-when", "-")
	}
	return strings.TrimPrefix(key+"-for", "-")
}

// Slot fills the place of the conditions in such a text.
func (w When) Slot() Filled { return Slot("conditions", Piece{Text: w.Text, Name: !w.worded}) }

// Sentence says the conditions alone.
func (n *Notes) Sentence(w When) Sentence { return n.Of(w.Key(""), w.Slot()) }

// Words are the conditions as a text.
func (w When) Words(texts look.Texts) string { return texts.Say(w.Key(""), "conditions", w.Text) }

// Conditions are what must hold for an occurrence to exist: in words where its language has them.
func (m *Maker) Conditions(o model.At) When {
	all := o.AllConditions()
	if under := m.Links.Under(o); len(under) > 0 {
		all = append(under, all...)
	}
	return m.when(o.File.Language, all)
}

// OfModule are what must hold for a module to exist.
func (m *Maker) OfModule(module *model.Module) When {
	return m.when(module.Library.Language, module.Conditions)
}

// when says conditions of a language.
func (m *Maker) when(language string, all []string) When {
	if len(all) == 0 {
		return When{}
	}
	key := language + "\x00" + strings.Join(all, "\x00")
	if known, ok := m.conditions.Load(key); ok {
		return known.(When)
	}
	out := m.sayWhen(language, all)
	m.conditions.Store(key, out)
	return out
}

// sayWhen puts conditions of a language into words.
func (m *Maker) sayWhen(language string, all []string) When {
	reader, ok := m.FrontEnds[language].(lang.ConditionReader)
	if !ok {
		return When{Text: strings.Join(all, " and ")}
	}
	var of []lang.Condition
	for i, text := range all {
		if slices.Contains(all[:i], text) {
			continue
		}
		of = flat(of, reader.Condition(text), 0)
	}
	of = needed(reader, needed(reader, of)) // twice: what is shorter now may tell more
	slices.SortStableFunc(of, func(a, b lang.Condition) int { return denied(a) - denied(b) })
	text := m.worded(lang.Condition{Of: of}, 0)
	if text != "" && !strings.HasPrefix(text, m.Texts.Say("not")) {
		text = m.Texts.Say("only", "conditions", text)
	}
	return When{Text: text, worded: true}
}

// flat adds a condition to a list of those that must all hold, by its parts where these must all hold.
func flat(list []lang.Condition, c lang.Condition, depth int) []lang.Condition {
	if c.Kind != "" || c.Any != c.Not || depth > deepest {
		return append(list, c)
	}
	for _, inner := range c.Of {
		inner.Not = inner.Not != c.Not
		list = flat(list, inner, depth+1)
	}
	return list
}

// deepest is how deep conditions are taken apart.
const deepest = 100

// needed are those of conditions that must all hold which the others do not tell already: who is on Linux is on
// Unix and not on Windows, and who is on one of five systems and on one of two is on one of the two.
func needed(reader lang.ConditionReader, list []lang.Condition) []lang.Condition {
	out := slices.Clone(list)
	for i := 0; i < len(out); i++ {
		for k := range out {
			if k != i && told(reader, out[k], &out[i]) {
				out = slices.Delete(out, i, i+1)
				i--
				break
			}
		}
	}
	return out
}

// told reports whether a condition tells all that another one does. Of those of which one is enough it takes away
// what the first rules out.
func told(reader lang.ConditionReader, by lang.Condition, c *lang.Condition) bool {
	holds, ok := choices(by)
	asked, plain := choices(*c)
	if !ok || !plain {
		return false
	}
	if by.Not {
		if !c.Not && len(asked) > 1 {
			left := slices.DeleteFunc(slices.Clone(asked), func(a lang.Condition) bool { value, known := reader.Settles(a, by); return known && value })
			if len(left) > 0 { // else there is no such build, which both together say
				c.Of = left
			}
		}
		return false
	}
	settled := func(other lang.Condition, as bool) bool { // by all of them
		return !slices.ContainsFunc(holds, func(h lang.Condition) bool {
			value, known := reader.Settles(h, other)
			return !known || value != as
		})
	}
	if c.Not {
		return !slices.ContainsFunc(asked, func(a lang.Condition) bool { return !settled(a, false) })
	}
	if !slices.ContainsFunc(holds, func(h lang.Condition) bool {
		return !slices.ContainsFunc(asked, func(a lang.Condition) bool { value, known := reader.Settles(h, a); return known && value })
	}) {
		return true
	}
	if len(asked) > 1 {
		if left := slices.DeleteFunc(slices.Clone(asked), func(a lang.Condition) bool { return settled(a, false) }); len(left) > 0 {
			c.Of = left
		}
	}
	return false
}

// choices are the things of which a condition asks for one, where it is as simple as that.
func choices(c lang.Condition) ([]lang.Condition, bool) {
	if c.Kind != "" {
		return []lang.Condition{c}, true
	}
	if !c.Any || c.Not || len(c.Of) == 0 || slices.ContainsFunc(c.Of, func(inner lang.Condition) bool { return inner.Kind == "" || inner.Not }) {
		return nil, false
	}
	return c.Of, true
}

// denied is 1 of a condition that denies something, and 0 of others.
func denied(c lang.Condition) int {
	if c.Kind != "" && c.Not {
		return 1
	}
	return 0
}

// worded is a condition in words, or "" for one that always holds.
func (m *Maker) worded(c lang.Condition, depth int) string {
	if c.Kind != "" {
		key := "when-" + c.Kind
		if c.Not {
			key = "when-not-" + c.Kind
		}
		return m.Texts.Say(key, "name", c.Name)
	}
	joint := m.Texts.Say("and")
	if c.Any != c.Not { // none of several is: each is not
		joint = m.Texts.Say("or")
	}
	if alike, ok := together(c, m.Texts.Say("or"), joint); ok {
		return m.worded(alike, depth)
	}
	if !c.Any && !c.Not {
		c.Of = m.merged(c.Of)
	}
	if len(c.Of) > 1 {
		depth++
	}
	var parts []string
	for _, inner := range c.Of {
		inner.Not = inner.Not != c.Not
		words := m.worded(inner, depth)
		if words == "" {
			if c.Any {
				return "" // one of them always holds
			}
			continue
		}
		parts = append(parts, words)
	}
	text := strings.Join(parts, joint)
	if depth > 1 && len(parts) > 1 && c.Any != c.Not {
		text = "(" + text + ")"
	}
	return text
}

// merged are conditions that must all hold, with one in the place of those that ask for things of one kind.
func (m *Maker) merged(list []lang.Condition) []lang.Condition {
	out := make([]lang.Condition, 0, len(list))
	for _, c := range list {
		i := slices.IndexFunc(out, func(o lang.Condition) bool { return c.Kind != "" && o.Kind == c.Kind && o.Not == c.Not })
		if i < 0 {
			out = append(out, c)
			continue
		}
		joint := "and"
		if c.Not { // on none of them
			joint = "or"
		}
		out[i].Name += m.Texts.Say(joint) + c.Name
	}
	return out
}

// together is one condition for several that ask for the same kind of thing.
func together(c lang.Condition, or, joint string) (lang.Condition, bool) {
	if len(c.Of) < 2 {
		return c, false
	}
	out := c.Of[0]
	if out.Not != c.Not { // "not on Unix or Windows" says that it is on neither
		joint = or
	}
	for n, inner := range c.Of {
		if inner.Kind == "" || inner.Kind != out.Kind || inner.Not != out.Not || inner.Not != c.Not && c.Any != c.Not {
			return c, false
		}
		if n > 0 {
			out.Name += joint + inner.Name
		}
	}
	out.Not = out.Not != c.Not
	return out, true
}
