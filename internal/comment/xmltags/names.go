package xmltags

import (
	"strings"

	"codrel/internal/memberid"
	"codrel/internal/prose"
)

// This file reads what "cref" names: as code writes it, with "{" for "<", or by the ID that
// Annex D of the standard gives (its clause D.4).

// plainName is a name without the letter of its kind; isID says that it had one.
func plainName(cref string) (name string, isID bool) {
	cref = strings.TrimSpace(cref)
	if _, name, isID := memberid.Cut(cref); isID {
		return name, true
	}
	return strings.TrimPrefix(cref, "global::"), false
}

// shown is how a name without a label reads: as code writes it.
func shown(cref string) string {
	name, isID := plainName(cref)
	if !isID {
		return strings.NewReplacer("{", "<", "}", ">").Replace(name)
	}
	head, params, called := strings.Cut(name, "(")
	parts := strings.Split(memberid.WithoutArities(head), ".")
	n := len(parts)
	switch {
	case cref[0] == 'N':
		return head
	case n > 1 && parts[n-1] == "#ctor":
		head = parts[n-2]
	case n > 1 && cref[0] != 'T':
		head = parts[n-2] + "." + parts[n-1]
	default:
		head = parts[n-1]
	}
	if !called {
		return head
	}
	list := memberid.Split(strings.TrimSuffix(params, ")"))
	for i, p := range list {
		list[i] = memberid.ShortType(p)
	}
	return head + "(" + strings.Join(list, ", ") + ")"
}

// Reference is what a "cref" means.
func Reference(cref string) prose.Node {
	return prose.Node{Kind: prose.Reference, Strict: true, MayBeExternal: true, Target: shown(cref), Named: nameOf(cref)}
}

// nameOf takes a name apart.
func nameOf(cref string) *prose.Name {
	name, isID := plainName(cref)
	out := &prose.Name{Written: cref}
	if !isID {
		name = strings.NewReplacer("{", "<", "}", ">").Replace(name)
		if i := strings.Index(name, "this["); i >= 0 && strings.HasSuffix(name, "]") {
			name = name[:i] + memberid.Indexer + "(" + name[i+len("this["):len(name)-1] + ")"
		}
		for _, word := range []string{"operator", "implicit operator", "explicit operator"} {
			if op, rest, ok := cutOperator(name, word); ok {
				out.Path = append(splitName(op), rest...)
				return out
			}
		}
		parsed := prose.ParseName(name)
		parsed.Written = cref
		if _, list, called := strings.Cut(name, "("); called && len(parsed.Params) > 0 {
			for i, p := range memberid.Split(strings.TrimSuffix(list, ")")) {
				if i < len(parsed.Params) {
					parsed.Params[i] = memberid.WordOf(strings.Join(strings.Fields(withoutPassing(p)), ""))
				}
			}
		}
		return &parsed
	}
	head, params, called := strings.Cut(name, "(")
	parts := strings.Split(head, ".")
	for i, part := range parts {
		part, arity := memberid.CutArity(part)
		out.Arity = int32(arity)
		if part == "#ctor" && i > 0 {
			part = parts[i-1]
		}
		if plain := memberid.Spoken(part); plain != "" {
			part = plain
		}
		parts[i] = strings.ReplaceAll(part, "#", ".")
	}
	out.Path = parts
	if called {
		out.Callable = true
		params, _, _ = strings.Cut(params, ")")
		for _, p := range memberid.Split(params) {
			out.Params = append(out.Params, strings.ReplaceAll(memberid.ShortType(p), " ", ""))
		}
	}
	if cref[0] == 'M' {
		out.Arity = 0 // methods are told apart by their parameters
	}
	return out
}

// withoutPassing takes off the words that say how an argument is handed over.
func withoutPassing(param string) string {
	for {
		word, rest, ok := strings.Cut(strings.TrimSpace(param), " ")
		if !ok || word != "ref" && word != "out" && word != "in" && word != "params" && word != "this" && word != "readonly" && word != "scoped" {
			return param
		}
		param = rest
	}
}

// cutOperator cuts the name of an operator, with its sign, off what it is in.
func cutOperator(name, word string) (in string, operator []string, ok bool) {
	i := strings.Index(name, word+" ")
	if i != 0 && (i < 0 || name[i-1] != '.') {
		return "", nil, false
	}
	sign, _, _ := strings.Cut(name[i+len(word):], "(")
	sign = strings.TrimSpace(sign)
	if word != "operator" {
		sign = ""
	}
	return strings.TrimSuffix(name[:i], "."), []string{strings.TrimSpace(word + " " + sign)}, true
}

func splitName(name string) []string {
	if name == "" {
		return nil
	}
	return prose.ParseName(name).Path
}
