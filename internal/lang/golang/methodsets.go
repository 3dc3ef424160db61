package golang

import (
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// This file says when two methods are the same, so that types can be compared with
// interfaces (Go specification, "Method sets" and "Implementing an interface"). Two
// signatures are the same when their types are, so every type name is replaced by the
// identifier of what it means.

// universe are predeclared interfaces ("Predeclared identifiers").
var universe = map[string]map[string]string{
	"error": {"Error": "()(string)"},
	"any":   {},
}

// BroughtMethods are those of a predeclared interface.
func (FrontEnd) BroughtMethods(name string) (methods map[string]string, ok bool) {
	methods, ok = universe[name]
	return methods, ok
}

// CanImplement reports whether a type is no alias.
func (FrontEnd) CanImplement(d *model.Declaration) bool { return !isAlias(d) }

// MethodKey is the name by which methods of two types are compared: one that
// is not exported belongs to its package alone.
func (FrontEnd) MethodKey(d *model.Declaration) string {
	if d.Speaks(model.Words).Visibility == model.Public {
		return d.Name
	}
	return d.Module.Path + "." + d.Name
}

func isAlias(d *model.Declaration) bool {
	at := d.Speaks(model.Words)
	for t := range at.Tokens(at.Signature) {
		if t.Kind == model.TokenPunctuation && strings.HasSuffix(t.Text, " =") {
			return true
		}
	}
	return false
}

// MethodType writes parameters and results in normal form: every type name by its
// identifier, type parameters by their place, no parameter names.
func (FrontEnd) MethodType(owner *model.Declaration, at model.At, names lang.Names) string {
	var b strings.Builder
	n := normalizer{names: names, b: &b, module: owner.Module, file: at.File, places: typeParameterPlaces(owner, at)}
	n.params(at.Callable.Params)
	n.params(at.Callable.Results)
	return b.String()
}

// typeParameterPlaces numbers the type parameters in scope of a method: those
// that its receiver names, or those of the interface it stands in.
func typeParameterPlaces(owner *model.Declaration, at model.At) map[string]int {
	places := map[string]int{}
	for t := range at.Tokens(at.Callable.Receiver) {
		if t.Kind == model.TokenTypeParam {
			places[t.Text] = len(places)
		}
	}
	if len(places) == 0 {
		for i, p := range owner.Speaks(model.Words).TypeParams() {
			places[p.Name] = i
		}
	}
	return places
}

type normalizer struct {
	names  lang.Names
	b      *strings.Builder
	module *model.Module
	file   *model.Facts
	places map[string]int
	depth  int
}

func (n *normalizer) params(list []model.Param) {
	n.b.WriteByte('(')
	for i, p := range list {
		if i > 0 {
			n.b.WriteByte(',')
		}
		n.tokens(p.Type.List(n.file.Text))
	}
	n.b.WriteByte(')')
}

func (n *normalizer) tokens(list []model.Token) {
	for i, t := range list {
		switch t.Kind {
		case model.TokenParameter: // a name inside a function type says nothing of the type
			continue
		case model.TokenTypeParam:
			n.b.WriteByte('$')
			n.b.WriteByte(byte('0' + min(n.places[t.Text], 9)))
		case model.TokenType:
			n.typeName(t.Text)
		case model.TokenKeyword:
			if t.Text == "interface" && i+1 < len(list) && list[i+1].Text == "{}" {
				n.b.WriteString("any")
				continue
			}
			n.b.WriteString(t.Text)
		default:
			if t.Text == "{}" && i > 0 && list[i-1].Text == "interface" {
				continue
			}
			n.b.WriteString(strings.ReplaceAll(t.Text, " ", ""))
		}
	}
}

// sameTypes are predeclared names that mean the same type.
var sameTypes = map[string]string{"byte": "uint8", "rune": "int32"}

func (n *normalizer) typeName(name string) {
	d := n.names.Type(n.module, n.file, name)
	switch {
	case d != nil && isAlias(d) && n.depth < 8:
		n.alias(d)
	case d != nil:
		n.b.WriteString(d.Module.Path + "#" + d.Path()) // the library may be called otherwise elsewhere
	case strings.Contains(name, "."):
		qualifier, rest, _ := strings.Cut(name, ".")
		if path := n.names.Imported(n.file, qualifier); path != "" {
			qualifier = path
		}
		n.b.WriteString(qualifier + "#" + rest)
	case sameTypes[name] != "":
		n.b.WriteString(sameTypes[name])
	default:
		n.b.WriteString(name)
	}
}

// alias writes what an alias stands for: the tokens behind "=".
func (n *normalizer) alias(d *model.Declaration) {
	at := d.Speaks(model.Words)
	signature := at.Signature.List(at.File.Text)
	for i, t := range signature {
		if t.Kind == model.TokenPunctuation && strings.HasSuffix(t.Text, " =") {
			inner := *n
			inner.module, inner.file, inner.depth = d.Module, at.File, n.depth+1
			inner.tokens(signature[i+2:])
			return
		}
	}
}
