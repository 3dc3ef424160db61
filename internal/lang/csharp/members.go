package csharp

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
)

// This file reads what types have: fields, properties, events, indexers, methods, operators,
// constructors and finalizers, and what extension blocks add to others.

// member reads the declaration whose attributes and modifiers begin at from and end at at,
// and gives the index behind it.
func (r *reader) member(from, at, end int, m mods, own owner) int {
	if at >= end {
		return end
	}
	scoped := len(r.scoped)
	defer func() { r.scoped = r.scoped[:scoped] }()
	switch word := r.Word(at); {
	case r.Is(at, ';') || r.Is(at, '}') || r.Is(at, ')') || r.Is(at, ']'):
		return at + 1
	case r.Is(at, '~') && r.Word(at+1) != "":
		return r.finalizer(from, at, end, m, own)
	case word == "event":
		return r.event(from, at, end, m, own)
	case word == "implicit" || word == "explicit":
		return r.conversion(from, at, end, m, own)
	case r.declaresType(at):
		return r.typeDeclaration(from, at, end, m, own)
	case word == "extension" && (r.Is(at+1, '(') || r.Is(at+1, '<')):
		return r.extension(at, end, own)
	case strings.TrimPrefix(word, "@") == own.name && r.Is(at+1, '('):
		c := head{from: from, name: at, nameEnd: at + 1, kind: model.KindConstructor, mods: m, own: own}
		if m.static && !m.said {
			c.mods.access, c.mods.said = model.Private, true
		}
		return r.callable(c, at+1, end)
	}
	return r.typed(from, at, end, m, own)
}

// typed reads what begins with a type.
func (r *reader) typed(from, at, end int, m mods, own owner) int {
	name, ok := r.typ(at)
	if !ok {
		return r.PastUnknown(at, end)
	}
	h := head{from: from, result: at, resultEnd: name, mods: m, own: own}
	if r.Word(name) == "operator" {
		return r.operator(h, name, end)
	}
	if h.name, h.nameEnd, ok = r.memberName(name); !ok {
		return r.PastUnknown(at, end)
	}
	h.of = r.Dotted(name, max(name, h.name-1))
	next := h.nameEnd
	switch word := r.Word(h.name); {
	case word == "operator":
		return r.operator(h, h.name, end)
	case word == "this" && r.Is(next, '['):
		return r.indexer(h, end)
	case r.Is(next, '('), r.Is(next, '<'):
		h.kind = model.KindMethod
		return r.callable(h, next, end)
	case r.Is(next, '{'), r.IsMark(next, "=>"):
		return r.property(h, end)
	}
	return r.fields(h, end)
}

// memberName finds the name of a member, before which may stand the interface that it
// implements: "IEnumerable<T>.GetEnumerator".
func (r *reader) memberName(i int) (name, end int, ok bool) {
	for {
		word := r.Word(i)
		if word == "" || isKeyword(word) && word != "this" && word != "operator" {
			return i, i, false
		}
		next := i + 1
		if r.Is(next, '<') {
			if after := r.OverType(next); r.Is(after, '.') {
				next = after
			}
		}
		if !r.Is(next, '.') && !r.IsMark(next, "::") {
			return i, i + 1, true
		}
		i = next + 1
	}
}

// head is the beginning of a member.
type head struct {
	from, name, nameEnd int
	result, resultEnd   int // tokens of its type
	kind                model.Kind
	called              string // its name, where that is not what its token says
	of                  string // the interface that it implements for itself alone
	mods                mods
	own                 owner
}

// put adds the member that a head begins.
func (r *reader) put(h head, o model.Occurrence, extra *model.Extra, to int) {
	o.Kind, o.Name, o.Span = h.kind, h.called, r.Span(h.from, to)
	if h.of != "" {
		extra.Space = h.of
		h.mods.access, h.mods.said = model.Private, true
	}
	o.Extra = extra
	r.add(o, h.own, r.Span(h.name, h.nameEnd), r.words(h.from), h.mods)
}

