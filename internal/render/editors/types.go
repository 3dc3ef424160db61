package editors

import (
	"slices"
	"strconv"
	"strings"

	"codrel/internal/memberid"
	"codrel/internal/model"
)

// This file spells types as identifiers do: "List<int?[]>" is
// "System.Collections.Generic.List{System.Nullable{System.Int32}[]}".

// typeID spells a type that is written in the signature of a member.
func (m *maker) typeID(d *model.Declaration, at model.At, written string) string {
	r := &typeReader{maker: m, in: d, at: at, text: written}
	id, _ := r.typ()
	return id
}

// typeReader reads one type.
type typeReader struct {
	*maker
	in   *model.Declaration // the member in whose signature it stands
	at   model.At
	text string
	pos  int
}

func (r *typeReader) blanks() {
	for r.pos < len(r.text) && strings.IndexByte(" \t\r\n", r.text[r.pos]) >= 0 {
		r.pos++
	}
}

// next is the next byte that is no blank, or 0.
func (r *typeReader) next() byte {
	r.blanks()
	if r.pos == len(r.text) {
		return 0
	}
	return r.text[r.pos]
}

func (r *typeReader) take(sign byte) bool {
	if r.next() != sign {
		return false
	}
	r.pos++
	return true
}

func (r *typeReader) word() string {
	r.blanks()
	begin := r.pos
	for r.pos < len(r.text) && strings.IndexByte(" \t\r\n<>()[]{},.?*:&", r.text[r.pos]) < 0 {
		r.pos++
	}
	return r.text[begin:r.pos]
}

// typ reads a type; value says that it is never nothing.
func (r *typeReader) typ() (id string, value bool) {
	if r.take('(') {
		id, value = r.tuple(), true
	} else {
		id, value = r.named()
	}
	var ranks []string // the outermost array is written first, and spelled last
	for {
		switch {
		case r.take('?'):
			if value && len(ranks) == 0 {
				id = "System.Nullable{" + id + "}"
			}
		case r.take('*'):
			id, value = id+"*", false
		case r.take('['):
			rank := 1
			for r.take(',') {
				rank++
			}
			r.take(']')
			ranks = append(ranks, "["+strings.TrimSuffix(strings.Repeat("0:,", rank), ",")+"]")
			if rank == 1 {
				ranks[len(ranks)-1] = "[]"
			}
		default:
			for i := len(ranks) - 1; i >= 0; i-- {
				id += ranks[i]
			}
			return id, value && len(ranks) == 0
		}
	}
}

// tuple reads on behind the "(" of a tuple. From the eighth on its types are in one of their own.
func (r *typeReader) tuple() string {
	var list []string
	for r.next() != 0 {
		id, _ := r.typ()
		r.word() // its name
		list = append(list, id)
		if !r.take(',') {
			break
		}
	}
	r.take(')')
	rest := ""
	for len(list) > 7 {
		n := (len(list) - 1) / 7 * 7
		rest = ",System.ValueTuple{" + strings.Join(list[n:], ",") + rest + "}"
		list = list[:n]
	}
	return "System.ValueTuple{" + strings.Join(list, ",") + rest + "}"
}

// part is one of the names of a type, with the types that it is given.
type part struct {
	name  string
	given []string
}

// named reads a type by its name.
func (r *typeReader) named() (id string, value bool) {
	var parts []part
	for {
		p := part{name: strings.TrimPrefix(r.word(), "@")}
		if r.take(':') { // an alias
			r.take(':')
			continue
		}
		if r.take('<') {
			for r.next() != 0 && !r.take('>') {
				given, _ := r.typ()
				p.given = append(p.given, given)
				if !r.take(',') && r.next() != '>' {
					r.pos++ // of no type
				}
			}
		}
		parts = append(parts, p)
		if !r.take('.') {
			break
		}
	}
	return r.whole(parts)
}

// whole spells a type that is read.
func (r *typeReader) whole(parts []part) (id string, value bool) {
	name := parts[0].name
	if len(parts) == 1 {
		if typ := memberid.TypeOf(name); typ != "" && len(parts[0].given) == 0 {
			return typ, typ != "System.Object" && typ != "System.String"
		}
		if mark, value, ok := r.parameter(name); ok {
			return mark, value
		}
	}
	names := make([]string, len(parts))
	for i, p := range parts {
		names[i] = p.name
	}
	if d := r.find(parts, names); d != nil {
		return r.declared(d, parts), isValue(d)
	}
	// The first names may be those of a type, the others of what is in it.
	for n := len(parts); n > 0; n-- {
		full, isValue, guess := r.links.StandardName(r.in.Site().Module, r.at.File, strings.Join(names[:n], "."))
		switch {
		case full != "":
			return spell(full, parts[n-1:], parts[n:]), isValue && n == len(parts)
		case n == 1 && len(parts) == 1 && guess != "":
			return spell(guess+"."+name, parts, nil), false
		}
	}
	if len(parts) == 1 {
		r.unnamed[r.text] = true
	}
	return spell(strings.Join(names[:len(names)-1], "."), nil, parts[len(parts)-1:]), false
}

