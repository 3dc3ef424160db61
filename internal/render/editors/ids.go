package editors

import (
	"slices"
	"strconv"
	"strings"

	"codrel/internal/memberid"
	"codrel/internal/model"
)

// id is the identifier of a declaration, of the form that an occurrence gives.
func (m *maker) id(d *model.Declaration, at model.At) string {
	switch {
	case d.Kind().IsType():
		return "T:" + typePath(d)
	case d.Parent == nil:
		return "!:" + d.Name
	}
	in := typePath(d.Parent) + "."
	switch d.Kind() {
	case model.KindEvent:
		return "E:" + in + spelled(d.Name)
	case model.KindProperty:
		return "P:" + in + spelled(d.Name)
	case model.KindIndexer:
		return "P:" + in + "Item" + m.params(d, at)
	case model.KindConstructor:
		return "M:" + in + "#ctor" + m.params(d, at)
	}
	if at.Callable == nil {
		return "F:" + in + spelled(d.Name)
	}
	name := spelled(d.Name)
	if strings.HasPrefix(name, "~") {
		name = "Finalize"
	}
	if operator := memberid.Spelled(d.Name, len(at.Callable.Params)); operator != "" {
		name = operator
	}
	if n := len(methodParams(at)); n > 0 {
		name += "``" + strconv.Itoa(n)
	}
	id := "M:" + in + name + m.params(d, at)
	if strings.Contains(d.Name, "plicit operator") { // one that makes one type of another says of which
		_, result, _ := strings.Cut(at.Signature.Code(at.File.Text), d.Name)
		id += "~" + m.typeID(d, at, result)
	}
	return id
}

// ofInterface reports whether a member stands for one of an interface alone, which it names
// itself: nobody can name it, and no editor shows its text.
func ofInterface(d *model.Declaration, at model.At) bool {
	code := at.Signature.Code(at.File.Text)
	i := strings.Index(code, "."+d.Name)
	return i >= 0 && !strings.ContainsAny(code[:i], "({[=")
}

// spelled is a name as identifiers spell it.
func spelled(name string) string {
	return strings.NewReplacer(".", "#", "<", "{", ">", "}", ",", "@").Replace(strings.TrimPrefix(name, "@"))
}

// typePath is the whole name of a type, with the numbers of type parameters.
func typePath(d *model.Declaration) string {
	name := d.Name
	if n := d.Arity(); n > 0 {
		name += "`" + strconv.Itoa(int(n))
	}
	if d.Parent != nil {
		return typePath(d.Parent) + "." + name
	}
	return inNamespace(d, name)
}

// global is the module of what stands in no namespace.
const global = "global"

func inNamespace(d *model.Declaration, name string) string {
	if space := d.Module.Path; space != global {
		return space + "." + name
	}
	return name
}

// params is the list of parameters of a form, or "" where there are none.
func (m *maker) params(d *model.Declaration, at model.At) string {
	if at.Callable == nil {
		return ""
	}
	list := make([]string, 0, len(at.Callable.Params)+1)
	if _, receiver := extended(at); receiver != "" && !slices.Contains(at.Modifiers(), "static") {
		list = append(list, m.typeID(d, at, receiver))
	}
	for i := range at.Callable.Params {
		p := &at.Callable.Params[i]
		typ := m.typeID(d, at, p.Type.Code(at.File.Text))
		if p.Mode == model.ByReference || p.Mode == model.OutOnly || p.Mode == model.InOnly {
			typ += "@"
		}
		list = append(list, typ)
	}
	if len(list) == 0 {
		return ""
	}
	return "(" + strings.Join(list, ",") + ")"
}

// extended takes apart what opens a block of extensions, "extension<T>(List<T> list)", where
// a method stands in one: compilers make a method of it that takes what it extends first, and
// the block's type parameters before its own.
func extended(at model.At) (params []string, receiver string) {
	if at.Extra == nil {
		return nil, ""
	}
	rest, ok := strings.CutPrefix(at.Extra.Section, "extension")
	if !ok {
		return nil, ""
	}
	head, receiver, _ := strings.Cut(rest, "(")
	for p := range strings.SplitSeq(strings.Trim(head, "<> "), ",") {
		if p = strings.TrimSpace(p); p != "" {
			params = append(params, p)
		}
	}
	for _, word := range []string{"ref ", "readonly ", "in ", "scoped "} {
		receiver = strings.TrimPrefix(receiver, word)
	}
	return params, receiver
}

// methodParams are the names of the type parameters of a method.
func methodParams(at model.At) []string {
	names, _ := extended(at)
	for _, p := range at.TypeParams() {
		names = append(names, p.Name)
	}
	return names
}
