package script

import (
	"strings"

	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads names that comments give in JavaScript: what code makes at run time
// has its name, place and kind in tags ("@class A.B", "@memberof A", "@name A#b").

// tellsNames reports whether a text has tags that give names.
func tellsNames(text string) bool {
	for _, tag := range []string{"@memberof", "@name ", "@lends", "@class ", "@namespace", "@mixin", "@event ", "@alias ", "@constructor", "@function ", "@method "} {
		if strings.Contains(text, tag) {
			return true
		}
	}
	return false
}

// nameTags are the tags whose value may be the name of what a comment is on, with the
// kind that they say it is. The first that has a value names it.
var nameTags = []struct {
	tag  string
	kind model.Kind
}{
	{"alias", 0}, {"name", 0}, {"class", model.KindClass}, {"constructor", model.KindClass}, {"namespace", model.KindNamespace}, {"mixin", model.KindNamespace},
	{"interface", model.KindInterface}, {"enum", model.KindEnum}, {"event", model.KindEvent}, {"function", model.KindFunction}, {"func", model.KindFunction}, {"method", model.KindFunction},
	{"constant", model.KindConstant}, {"const", model.KindConstant}, {"member", model.KindField}, {"var", model.KindField},
}

// tagValues are the first words behind the block tags of a comment; of a tag that stands
// several times the first has its say, and all of those that name bases.
type tagValues struct {
	first map[string]string
	bases []source.Span
}

// valuesOf reads the tags of a comment's lines. A type in braces before a value is passed over.
func (r *reader) valuesOf(doc *model.Doc) tagValues {
	out := tagValues{first: map[string]string{}}
	for _, line := range doc.Lines {
		text := line.In(r.text)
		trimmed := strings.TrimLeft(text, " \t")
		if !strings.HasPrefix(trimmed, "@") {
			continue
		}
		at := int(line.Start) + len(text) - len(trimmed) + 1
		word := r.word(at)
		at = r.blanksInComment(at+len(word), int(line.End))
		if at < int(line.End) && r.text[at] == '{' {
			if end := strings.IndexByte(r.text[at:line.End], '}'); end > 0 && word != "extends" && word != "augments" && word != "implements" {
				at = r.blanksInComment(at+end+1, int(line.End))
			} else {
				at++
			}
		}
		end := at
		for end < int(line.End) && (inNames[r.text[end]] || strings.IndexByte(".#~:/", r.text[end]) >= 0) {
			end++
		}
		value := strings.TrimRight(r.text[at:end], ".#~:")
		switch word {
		case "extends", "augments", "implements", "mixes":
			if value != "" {
				out.bases = append(out.bases, source.NewSpan(at, at+len(value)))
			}
		}
		if _, known := out.first[word]; !known {
			out.first[word] = value
		}
	}
	return out
}

// called is the path that a comment calls its subject by, and the kind that it says it
// is; named is set where the comment names it at all. own is its name in the code, or "".
func (t tagValues) called(own string) (path string, kind model.Kind, named bool) {
	name := ""
	for _, n := range nameTags {
		value, stands := t.first[n.tag]
		if !stands {
			continue
		}
		named = true
		if kind == 0 {
			kind = n.kind
		}
		if name == "" {
			name = value
		}
	}
	member, of := t.first["memberof"]
	if alternative, ok := t.first["memberOf"]; ok && member == "" {
		member, of = alternative, true
	}
	path = dotted(name)
	if path == "" {
		path = own
	}
	if member = dotted(member); of && member != "" && path != "" && !strings.HasPrefix(path, member+".") {
		path = member + "." + path
	}
	return path, kind, named || of
}

// alsoKnown is the path by which something is known that a comment puts somewhere under
// another name ("@memberof A" and "@alias each" on "forEach"): both are its names. own is
// its name in the code. It is "" where the comment gives the only name.
func (t tagValues) alsoKnown(own string) string {
	alias, stands := t.first["alias"]
	member := dotted(t.first["memberof"] + t.first["memberOf"])
	if !stands || own == "" || alias == own || member == "" || strings.ContainsAny(alias, ".#~:/") {
		return ""
	}
	return member + "." + own
}

// dotted is a namepath with one separator: "module:a/b~C#d" is "C.d" in its module.
func dotted(path string) string {
	if rest, ok := strings.CutPrefix(path, "module:"); ok {
		_, path, _ = strings.Cut(strings.ReplaceAll(rest, "~", "."), ".")
	}
	path = strings.NewReplacer("#", ".", "~", ".", "/", ".").Replace(path)
	path = strings.ReplaceAll(path, ".prototype", "")
	return strings.Trim(path, ".")
}

// names keeps what comments call the file's declarations, and declares what they alone name.
func (r *reader) names() {
	r.mislaid()
	if r.typed || !tellsNames(r.text) {
		return
	}
	r.namesakes()
	r.scope, r.parent = "", -1
	attached := map[int32]bool{}
	byPath := map[string]int32{}
	for i := range r.facts.Occurrences {
		o := &r.facts.Occurrences[i]
		full := strings.TrimPrefix(o.Scope+"."+o.Name, ".")
		if _, known := byPath[full]; !known {
			byPath[full] = int32(i)
		}
		if o.Doc == nil {
			continue
		}
		attached[o.Doc.Span.Start] = true
		if o.FromComment || o.Local || !tellsNames(o.Doc.Text) && !strings.Contains(o.Doc.Text, "@extends") && !strings.Contains(o.Doc.Text, "@augments") && !strings.Contains(o.Doc.Text, "@implements") {
			continue
		}
		values := r.valuesOf(o.Doc)
		if path, _, named := values.called(o.Name); named && path != "" && path != full {
			r.call(o, path)
			if _, known := byPath[path]; !known {
				byPath[path] = int32(i)
			}
		}
		_, class := values.first["class"]
		_, constructor := values.first["constructor"]
		_, namespace := values.first["namespace"]
		if held := o.Kind == model.KindVariable || o.Kind == model.KindConstant; held && (class || constructor) {
			o.Kind = model.KindClass // made by a call
		} else if held && namespace {
			o.Kind = model.KindNamespace
		}
		r.toldBases(o, values)
	}
	r.unattached(attached, byPath)
}

// mislaid gives comments back to the members that they name: where a compiler that wrote
// a file moved members about, a comment may stand before the neighbour of its own.
func (r *reader) mislaid() {
	if !strings.Contains(r.text, "@name ") {
		return
	}
	type member struct {
		parent      int32
		scope, name string
	}
	bare := map[member]int{} // the first of each name that has no comment
	for i := range r.facts.Occurrences {
		o := &r.facts.Occurrences[i]
		if key := (member{o.Parent, o.Scope, o.Name}); o.Doc == nil {
			if _, known := bare[key]; !known {
				bare[key] = i
			}
		}
	}
	for i := range r.facts.Occurrences {
		o := &r.facts.Occurrences[i]
		if o.Doc == nil || o.Scope == "" || !strings.Contains(o.Doc.Text, "@name ") {
			continue
		}
		path := dotted(r.valuesOf(o.Doc).first["name"])
		name := path[strings.LastIndexByte(path, '.')+1:]
		if name == "" || name == o.Name {
			continue
		}
		if k, found := bare[member{o.Parent, o.Scope, name}]; found && r.facts.Occurrences[k].Doc == nil {
			r.facts.Occurrences[k].Doc, o.Doc = o.Doc, nil
		}
		if o.Doc != nil && o.Callable != nil {
			o.Callable.ReadsArguments = true // whatever the comment is on, it takes parameters of its own
		}
	}
}

// namesakes gives comments at the top of a file to what they name where they stand before
// something else: "@namespace Port.Tides" before an import, with "var Tides" below. Where
// nothing has the name, the comment on an import is on no code.
func (r *reader) namesakes() {
	bare, imports := r.bareTop()
	for i := range r.facts.Occurrences {
		o := &r.facts.Occurrences[i]
		if o.Scope != "" || o.Doc == nil || o.FromComment || !tellsNames(o.Doc.Text) {
			continue
		}
		values := r.valuesOf(o.Doc)
		path, _, named := values.called(o.Name)
		name := path[strings.LastIndexByte(path, '.')+1:]
		if _, alias := values.first["alias"]; alias || !named || name == o.Name || path == "" {
			continue // a further name is none of something else
		}
		if k, found := bare[name]; found && r.facts.Occurrences[k].Doc == nil {
			r.give(k, o.Doc, path, r.facts.Occurrences[k].Kind)
			o.Doc = nil
		} else if imports[o.Name] {
			o.Doc = nil
		}
	}
}

// bareTop finds what stands at the top of the file without a comment and is no import, by
// name, and the names of the imports.
func (r *reader) bareTop() (bare map[string]int, imports map[string]bool) {
	bare, imports = map[string]int{}, map[string]bool{}
	for i := range r.facts.Imports {
		imports[r.facts.Imports[i].Name] = true
	}
	for i := range r.facts.Occurrences {
		if o := &r.facts.Occurrences[i]; o.Scope == "" && o.Doc == nil && !imports[o.Name] && !o.FromComment {
			if _, known := bare[o.Name]; !known {
				bare[o.Name] = i
			}
		}
	}
	return bare, imports
}

// call keeps the path that a comment gives an occurrence.
func (r *reader) call(o *model.Occurrence, path string) {
	if o.Extra == nil {
		o.Extra = &model.Extra{}
	}
	o.Extra.Called = path
}

// toldBases keeps the bases that the comment on a class names, where the code names none.
func (r *reader) toldBases(o *model.Occurrence, values tagValues) {
	if len(values.bases) == 0 || len(o.Bases()) > 0 || o.Kind != model.KindClass && o.Kind != model.KindInterface && o.Kind != model.KindNamespace {
		return
	}
	if o.Extra == nil {
		o.Extra = &model.Extra{}
	}
	for _, span := range values.bases {
		mark := r.arena.Begin()
		r.put(model.TokenType, span.In(r.text))
		o.Extra.Bases = append(o.Extra.Bases, model.Base{Type: r.arena.Since(mark), Span: span})
	}
}

// mostNamed bounds how many declarations the comments of a file make.
const mostNamed = 20_000

// unattached declares what comments name that stand beside no declaration.
func (r *reader) unattached(attached map[int32]bool, byPath map[string]int32) {
	lent, lentEnd := "", 0
	bare, _ := r.bareTop()
	for at, n := 0, 0; n < mostNamed; n++ {
		i := strings.Index(r.text[at:], "/**")
		if i < 0 {
			return
		}
		start := at + i
		end := r.commentEnd(start)
		at = max(end, start+3)
		if start > lentEnd {
			lent = ""
		}
		comment := r.text[start:min(end, len(r.text))]
		if len(comment) < len("/** @ */") || attached[int32(start)] || tellsTypes(comment) || lent == "" && !strings.Contains(comment, "@") {
			continue
		}
		doc := r.doc(source.NewSpan(start, end))
		if doc == nil {
			continue
		}
		values := r.valuesOf(doc)
		if to, lends := values.first["lends"]; lends {
			lent, lentEnd = dotted(to), r.endOfLent(start, end)
			continue
		}
		own := r.nameBehind(end)
		path, kind, named := values.called(own)
		if !named && lent == "" || path == "" {
			continue
		}
		if !strings.Contains(path, ".") && lent != "" && values.first["class"] == "" && values.first["namespace"] == "" {
			path = lent + "." + path
		}
		if also := values.alsoKnown(own); also != "" && isPath(also) { // known by two names
			if _, known := byPath[also]; !known {
				r.declareNamed(doc, values, also, kind, byPath)
			}
		}
		if _, known := byPath[path]; known || !isPath(path) {
			continue
		}
		if k, found := bare[path[strings.LastIndexByte(path, '.')+1:]]; found && strings.Contains(path, ".") && r.facts.Occurrences[k].Doc == nil && (kind == model.KindNamespace || kind == model.KindClass) {
			r.give(k, doc, path, kind)
			byPath[path] = int32(k)
			continue
		}
		r.declareNamed(doc, values, path, kind, byPath)
	}
}

// give gives a comment that stands elsewhere to what it names.
func (r *reader) give(k int, doc *model.Doc, path string, kind model.Kind) {
	o := &r.facts.Occurrences[k]
	o.Doc = doc
	r.call(o, path)
	o.Extra.Assigned = true
	if o.Kind == model.KindVariable || o.Kind == model.KindConstant {
		o.Kind = kind
	}
}

// endOfLent is where the object ends whose members a comment lends to something: the one
// that opens behind the comment, or the one that it stands in.
func (r *reader) endOfLent(start, end int) int {
	open := r.after(end)
	if r.byteAt(open) != '{' {
		if open = strings.LastIndexByte(r.text[:start], '{'); open < 0 {
			return start
		}
	}
	unclosed := r.unclosed
	stop := r.bracketed(open)
	r.unclosed = unclosed
	return stop
}

// isPath reports whether a text is names with dots between them.
func isPath(path string) bool {
	for name := range strings.SplitSeq(path, ".") {
		if name == "" || !startsName(name[0]) || strings.IndexFunc(name, func(c rune) bool { return c < 0x80 && !inNames[byte(c)] }) >= 0 {
			return false
		}
	}
	return true
}

// nameBehind is the name of what the code behind a comment makes: "name:", "this.name =",
// "A.B.name = function", "function name", "var name".
func (r *reader) nameBehind(at int) string {
	at = r.after(at)
	for _, word := range []string{"var", "let", "const", "function", "async", "get", "set", "static", "export", "class"} {
		if r.wordAt(at, word) && startsName(r.byteAt(r.after(at+len(word)))) {
			at = r.after(at + len(word))
		}
	}
	name := ""
	for startsName(r.byteAt(at)) {
		end := r.nameEnd(at)
		name = r.text[at:end]
		if r.byteAt(end) != '.' {
			at = r.after(end)
			break
		}
		at = end + 1
	}
	if c := r.byteAt(at); c != ':' && c != '=' && c != '(' && c != ';' && c != ',' && c != '{' {
		return ""
	}
	return name
}

// declareNamed adds what a comment alone declares: below what has its path, where the
// file declares that, else at the top under its last name.
func (r *reader) declareNamed(doc *model.Doc, values tagValues, path string, kind model.Kind, byPath map[string]int32) {
	dot := strings.LastIndexByte(path, '.')
	name := path[dot+1:]
	o := model.Occurrence{Name: name, Kind: kind, Export: model.Exported, FromComment: true, Doc: doc}
	o.NameSpan = source.Span{Start: doc.Span.Start, End: doc.Span.Start}
	if i := strings.Index(doc.Span.In(r.text), name); i >= 0 {
		o.NameSpan = source.NewSpan(int(doc.Span.Start)+i, int(doc.Span.Start)+i+len(name))
	}
	o.Span = o.NameSpan
	parent, nested := int32(-1), false
	if dot > 0 {
		if parent, nested = byPath[path[:dot]]; !nested {
			parent = -1
		}
	}
	if nested && !r.facts.Occurrences[parent].Kind.IsType() {
		nested = false
	}
	if nested {
		of := &r.facts.Occurrences[parent]
		r.scope, r.parent = strings.TrimPrefix(of.Scope+"."+of.Name, "."), parent
	} else if dot > 0 {
		r.scope = path[:dot] // what has that name stands in another file
	}
	_, typed := values.first["type"]
	_, takes := values.first["param"]
	_, gives := values.first["returns"]
	switch {
	case o.Kind == 0 && (takes || gives):
		o.Kind = model.KindFunction
	case o.Kind == 0 && nested, o.Kind == model.KindField && nested:
		o.Kind = model.KindField
	case o.Kind == 0 || o.Kind == model.KindField:
		o.Kind = model.KindVariable
	}
	if o.Kind == model.KindFunction && nested && r.facts.Occurrences[parent].Kind == model.KindClass {
		o.Kind = model.KindMethod
	}
	mark := r.arena.Begin()
	switch o.Kind {
	case model.KindClass, model.KindNamespace, model.KindInterface, model.KindEnum, model.KindFunction, model.KindEvent:
		r.put(model.TokenKeyword, o.Kind.String()+" ")
	}
	r.put(model.TokenName, name)
	if o.Kind.IsCallable() || o.Kind == model.KindClass && takes {
		r.toldParameters(doc.Lines)
		o.Callable = &model.Callable{ReadsArguments: true}
	}
	if typed {
		r.toldTypeOf(doc)
	}
	o.Signature = r.arena.Since(mark)
	r.toldBases(&o, values)
	index := r.add(o, source.Span{}, nil)
	if added := &r.facts.Occurrences[index]; !nested && dot > 0 {
		r.call(added, path)
	}
	byPath[path] = index
	r.scope, r.parent = "", -1
}

// toldTypeOf puts the type that "@type {...}" gives.
func (r *reader) toldTypeOf(doc *model.Doc) {
	for _, line := range doc.Lines {
		i := strings.Index(line.In(r.text), "@type")
		if i < 0 {
			continue
		}
		at := r.blanksInComment(int(line.Start)+i+len("@type"), int(line.End))
		if at >= int(line.End) || r.text[at] != '{' {
			return
		}
		end := strings.LastIndexByte(r.text[at:line.End], '}')
		if end > 0 {
			r.put(model.TokenPunctuation, ": ")
			r.typeTokens(at+1, at+end)
		}
		return
	}
}
