package page

import (
	"slices"
	"strings"
	"sync"

	"codrel/internal/lang"
	"codrel/internal/link"
	"codrel/internal/look"
	"codrel/internal/model"
)

// Maker makes what pages say of declarations beside their texts.
type Maker struct {
	Links     *link.Index
	FrontEnds map[string]lang.FrontEnd // by language
	Texts     look.Texts               // the words of the pages
	Hidden    map[string]bool          // names of sections of comments that are not shown

	conditions sync.Map // what was said of them, see [Maker.when]
}

// Token is one piece of a signature as a page shows it. The pieces in a row are the
// signature; lines end within their texts.
type Token struct {
	Kind  model.TokenKind
	Text  string
	Short string  // of a type: what is enough of it where it is a link
	To    *Target // what the token names; nil for nothing
	Whole bool    // it does not break, however long it is
}

// LongSignature is how many characters a signature has on one line at most.
const LongSignature = 76

// Signature is the signature of one occurrence: types lead to what they name, and a long
// list of parameters stands one to a line.
func (m *Maker) Signature(d *model.Declaration, at model.At) []Token {
	tokens := withTold(at.Signature.List(at.File.Text), m.Told(d, at))
	var broken map[int]lineBreak
	if at.Callable != nil && textLength(tokens) > LongSignature {
		broken = parameterBreaks(tokens, at.Callable.Params)
	}
	if opensObjects(d, tokens) {
		return m.objects(d, at, tokens, broken)
	}
	out := make([]Token, 0, len(tokens))
	for i, t := range tokens {
		switch broken[i] {
		case behindMark:
			// A break behind a mark such as ", " takes the place of its blank.
			out = append(out, Token{Kind: model.TokenPunctuation, Text: strings.TrimRight(t.Text, " ") + "\n\t"})
			continue
		case beforeMark:
			out = append(out, Token{Kind: model.TokenPunctuation, Text: listEnd(d)})
		}
		out = append(out, m.Token(d, at, t))
	}
	return out
}

// listEnd is what ends the last line of a broken list of parameters.
func listEnd(d *model.Declaration) string {
	if h := d.Module.Library.Habits; h != nil && h.BareEnd {
		return "\n"
	}
	return ",\n"
}

// Token is a token of the signature of a declaration.
func (m *Maker) Token(d *model.Declaration, at model.At, t model.Token) Token {
	out := Token{Kind: t.Kind, Text: t.Text}
	switch {
	case t.Kind == model.TokenType:
		out.To = &Target{Target: m.Links.TypeOf(d, at.File, t)}
		if _, short, ok := m.Links.ImportedType(d.Site().Module, at.File, t.Text); ok {
			out.Short = short
		}
	case t.Kind == model.TokenName && d.Parent == nil && (d.Name != d.Written() || d.IsSecond()) || t.Kind == model.TokenName && d.IsSecond():
		out.Text = d.Name // users know it by another name than its words have
	}
	return out
}

func textLength(tokens []model.Token) int {
	n := 0
	for _, t := range tokens {
		n += len(t.Text)
	}
	return n
}

// lineBreak tells where a line ends beside a mark.
type lineBreak uint8

const (
	noBreak lineBreak = iota
	behindMark
	beforeMark
)

// parameterBreaks finds where a signature breaks: behind the parenthesis that
// opens the parameters, behind each comma between them, and before the one
// that closes them. Commas between names that share a type do not count.
func parameterBreaks(tokens []model.Token, params []model.Param) map[int]lineBreak {
	start := -1
	for i, t := range tokens {
		if t.Kind == model.TokenName {
			start = i + 1
		}
	}
	if start < 0 {
		return nil
	}
	breaks := map[int]lineBreak{}
	depth, opened := 0, false
	for i := start; i < len(tokens); i++ {
		t := tokens[i]
		if t.Kind != model.TokenPunctuation {
			continue
		}
		for at, c := range t.Text {
			switch c {
			case '<':
				depth++
			case '>':
				if at == 0 || t.Text[at-1] != '=' && t.Text[at-1] != '-' {
					depth--
				}
			case '(', '[', '{':
				depth++
				if c == '(' && depth == 1 && !opened {
					opened = true
					breaks[i] = behindMark
				}
			case ')', ']', '}':
				depth--
				if c == ')' && depth == 0 && opened {
					if len(breaks) == 1 && breaks[i-1] == behindMark {
						return nil // no parameters
					}
					breaks[i] = beforeMark
					return breaks
				}
			case ',':
				if opened && depth == 1 && !shareType(tokens[i-1], params) && tokens[i-1].Text != "*" {
					breaks[i] = behindMark
				}
			}
		}
	}
	return nil
}

