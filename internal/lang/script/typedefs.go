package script

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads what comments declare in JavaScript: data types and callbacks,
// and the types that they take from other modules.

// tellsTypes reports whether a comment declares or imports types.
func tellsTypes(comment string) bool {
	return strings.Contains(comment, "@typedef") || strings.Contains(comment, "@callback") || strings.Contains(comment, "@import")
}

// toldTypes declares what the comments of the file declare.
func (r *reader) toldTypes() {
	r.scope, r.parent = "", -1
	for _, span := range r.told {
		if doc := r.doc(span); doc != nil {
			r.toldBy(doc)
		}
	}
}

// toldBy declares what one comment declares: each of its tags brings what follows
// it up to the next, and the first the text above it too.
func (r *reader) toldBy(doc *model.Doc) {
	var heads []int
	for i, line := range doc.Lines {
		switch word, _, _ := strings.Cut(strings.TrimLeft(line.In(r.text), " \t"), " "); word {
		case "@typedef", "@callback", "@import":
			heads = append(heads, i)
		}
	}
	for n, first := range heads {
		from, end := first, len(doc.Lines)
		if n == 0 {
			from = 0
		}
		if n+1 < len(heads) {
			end = heads[n+1]
		}
		r.toldIn(doc, from, first, end)
	}
}

// toldIn declares what the tag in one line of a comment declares; the lines from
// and up to others are its text.
func (r *reader) toldIn(doc *model.Doc, from, head, end int) {
	line := doc.Lines[head]
	at := int(line.Start) + strings.IndexByte(line.In(r.text), '@') + 1
	word := r.word(at)
	limit := int(doc.Lines[end-1].End)
	at = r.blanksInComment(at+len(word), limit)
	if word == "import" {
		r.toldImport(at, limit)
		return
	}
	typ := source.Span{}
	if r.byteAt(at) == '{' && word == "typedef" {
		unclosed := r.unclosed
		stop := r.bracketedType(at)
		if r.unclosed = unclosed; stop > limit {
			return
		}
		typ = source.NewSpan(at+1, stop-1)
		at = r.blanksInComment(stop, limit)
	}
	name, path := r.toldName(at)
	if name.Empty() || int(name.End) > limit {
		return
	}
	if path, member := r.importType(typ); path != "" {
		r.facts.Imports = append(r.facts.Imports, model.Import{Name: name.In(r.text), Path: path, Member: member, Span: name, NotLoaded: true})
		return
	}
	o := model.Occurrence{Kind: model.KindType, NameSpan: name, Span: source.NewSpan(int(name.Start), int(name.End)), Export: model.Exported, FromComment: true}
	mark := r.arena.Begin()
	r.put(model.TokenKeyword, word+" ")
	r.put(model.TokenName, name.In(r.text))
	r.toldType(typ)
	if word == "callback" {
		r.toldParameters(doc.Lines[head:end])
	}
	o.Signature = r.arena.Since(mark)
	o.Doc = r.toldDoc(doc, from, head, end, int(name.End))
	of := r.toldParent(path)
	if of >= 0 {
		r.scope, r.parent = path[:strings.LastIndexByte(path, '.')], of
	} else if dot := strings.LastIndexByte(path, '.'); dot > 0 {
		r.scope = path[:dot] // what has that name stands in another file
	}
	index := r.add(o, source.Span{}, nil)
	if of < 0 && strings.Contains(path, ".") {
		r.call(&r.facts.Occurrences[index], path)
	}
	if _, known := r.types[path]; !known && r.types != nil {
		r.types[path] = index
	}
	r.scope, r.parent = "", -1
}

// toldName is the last name of a path such as "Berth~Options", and the path with dots.
func (r *reader) toldName(at int) (name source.Span, path string) {
	from := at
	for {
		name = source.NewSpan(at, r.nameEnd(at))
		end := int(name.End)
		if c := r.byteAt(end); name.Empty() || c != '.' && c != '~' && c != '#' || !startsName(r.byteAt(end+1)) {
			return name, dotted(r.text[from:end])
		}
		at = end + 1
	}
}

// toldParent is the index of the type of this file that a path leads into, or -1.
func (r *reader) toldParent(path string) int32 {
	dot := strings.LastIndexByte(path, '.')
	if dot < 0 {
		return -1
	}
	if r.types == nil {
		r.types = map[string]int32{}
		for i := range r.facts.Occurrences {
			o := &r.facts.Occurrences[i]
			if full := strings.TrimPrefix(o.Scope+"."+o.Name, "."); o.Kind.IsType() {
				if _, known := r.types[full]; !known {
					r.types[full] = int32(i)
				}
			}
		}
	}
	if of, known := r.types[path[:dot]]; known {
		return of
	}
	return -1
}

