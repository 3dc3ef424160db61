package page

import (
	"slices"
	"strings"

	"codrel/internal/model"
	"codrel/internal/prose"
)

// This file shows parameters that only a comment names: of a body that is there for
// others to fill, and that callers may hand more to than its list has.

// Told are the names of such parameters, in the order of the comment.
func (m *Maker) Told(d *model.Declaration, at model.At) (names []string) {
	if at.Callable == nil || !at.Callable.Placeholder || at.Doc == nil {
		return nil
	}
	for _, part := range m.Links.Comments.Of(d.Module.Library.Habits, at.File, at.Doc).Of(prose.Parameters) {
		for i := range part.Entries {
			name := part.Entries[i].Name
			has := func(p model.Param) bool { return strings.TrimPrefix(p.Name, "...") == name }
			if name != "" && !strings.ContainsAny(name, ".[] ") && !slices.ContainsFunc(at.Callable.Params, has) && !slices.Contains(names, name) {
				names = append(names, name)
			}
		}
	}
	if len(names) > 0 && slices.ContainsFunc(at.Callable.Params, func(p model.Param) bool { return p.Name == "{}" || p.Name == "[]" || p.Variadic }) {
		return nil // one of the names may be that of the pattern
	}
	return names
}

// withTold puts such parameters behind those that a signature has.
func withTold(tokens []model.Token, names []string) []model.Token {
	if len(names) == 0 {
		return tokens
	}
	depth, named := 0, false
	for i, t := range tokens {
		named = named || t.Kind == model.TokenName
		if t.Kind != model.TokenPunctuation || !named {
			continue
		}
		for at := range len(t.Text) {
			switch t.Text[at] {
			case '(':
				depth++
			case ')':
				if depth--; depth > 0 {
					continue
				}
				out := slices.Clone(tokens[:i])
				before := t.Text[:at]
				if !strings.HasSuffix(before, "(") {
					before += ", "
				}
				out = append(out, model.Token{Kind: model.TokenPunctuation, Text: before})
				for n, name := range names {
					if n > 0 {
						out = append(out, model.Token{Kind: model.TokenPunctuation, Text: ", "})
					}
					out = append(out, model.Token{Kind: model.TokenParameter, Text: name})
				}
				out = append(out, model.Token{Kind: model.TokenPunctuation, Text: t.Text[at:]})
				return append(out, tokens[i+1:]...)
			}
		}
	}
	return tokens
}
