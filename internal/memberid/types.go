package memberid

import "strings"

// words are the words of the language for types of its library.
var words = map[string]string{
	"System.Boolean": "bool", "System.Byte": "byte", "System.SByte": "sbyte", "System.Char": "char", "System.Decimal": "decimal", "System.Double": "double",
	"System.Single": "float", "System.Int32": "int", "System.UInt32": "uint", "System.Int64": "long", "System.UInt64": "ulong", "System.Int16": "short",
	"System.UInt16": "ushort", "System.Object": "object", "System.String": "string", "System.Void": "void", "System.IntPtr": "nint", "System.UIntPtr": "nuint",
}

// types are the types that the words of the language stand for.
var types = func() map[string]string {
	out := map[string]string{"dynamic": "System.Object"}
	for typ, word := range words {
		out[word] = typ
	}
	return out
}()

// WordOf is the word of the language for a type, or the type where it has none.
func WordOf(typ string) string {
	if word, ok := words[typ]; ok {
		return word
	}
	return typ
}

// TypeOf is the type that a word of the language stands for, or "".
func TypeOf(word string) string { return types[word] }

// ShortType is a type of an identifier as code writes it, without its namespace:
// "System.Nullable{System.Int32}" is "int?".
func ShortType(id string) string {
	id = strings.TrimSuffix(strings.TrimSpace(id), "@")
	if id == "" {
		return id
	}
	if open := strings.IndexByte(id, '{'); open > 0 {
		if end := strings.LastIndexByte(id, '}'); end > open {
			args := Split(id[open+1 : end])
			for i, a := range args {
				args[i] = ShortType(a)
			}
			list := strings.Join(args, ", ")
			switch id[:open] {
			case "System.Nullable":
				return list + "?" + id[end+1:]
			case "System.ValueTuple":
				return "(" + list + ")" + id[end+1:]
			}
			return ShortType(id[:open]) + "<" + list + ">" + id[end+1:]
		}
	}
	base, rest := id, ""
	if i := strings.IndexAny(id, "[*"); i > 0 {
		base, rest = id[:i], id[i:]
	}
	if word, ok := words[base]; ok {
		return word + rest
	}
	return base[strings.LastIndexByte(base, '.')+1:] + rest
}