// toldType puts the type of a data type, unless that says no more than "object".
func (r *reader) toldType(typ source.Span) {
	text := strings.TrimSpace(typ.In(r.text))
	switch {
	case text == "" || strings.EqualFold(text, "object"):
	case strings.Contains(text, "\n"):
		var lines []string
		for l := range strings.Lines(text) {
			lines = append(lines, strings.TrimSpace(strings.TrimPrefix(strings.TrimSpace(l), "*")))
		}
		r.put(model.TokenPunctuation, " = "+strings.Join(lines, " "))
	default:
		r.put(model.TokenPunctuation, " = ")
		r.typeTokens(int(typ.Start), int(typ.End))
	}
}

// toldParameters puts "(a, b)": the parameters that the tags of a callback name.
func (r *reader) toldParameters(lines []source.Span) {
	r.put(model.TokenPunctuation, "(")
	n := 0
	for _, line := range lines {
		at := int(line.Start) + line.Len() - len(strings.TrimLeft(line.In(r.text), " \t"))
		if !strings.HasPrefix(r.text[at:line.End], "@param") {
			continue
		}
		at = r.after(at + len("@param"))
		if r.byteAt(at) == '{' {
			unclosed := r.unclosed
			at = r.after(r.bracketedType(at))
			r.unclosed = unclosed
		}
		if r.byteAt(at) == '[' {
			at++
		}
		name := r.word(at)
		if name == "" || r.byteAt(at+len(name)) == '.' {
			continue
		}
		if n++; n > 1 {
			r.put(model.TokenPunctuation, ", ")
		}
		r.put(model.TokenParameter, name)
	}
	r.put(model.TokenPunctuation, ")")
}

// toldDoc is the text about a type: what stands above its tag, and what follows its name.
func (r *reader) toldDoc(doc *model.Doc, from, head, end, after int) *model.Doc {
	lines := append([]source.Span(nil), doc.Lines[from:head]...)
	for _, line := range doc.Lines[head:end] {
		if int(line.End) < after {
			continue
		}
		if int(line.Start) <= after {
			line.Start = int32(after)
			rest := strings.TrimLeft(line.In(r.text), " \t-")
			line.Start = line.End - int32(len(rest))
		}
		lines = append(lines, line)
	}
	return lexing.MakeDoc(r.text, lines, doc.Span)
}

// blanksInComment is the offset behind blanks, and behind the stars that begin lines.
func (r *reader) blanksInComment(at, limit int) int {
	for newline := false; at < limit; at++ {
		switch c := r.text[at]; {
		case c == '\n':
			newline = true
		case c == '*' && newline:
			newline = false
		case !isBlank(c):
			return at
		}
	}
	return at
}

// importType takes "import('path').Member" apart.
func (r *reader) importType(typ source.Span) (path, member string) {
	text := strings.TrimSpace(typ.In(r.text))
	rest, ok := strings.CutPrefix(text, "import(")
	if !ok {
		return "", ""
	}
	path, rest, ok = strings.Cut(strings.TrimSpace(rest), ")")
	path = strings.Trim(strings.TrimSpace(path), `"'`)
	member, more := strings.CutPrefix(rest, ".")
	if !ok || path == "" || more && (&lexer{text: member}).nameEnd(0) != len(member) {
		return "", ""
	}
	return path, member
}

// toldImport reads "{A, B as C} from 'path'" or "* as A from 'path'".
func (r *reader) toldImport(at, limit int) {
	text := r.text[at:max(at, limit)]
	names, path, ok := strings.Cut(text, " from ")
	if !ok {
		return
	}
	path, _, _ = strings.Cut(strings.TrimSpace(path), "\n")
	path = strings.Trim(strings.TrimSpace(path), "\"';")
	braces := strings.Contains(names, "{")
	for _, part := range strings.FieldsFunc(names, func(c rune) bool { return c == '{' || c == '}' || c == ',' }) {
		words := strings.Fields(strings.ReplaceAll(part, "\n *", " "))
		in := model.Import{Path: path, Span: source.NewSpan(at, at+len(names)), NotLoaded: true}
		switch {
		case len(words) == 1 && braces:
			in.Name, in.Member = words[0], words[0]
		case len(words) == 1:
			in.Name, in.Member = words[0], "default"
		case len(words) == 3 && words[0] == "*":
			in.Name = words[2]
		case len(words) == 3:
			in.Name, in.Member = words[2], words[0]
		default:
			continue
		}
		r.facts.Imports = append(r.facts.Imports, in)
	}
}