// find is the type of the project, or of another one whose names are known, that the names
// mean, or nil: what each is in is looked for with so many type parameters as it is given.
func (r *typeReader) find(parts []part, names []string) *model.Declaration {
	for n := range parts {
		t := r.links.TypeIn(r.in, r.at.File, strings.Join(names[:n+1], "."))
		if t.Declaration == nil || !t.Declaration.Kind().IsType() {
			continue
		}
		d := ofArity(t.Declaration, int32(len(parts[n].given)))
		for _, p := range parts[n+1:] {
			i := slices.IndexFunc(d.Members, func(in *model.Declaration) bool {
				return in.Name == p.name && in.Kind().IsType() && int(in.Arity()) == len(p.given)
			})
			if i < 0 {
				return nil
			}
			d = d.Members[i]
		}
		return d
	}
	return nil
}

// isValue reports whether values of a type are never nothing.
func isValue(d *model.Declaration) bool {
	at := d.Speaks(model.Words)
	return d.Kind() == model.KindStruct || d.Kind() == model.KindEnum ||
		d.Kind() == model.KindRecord && strings.Contains(at.Signature.Text(at.File.Text), "record struct ")
}

// spell spells a whole name that the first of some parts may end, and the parts behind it.
func spell(full string, last, behind []part) string {
	if len(last) > 0 {
		full += given(last[0].given)
	}
	for _, p := range behind {
		if full != "" {
			full += "."
		}
		full += p.name + given(p.given)
	}
	return full
}

func given(list []string) string {
	if len(list) == 0 {
		return ""
	}
	return "{" + strings.Join(list, ",") + "}"
}

// ofArity is the declaration of the same name with so many type parameters.
func ofArity(d *model.Declaration, arity int32) *model.Declaration {
	if d.Arity() != arity {
		for other := range d.Namesakes {
			if other.Arity() == arity {
				return other
			}
		}
	}
	return d
}

// declared spells a type of the project, or of another one whose names are known: what is
// around it is given its own type parameters where nobody gives it others.
func (r *typeReader) declared(d *model.Declaration, parts []part) string {
	var chain []*model.Declaration
	for ; d != nil; d = d.Parent {
		chain = append([]*model.Declaration{d}, chain...)
	}
	out, counted := "", 0
	for i, level := range chain {
		list := []string{}
		if at := i - (len(chain) - len(parts)); at >= 0 && len(parts[at].given) > 0 {
			list = parts[at].given
		} else {
			for n := range int(level.Arity()) {
				list = append(list, "`"+strconv.Itoa(counted+n))
			}
		}
		counted += int(level.Arity())
		if i == 0 {
			out = inNamespace(level, level.Name) + given(list)
			continue
		}
		out += "." + level.Name + given(list)
	}
	return out
}

// parameter spells a type parameter of the member or of what is around it.
func (r *typeReader) parameter(name string) (mark string, value, ok bool) {
	if i := slices.Index(methodParams(r.at), name); i >= 0 && !r.in.Kind().IsType() {
		return "``" + strconv.Itoa(i), isStruct(r.at, name), true
	}
	if r.in.Kind().IsType() {
		return "", false, false
	}
	before := 0
	for d := r.in.Parent; d != nil; d = d.Parent {
		before += int(d.Arity())
	}
	for d := r.in.Parent; d != nil; d = d.Parent {
		before -= int(d.Arity())
		at := d.Speaks(model.Words)
		for i, p := range at.TypeParams() {
			if p.Name == name {
				return "`" + strconv.Itoa(before+i), isStruct(at, name), true
			}
		}
	}
	return "", false, false
}

// isStruct reports whether a type parameter stands for structures alone.
func isStruct(at model.At, name string) bool {
	code := strings.Join(strings.Fields(at.Signature.Text(at.File.Text)), " ")
	_, bounds, ok := strings.Cut(code, "where "+name+" :")
	if !ok {
		_, bounds, ok = strings.Cut(code, "where "+name+":")
	}
	bounds, _, _ = strings.Cut(bounds, "where ")
	return ok && (strings.HasPrefix(strings.TrimSpace(bounds), "struct") || strings.HasPrefix(strings.TrimSpace(bounds), "unmanaged"))
}
