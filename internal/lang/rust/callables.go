package rust

import (
	"slices"

	"codrel/internal/lexing"
	"codrel/internal/model"
)

// This file reads functions and their parameters, type parameters and what bounds these, and writes
// signatures as people read them.

// function reads a function, a method or a procedural macro.
func (r *reader) function(it *item, at, end int, own *owner) int {
	name, i := r.name(at + 1)
	if name == "" {
		return r.PastUnknown(at, end)
	}
	named := r.Span(at+1, i)
	extra := &model.Extra{}
	generics := i
	i = r.generics(i, end, extra)
	if !r.Is(i, '(') {
		return r.PastUnknown(at, end)
	}
	shut := r.Close(i, end)
	o := model.Occurrence{Kind: model.KindFunction, Name: name, Callable: &model.Callable{}}
	if own.scope != "" {
		o.Kind = model.KindMethod
	}
	r.parameters(i, shut, &o)
	head := min(shut+1, end)
	result := head
	if r.IsMark(head, "->") {
		result = r.headEnd(head+1, end)
		if text := r.typeTokens(head+1, result); text.Text(r.Text) != "" && text.Text(r.Text) != "()" {
			o.Callable.Results = []model.Param{{Type: text}}
		}
	}
	body := r.where(result, end)
	mark := r.Arena.Begin()
	r.putVisibility(it)
	r.putWords(it)
	r.Arena.Put(model.TokenKeyword, "fn ")
	r.Arena.Put(model.TokenName, name)
	r.putGenerics(generics, i)
	r.putParameters(i, shut)
	if result > head {
		r.Arena.Put(model.TokenPunctuation, " -> ")
		r.put(head+1, result)
	}
	r.putWhere(result, body)
	next := body
	switch {
	case r.Is(body, '{'):
		next = min(r.Over(body), end)
		o.Callable.Returns = r.Gives(body, "")
	case r.Is(body, ';'):
		next = body + 1
	}
	o.Signature, o.Span = r.Arena.Since(mark), r.Span(it.from, next)
	if len(extra.TypeParams) > 0 {
		o.Extra = extra
	}
	if own.extern && !it.said {
		it.vis = model.Private
	}
	if it.attrs.procedural != "" {
		o.Kind, o.Callable = model.KindMacro, nil
		if m := it.attrs.macroName; m[1] > 0 {
			o.Name, named = r.Word(m[0]), r.Span(m[0], m[1])
		}
	}
	r.add(o, it, own, named)
	return max(next, at+1)
}

// headEnd is the index at which a type ends that is the last thing before a body, a bound or a value.
func (r *reader) headEnd(i, end int) int {
	for i < end && !r.Is(i, '{') && !r.Is(i, ';') && !r.Is(i, '=') && r.Word(i) != "where" && !r.Is(i, '}') {
		i = r.OverType(i)
	}
	return min(i, end)
}

// where is the index behind the bounds at an index.
func (r *reader) where(i, end int) int {
	if r.Word(i) != "where" {
		return i
	}
	for i < end && !r.Is(i, '{') && !r.Is(i, ';') && !r.Is(i, '=') {
		i = r.OverType(i)
	}
	return min(i, end)
}

// generics reads type parameters, and gives the index behind them.
func (r *reader) generics(i, end int, extra *model.Extra) int {
	if !r.Is(i, '<') {
		return i
	}
	stop := r.OverType(i)
	if stop == i+1 {
		return i
	}
	for at := i + 1; at < stop-1; {
		next := at
		for next < stop-1 && !r.Is(next, ',') {
			next = r.OverType(next)
		}
		name := at
		for r.Is(name, '#') {
			name = r.Over(name + 1)
		}
		if r.Word(name) == "const" {
			name++
		}
		if w := r.Word(name); w != "" && name < next {
			r.scoped = append(r.scoped, w)
			extra.TypeParams = append(extra.TypeParams, model.Param{Name: w})
		}
		at = next + 1
	}
	return min(stop, end)
}

func (r *reader) isScoped(name string) bool { return slices.Contains(r.scoped, name) }

