package site

import (
	"slices"
	"strings"

	"codrel/internal/model"
)

// This file draws signatures: types as links, and a long list of parameters
// one to a line.

// longSignature is how many characters a signature has on one line at most.
const longSignature = 76

// signature draws the signature of one occurrence.
func (v view) signature(d *model.Declaration, at model.At) string {
	tokens := withTold(at.Signature.List(at.File.Text), v.told(d, at))
	var broken map[int]lineBreak
	if at.Callable != nil && textLength(tokens) > longSignature {
		broken = parameterBreaks(tokens, at.Callable.Params)
	}
	if opensObjects(d, tokens) {
		return v.objects(d, at, tokens, broken)
	}
	var b strings.Builder
	for i, t := range tokens {
		switch broken[i] {
		case behindMark:
			// A break behind a mark such as ", " takes the place of its blank.
			b.WriteString(escape(strings.TrimRight(t.Text, " ")) + "\n\t")
			continue
		case beforeMark:
			b.WriteString(",\n")
		}
		v.token(&b, d, at, t)
	}
	return b.String()
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

var tokenClasses = map[model.TokenKind]string{
	model.TokenComment: "l", model.TokenKeyword: "k", model.TokenName: "n", model.TokenParameter: "p", model.TokenLiteral: "l", model.TokenTypeParam: "t",
}

func (v view) token(b *strings.Builder, d *model.Declaration, at model.At, t model.Token) {
	if t.Kind == model.TokenType {
		href, text := v.href(v.plan.Links.TypeIn(d, at.File, t.Text)), t.Text
		if _, short, ok := v.plan.Links.ImportedType(d.Site().Module, at.File, t.Text); ok && href != "" {
			text = short
		}
		if href == "" || href == v.to(v.page.Address) {
			b.WriteString(breakable(text))
			return
		}
		b.WriteString(`<a href="` + escape(href) + `">` + breakable(text) + `</a>`)
		return
	}
	class := tokenClasses[t.Kind]
	if class == "" {
		b.WriteString(escape(t.Text))
		return
	}
	text := t.Text
	if t.Kind == model.TokenName && d.Parent == nil && (d.Name != d.Written() || d.IsSecond()) || t.Kind == model.TokenName && d.IsSecond() {
		text = d.Name // users know it by another name than its words have
	}
	b.WriteString(`<span class="` + class + `">` + breakable(text) + `</span>`)
}

// short draws a signature for an overview: what stands behind the name, on one line.
func (v view) short(d *model.Declaration) string {
	at := d.Speaks(model.Signature)
	var b strings.Builder
	behind := false
	for t := range at.Tokens(at.Signature) {
		switch _, name, apart := v.plan.Links.ImportedType(d.Site().Module, at.File, t.Text); {
		case !behind || t.Kind == model.TokenComment:
		case apart:
			b.WriteString(name)
		default:
			b.WriteString(t.Text)
		}
		behind = behind || t.Kind == model.TokenName
	}
	text := []rune(strings.ReplaceAll(b.String(), "  ", " ")) // where a comment was
	if len(text) > longSignature {
		text = append(text[:longSignature-1], '…')
	}
	return string(text)
}

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
	typ := typeForm(d)
	if !typ.Kind.IsType() || typ.Kind == model.KindNamespace || slices.ContainsFunc(forms, func(at model.At) bool { return at.Kind.IsType() }) {
		return forms
	}
	return append(slices.Clone(forms), typ)
}