// putTyped puts the type and the name of a member.
func (r *reader) putTyped(h head, o *model.Occurrence) {
	r.result(h.result, h.resultEnd, o)
	r.Arena.Put(model.TokenPunctuation, " ")
	if h.of != "" {
		r.Arena.Put(model.TokenType, h.of)
		r.Arena.Put(model.TokenPunctuation, ".")
	}
	r.Arena.Put(model.TokenName, strings.TrimPrefix(r.Word(h.name), "@"))
}

// result puts the type of what comes back and keeps it.
func (r *reader) result(from, to int, o *model.Occurrence) {
	mark := r.Arena.Mark()
	r.putType(from, to)
	if o.Callable != nil && !(to == from+1 && r.Word(from) == "void") {
		o.Callable.Results = []model.Param{{Type: r.Arena.Since(mark)}}
	}
}

// callable reads on from the type parameters or parameters of a method or constructor.
func (r *reader) callable(h head, i, end int) int {
	o := model.Occurrence{Callable: &model.Callable{}}
	extra := &model.Extra{}
	if r.Is(i, '<') { // they may stand in the result
		r.scope(i)
	}
	mark := r.begin(h.mods)
	if h.kind == model.KindConstructor {
		r.Arena.Put(model.TokenName, strings.TrimPrefix(r.Word(h.name), "@"))
	} else {
		r.putTyped(h, &o)
	}
	if r.Is(i, '<') {
		i = r.typeParameters(i, extra)
	}
	if !r.Is(i, '(') {
		return r.PastUnknown(i, end)
	}
	i = r.parameters(i, end, &o)
	i = r.constraints(i, end, extra)
	o.Signature = r.Arena.Since(mark)
	if r.Is(i, ':') { // what it calls first
		for i < end && !r.Is(i, '{') && !r.Is(i, ';') && !r.IsMark(i, "=>") {
			i = r.Over(i)
		}
	}
	body := i
	i = r.bodyEnd(i, end)
	if len(o.Callable.Results) > 0 {
		name := ""
		if r.Word(h.result) == h.own.name {
			name = r.Word(h.name)
		}
		o.Callable.Returns = r.Gives(body, name)
	}
	r.put(h, o, extra, i)
	return i
}

// bodyEnd is the index behind the body at an index, or behind what stands in its place.
func (r *reader) bodyEnd(i, end int) int {
	if r.Is(i, '{') {
		return min(r.Over(i), end)
	}
	return r.UpTo(i, end, ';')
}

// param is where the parts of a parameter stand.
type param struct {
	from, typ, typEnd, name int
	value, end              int // of what it is where it is left out, or the same
	variadic, this          bool
	mode                    model.Passing
}

// closing is the index of what closes a list of parameters: where it is never closed, of
// what follows one.
func (r *reader) closing(open, end int) int {
	if int(r.Tokens[open].Partner) > open {
		return r.Close(open, end)
	}
	for i := open + 1; i < end; i = r.Over(i) {
		if r.Is(i, '{') || r.Is(i, ';') {
			return i
		}
	}
	return end
}

// each gives the parameters in the brackets that open at an index.
func (r *reader) each(open int, yield func(n int, p param)) {
	end, n := r.closing(open, len(r.Tokens)), 0
	for i := open + 1; i < end; i++ {
		p := param{from: i}
		for r.Is(i, '[') {
			i = r.Over(i)
		}
		i = r.passing(i, &p)
		next := i
		for next < end && !r.Is(next, ',') {
			next = r.OverType(next)
		}
		next = min(next, end)
		stop, ok := r.typ(i)
		if p.typ, p.typEnd, p.name, p.end = i, stop, stop, next; ok && stop < next && r.Word(stop) != "" {
			if p.value = next; r.Is(stop+1, '=') {
				p.value = stop + 2
			}
			yield(n, p)
			n++
		} else if ok && stop == next && next > i { // the receiver of an extension may have no name
			p.name, p.value = -1, next
			yield(n, p)
			n++
		}
		i = next
	}
}