// parameters keeps those between two brackets.
func (r *reader) parameters(open, shut int, o *model.Occurrence) {
	r.eachParameter(open, shut, func(from, colon, to int) {
		p := model.Param{Name: "_"}
		switch {
		case colon < 0 && r.isSelf(from, to):
			p.Name, p.Implied = "self", true
		case colon < 0 && r.IsMark(from, "..."):
			o.Variadic = true
			p.Name, p.Variadic = "...", true
		case colon < 0: // a type alone, as traits once had
			p.Type = r.typeTokens(from, to)
		default:
			at := from
			for r.Word(at) == "mut" || r.Word(at) == "ref" {
				at++
			}
			if name, next := r.name(at); next == colon && name != "" {
				p.Name = name
			}
			p.Implied = p.Name == "self"
			p.Type = r.typeTokens(colon+1, to)
		}
		o.Callable.Params = append(o.Callable.Params, p)
	})
}

// isSelf reports whether a parameter is the object: "self", "&'a mut self".
func (r *reader) isSelf(from, to int) bool { return r.Word(to-1) == "self" && to-from <= 6 }

// eachParameter gives the parameters between two brackets, and where their type begins or -1.
func (r *reader) eachParameter(open, shut int, yield func(from, colon, to int)) {
	for i := open + 1; i < shut; {
		next := i
		for next < shut && !r.Is(next, ',') {
			next = r.OverType(next)
		}
		next = min(next, shut)
		from, _ := r.attributesOnly(i, next)
		colon := from
		for colon < next && !r.Is(colon, ':') {
			colon = r.Over(colon)
		}
		if colon >= next {
			colon = -1
		}
		if from < next {
			yield(from, colon, next)
		}
		i = next + 1
	}
}

// putVisibility puts who may see an item, as it is written.
func (r *reader) putVisibility(it *item) {
	if it.said && it.vis == model.Public {
		r.Arena.Put(model.TokenKeyword, "pub ")
	} else if it.said {
		r.Arena.Put(model.TokenKeyword, "pub(crate) ")
	}
}

func (r *reader) putWords(it *item) {
	for _, w := range it.words {
		r.Arena.Put(model.TokenKeyword, w+" ")
	}
}

// putGenerics puts type parameters as they are written.
func (r *reader) putGenerics(from, to int) {
	for from < to && !r.Is(from, '<') {
		from++
	}
	r.put(from, to)
}

// putWhere puts bounds.
func (r *reader) putWhere(from, to int) {
	if r.Word(from) == "where" && to > from {
		r.Arena.Put(model.TokenPunctuation, " ")
		last := to
		if r.Is(last-1, ',') {
			last--
		}
		r.put(from, last)
	}
}

// putParameters puts the parameters between two brackets.
func (r *reader) putParameters(open, shut int) {
	r.Arena.Put(model.TokenPunctuation, "(")
	n := 0
	r.eachParameter(open, shut, func(from, colon, to int) {
		if n++; n > 1 {
			r.Arena.Put(model.TokenPunctuation, ", ")
		}
		if colon < 0 {
			r.put(from, to)
			return
		}
		if name, next := r.name(from); next == colon {
			r.Arena.Put(model.TokenParameter, name)
		} else if w := r.Word(from); w == "mut" && r.Word(from+1) != "" && from+2 == colon {
			r.Arena.Put(model.TokenParameter, r.Word(from+1))
		} else {
			r.put(from, colon)
		}
		r.Arena.Put(model.TokenPunctuation, ": ")
		r.put(colon+1, to)
	})
	r.Arena.Put(model.TokenPunctuation, ")")
}

// putTuple puts the types between brackets; of those that users do not see a mark.
func (r *reader) putTuple(open, shut int) {
	r.Arena.Put(model.TokenPunctuation, "(")
	for i, n := open+1, 0; i < shut; n++ {
		next := i
		for next < shut && !r.Is(next, ',') {
			next = r.OverType(next)
		}
		at, _ := r.attributesOnly(i, next)
		if at >= next {
			break
		}
		if n > 0 {
			r.Arena.Put(model.TokenPunctuation, ", ")
		}
		r.put(at, min(next, shut))
		i = next + 1
	}
	r.Arena.Put(model.TokenPunctuation, ")")
}

