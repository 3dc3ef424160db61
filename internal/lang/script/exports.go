package script

import (
	"strings"

	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads imports and exports: those of modules (ECMA-262, "Modules"), of
// TypeScript, and assignments to module.exports.

// importing reads an import declaration from behind its word.
func (r *reader) importing(h *heads, at int) {
	r.esModule = true
	apart := false
	if next := r.after(r.nameEnd(at)); r.wordAt(at, "type") && r.byteAt(next) != ',' && r.byteAt(next) != '=' && !r.wordAt(next, "from") {
		at, apart = next, true
	}
	type binding struct {
		local  source.Span
		member string
		apart  bool
	}
	var names []binding
	for at < len(r.text) {
		switch c := r.byteAt(at); {
		case c == '"' || c == '\'':
			end := r.quoted(at)
			path := r.text[at+1 : max(at+1, end-1)]
			if len(names) == 0 {
				names = append(names, binding{source.NewSpan(at, end), "", false})
			}
			for _, n := range names {
				in := model.Import{Path: path, Member: n.member, Span: n.local, NotLoaded: apart || n.apart}
				if n.member != "" || n.local.Start != int32(at) {
					in.Name = n.local.In(r.text)
				}
				in.Assumed = in.Name
				r.facts.Imports = append(r.facts.Imports, in)
			}
			r.finish(r.withAttributes(end))
			return
		case c == '{':
			end := r.bracketed(at)
			r.specifiers(at, end, func(member, local, _ source.Span) {
				names = append(names, binding{local, strings.Trim(member.In(r.text), `"'`), r.isTypeOnly(int(member.Start))})
			})
			at = r.after(end)
		case c == '*':
			at = r.after(at + 1)
			if r.wordAt(at, "as") {
				name := r.after(at + 2)
				end := r.nameEnd(name)
				names = append(names, binding{source.NewSpan(name, end), "", false})
				at = r.after(end)
			}
		case c == ',':
			at = r.after(at + 1)
		case c == '=':
			stop := r.expression(at + 1)
			if len(names) == 1 {
				if path := r.meantPath(r.after(at+1), r.back(stop)); path != "" {
					name := strings.TrimPrefix(r.scope+"."+names[0].local.In(r.text), ".")
					r.facts.Imports = append(r.facts.Imports, model.Import{Name: name, Assumed: name, Member: path, Reexport: r.scope != "" && (h.export || r.ambient), Span: names[0].local})
				} else {
					r.bindValue(names[0].local, r.after(at+1), r.back(stop))
				}
			}
			r.finish(r.back(stop))
			return
		case r.wordAt(at, "from") && len(names) > 0:
			at = r.after(at + len("from"))
		case startsName(c):
			end := r.nameEnd(at)
			if end == at {
				r.finish(r.whole(at))
				return
			}
			names = append(names, binding{source.NewSpan(at, end), "default", false})
			at = r.after(end)
		default:
			r.finish(r.whole(at))
			return
		}
	}
	r.at = at
}

// withAttributes is the offset behind "with { type: 'json' }", which may follow a path.
func (r *reader) withAttributes(at int) int {
	next, newline := r.skip(at)
	if (r.wordAt(next, "with") || r.wordAt(next, "assert")) && !newline {
		if open := r.after(r.nameEnd(next)); r.byteAt(open) == '{' {
			return r.bracketed(open)
		}
	}
	return at
}

// specifiers yields the names in "{ a, b as c, type d }": the one of the module, the
// other one, and the comment before them.
func (r *reader) specifiers(at, end int, yield func(name, as, comment source.Span)) {
	at++
	for at < end-1 {
		from := at
		at = r.after(at)
		comment := lastComment(r.text, from, at)
		if r.byteAt(at) == ',' {
			at++
			continue
		}
		if at >= end-1 {
			return
		}
		one := func() source.Span {
			if c := r.byteAt(at); c == '"' || c == '\'' {
				return source.NewSpan(at, r.quoted(at))
			}
			return source.NewSpan(at, r.nameEnd(at))
		}
		name := one()
		if name.Empty() {
			return
		}
		at = r.after(int(name.End))
		if name.In(r.text) == "type" && r.byteAt(at) != ',' && r.byteAt(at) != '}' && !r.wordAt(at, "as") {
			name = one()
			at = r.after(int(name.End))
		}
		as := name
		if r.wordAt(at, "as") {
			at = r.after(at + 2)
			as = one()
			at = r.after(int(as.End))
		}
		yield(name, as, comment)
		at = max(at, int(name.End))
	}
}

// lastComment is the last "/**" comment between two offsets between which nothing else is.
func lastComment(text string, from, to int) source.Span {
	open := strings.LastIndex(text[from:to], "/**")
	if open < 0 || strings.HasPrefix(text[from+open:], "/**/") {
		return source.Span{}
	}
	length := strings.Index(text[from+open:to], "*/")
	if length < 0 {
		return source.Span{}
	}
	return source.NewSpan(from+open, from+open+length+2)
}

// export reads an export declaration from behind its word.
func (r *reader) export(h *heads, at int) {
	h.export = true
	switch c := r.byteAt(at); {
	case r.wordAt(at, "default"):
		r.exportDefault(h, r.after(at+len("default")))
	case c == '{':
		r.exportList(at)
	case c == '*':
		next := r.after(at + 1)
		name := source.Span{}
		if r.wordAt(next, "as") {
			from := r.after(next + 2)
			name = source.NewSpan(from, r.nameEnd(from))
			next = r.after(int(name.End))
		}
		if r.wordAt(next, "from") {
			text := r.after(next + len("from"))
			if q := r.byteAt(text); q == '"' || q == '\'' {
				end := r.quoted(text)
				in := model.Import{Path: r.text[text+1 : max(text+1, end-1)], Member: "*", Reexport: true, Span: source.NewSpan(at, end)}
				if !name.Empty() {
					in.Member, in.Name, in.Assumed = "", name.In(r.text), name.In(r.text)
				}
				r.facts.Imports = append(r.facts.Imports, in)
				r.finish(r.withAttributes(end))
				return
			}
		}
		r.finish(r.whole(at))
	case c == '=':
		stop := r.expression(at + 1)
		r.wholeIs(source.NewSpan(at, at+1), r.after(at+1), r.back(stop))
		r.common, r.list = true, true
		r.finish(r.back(stop))
	case r.wordAt(at, "as"):
		r.finish(r.whole(at))
	case r.wordAt(at, "import"):
		name := r.after(at + len("import"))
		end := r.nameEnd(name)
		r.gives(r.text[name:end])
		r.importing(h, name)
	case r.wordAt(at, "type") && r.typeExports(at):
		r.export(h, r.after(at+len("type")))
	default:
		r.at = at
		for r.byteAt(r.at) == '@' {
			r.at = r.after(r.decorator(r.at))
		}
		r.headed(h)
	}
}

func (r *reader) typeExports(at int) bool {
	c := r.byteAt(r.after(at + len("type")))
	return c == '{' || c == '*'
}

// gives keeps that a name is exported.
func (r *reader) gives(name string) {
	if r.exported == nil {
		r.exported = map[string]bool{}
	}
	r.exported[name] = true
}

// givesAs keeps that what has a path in the file is exported under a name.
func (r *reader) givesAs(as string, span source.Span, path string, doc *model.Doc) {
	if as == path {
		r.gives(path)
		return
	}
	if r.renamed == nil {
		r.renamed = map[string]bool{}
	}
	r.renamed[path] = true
	r.facts.Imports = append(r.facts.Imports, model.Import{Name: as, Assumed: as, Member: path, Reexport: true, Span: span, Doc: doc})
}

// default gives what is declared last as what the module is imported by without a name.
func (r *reader) givesByDefault(name string, span source.Span) {
	if name != "default" {
		r.givesAs("default", span, name, nil)
	}
}

func (r *reader) exportList(at int) {
	end := r.bracketed(at)
	next := r.after(end)
	if r.wordAt(next, "from") {
		text := r.after(next + len("from"))
		if q := r.byteAt(text); q == '"' || q == '\'' {
			stop := r.quoted(text)
			path := r.text[text+1 : max(text+1, stop-1)]
			r.specifiers(at, end, func(name, as, comment source.Span) {
				given := strings.Trim(as.In(r.text), `"'`)
				r.facts.Imports = append(r.facts.Imports, model.Import{
					Name: given, Assumed: given, Path: path, Member: strings.Trim(name.In(r.text), `"'`), Reexport: true, Span: as, Doc: r.doc(comment),
				})
			})
			r.finish(r.withAttributes(stop))
			return
		}
	}
	r.list = true
	r.specifiers(at, end, func(name, as, comment source.Span) {
		doc, given := r.doc(comment), strings.Trim(as.In(r.text), `"'`)
		if r.scope != "" { // a name of the namespace
			at := r.scope + "." + given
			r.facts.Imports = append(r.facts.Imports, model.Import{Name: at, Assumed: at, Member: name.In(r.text), Reexport: true, Span: as, Doc: doc})
			return
		}
		r.givesAs(given, as, name.In(r.text), doc)
		if doc != nil && given == name.In(r.text) {
			if r.listDocs == nil {
				r.listDocs = map[string]*model.Doc{}
			}
			r.listDocs[given] = doc
		}
	})
	r.finish(end)
}

func (r *reader) exportDefault(h *heads, at int) {
	h.byDefault = true
	for r.byteAt(at) == '@' {
		at = r.after(r.decorator(at))
	}
	word := r.word(at)
	after, newline := r.skip(at + len(word))
	switch {
	case word == "function":
		r.at = at
		r.function(h, after)
		return
	case word == "async" && !newline && r.wordAt(after, "function"):
		h.async = true
		r.at = at
		r.function(h, r.after(after+len("function")))
		return
	case word == "class":
		r.at = at
		r.class(h, after)
		return
	case word == "abstract" && !newline && r.wordAt(after, "class"):
		h.abstract = true
		r.at = at
		r.class(h, r.after(after+len("class")))
		return
	case word == "interface" && r.typed && startsName(r.byteAt(after)):
		r.interfaces(h, after)
		return
	}
	end := r.nameEnd(at)
	stop := r.whole(at)
	if word != "" && r.back(stop) == end && word != "true" && word != "false" && word != "null" && word != "undefined" && word != "this" {
		r.list = true
		r.givesByDefault(word, source.NewSpan(at, end))
		r.finish(stop)
		return
	}
	r.named(h, "default", source.NewSpan(h.start, h.start), at, stop)
	r.finish(stop)
}

// named declares a value that a name is given by an assignment or an export.
func (r *reader) named(h *heads, name string, span source.Span, valueAt, stop int) {
	o := model.Occurrence{Kind: model.KindConstant, Name: name, NameSpan: span, Export: model.Exported}
	mark := r.arena.Begin()
	f, callable := r.functionValue(valueAt)
	r.put(model.TokenName, name)
	if callable {
		o.Kind = model.KindFunction
		r.functionTokens(&o, &f)
	} else {
		r.value(valueAt, r.back(stop))
	}
	o.Signature = r.arena.Since(mark)
	o.Span = source.NewSpan(h.start, max(h.start, r.back(stop)))
	if index := r.add(o, h.comment, h.directives); callable {
		r.madeWithNew(index, &f)
	} else {
		r.described(index, valueAt, max(valueAt, r.back(stop)))
	}
}

// expressionStatement reads any other statement: most declare nothing, some
// assign to what is exported, or to a prototype.
func (r *reader) expressionStatement(h *heads) {
	at := r.at
	if r.scope == "" && (r.prototypeCall(h, at) || r.callExports(at) || r.calledAtOnce(at)) {
		return
	}
	path, spans, sign := r.path(at)
	if len(path) < 2 || sign < 0 {
		if len(path) == 1 && sign >= 0 {
			if next, ok := r.chained(sign); ok && r.chain < longestChain { // "name = module.exports = ..."
				r.chain++
				defer func() { r.chain-- }()
				r.at = next
				r.expressionStatement(h)
				return
			}
		}
		r.finish(r.back(r.whole(at)))
		return
	}
	valueAt := r.after(sign + 1)
	last := path[len(path)-1]
	lastSpan := spans[len(spans)-1]
	switch {
	case path[0] == "module" && path[1] == "exports" && len(path) == 2:
		r.common = true
		r.exportsAssigned(h, lastSpan, valueAt)
		return
	case path[0] == "exports" && len(path) == 2, path[0] == "module" && path[1] == "exports" && len(path) == 3:
		r.common = true
		if next, ok := r.chained(sign); ok && r.chain < longestChain {
			r.chain++
			defer func() { r.chain-- }()
			r.assigned(h, last, lastSpan, next)
			r.at = next
			r.comment, h.comment = source.Span{}, source.Span{}
			r.expressionStatement(h)
			return
		}
		r.assigned(h, last, lastSpan, valueAt)
		return
	case r.scope == "" && len(path) == 3 && path[1] == "prototype":
		before := len(r.pending)
		r.memberAssigned(h, path[0], last, lastSpan, valueAt)
		for i := before; i < len(r.pending); i++ {
			r.pending[i].occurrence.Embedded = true // a method even of what another file declares
		}
		return
	case r.scope == "" && len(path) == 2 && path[1] == "prototype" && r.byteAt(valueAt) == '{':
		if owner := r.declared(path[0]); owner >= 0 {
			r.object(valueAt, owner)
			r.finish(r.last)
			return
		}
	case r.scope == "" && len(path) == 2 && path[1] != "prototype" && path[0] != "window" && path[0] != "self" && path[0] != "global" && path[0] != "this":
		r.memberAssigned(h, path[0], last, lastSpan, valueAt)
		return
	}
	r.finish(r.back(r.whole(at)))
}

// longestChain is how many assignments in one another are looked at.
const longestChain = 20_000

// path reads "a.b.c" and the sign of assignment behind it, or -1.
func (r *reader) path(at int) (names []string, spans []source.Span, sign int) {
	for {
		end := r.nameEnd(at)
		if end == at {
			return names, spans, -1
		}
		names = append(names, r.text[at:end])
		spans = append(spans, source.NewSpan(at, end))
		next := r.after(end)
		switch r.byteAt(next) {
		case '.':
			at = r.after(next + 1)
		case '[':
			text := r.after(next + 1)
			if q := r.byteAt(text); q != '"' && q != '\'' {
				return names, spans, -1
			}
			stop := r.quoted(text)
			if r.byteAt(r.after(stop)) != ']' || stop < text+2 {
				return names, spans, -1
			}
			names = append(names, r.text[text+1:stop-1])
			spans = append(spans, source.NewSpan(text+1, stop-1))
			next = r.after(r.after(stop) + 1)
			if r.byteAt(next) == '=' && r.byteAt(next+1) != '=' && r.byteAt(next+1) != '>' {
				return names, spans, next
			}
			return names, spans, -1
		case '=':
			if c := r.byteAt(next + 1); c == '=' || c == '>' {
				return names, spans, -1
			}
			return names, spans, next
		default:
			return names, spans, -1
		}
	}
}

// chained reports whether the value of an assignment is another assignment, and where.
func (r *reader) chained(sign int) (int, bool) {
	at := r.after(sign + 1)
	names, _, next := r.path(at)
	return at, next >= 0 && len(names) > 0 && (names[0] == "exports" || names[0] == "module" || len(names) > 1)
}

// assigned reads the value that a name which is exported has.
func (r *reader) assigned(h *heads, name string, span source.Span, valueAt int) {
	stop := r.chainEnd
	if r.chain == 0 || stop <= valueAt { // what a chain ends with is the value of all its links
		stop = r.whole(valueAt)
		r.chainEnd = stop
	}
	if end := r.nameEnd(valueAt); end > valueAt && r.back(stop) == end && r.text[valueAt:end] == name {
		// Most likely an alias of a declaration with the same name, which may stand further down.
		r.gives(name)
		before := len(r.facts.Occurrences)
		r.named(h, name, span, valueAt, stop)
		r.later(before, "")
		r.finish(r.back(stop))
		return
	}
	if name == "__esModule" {
		r.finish(r.back(stop))
		return
	}
	r.secondName(name, span, valueAt, r.back(stop))
	if r.wordAt(valueAt, "class") {
		at := r.after(valueAt + len("class"))
		if word := r.word(at); word != "extends" && word != "" {
			at = r.after(at + len(word))
		}
		o := model.Occurrence{Kind: model.KindClass, Name: name, NameSpan: span, Export: model.Exported}
		r.classBody(h, &o, at, h.comment, h.directives)
		r.finish(r.last)
		return
	}
	r.named(h, name, span, valueAt, stop)
	r.finish(r.back(stop))
}

// exportsAssigned reads "module.exports = value".
func (r *reader) exportsAssigned(h *heads, span source.Span, valueAt int) {
	switch {
	case r.byteAt(valueAt) == '{':
		r.object(valueAt, -1)
		r.finish(r.last)
		return
	case r.wordAt(valueAt, "class"), r.wordAt(valueAt, "function"),
		r.wordAt(valueAt, "async") && r.wordAt(r.after(valueAt+len("async")), "function"):
		word := r.after(r.nameEnd(valueAt))
		if r.wordAt(valueAt, "async") {
			word = r.after(word + len("function"))
		}
		if r.byteAt(word) == '*' {
			word = r.after(word + 1)
		}
		r.facts.DefaultIsModule = true
		if end := r.nameEnd(word); end > word && r.text[word:end] != "extends" {
			before := len(r.facts.Occurrences)
			r.assigned(h, r.text[word:end], source.NewSpan(word, end), valueAt)
			if before < len(r.facts.Occurrences) {
				r.facts.Occurrences[before].Export = model.Renamed
				r.givesByDefault(r.text[word:end], source.NewSpan(word, end))
			}
			return
		}
		r.assigned(h, "default", span, valueAt)
		return
	}
	if next, ok := r.chained(valueAt - 1); ok && r.chain < longestChain {
		r.chain++
		defer func() { r.chain-- }()
		r.at = next
		r.expressionStatement(h)
		return
	}
	stop := r.whole(valueAt)
	if !r.wholeIs(span, valueAt, r.back(stop)) {
		if _, ok := r.functionValue(valueAt); ok {
			r.facts.DefaultIsModule = true
			r.named(h, "default", span, valueAt, stop)
		}
	}
	r.finish(r.back(stop))
}

// top is what the file declares under a name at its top so far.
type top struct {
	index    int32 // of what can be called or made, or -1
	value    int32 // of a constant or variable, or -1
	declared bool
}

// known looks a name up among what was declared at the top.
func (r *reader) known(name string) top {
	if r.tops == nil {
		r.tops = map[string]top{}
	}
	for ; r.looked < len(r.facts.Occurrences); r.looked++ {
		o := &r.facts.Occurrences[r.looked]
		if o.Parent >= 0 {
			continue
		}
		t, ok := r.tops[o.Name]
		if !ok {
			t.index, t.value = -1, -1
		}
		t.declared = true
		if o.Kind == model.KindConstant || o.Kind == model.KindVariable {
			t.value = int32(r.looked)
		}
		if o.Kind == model.KindClass || o.Callable != nil {
			t.index = int32(r.looked)
		}
		r.tops[o.Name] = t
	}
	if t, ok := r.tops[name]; ok {
		return t
	}
	return top{index: -1, value: -1}
}

// declared is the index of what can be called or made under a name, or -1.
func (r *reader) declared(name string) int32 { return r.known(name).index }

// memberAssigned reads "Name.prototype.member = value" and "Name.member = value".
func (r *reader) memberAssigned(h *heads, owner, name string, span source.Span, valueAt int) {
	index := r.declared(owner)
	stop := r.whole(valueAt)
	o := model.Occurrence{Kind: model.KindField, Name: name, NameSpan: span, Span: source.NewSpan(h.start, max(h.start, r.back(stop)))}
	mark := r.arena.Begin()
	r.put(model.TokenName, name)
	if f, ok := r.functionValue(valueAt); ok {
		o.Kind = model.KindMethod
		r.functionTokens(&o, &f)
	}
	o.Signature = r.arena.Since(mark)
	scope, parent := r.scope, r.parent
	r.scope, r.parent = owner, index
	before := len(r.facts.Occurrences)
	r.add(o, h.comment, h.directives)
	if index < 0 {
		r.later(before, owner)
	}
	r.scope, r.parent = scope, parent
	r.finish(r.back(stop))
}

// object reads an object of exports, or of a prototype's members where it has an owner.
func (r *reader) object(at int, owner int32) {
	r.at = at + 1
	scope, parent := r.scope, r.parent
	if owner >= 0 {
		r.scope, r.parent = r.facts.Occurrences[owner].Name, owner
	}
	defer func() { r.scope, r.parent = scope, parent }()
	r.braced(func() { r.property(owner) })
}

// property reads one property of such an object.
func (r *reader) property(owner int32) {
	start, at, comment, directives := r.at, r.at, r.comment, r.directives
	if strings.HasPrefix(r.text[at:], "...") {
		r.at = r.argument(at + 3)
		if owner < 0 {
			r.spread(source.NewSpan(at, at+3), r.after(at+3), r.back(r.at))
		}
		return
	}
	w, at := r.propertyWords(at)
	span, name := r.memberName(at)
	if name == "" {
		r.at = r.argument(at)
		return
	}
	o := model.Occurrence{Kind: model.KindConstant, Name: name, NameSpan: span, Export: model.Exported}
	if owner >= 0 {
		o.Kind, o.Export = model.KindField, model.ExportUnsaid
	}
	next := r.after(int(span.End))
	mark := r.arena.Begin()
	stop := next
	switch r.byteAt(next) {
	case '(':
		f := function{generator: w.generator, async: w.async}
		r.callable(&f, next)
		o.Kind = model.KindFunction
		if owner >= 0 {
			o.Kind = model.KindMethod
		}
		if w.accessor != "" {
			o.Kind = model.KindProperty
		}
		r.put(model.TokenName, name)
		r.functionTokens(&o, &f)
		stop = f.end
	case ':':
		valueAt := r.after(next + 1)
		r.put(model.TokenName, name)
		if f, ok := r.functionValue(valueAt); ok {
			o.Kind = model.KindFunction
			if owner >= 0 {
				o.Kind = model.KindMethod
			}
			r.functionTokens(&o, &f)
			stop = r.argument(f.end)
		} else {
			stop = r.argument(next + 1)
			if end := r.nameEnd(valueAt); owner < 0 && end > valueAt && r.back(stop) == end && r.text[valueAt:end] == name && r.declares(name) {
				r.gives(name)
				r.at = stop
				return
			}
			if owner < 0 {
				r.secondName(name, span, valueAt, r.back(stop))
			}
			r.value(valueAt, r.back(stop))
		}
	default: // "{ name }" exports what is declared under the name
		if owner < 0 {
			r.gives(name)
		}
		r.at = r.argument(next)
		return
	}
	o.Signature = r.arena.Since(mark)
	o.Span = source.NewSpan(start, max(start, r.back(stop)))
	r.add(o, comment, directives)
	r.at = stop
}

// propertyWords is what stands before the name of a property.
type propertyWords struct {
	accessor         string // "get" or "set"
	async, generator bool
}

// propertyWords reads what stands before the name of a property, and gives where that begins.
func (r *reader) propertyWords(at int) (w propertyWords, name int) {
	for {
		word := r.word(at)
		if word != "get" && word != "set" && word != "async" {
			break
		}
		next := r.after(at + len(word))
		if c := r.byteAt(next); c == 0 || strings.IndexByte("(:,}=", c) >= 0 {
			break
		}
		w.async = word == "async"
		if !w.async {
			w.accessor = word
		}
		at = next
	}
	if r.byteAt(at) == '*' {
		w.generator = true
		at = r.after(at + 1)
	}
	return w, at
}

// pending is an occurrence that hangs on what the file declares further down.
type pending struct {
	occurrence model.Occurrence
	owner      string // whose member it is; "" where it is an alias
}

// later takes the occurrences from an index on back until all of the file is known.
func (r *reader) later(from int, owner string) {
	for _, o := range r.facts.Occurrences[from:] {
		r.pending = append(r.pending, pending{o, owner})
	}
	r.facts.Occurrences = r.facts.Occurrences[:from]
	r.looked = min(r.looked, from)
}

// decide keeps of those what is a declaration: members of what was declared, and
// names that are no aliases.
func (r *reader) decide() {
	tops := map[string]bool{}
	if len(r.pending) > 0 {
		for i := range r.facts.Occurrences {
			if o := &r.facts.Occurrences[i]; o.Parent < 0 {
				tops[o.Name] = true
			}
		}
	}
	for _, p := range r.pending {
		switch {
		case p.owner == "" && tops[p.occurrence.Name]:
			continue
		case p.owner != "":
			p.occurrence.Parent = r.declared(p.owner)
			if value := r.known(p.owner).value; p.occurrence.Parent < 0 && value >= 0 && r.renamed[p.owner] && r.facts.DefaultIsModule {
				p.occurrence.Parent, p.occurrence.Local = value, true // of an object that is the module to its users
			} else if p.occurrence.Parent < 0 && (p.occurrence.Callable == nil || !p.occurrence.Embedded) {
				continue
			}
			p.occurrence.Embedded = false
		}
		r.facts.Occurrences = append(r.facts.Occurrences, p.occurrence)
	}
}

// declares reports whether the file declares a name at its top.
func (r *reader) declares(name string) bool { return r.known(name).declared }

// settle marks what is exported when all of the file was read. Where nothing is
// imported or exported the file is no module, and all it declares is for everybody.
func (r *reader) settle() {
	r.decide()
	r.keepGiven()
	for i := range r.facts.Occurrences {
		// A function that has members is looked at as what they are members of.
		if p := r.facts.Occurrences[i].Parent; p >= 0 && r.facts.Occurrences[p].Kind == model.KindFunction {
			r.facts.Occurrences[p].Kind = model.KindClass
		}
	}
	global := !r.esModule && !r.common
	open := r.ambient && r.esModule && !r.list // declarations without a list give all away
	for i := range r.facts.Occurrences {
		o := &r.facts.Occurrences[i]
		if o.Parent >= 0 {
			if o.Export == model.NotExported && r.ambientParent(o.Parent) {
				o.Export = model.Exported
			}
			continue
		}
		switch {
		case (global && r.typed || open) && o.Export == model.NotExported || r.exported[o.Name] || o.Kind == model.KindModule:
			o.Export = model.Exported
		case r.renamed[o.Name] && o.Export == model.NotExported:
			o.Export = model.Renamed
		}
		if global && !r.typed || (o.Export == model.Exported || o.Export == model.Renamed) && o.Visibility != model.Public {
			o.Export = model.ExportUnsaid // what a comment keeps from users outweighs the list
		}
		if o.Doc == nil && o.Export == model.Exported && r.listDocs[o.Name] != nil {
			o.GroupDoc = r.listDocs[o.Name]
		}
	}
	for i := range r.facts.Imports {
		in := &r.facts.Imports[i]
		if name := in.Name; !in.Reexport && name != "" && r.exported[name] {
			in.Reexport, in.Doc = true, r.listDocs[name]
		}
	}
	r.spreadNames()
	r.facts.HasExportList = r.esModule || r.common
	r.facts.Global = r.facts.Stub && !r.common && !startsLine(r.text, "export ") && !startsLine(r.text, "import ")
	r.facts.AssignsExports = r.common && !r.esModule
}

// ambientParent reports whether members of a declaration are exported with it.
func (r *reader) ambientParent(parent int32) bool {
	k := r.facts.Occurrences[parent].Kind
	return k != model.KindNamespace && k != model.KindModule
}

// startsLine reports whether some line of a text begins with a word, and so at the top.
func startsLine(text, word string) bool {
	return strings.HasPrefix(text, word) || strings.Contains(text, "\n"+word)
}