// passing reads the words before the type of a parameter.
func (r *reader) passing(i int, p *param) int {
	for ; ; i++ {
		switch r.Word(i) {
		case "this":
			p.this = true
		case "params":
			p.variadic = true
		case "ref":
			p.mode = model.ByReference
		case "out":
			p.mode = model.OutOnly
		case "in":
			p.mode = model.InOnly
		case "readonly":
			p.mode = model.InOnly
		case "scoped":
			if r.Word(i+1) == "" || r.Is(i+2, ',') || r.Is(i+2, ')') {
				return i
			}
		default:
			return i
		}
	}
}

// parameters reads the parameters in brackets, puts them and gives the index behind them.
func (r *reader) parameters(open, end int, o *model.Occurrence) int {
	stop := r.closing(open, end)
	r.putParameters(open, o)
	if r.Is(stop, '{') || r.Is(stop, ';') {
		return stop
	}
	return min(stop+1, end)
}

// putParameters puts a list of parameters and keeps them.
func (r *reader) putParameters(open int, o *model.Occurrence) {
	shut := ")"
	if r.Is(open, '[') {
		shut = "]"
	}
	r.Arena.Put(model.TokenPunctuation, r.Text[r.Tokens[open].From:r.Tokens[open].To])
	r.each(open, func(n int, p param) {
		if n > 0 {
			r.Arena.Put(model.TokenPunctuation, ", ")
		}
		if p.name < 0 {
			r.putType(p.typ, p.typEnd)
			return
		}
		o.Variadic = o.Variadic || p.variadic
		o.Callable.Params = append(o.Callable.Params, r.putParam(p))
	})
	r.Arena.Put(model.TokenPunctuation, shut)
}

// putParam puts a parameter as it reads and gives what it says.
func (r *reader) putParam(p param) model.Param {
	for i := p.from; i < p.typ; i = r.Over(i) {
		if word := r.Word(i); word != "" {
			r.Arena.Put(model.TokenKeyword, word+" ")
		}
	}
	mark := r.Arena.Mark()
	r.putType(p.typ, p.typEnd)
	out := model.Param{Name: strings.TrimPrefix(r.Word(p.name), "@"), Type: r.Arena.Since(mark), Variadic: p.variadic, Mode: p.mode}
	r.Arena.Put(model.TokenPunctuation, " ")
	r.Arena.Put(model.TokenParameter, out.Name)
	if p.value < p.end {
		out.Optional, out.Default = true, r.Span(p.value, p.end)
		text := "..."
		if whole := out.Default.In(r.Text); len(whole) <= longestValue && !strings.Contains(whole, "\n") {
			text = whole
		}
		r.Arena.Put(model.TokenPunctuation, " = ")
		r.Arena.Put(model.TokenLiteral, text)
	}
	return out
}

// longestValue is how many bytes a value has that is shown.
const longestValue = 60

// value puts a value that is one token, or a number with its sign.
func (r *reader) value(from, to int) {
	if to == from+1 && r.Tokens[from].Kind != lexing.Mark || to == from+2 && r.Is(from, '-') && r.Tokens[from+1].Kind == lexing.Value {
		if text := r.Span(from, to).In(r.Text); len(text) <= longestValue && !strings.Contains(text, "\n") {
			r.Arena.Put(model.TokenPunctuation, " = ")
			r.Arena.Put(model.TokenLiteral, text)
		}
	}
}

// fields reads the names that a type stands before, and gives the index behind them.
func (r *reader) fields(h head, end int) int {
	if h.kind == model.KindModule {
		h.kind = model.KindField
		if h.mods.constant {
			h.kind = model.KindConstant
		}
	}
	for {
		mark := r.begin(h.mods)
		if h.kind == model.KindEvent {
			r.Arena.Put(model.TokenKeyword, "event ")
		}
		o := model.Occurrence{}
		r.putTyped(h, &o)
		i := h.nameEnd
		if r.Is(i, '[') { // room of a fixed size
			r.putType(i, r.Over(i))
			i = r.Over(i)
		}
		if r.Is(i, '=') {
			stop := r.initialiser(i+1, end)
			if h.mods.constant {
				r.value(i+1, stop)
			}
			i = stop
		}
		o.Signature = r.Arena.Since(mark)
		r.put(h, o, &model.Extra{}, min(i, end))
		switch {
		case r.Is(i, ',') && r.Word(i+1) != "" && i+1 < end:
			h.name, h.nameEnd = i+1, i+2
		case r.Is(i, ';'):
			return i + 1
		default:
			return r.PastUnknown(i, end)
		}
	}
}