// putFields puts the fields of a variant in a row.
func (r *reader) putFields(i, end int) {
	for n := 0; i < end; n++ {
		next := i
		for next < end && !r.Is(next, ',') {
			next = r.OverType(next)
		}
		at, _ := r.attributesOnly(i, next)
		if at >= next {
			break
		}
		if n > 0 {
			r.Arena.Put(model.TokenPunctuation, ", ")
		}
		r.put(at, min(next, end))
		i = next + 1
	}
}

// typeTokens are the tokens of a type by itself.
func (r *reader) typeTokens(from, to int) model.Tokens {
	mark := r.Arena.Begin()
	r.put(from, to)
	return r.Arena.Since(mark)
}

// put puts tokens with the blanks that people of the language put.
func (r *reader) put(from, to int) {
	to = min(to, len(r.Tokens))
	for i := from; i < to; {
		t := &r.Tokens[i]
		text := r.Text[t.From:t.To]
		if i > from && r.blankBefore(i) {
			r.Arena.Put(model.TokenPunctuation, " ")
		}
		switch {
		case t.Kind == lexing.Value:
			r.Arena.Put(model.TokenLiteral, text)
		case t.Kind == lexing.Mark:
			r.Arena.Put(model.TokenPunctuation, text)
		case r.Is(i-1, '\''):
			r.Arena.Put(model.TokenTypeParam, text)
		case text == "Self":
			r.Arena.Put(model.TokenKeyword, text)
		case isKeyword(text) && (!r.IsMark(i+1, "::") || !beginsPath[text]):
			r.Arena.Put(model.TokenKeyword, text)
		case r.isScoped(text) && !r.IsMark(i+1, "::"):
			r.Arena.Put(model.TokenTypeParam, text)
		case isPrimitive(text) && !r.IsMark(i+1, "::"):
			r.Arena.Put(model.TokenKeyword, text)
		default:
			end := i + 1
			for r.IsMark(end, "::") && r.Word(end+1) != "" && end+1 < to {
				end += 2
			}
			r.Arena.Put(model.TokenType, r.Dotted(i, end))
			i = end
			continue
		}
		i++
	}
}

// beginsPath are the keywords that paths begin with.
var beginsPath = lexing.WordSet("crate super self Self")

// blankBefore reports whether people put a blank before a token, behind the one before it.
func (r *reader) blankBefore(i int) bool {
	sign, before := r.Tokens[i].Sign, r.Tokens[i-1].Sign
	word, wordBefore := r.Tokens[i].Kind != lexing.Mark, r.Tokens[i-1].Kind != lexing.Mark
	switch {
	case before == ',' || before == ';' || before == ':':
		return true
	case sign == '+' || before == '+' || sign == '=' || before == '=' || r.IsMark(i, "->") || r.IsMark(i-1, "->") || r.IsMark(i, "=>") || r.IsMark(i-1, "=>") || r.IsMark(i, "=="):
		return true
	case word && wordBefore:
		return true
	case (sign == '\'' || r.IsMark(i, "::") && !beginsPath[r.Word(i-1)]) && wordBefore && isKeyword(r.Word(i-1)):
		return true
	case (sign == '[' || sign == '(') && wordBefore && i > 1 && r.Is(i-2, '\''): // behind a lifetime
		return true
	case sign == '&' && wordBefore || sign == '{' || before == '{' || sign == '}':
		return true
	case (sign == '[' || sign == '(') && wordBefore && isKeyword(r.Word(i-1)) && r.Word(i-1) != "fn" && !beginsPath[r.Word(i-1)]:
		return true
	case before == '>' && word, sign == '*' && wordBefore && isKeyword(r.Word(i-1)), sign == '<' && r.Word(i-1) == "as":
		return true
	case word && before == ')' || word && before == ']':
		return true
	case sign == '?' && wordBefore:
		return false
	}
	return false
}
