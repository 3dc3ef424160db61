package link

import (
	"maps"
	"slices"
	"strings"

	"codrel/internal/model"
)

// This file finds which types fulfil which interfaces without saying so, by
// comparing method sets (Go specification, "Method sets" and "Implementing an
// interface"). Two signatures are the same when their types are, so every type
// name is replaced by the identifier of what it means.

// methodSet maps a method's name to its signature in normal form.
type methodSet map[string]string

// implementations compares every interface with every type that has its rarest method.
func (x *Index) implementations(modules []*model.Module) []relation {
	var interfaces, types []*model.Declaration
	for _, m := range modules {
		if !x.implicit(m.Library) {
			continue
		}
		for _, d := range m.Top {
			switch {
			case !x.InReach(d):
			case d.Kind() == model.KindInterface:
				interfaces = append(interfaces, d)
			case d.Kind().IsType() && !isAlias(d):
				types = append(types, d)
			}
		}
	}
	interfaces = append(interfaces, x.outsideInterfaces(modules)...)
	wanted := make([]methodSet, len(interfaces))
	x.parallel(len(interfaces), func(i int) { wanted[i] = x.interfaceSet(interfaces[i], 0) })
	asked := map[string]bool{}
	for _, set := range wanted {
		for name := range set {
			asked[name] = true
		}
	}
	have := make([]methodSet, len(types))
	x.parallel(len(types), func(i int) {
		set := methodSet{}
		x.typeSet(types[i], asked, set, 0)
		have[i] = set
	})
	byMethod := map[string][]int{}
	for i, set := range have {
		for name := range set {
			byMethod[name] = append(byMethod[name], i)
		}
	}
	found := make([][]relation, len(interfaces))
	x.parallel(len(interfaces), func(i int) { found[i] = match(interfaces[i], wanted[i], types, have, byMethod) })
	return slices.Concat(found...)
}

// outsideInterfaces are those of other projects' modules that some file imports.
func (x *Index) outsideInterfaces(modules []*model.Module) []*model.Declaration {
	var out []*model.Declaration
	if len(x.elsewhere.all) == 0 {
		return nil
	}
	seen := map[*model.Module]bool{}
	for _, m := range modules {
		for _, f := range m.Files {
			for _, i := range x.imports[f] {
				if i.module == nil || i.module.Library.Elsewhere == nil || seen[i.module] || !x.implicit(i.module.Library) {
					continue
				}
				seen[i.module] = true
				for _, d := range i.module.Top {
					if d.Kind() == model.KindInterface {
						out = append(out, d)
					}
				}
			}
		}
	}
	return out
}

func match(face *model.Declaration, wanted methodSet, types []*model.Declaration, have []methodSet, byMethod map[string][]int) []relation {
	if len(wanted) == 0 {
		return nil
	}
	var candidates []int
	first := true
	for name := range wanted {
		if list := byMethod[name]; first || len(list) < len(candidates) {
			candidates, first = list, false
		}
	}
	var out []relation
	for _, i := range candidates {
		if have[i].fulfils(wanted) {
			out = append(out, relation{types[i], face, implements}, relation{face, types[i], implementedBy})
		}
	}
	return out
}

func (s methodSet) fulfils(wanted methodSet) bool {
	for name, signature := range wanted {
		if s[name] != signature {
			return false
		}
	}
	return true
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

// interfaceSet is the method set of an interface, or nil where no claim can be
// made: it is a constraint, or embeds something outside the project.
func (x *Index) interfaceSet(d *model.Declaration, depth int) methodSet {
	if depth > 8 {
		return nil
	}
	if d.Module.Library.Elsewhere != nil {
		return x.elsewhere.interfaceSet(d)
	}
	set := methodSet{}
	for _, member := range d.Members {
		if at := member.Speaks(model.Words); at.Callable != nil && member.Origin == nil {
			set[x.methodKey(member)] = x.signature(d, at)
		}
	}
	for _, o := range d.Occurrences {
		for _, b := range o.Bases() {
			if !x.embedInterface(d, o, b, set, depth) {
				return nil
			}
		}
	}
	return set
}

func (x *Index) embedInterface(d *model.Declaration, o model.At, b model.Base, set methodSet, depth int) bool {
	typed := b.Type.List(o.File.Text)
	if len(typed) != 1 || typed[0].Kind != model.TokenType {
		return false
	}
	name := typed[0].Text
	base := x.Type(d.Module, o.File, name).Declaration
	switch {
	case base == nil && d.Module.Library.Habits.Brings(name):
		maps.Copy(set, d.Module.Library.Habits.Universe[name])
		return true
	case base == nil || base == d || base.Kind() != model.KindInterface:
		return false
	}
	inner := x.interfaceSet(base, depth+1)
	if inner == nil {
		return false
	}
	for k, v := range inner {
		set[k] = v
	}
	return true
}

// methodKey is the name by which methods of two types are compared: one that
// is not exported belongs to its package alone.
func (x *Index) methodKey(d *model.Declaration) string {
	if d.Speaks(model.Words).Visibility == model.Public {
		return d.Name
	}
	return d.Module.Path + "." + d.Name
}

// typeSet adds the methods of a type, then those it has through what it
// embeds; the shallower one wins. What is embedded from outside the project
// adds nothing: no claim is made of it.
func (x *Index) typeSet(d *model.Declaration, asked map[string]bool, set methodSet, depth int) {
	if depth > 8 || d.Module.Library.Elsewhere != nil {
		return
	}
	for _, member := range d.Members {
		at := member.Speaks(model.Words)
		if at.Callable == nil || at.Kind != model.KindMethod || member.Origin != nil {
			continue
		}
		key := x.methodKey(member)
		if _, has := set[key]; !has && asked[key] {
			set[key] = x.signature(d, at)
		}
	}
	for _, base := range x.bases(d) {
		if base.Kind() == model.KindInterface {
			for k, v := range x.interfaceSet(base, depth+1) {
				if _, has := set[k]; !has {
					set[k] = v
				}
			}
			continue
		}
		x.typeSet(base, asked, set, depth+1)
	}
}

// signature writes parameters and results in normal form: every type name by
// its identifier, type parameters by their place, no parameter names.
func (x *Index) signature(owner *model.Declaration, at model.At) string {
	var b strings.Builder
	n := normalizer{x: x, b: &b, module: owner.Module, file: at.File, places: typeParameterPlaces(owner, at)}
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
	x      *Index
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
	d := n.x.Type(n.module, n.file, name).Declaration
	switch {
	case d != nil && isAlias(d) && n.depth < 8:
		n.alias(d)
	case d != nil:
		n.b.WriteString(d.Module.Path + "#" + d.Path()) // the library may be called otherwise elsewhere
	case strings.Contains(name, "."):
		qualifier, rest, _ := strings.Cut(name, ".")
		for _, i := range n.x.imports[n.file] {
			if i.name == qualifier {
				qualifier = i.path
			}
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
