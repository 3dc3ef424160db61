package java

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads what types have: fields, methods, constructors, the constants of an
// enumeration and the components of a record.

// typed reads a field, a method or a constructor.
func (r *reader) typed(from, at, end int, m mods, own owner) int {
	extra := &model.Extra{}
	scoped := len(r.scoped)
	defer func() { r.scoped = r.scoped[:scoped] }()
	mark := r.begin(m)
	i := at
	if r.Is(i, '<') {
		next := r.parameters(i, extra)
		if next == i+1 {
			return r.PastUnknown(at, end)
		}
		r.Arena.Put(model.TokenPunctuation, " ")
		i = next
	}
	c := callable{from: from, own: own, mods: m, extra: extra, mark: mark}
	if first := r.annotations(i); r.Word(first) == own.name && own.at >= 0 && (r.Is(first+1, '(') || r.Is(first+1, '{') && own.kind == model.KindRecord) {
		c.name, c.kind = first, model.KindConstructor
		return r.callable(c, first+1, end)
	}
	stop, ok := r.typ(i)
	if !ok || r.Word(stop) == "" || isKeyword(r.Word(stop)) {
		return r.PastUnknown(i, end)
	}
	if r.Is(stop+1, '(') {
		c.name, c.kind, c.result, c.resultEnd = stop, model.KindMethod, i, stop
		return r.callable(c, stop+1, end)
	}
	return r.fields(from, i, stop, end, m, own)
}

// callable is a method or constructor whose head is being read.
type callable struct {
	from, name        int
	kind              model.Kind
	own               owner
	mods              mods
	extra             *model.Extra
	mark              int
	result, resultEnd int // tokens of the type of what it gives
}

// callable reads on from the parameters of a method or constructor.
func (r *reader) callable(c callable, open, end int) int {
	o := model.Occurrence{Kind: c.kind, Callable: &model.Callable{}}
	i := open
	stop := 0
	if r.Is(open, '{') { // a record's constructor that lists no parameters takes all of its parts
		o.Callable.Params = c.own.parts
	}
	if r.Is(open, '(') {
		if stop = r.Close(open, end); !r.Is(stop, ')') {
			return r.PastUnknown(open, end)
		}
		i = stop + 1
	}
	after := r.dimensions(i)
	if c.kind == model.KindMethod {
		mark := r.Arena.Mark()
		r.putType(c.result, c.resultEnd)
		r.putType(i, after)
		if text := r.Word(c.result); !(text == "void" && c.resultEnd == c.result+1) {
			o.Callable.Results = []model.Param{{Name: "", Type: r.Arena.Since(mark)}}
		}
		r.Arena.Put(model.TokenPunctuation, " ")
	}
	r.Arena.Put(model.TokenName, r.Word(c.name))
	if stop > 0 {
		r.Arena.Put(model.TokenPunctuation, "(")
		r.each(open, func(_ int, p param) {
			if len(o.Callable.Params) > 0 {
				r.Arena.Put(model.TokenPunctuation, ", ")
			}
			o.Variadic = o.Variadic || p.variadic
			o.Callable.Params = append(o.Callable.Params, r.putParam(p))
		})
		r.Arena.Put(model.TokenPunctuation, ")")
	}
	if i = after; r.Word(i) == "throws" {
		r.Arena.Put(model.TokenKeyword, " throws ")
		for i++; ; i++ {
			next, ok := r.typ(i)
			if !ok {
				break
			}
			r.putType(i, next)
			c.extra.Failures = append(c.extra.Failures, model.Failure{Name: r.Dotted(r.annotations(i), next), Span: r.Span(i, next)})
			if i = next; !r.Is(i, ',') {
				break
			}
			r.Arena.Put(model.TokenPunctuation, ", ")
		}
	}
	if r.Word(i) == "default" {
		stop := r.UpTo(i, end, ';')
		r.put(i+1, stop-1, " default ")
		i = stop - 1
	}
	body := i
	switch {
	case r.Is(i, '{'):
		i = r.Over(i)
	case r.Is(i, ';'):
		i++
	default:
		i = r.PastUnknown(i, end)
	}
	said := r.words(c.from)
	if said.Doc != nil {
		name := ""
		if r.Word(c.result) == c.own.name {
			name = r.Word(c.name)
		}
		o.Callable.Returns = r.Gives(body, name)
	}
	o.Signature = r.Arena.Since(c.mark)
	o.Span = r.Span(c.from, i)
	if len(c.extra.TypeParams)+len(c.extra.Failures) > 0 {
		o.Extra = c.extra
	}
	if c.kind == model.KindConstructor && c.own.kind == model.KindEnum && !c.mods.said {
		c.mods.access, c.mods.said = model.Private, true
	}
	r.add(o, c.own, c.name, said, c.mods)
	return i
}

// param is where the parts of a parameter stand.
type param struct {
	typ, typEnd, name, nameEnd int
	variadic                   bool
}

// each gives the parameters in the brackets that open at an index, but for the one that
// stands for the object.
func (r *reader) each(open int, yield func(n int, p param)) {
	end, n := r.Close(open, len(r.Tokens)), 0
	for i := open + 1; i < end; i++ {
		_, at := r.modifiers(i, end)
		stop, ok := r.typ(at)
		p := param{typ: at, typEnd: stop, variadic: r.IsMark(r.annotations(stop), "...")}
		name := stop
		if p.variadic {
			name = r.annotations(stop) + 1
		}
		next := i
		for next < end && !r.Is(next, ',') {
			next = r.OverType(next)
		}
		if i = min(next, end); !ok || stop > end {
			continue
		}
		if r.Word(name) == "" || r.Word(name) == "this" || r.Is(name+1, '.') {
			continue // the receiver
		}
		p.name, p.nameEnd = name, r.dimensions(name+1)
		yield(n, p)
		n++
	}
}

