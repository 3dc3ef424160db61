package xmldoc

import (
	"cmp"
	"maps"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"codrel/internal/memberid"
	"codrel/internal/symbols"
)

// This file makes the names of another project of a documentation file. The file says of each
// member what it is and what it stands in, and not whether that is a namespace or a type: what
// has members is a type, and what a type stands in and is none itself is a namespace.

// Names are the names that a file has, and the comments by module and [symbols.TextKey]. Much
// may be missing, since only what has a comment is in the file: all of it is open.
func (f *File) Names() (*symbols.Table, map[string]map[string]string) {
	g := &gathering{types: map[string]*typ{}}
	for _, m := range f.Members {
		if id, ok := memberid.Parse(m.ID); ok {
			g.add(id, m.Text)
		}
	}
	lib := symbols.Library{Name: cmp.Or(f.Assembly, "unnamed"), Language: "csharp", Modules: g.modules()}
	return &symbols.Table{Name: lib.Name, Libraries: []symbols.Library{lib}}, g.texts
}

// gathering is the types of a file, by their paths with the numbers of type parameters.
type gathering struct {
	types map[string]*typ
	inner map[string][]*typ // of types in types, by what they stand in
	texts map[string]map[string]string
}

// typ is one of the types.
type typ struct {
	path    []memberid.Part
	text    string
	members []member
}

// member is something in a type.
type member struct {
	name, kind string
	id         memberid.Member
	text       string
}

func key(path []memberid.Part) string {
	names := make([]string, len(path))
	for i, p := range path {
		names[i] = p.Name
		if p.Arity > 0 {
			names[i] += "`" + strconv.Itoa(p.Arity)
		}
	}
	return strings.Join(names, ".")
}

func (g *gathering) typ(path []memberid.Part) *typ {
	t := g.types[key(path)]
	if t == nil {
		t = &typ{path: path}
		g.types[key(path)] = t
	}
	return t
}

func (g *gathering) add(id memberid.Member, text string) {
	last := len(id.Path) - 1
	if id.Kind == memberid.Type {
		g.typ(id.Path).text = text
		return
	}
	if last < 1 {
		return
	}
	in := id.Path[:last]
	name, kind := named(id)
	if kind == "" {
		return
	}
	t := g.typ(in)
	t.members = append(t.members, member{name, kind, id, text})
}

// named is what code calls a member, and its kind; "" for what nobody can name.
func named(id memberid.Member) (name, kind string) {
	last := id.Path[len(id.Path)-1].Name
	switch id.Kind {
	case memberid.Field:
		return last, "field"
	case memberid.Event:
		return last, "event"
	case memberid.Property:
		if id.Called {
			return memberid.Indexer, "indexer"
		}
		kind = "property"
	case memberid.Method:
		if last == "#ctor" {
			return id.Path[len(id.Path)-2].Name, "constructor"
		}
		if spoken := memberid.Spoken(last); spoken != "" {
			return spoken, "operator"
		}
		kind = "method"
	}
	if strings.Contains(last, "#") || last == "Finalize" {
		return "", ""
	}
	return last, kind
}

// modules are the namespaces with all that is in them.
func (g *gathering) modules() []symbols.Module {
	g.texts, g.inner = map[string]map[string]string{}, map[string][]*typ{}
	var tops []*typ
	for _, k := range slices.Sorted(maps.Keys(g.types)) {
		t := g.types[k]
		if above := key(t.path[:len(t.path)-1]); g.types[above] != nil {
			g.inner[above] = append(g.inner[above], t)
		} else {
			tops = append(tops, t)
		}
	}
	spaces := map[string]*symbols.Module{}
	for _, t := range tops {
		above := len(t.path) - 1
		space := "global"
		if above > 0 {
			space = memberid.WithoutArities(key(t.path[:above]))
		}
		if spaces[space] == nil {
			spaces[space] = &symbols.Module{Path: space, Open: true}
			g.texts[space] = map[string]string{}
		}
		in := spaces[space]
		in.Holders = append(in.Holders, g.holder(t, "", nil, g.texts[space]))
	}
	out := []symbols.Module{}
	for _, space := range slices.Sorted(maps.Keys(spaces)) {
		out = append(out, *spaces[space])
	}
	return out
}

