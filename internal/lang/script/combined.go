package script

import (
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// This file says what types are made of that are other types put together.

// Combined are the types that another name stands for which is made of them, as in
// "type A = B & C".
func (e FrontEnd) Combined(d *model.Declaration, names lang.Names) []lang.Part {
	if d.Kind() != model.KindType || d.Module.Library.Elsewhere != nil {
		return nil
	}
	at := d.Speaks(model.Words)
	var out []lang.Part
	oneOf := false
	depth, behind, braces := 0, false, 0
	for t := range at.Tokens(at.Signature) {
		if !behind {
			behind = depth == 0 && t.Kind == model.TokenPunctuation && strings.TrimSpace(t.Text) == "="
			depth += nesting(t)
			continue
		}
		if n := strings.Count(t.Text, "{") + strings.Count(t.Text, "(") + strings.Count(t.Text, "["); t.Kind == model.TokenPunctuation && (braces > 0 || n > 0) {
			braces += n - strings.Count(t.Text, "}") - strings.Count(t.Text, ")") - strings.Count(t.Text, "]")
			depth += nesting(t)
			continue
		}
		switch text := strings.TrimSpace(t.Text); {
		case braces > 0:
		case t.Kind == model.TokenType && depth == 0:
			of := names.TypeIn(d, at.File, t.Text)
			if of != nil && of.Kind() == model.KindType && of != d && e.MapsFirst(of, names) {
				of = nil
			}
			if !e.Combines(t.Text) || of != nil {
				out = append(out, lang.Part{Means: of, Name: t.Text})
			}
		case t.Kind == model.TokenType && depth == 1 && (len(out) == 0 || out[len(out)-1].Means == nil):
			if of := names.TypeIn(d, at.File, t.Text); of != nil {
				out = append(out, lang.Part{Means: of, Name: t.Text})
			}
		case t.Kind == model.TokenKeyword && depth == 0, depth == 0 && (text == "?" || text == "=>"):
			return nil
		case depth == 0 && text == "|":
			oneOf = true
		default:
			depth += nesting(t)
		}
	}
	for i := range out {
		out[i].OneOf = oneOf
	}
	return out
}

// nesting is how many brackets more a token opens than it closes.
func nesting(t model.Token) (n int) {
	if t.Kind != model.TokenPunctuation {
		return 0
	}
	for i, c := range t.Text {
		switch c {
		case '<', '(', '[', '{':
			n++
		case ')', ']', '}':
			n--
		case '>':
			if i == 0 || t.Text[i-1] != '=' {
				n--
			}
		}
	}
	return n
}

// MapsFirst reports whether a type has the members of its first argument, or some of them.
func (e FrontEnd) MapsFirst(d *model.Declaration, names lang.Names) bool {
	at := d.Speaks(model.Words)
	if len(at.TypeParams()) == 0 || len(e.Combined(d, names)) > 0 {
		return false
	}
	text := at.Signature.Text(at.File.Text)
	for _, made := range []string{"in keyof ", "Omit<", "Pick<", "Partial<", "Required<", "Readonly<"} {
		if strings.Contains(text, made) {
			return true
		}
	}
	return false
}