// putParam puts a parameter as it reads and gives what it says.
func (r *reader) putParam(p param) model.Param {
	mark := r.Arena.Mark()
	r.putType(p.typ, p.typEnd)
	r.putType(p.name+1, p.nameEnd)
	if p.variadic {
		r.Arena.Put(model.TokenPunctuation, "...")
	}
	out := model.Param{Name: r.Word(p.name), Type: r.Arena.Since(mark), Variadic: p.variadic}
	r.Arena.Put(model.TokenPunctuation, " ")
	r.Arena.Put(model.TokenParameter, out.Name)
	return out
}

// fields reads the names that a type stands before, and gives the index behind them.
func (r *reader) fields(from, typ, typEnd, end int, m mods, own owner) int {
	kind := model.KindField
	if m.static && m.final || own.kind == model.KindInterface || own.kind == model.KindAnnotation {
		kind = model.KindConstant
	}
	said := r.words(from)
	for name := typEnd; ; {
		mark := r.begin(m)
		after := r.dimensions(name + 1)
		r.putType(typ, typEnd)
		r.putType(name+1, after)
		r.Arena.Put(model.TokenPunctuation, " ")
		r.Arena.Put(model.TokenName, r.Word(name))
		i := after
		if r.Is(i, '=') {
			stop := r.initialiser(i+1, end)
			if kind == model.KindConstant {
				r.value(i+1, stop)
			}
			i = stop
		}
		o := model.Occurrence{Kind: kind, Signature: r.Arena.Since(mark), Span: r.Span(from, min(i, end))}
		r.add(o, own, name, said, m)
		switch {
		case r.Is(i, ',') && r.Word(i+1) != "" && i+1 < end:
			name = i + 1
		case r.Is(i, ';'):
			return i + 1
		default:
			return r.PastUnknown(i, end)
		}
	}
}

// initialiser is the index behind a value: a comma or semicolon ends it.
func (r *reader) initialiser(i, end int) int {
	for i < end && !r.Is(i, ',') && !r.Is(i, ';') {
		if r.Is(i, '<') {
			next, ok := r.arguments(i)
			if ok && (r.Is(next, '(') || r.Is(next, '[') || r.Is(next, '.') || r.IsMark(next, "::") || r.Is(i-1, '.') && r.Word(next) != "") {
				i = next
				continue
			}
		}
		if r.Is(i, '}') {
			return i
		}
		i = r.Over(i)
	}
	return min(i, end)
}

// value puts a value that is one token, or a number with its sign.
func (r *reader) value(from, to int) {
	if to == from+1 && r.Tokens[from].Kind != lexing.Mark || to == from+2 && r.Is(from, '-') && r.Tokens[from+1].Kind == lexing.Value {
		r.put(from, to, " = ")
	}
}

// put puts a value that is short enough to be read, behind a mark.
func (r *reader) put(from, to int, mark string) {
	if text := r.Span(from, to).In(r.Text); to > from && len(text) <= longestValue && !strings.Contains(text, "\n") {
		r.Arena.Put(model.TokenPunctuation, mark)
		r.Arena.Put(model.TokenLiteral, text)
	}
}

// longestValue is how many bytes a value has that is shown.
const longestValue = 60

// constants reads the constants of an enumeration and gives the index behind them.
func (r *reader) constants(i, end int, own owner) int {
	for i < end {
		name := r.annotations(i)
		if r.Is(name, ';') {
			return name + 1
		}
		if r.Word(name) == "" || isKeyword(r.Word(name)) {
			if r.Is(name, ',') {
				i = name + 1
				continue
			}
			return i
		}
		found, _ := r.modifiers(i, end)
		m := mods{access: model.Public, said: true, deprecated: found.deprecated}
		next := name + 1
		if r.Is(next, '(') {
			next = r.Over(next)
		}
		if r.Is(next, '{') {
			next = r.Over(next)
		}
		if next < end && !r.Is(next, ',') && !r.Is(next, ';') {
			return i // what follows is no constant: a name is missing, or a comma
		}
		mark := r.Arena.Begin()
		r.Arena.Put(model.TokenName, r.Word(name))
		o := model.Occurrence{Kind: model.KindEnumMember, Signature: r.Arena.Since(mark), Span: r.Span(i, min(next, end))}
		r.add(o, own, name, r.words(i), m)
		if i = next; r.Is(i, ',') {
			i++
		}
	}
	return i
}

// components adds the fields of a record: they have accessors of their name.
func (r *reader) components(open int, own owner) {
	r.each(open, func(_ int, p param) {
		mark := r.Arena.Begin()
		r.putParam(p)
		o := model.Occurrence{Kind: model.KindField, Signature: r.Arena.Since(mark), Span: source.Span{Start: r.Tokens[p.typ].From, End: r.Tokens[p.nameEnd-1].To}}
		r.add(o, own, p.name, r.words(p.typ), mods{access: model.Public, said: true})
	})
}

// begin starts a signature with the modifiers of its declaration.
func (r *reader) begin(m mods) int {
	mark := r.Arena.Begin()
	for _, w := range m.words {
		switch word := r.Word(w); {
		case word == "" || unshown[word]:
		case word == "non":
			r.Arena.Put(model.TokenKeyword, "non-sealed ")
		case word == "sealed" && r.Is(w-1, '-'):
		default:
			r.Arena.Put(model.TokenKeyword, word+" ")
		}
	}
	return mark
}

// unshown are the modifiers that say nothing to who uses a declaration.
var unshown = lexing.WordSet("native strictfp synchronized transient volatile")