// initialiser is the index behind a value: a comma or semicolon ends it.
func (r *reader) initialiser(i, end int) int {
	for i < end && !r.Is(i, ',') && !r.Is(i, ';') && !r.Is(i, '}') {
		if r.Is(i, '<') && r.OverType(i) > i+1 {
			if after := r.OverType(i); r.Is(after, '(') || r.Is(after, '[') || r.Is(after, '{') || r.Is(after, '.') || r.Is(after, ';') || r.Is(after, ')') {
				i = after
				continue
			}
		}
		i = r.Over(i)
	}
	return min(i, end)
}

// property reads on from what a property has behind its name.
func (r *reader) property(h head, end int) int {
	if h.kind == model.KindModule {
		h.kind = model.KindProperty
	}
	mark := r.begin(h.mods)
	if h.kind == model.KindEvent {
		r.Arena.Put(model.TokenKeyword, "event ")
	}
	o := model.Occurrence{}
	r.putTyped(h, &o)
	i := r.accessors(h.nameEnd, end, h.kind != model.KindEvent)
	o.Signature = r.Arena.Since(mark)
	r.put(h, o, &model.Extra{}, i)
	return i
}

// accessors reads how a property is read and set, puts it and gives the index behind it.
func (r *reader) accessors(i, end int, shown bool) int {
	if r.IsMark(i, "=>") {
		r.Arena.Put(model.TokenPunctuation, " { ")
		r.Arena.Put(model.TokenKeyword, "get")
		r.Arena.Put(model.TokenPunctuation, "; }")
		return r.UpTo(i, end, ';')
	}
	if !r.Is(i, '{') {
		return r.PastUnknown(i, end)
	}
	stop := r.Close(i, end)
	if shown {
		r.Arena.Put(model.TokenPunctuation, " {")
	}
	for i++; i < stop; {
		_, at := r.modifiers(i, stop)
		if word := r.Word(at); shown && (word == "get" || word == "set" || word == "init") {
			r.Arena.Put(model.TokenPunctuation, " ")
			for ; i < at; i = r.Over(i) {
				if accessWords[r.Word(i)] {
					r.Arena.Put(model.TokenKeyword, r.Word(i)+" ")
				}
			}
			r.Arena.Put(model.TokenKeyword, word)
			r.Arena.Put(model.TokenPunctuation, ";")
		}
		i = max(r.bodyEnd(at+1, stop), at+1)
	}
	if shown {
		r.Arena.Put(model.TokenPunctuation, " }")
	}
	if i = min(stop+1, end); r.Is(i, '=') {
		return r.UpTo(i, end, ';')
	}
	return i
}

// indexer reads what answers to brackets behind an object.
func (r *reader) indexer(h head, end int) int {
	h.kind, h.called = model.KindIndexer, "this[]"
	mark := r.begin(h.mods)
	o := model.Occurrence{Callable: &model.Callable{}}
	r.putTyped(h, &o)
	i := r.parameters(h.nameEnd, end, &o)
	i = r.accessors(i, end, true)
	o.Signature = r.Arena.Since(mark)
	r.put(h, o, &model.Extra{}, i)
	return i
}

// event reads an event, or several of one type.
func (r *reader) event(from, at, end int, m mods, own owner) int {
	name, ok := r.typ(at + 1)
	if !ok {
		return r.PastUnknown(at, end)
	}
	h := head{from: from, result: at + 1, resultEnd: name, kind: model.KindEvent, mods: m, own: own}
	if h.name, h.nameEnd, ok = r.memberName(name); !ok {
		return r.PastUnknown(at, end)
	}
	h.of = r.Dotted(name, max(name, h.name-1))
	if r.Is(h.nameEnd, '{') {
		return r.property(h, end)
	}
	return r.fields(h, end)
}