// shareType reports whether a token names a parameter whose type is written
// behind the next one.
func shareType(t model.Token, params []model.Param) bool {
	if t.Kind != model.TokenParameter {
		return false
	}
	for i := range len(params) - 1 {
		if p := params[i]; p.Name == t.Text {
			return p.Type != "" && p.Type == params[i+1].Type
		}
	}
	return false
}

// Short is a signature for an overview: what stands behind the name, on one line.
func (m *Maker) Short(d *model.Declaration) string {
	at := d.Speaks(model.Signature)
	var b strings.Builder
	behind, open := false, 0 // brackets that the name stands in
	for t := range at.Tokens(at.Signature) {
		if !behind {
			open += strings.Count(t.Text, "(") - strings.Count(t.Text, ")")
		} else if open > 0 && t.Kind == model.TokenPunctuation && strings.HasPrefix(t.Text, ")") {
			t.Text, open = t.Text[1:], open-1
		} else if open > 0 && t.Kind == model.TokenPunctuation && strings.HasPrefix(t.Text, ",") {
			return "" // the name is an argument of the macro that declares it
		}
		switch _, name, apart := m.Links.ImportedType(d.Site().Module, at.File, t.Text); {
		case !behind || t.Kind == model.TokenComment:
		case apart:
			b.WriteString(name)
		default:
			b.WriteString(t.Text)
		}
		behind = behind || t.Kind == model.TokenName
	}
	text := []rune(strings.ReplaceAll(b.String(), "  ", " ")) // where a comment was
	if len(text) > LongSignature {
		text = append(text[:LongSignature-1], '…')
	}
	return string(text)
}

// BehindName is what stands behind a member's name in its signature, on one line, and its
// type, where that stands before the name.
func (m *Maker) BehindName(d *model.Declaration) (out []Token) {
	at := d.Speaks(model.Signature)
	behind := false
	if h := d.Module.Library.Habits; h != nil && h.TypeFirst {
		out = m.typeBefore(d, at)
	}
	keys := d.Kind() == model.KindIndexer // whose heading goes on to the closing bracket
	for t := range at.Tokens(at.Signature) {
		if end := strings.IndexByte(t.Text, ']'); keys && end >= 0 {
			t.Text, keys, behind = t.Text[end+1:], false, true
		}
		if behind && t.Kind != model.TokenComment {
			out = append(out, m.Token(d, at, t))
		}
		behind = behind || t.Kind == model.TokenName && !keys
	}
	if !behind { // the name is part of a type, as that of an embedded field
		out = append([]Token{{Kind: model.TokenPunctuation, Text: " "}}, m.Signature(d, at)...)
	}
	return out
}

// onlyModifiers reports whether no type has begun yet.
func onlyModifiers(list []Token) bool {
	return !slices.ContainsFunc(list, func(t Token) bool { return t.Kind != model.TokenKeyword || !strings.HasSuffix(t.Text, " ") })
}

// typeBefore is what stands between the modifiers and the name of a member. Modifiers have
// their blank with them.
func (m *Maker) typeBefore(d *model.Declaration, at model.At) (out []Token) {
	for t := range at.Tokens(at.Signature) {
		switch {
		case t.Kind == model.TokenName:
			if n := len(out); n > 0 {
				out[n-1].Text = strings.TrimRight(out[n-1].Text, " ")
				out = append([]Token{{Kind: model.TokenPunctuation, Text: " "}}, out...)
			}
			return out
		case t.Kind == model.TokenKeyword && strings.HasSuffix(t.Text, " ") && (d.Kind() == model.KindConstant || !slices.Contains(d.Module.Library.Habits.Telling, strings.TrimSpace(t.Text))) && onlyModifiers(out):
		case t.Kind != model.TokenComment:
			out = append(out, m.Token(d, at, t))
		}
	}
	return nil
}
