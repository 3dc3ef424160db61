// Package memberid owns the identifiers that the standard of C# gives the members of a
// program in documentation files (ECMA-334, Annex D, clause D.4): "M:Tide.Plan.At(System.Int32)".
//
// It takes them apart, puts them together and knows the words of the language for types. It
// knows nothing of declarations, comments or files.
package memberid

import (
	"strconv"
	"strings"
)

// Kinds of what an identifier names: the letter before its colon.
const (
	Namespace  = 'N'
	Type       = 'T'
	Field      = 'F'
	Property   = 'P'
	Method     = 'M'
	Event      = 'E'
	Unresolved = '!' // nothing of that name was found
)

const kinds = "TMPFEN!"

// Cut cuts the kind off an identifier; ok is false where the text is none.
func Cut(id string) (kind byte, rest string, ok bool) {
	if len(id) > 2 && id[1] == ':' && strings.IndexByte(kinds, id[0]) >= 0 {
		return id[0], id[2:], true
	}
	return 0, id, false
}

// Member is what an identifier of a type or of something in a type says.
type Member struct {
	Kind   byte
	Path   []Part   // from the outermost namespace inwards
	Called bool     // it has a list of parameters
	Params []string // types by their full names
}

// Part is one of the names of a path.
type Part struct {
	Name  string // as identifiers spell it: "#ctor", "op_Addition"
	Arity int    // of how many type parameters the name is
}

// Parse takes an identifier apart; ok is false where the text is none.
func Parse(id string) (m Member, ok bool) {
	kind, rest, ok := Cut(strings.TrimSpace(id))
	if !ok {
		return m, false
	}
	m.Kind = kind
	head, params, called := strings.Cut(rest, "(")
	if !called {
		head, _, _ = strings.Cut(head, "~")
	}
	m.Called = called
	for name := range strings.SplitSeq(head, ".") {
		name, arity := CutArity(name)
		m.Path = append(m.Path, Part{Name: name, Arity: arity})
	}
	if called {
		if end := strings.LastIndexByte(params, ')'); end >= 0 {
			params = params[:end]
		}
		m.Params = Split(params)
	}
	return m, true
}

// CutArity cuts the number of type parameters off a name: "Berths`1" is "Berths" and 1.
func CutArity(name string) (plain string, arity int) {
	plain, digits, ok := strings.Cut(name, "`")
	if !ok {
		return name, 0
	}
	n, _ := strconv.Atoi(strings.TrimLeft(digits, "`"))
	return plain, min(max(n, 0), 100)
}

// WithoutArities takes the numbers of type parameters off all names of a path.
func WithoutArities(path string) string {
	var out strings.Builder
	for i := 0; i < len(path); i++ {
		if path[i] != '`' {
			out.WriteByte(path[i])
			continue
		}
		for i+1 < len(path) && (path[i+1] == '`' || path[i+1] >= '0' && path[i+1] <= '9') {
			i++
		}
	}
	return out.String()
}

// Split cuts a list at the commas that stand in no bracket.
func Split(list string) []string {
	var out []string
	depth, from := 0, 0
	for i := 0; i <= len(list); i++ {
		switch {
		case i == len(list) || list[i] == ',' && depth == 0:
			if p := strings.TrimSpace(list[from:i]); p != "" {
				out = append(out, p)
			}
			from = i + 1
		case strings.IndexByte("{[(<", list[i]) >= 0:
			depth++
		case strings.IndexByte("}])>", list[i]) >= 0:
			depth--
		}
	}
	return out
}