// operator reads an operator whose word stands at an index.
func (r *reader) operator(h head, at, end int) int {
	h.kind, h.name = model.KindOperator, at
	i := at + 1
	called := "operator "
	if r.Word(i) == "checked" {
		called += "checked "
		i++
	}
	for begin := i; i < end && (!r.Is(i, '(') || i == begin); i++ {
		called += r.Text[r.Tokens[i].From:r.Tokens[i].To]
	}
	return r.operation(h, called, i, end)
}

// conversion reads an operator that makes one type of another.
func (r *reader) conversion(from, at, end int, m mods, own owner) int {
	h := head{from: from, kind: model.KindOperator, mods: m, own: own}
	word := at + 1
	for word < end && r.Word(word) != "operator" && !r.Is(word, ';') && !r.Is(word, '{') {
		word = r.OverType(word)
	}
	if r.Word(word) != "operator" {
		return r.PastUnknown(at, end)
	}
	h.of = r.Dotted(at+1, max(at+1, word-1))
	h.name = word
	i := word + 1
	called := r.Word(at) + " operator"
	if r.Word(i) == "checked" {
		called += " checked"
		i++
	}
	stop, ok := r.typ(i)
	if !ok {
		return r.PastUnknown(at, end)
	}
	h.result, h.resultEnd = i, stop
	return r.operation(h, called, stop, end)
}

// operation reads on from the parameters of an operator.
func (r *reader) operation(h head, called string, i, end int) int {
	if !r.Is(i, '(') {
		return r.PastUnknown(i, end)
	}
	h.called, h.nameEnd = called, i
	o := model.Occurrence{Callable: &model.Callable{}}
	mark := r.begin(h.mods)
	if strings.HasPrefix(called, "operator") {
		r.result(h.result, h.resultEnd, &o)
		r.Arena.Put(model.TokenPunctuation, " ")
		r.Arena.Put(model.TokenName, called)
	} else {
		r.Arena.Put(model.TokenName, called)
		r.Arena.Put(model.TokenPunctuation, " ")
		r.result(h.result, h.resultEnd, &o)
	}
	i = r.parameters(i, end, &o)
	o.Signature = r.Arena.Since(mark)
	i = r.bodyEnd(i, end)
	r.put(h, o, &model.Extra{}, i)
	return i
}

// finalizer reads what runs when an object goes.
func (r *reader) finalizer(from, at, end int, m mods, own owner) int {
	mark := r.begin(m)
	name := "~" + r.Word(at+1)
	r.Arena.Put(model.TokenName, name)
	r.Arena.Put(model.TokenPunctuation, "()")
	o := model.Occurrence{Callable: &model.Callable{}, Signature: r.Arena.Since(mark)}
	i := at + 2
	if r.Is(i, '(') {
		i = r.Over(i)
	}
	i = r.bodyEnd(i, end)
	m.access, m.said = model.Private, true
	r.put(head{from: from, name: at, nameEnd: at + 2, kind: model.KindDestructor, mods: m, own: own}, o, &model.Extra{}, i)
	return i
}

// extension reads a block of members that a static class gives to another type: they are
// the class's, with what they extend before their parameters.
func (r *reader) extension(at, end int, own owner) int {
	i := at + 1
	if r.Is(i, '<') {
		i = r.scope(i)
	}
	if !r.Is(i, '(') {
		return r.PastUnknown(i, end)
	}
	list, before := i, r.extended
	i = r.Over(i)
	for i < end && !r.Is(i, '{') && !r.Is(i, ';') {
		i = r.Over(i)
	}
	if !r.Is(i, '{') {
		return i + 1
	}
	stop := r.Close(i, end)
	own.extends = strings.Join(strings.Fields(r.Span(at, i).In(r.Text)), " ")
	if r.Deeper(i, deepest) {
		r.extended = list
		r.body(i+1, stop, own)
		r.extended = before
		r.Shallower()
	}
	return stop + 1
}
