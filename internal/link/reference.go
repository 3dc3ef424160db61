package link

import "strings"

// reference is a reference as written, taken apart.
type reference struct {
	written  string
	module   string   // an import path with "/", or ""
	names    []string // dotted names
	callable bool     // written with parentheses
	params   []string // what stood between them
}

// separators are the signs that mean the same as "." between names.
var separators = strings.NewReplacer("::", ".", "->", ".", "#", ".")

// parseReference takes a reference apart. ".", "::", "#", "~", "/" and "->" mean the
// same between names; where "/" stands, the part up to the last one may also be
// a module's path.
func parseReference(written string) reference {
	r := reference{written: written}
	s := strings.TrimSpace(written)
	if open := strings.IndexByte(s, '('); open >= 0 && strings.HasSuffix(s, ")") {
		r.callable = true
		r.params = splitParams(s[open+1 : len(s)-1])
		s = s[:open]
	}
	s = separators.Replace(s)
	if last := strings.LastIndexByte(s, '/') + 1; strings.IndexByte(s[last:], '~') > 0 { // "Berth~Options", as comments of JavaScript write
		s = s[:last] + strings.ReplaceAll(s[last:], "~", ".")
	}
	if slash := strings.LastIndexByte(s, '/'); slash >= 0 {
		last, rest, dotted := strings.Cut(s[slash+1:], ".")
		r.module = s[:slash+1] + last
		if dotted {
			r.names = strings.Split(rest, ".")
		}
		return r
	}
	r.names = strings.Split(s, ".")
	return r
}

// afterSlashes reads a reference again with "/" as a separator of names.
func (r reference) afterSlashes() []string {
	names := strings.Split(r.module, "/")
	return append(names, r.names...)
}

// cutLibrary cuts the name of a library off a reference: what stands before a
// single ":".
func cutLibrary(written string) (library, rest string, ok bool) {
	library, rest, ok = strings.Cut(strings.TrimSpace(written), ":")
	if !ok || library == "" || strings.HasPrefix(rest, ":") || strings.ContainsAny(library, "./#(<") {
		return "", written, false
	}
	return library, rest, true
}

// splitParams cuts a list at its commas, but not at those within brackets, and takes
// the blanks out.
func splitParams(list string) []string {
	var out []string
	depth, start := 0, 0
	add := func(end int) {
		if p := strings.Join(strings.Fields(list[start:end]), ""); p != "" {
			out = append(out, p)
		}
		start = end + 1
	}
	for i := 0; i < len(list); i++ {
		switch list[i] {
		case '(', '[', '<', '{':
			depth++
		case ')', ']', '>', '}':
			depth--
		case ',':
			if depth <= 0 {
				add(i)
			}
		}
	}
	if start <= len(list) {
		add(len(list))
	}
	return out
}

func splitPath(path string) []string { return strings.Split(path, ".") }