// holder is a type with its members; above is the label of what it stands in, outer are the
// names of the type parameters of that.
func (g *gathering) holder(t *typ, above string, outer []string, texts map[string]string) symbols.Holder {
	last := t.path[len(t.path)-1]
	h := symbols.Holder{Name: last.Name, Kind: "class", Arity: last.Arity, Open: true}
	label := above + last.Name
	if last.Arity > 0 {
		label += "-" + strconv.Itoa(last.Arity)
	}
	put(texts, label, t.text)
	params := append(slices.Clone(outer), typeParams(t.text, last.Arity)...)
	forms, known := map[string][]symbols.Form{}, map[[2]string]bool{}
	for _, m := range t.members {
		own := typeParams(m.text, m.id.Path[len(m.id.Path)-1].Arity)
		form, types := form(m, params, own)
		if !known[[2]string{m.kind, m.name}] {
			known[[2]string{m.kind, m.name}] = true
			if h.Names == nil {
				h.Names = map[string][]string{}
			}
			h.Names[m.kind] = append(h.Names[m.kind], m.name)
			put(texts, label+"."+m.name, m.text)
		}
		if m.id.Kind == memberid.Method || m.id.Called {
			forms[m.name] = append(forms[m.name], form)
			put(texts, symbols.TextKey(label+"."+m.name, types), m.text)
		}
	}
	for name, list := range forms {
		if len(list) > 1 {
			if h.Forms == nil {
				h.Forms = map[string][]symbols.Form{}
			}
			h.Forms[name] = list
		}
	}
	for _, inner := range g.inner[key(t.path)] {
		h.Holders = append(h.Holders, g.holder(inner, label+".", params, texts))
	}
	return h
}

func put(texts map[string]string, key, text string) {
	if strings.TrimSpace(text) != "" && texts[key] == "" {
		texts[key] = text
	}
}

// form is the parameters of a member, and their types as code writes them.
func form(m member, outer, own []string) (symbols.Form, []string) {
	names := attributes(paramTag, m.text)
	out, types := symbols.Form{}, make([]string, len(m.id.Params))
	for i, id := range m.id.Params {
		types[i] = strings.ReplaceAll(typeParam.ReplaceAllStringFunc(memberid.ShortType(id), func(mark string) string {
			from := outer
			if strings.HasPrefix(mark, "``") {
				from = own
			}
			if n, err := strconv.Atoi(strings.TrimLeft(mark, "`")); err == nil && n < len(from) {
				return from[n]
			}
			return mark
		}), " ", "")
		name := ""
		if len(names) == len(types) {
			name = names[i]
		}
		out = append(out, symbols.Param(name, types[i]))
	}
	return out, types
}

var (
	paramTag     = regexp.MustCompile(`<param\s+name\s*=\s*["']([^"']*)["']`)
	typeParamTag = regexp.MustCompile(`<typeparam\s+name\s*=\s*["']([^"']*)["']`)
	typeParam    = regexp.MustCompile("``?[0-9]+")
)

// typeParams are the names of so many type parameters, as a text has them, or of none.
func typeParams(text string, count int) []string {
	if names := attributes(typeParamTag, text); len(names) == count {
		return names
	}
	out := make([]string, count)
	for i := range out {
		out[i] = "T"
		if count > 1 {
			out[i] += strconv.Itoa(i + 1)
		}
	}
	return out
}

func attributes(tag *regexp.Regexp, text string) []string {
	var out []string
	for _, found := range tag.FindAllStringSubmatch(text, -1) {
		out = append(out, found[1])
	}
	return out
}
