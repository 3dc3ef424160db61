package prose

import "strings"

// Name is what a reference names, taken apart. A dialect with a syntax of its own for names
// says so itself (Node.Named); for others [ParseName] reads what is common to most.
type Name struct {
	Written  string   // as it stands in the text
	Library  string   // whose it is, or ""
	Module   string   // the path of a module, where it is written as one, or ""
	Path     []string // names from the outermost in
	Kind     string   // the kind, or the name space, that is asked for, or ""
	Callable bool     // written with parentheses
	Params   []string // types, or names, that stood between them
	Arity    int32    // how many type arguments stood behind the last name
	Section  string   // the heading that is meant, in what Path names or, without one, on the page itself
}

// separators are the signs that mean the same as "." between names.
var separators = strings.NewReplacer("::", ".", "->", ".", "#", ".")

// ParseName takes a name apart. ".", "::", "#", "~", "/" and "->" mean the same between
// names; where "/" stands, the part up to the last one may also be a module's path.
func ParseName(written string) Name {
	n := Name{Written: written}
	s := strings.TrimSpace(written)
	if open := strings.IndexByte(s, '('); open >= 0 && strings.HasSuffix(s, ")") {
		n.Callable = true
		n.Params = splitParams(s[open+1 : len(s)-1])
		s = s[:open]
	}
	s = separators.Replace(s)
	s, n.Arity = cutArguments(s)
	if last := strings.LastIndexByte(s, '/') + 1; strings.IndexByte(s[last:], '~') > 0 { // "Berth~Options", as comments of JavaScript write
		s = s[:last] + strings.ReplaceAll(s[last:], "~", ".")
	}
	if slash := strings.LastIndexByte(s, '/'); slash >= 0 {
		last, rest, dotted := strings.Cut(s[slash+1:], ".")
		n.Module = s[:slash+1] + last
		if dotted {
			n.Path = strings.Split(rest, ".")
		}
		return n
	}
	n.Path = strings.Split(s, ".")
	return n
}

// cutArguments takes type arguments out of a name, as of "Berth<Ship>.moor", and counts those
// of the last one. What is no name with arguments stays as it is.
func cutArguments(s string) (string, int32) {
	var out strings.Builder
	arity := int32(0)
	for {
		open := strings.IndexByte(s, '<')
		if open < 0 {
			break
		}
		end, depth := -1, 0
		for i := open; i < len(s) && end < 0; i++ {
			switch s[i] {
			case '<':
				depth++
			case '>':
				if depth--; depth == 0 {
					end = i
				}
			}
		}
		if open == 0 || end < 0 || end+1 < len(s) && s[end+1] != '.' {
			break
		}
		args := splitParams(s[open+1 : end]) // none, as in "Berth<>", is any
		out.WriteString(s[:open])
		if s = s[end+1:]; s == "" {
			arity = int32(len(args))
		}
	}
	out.WriteString(s)
	return out.String(), arity
}

// CutPrefix cuts off what stands before a single ":": the name of a library, or a kind.
func CutPrefix(written string) (prefix, rest string, ok bool) {
	prefix, rest, ok = strings.Cut(strings.TrimSpace(written), ":")
	if !ok || prefix == "" || strings.HasPrefix(rest, ":") || strings.ContainsAny(prefix, "./#(<") {
		return "", written, false
	}
	return prefix, rest, true
}

// AfterSlashes are the names of a reference with "/" as a separator of names.
func (n Name) AfterSlashes() []string {
	return append(strings.Split(n.Module, "/"), n.Path...)
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
