package xmltags

import (
	"strconv"
	"strings"

	"codrel/internal/prose"
)

// This file reads what "cref" names: as code writes it, with "{" for "<", or by the ID that
// Annex D of the standard gives (its clause D.4).

// idKinds are the letters before an ID.
const idKinds = "TMPFEN!"

// plainName is a name without the letter of its kind; isID says that it had one.
func plainName(cref string) (name string, isID bool) {
	cref = strings.TrimSpace(cref)
	if len(cref) > 2 && cref[1] == ':' && strings.IndexByte(idKinds, cref[0]) >= 0 {
		return cref[2:], true
	}
	return strings.TrimPrefix(cref, "global::"), false
}

// predefined are the words of the language for types of its library.
var predefined = map[string]string{
	"System.Boolean": "bool", "System.Byte": "byte", "System.SByte": "sbyte", "System.Char": "char", "System.Decimal": "decimal", "System.Double": "double",
	"System.Single": "float", "System.Int32": "int", "System.UInt32": "uint", "System.Int64": "long", "System.UInt64": "ulong", "System.Int16": "short",
	"System.UInt16": "ushort", "System.Object": "object", "System.String": "string", "System.Void": "void", "System.IntPtr": "nint", "System.UIntPtr": "nuint",
}

// shown is how a name without a label reads: as code writes it.
func shown(cref string) string {
	name, isID := plainName(cref)
	if !isID {
		return strings.NewReplacer("{", "<", "}", ">").Replace(name)
	}
	head, params, called := strings.Cut(name, "(")
	parts := strings.Split(withoutCounts(head), ".")
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
	list := splitParams(strings.TrimSuffix(params, ")"))
	for i, p := range list {
		list[i] = shortType(p)
	}
	return head + "(" + strings.Join(list, ", ") + ")"
}

// withoutCounts takes the numbers of type parameters off a name: "Berths`1" is "Berths".
func withoutCounts(name string) string {
	for {
		i := strings.IndexByte(name, '`')
		if i < 0 {
			return name
		}
		end := i
		for end < len(name) && (name[end] == '`' || name[end] >= '0' && name[end] <= '9') {
			end++
		}
		name = name[:i] + name[end:]
	}
}

// shortType is a type of an ID as code writes it, without its namespace.
func shortType(id string) string {
	id = strings.TrimSuffix(strings.TrimSpace(id), "@")
	if id == "" {
		return id
	}
	if open := strings.IndexByte(id, '{'); open > 0 {
		if end := strings.LastIndexByte(id, '}'); end > open {
			args := splitParams(id[open+1 : end])
			for i, a := range args {
				args[i] = shortType(a)
			}
			return shortType(id[:open]) + "<" + strings.Join(args, ", ") + ">" + id[end+1:]
		}
	}
	base, rest := id, ""
	if i := strings.IndexAny(id, "[*"); i > 0 {
		base, rest = id[:i], id[i:]
	}
	if word, ok := predefined[base]; ok {
		return word + rest
	}
	return base[strings.LastIndexByte(base, '.')+1:] + rest
}

// nameOf takes a name apart.
func nameOf(cref string) *prose.Name {
	name, isID := plainName(cref)
	out := &prose.Name{Written: cref}
	if !isID {
		name = strings.NewReplacer("{", "<", "}", ">").Replace(name)
		if i := strings.Index(name, "this["); i >= 0 && strings.HasSuffix(name, "]") {
			name = name[:i] + indexer + "(" + name[i+len("this["):len(name)-1] + ")"
		}
		for _, word := range []string{"operator", "implicit operator", "explicit operator"} {
			if op, rest, ok := cutOperator(name, word); ok {
				out.Path = append(splitName(op), rest...)
				return out
			}
		}
		parsed := prose.ParseName(name)
		parsed.Written = cref
		for i, p := range parsed.Params {
			parsed.Params[i] = wordOf(p)
		}
		return &parsed
	}
	head, params, called := strings.Cut(name, "(")
	parts := strings.Split(head, ".")
	for i, part := range parts {
		part, out.Arity = cutCount(part)
		if part == "#ctor" && i > 0 {
			part = parts[i-1]
		}
		if plain := operators[part]; plain != "" {
			part = plain
		}
		parts[i] = strings.ReplaceAll(part, "#", ".")
	}
	out.Path = parts
	if called {
		out.Callable = true
		params, _, _ = strings.Cut(params, ")")
		for _, p := range splitParams(params) {
			out.Params = append(out.Params, strings.ReplaceAll(shortType(p), " ", ""))
		}
	}
	if cref[0] == 'M' {
		out.Arity = 0 // methods are told apart by their parameters
	}
	return out
}

// wordOf is the word of the language for a type, where it has one.
func wordOf(typ string) string {
	if word, ok := predefined[typ]; ok {
		return word
	}
	return typ
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

// cutCount cuts the number of type parameters off a name.
func cutCount(part string) (name string, count int32) {
	name, digits, ok := strings.Cut(part, "`")
	if !ok {
		return part, 0
	}
	n, _ := strconv.Atoi(strings.TrimLeft(digits, "`"))
	return name, int32(min(max(n, 0), 100))
}

// operators are the names of operators in IDs.
var operators = map[string]string{
	"op_Addition": "operator +", "op_Subtraction": "operator -", "op_Multiply": "operator *", "op_Division": "operator /", "op_Modulus": "operator %",
	"op_Equality": "operator ==", "op_Inequality": "operator !=", "op_LessThan": "operator <", "op_GreaterThan": "operator >", "op_LessThanOrEqual": "operator <=",
	"op_GreaterThanOrEqual": "operator >=", "op_BitwiseAnd": "operator &", "op_BitwiseOr": "operator |", "op_ExclusiveOr": "operator ^", "op_LogicalNot": "operator !",
	"op_OnesComplement": "operator ~", "op_UnaryNegation": "operator -", "op_UnaryPlus": "operator +", "op_Increment": "operator ++", "op_Decrement": "operator --",
	"op_LeftShift": "operator <<", "op_RightShift": "operator >>", "op_UnsignedRightShift": "operator >>>", "op_True": "operator true", "op_False": "operator false", "op_Implicit": "implicit operator",
	"op_Explicit": "explicit operator", "Item": indexer,
}

// indexer is what answers to brackets behind an object.
const indexer = "this[]"

// splitParams cuts a list at the commas that stand in no bracket.
func splitParams(list string) []string {
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
