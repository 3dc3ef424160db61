package cfamily

import (
	"slices"
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
)

// This file writes signatures as people read them: without macros and attributes, with the
// blanks that people of the language put.

// putting says what is special among tokens that are put.
type putting struct {
	name, nameEnd int // the tokens of the declared name; name is 0 where there are none
	called        string
	skip          [2]int // tokens that are left out
}

// signature puts what a declarator declares.
func (r *reader) signature(s *specs, d declared, o *model.Occurrence, headEnd, tailFrom int, t template, n int) {
	r.sortDrops()
	r.putTemplate(t)
	begin := s.begin
	first := r.firstMark(s, d)
	specEnd := first
	if n > 0 { // what stands before the first declarator is that of all
		specEnd = s.headEnd
	} else {
		s.headEnd = first
	}
	if s.tag.open >= 0 { // the body is not shown
		r.putSpecs(begin, s.tag.at, s)
		r.Arena.Put(model.TokenKeyword, r.Word(s.tag.at))
		if s.tag.name >= 0 {
			r.Arena.Put(model.TokenPunctuation, " ")
			r.Arena.Put(model.TokenType, r.Word(s.tag.name))
		} else {
			r.Arena.Put(model.TokenPunctuation, " { … }")
		}
		first = max(first, s.tag.close+1)
		r.Arena.Put(model.TokenPunctuation, " ")
	} else if specEnd > begin {
		mark := r.Arena.Mark()
		r.putSpecs(begin, specEnd, s)
		if r.Arena.Mark() > mark && (r.plus || s.wraps[1] == 0 || s.typeFrom > 0 || !r.Is(s.wraps[1]-1, '*')) && !(r.plus && (r.Is(first, '*') || r.Is(first, '&') || r.IsMark(first, "&&"))) {
			r.Arena.Put(model.TokenPunctuation, " ")
		}
	}
	end := headEnd
	if d.fn {
		end = max(d.next, tailFrom)
	}
	called := ""
	if o.Name != "" {
		called = o.Name
	}
	r.put(first, min(end, len(r.Tokens)), putting{name: d.name, nameEnd: d.nameEnd, called: called, skip: [2]int{d.qual, d.name}})
	if d.fn {
		r.putTail(tailFrom, headEnd)
	}
	if s.constant && r.Is(headEnd, '=') {
		r.value(headEnd+1, r.initialiser(headEnd, len(r.Tokens)))
	}
}

// result keeps the type of what comes back, where that is something.
func (r *reader) result(s *specs, d declared, o *model.Occurrence, n int) {
	from, to := s.begin, d.qual
	if n > 0 {
		to = s.headEnd
	}
	if s.result[1] > 0 {
		from, to = s.result[0], s.result[1]
	} else if s.tag.open >= 0 || !s.typed && s.wraps[1] == 0 {
		return
	}
	r.sortDrops()
	mark := r.Arena.Begin()
	for from < to && (isStorage(r.Word(from)) || r.dropped(from) > from) {
		from = max(from+1, r.dropped(from))
		if r.Is(from, '(') && r.Word(from-1) == "explicit" {
			from = r.Over(from)
		}
	}
	r.put(from, to, putting{})
	if from >= to && s.wraps[1] > 0 {
		r.putWrapped(s)
	}
	if n > 0 && s.result[1] == 0 {
		r.put(r.firstMark(s, d), d.qual, putting{})
	}
	run := r.Arena.Since(mark)
	if text := run.Text(r.Text); text != "" && text != "void" {
		o.Callable.Results = []model.Param{{Type: run}}
	}
}

// firstMark is where the declarator begins that a name stands in.
func (r *reader) firstMark(s *specs, d declared) int {
	if d.qual >= 0 && d.qual < d.from {
		return d.qual
	}
	return d.from
}

// sortDrops puts what is not shown in the order of the text, where it is not.
func (r *reader) sortDrops() {
	if len(r.drops) != r.sorted {
		slices.SortFunc(r.drops, func(a, b [2]int) int { return a[0] - b[0] })
		r.sorted = len(r.drops)
	}
}

// dropped is the index behind what is not shown at an index, or the index.
func (r *reader) dropped(i int) int {
	for again := true; again; {
		again = false
		n, found := slices.BinarySearchFunc(r.drops, i, func(d [2]int, i int) int { return d[0] - i })
		if !found {
			n--
		}
		for ; n >= 0 && n < len(r.drops) && r.drops[n][0] <= i; n++ {
			if r.drops[n][1] > i {
				i, again = r.drops[n][1], true
			}
		}
	}
	return i
}

// isDropped reports whether a token is not shown.
func (r *reader) isDropped(i int) bool {
	n, found := slices.BinarySearchFunc(r.drops, i, func(d [2]int, i int) int { return d[0] - i })
	return found || n > 0 && r.drops[n-1][1] > i
}

// unshown are words of the language that say nothing to who uses a declaration.
var unshown = lexing.WordSet("typedef extern inline register __extension__ __inline __inline__ __forceinline friend")

// putSpecs puts what stands before a declarator.
func (r *reader) putSpecs(from, to int, s *specs) {
	if s.typedef {
		r.Arena.Put(model.TokenKeyword, "typedef ")
	}
	var more [][2]int
	for i := from; i < to; i++ {
		if unshown[r.Word(i)] && !r.isDropped(i) {
			more = append(more, [2]int{i, i + 1})
		}
	}
	r.drops = append(r.drops, more...)
	r.sortDrops()
	r.put(from, to, putting{})
	if s.wraps[1] > 0 && s.typeFrom == 0 && s.tag.at < 0 { // what stands in the brackets of a macro is the type
		r.putWrapped(s)
	}
}

// putWrapped puts the type that a macro stands around.
func (r *reader) putWrapped(s *specs) {
	kept := r.drops
	r.drops = nil
	if from := s.wraps[0]; !s.member && isMacro(r.Word(s.wrapper)) || strings.Contains(r.Word(s.wrapper), "API") {
		r.put(from, s.wraps[1], putting{})
	} else {
		r.put(s.wrapper, s.wraps[1]+1, putting{})
	}
	r.drops = kept
}

// put puts the tokens between two indices.
func (r *reader) put(from, to int, p putting) {
	before := byte(0) // what was put last: 'w' for a word, else a mark
	inBounds := 0
	r.logic = false
	for i := from; i < to && i < len(r.Tokens); {
		if next := r.dropped(i); next > i {
			i = next
			continue
		}
		if p.skip[1] > p.skip[0] && i == p.skip[0] {
			i = p.skip[1]
			continue
		}
		t := &r.Tokens[i]
		text := r.Text[t.From:t.To]
		if p.name > 0 && i == p.name {
			if before == 'w' || before == '>' || r.plus && (before == '*' || before == '&') && !r.Is(i-2, '(') && !r.IsMark(i-2, "::") {
				r.Arena.Put(model.TokenPunctuation, " ")
			}
			if p.called != "" {
				text = p.called
			}
			r.Arena.Put(model.TokenName, text)
			i, before = p.nameEnd, 'w'
			continue
		}
		if t.Kind == lexing.Word || t.Kind == lexing.Value {
			if r.spaced(before) {
				r.Arena.Put(model.TokenPunctuation, " ")
			}
			if t.Kind == lexing.Value {
				r.Arena.Put(model.TokenLiteral, text)
				i, before = i+1, 'w'
				continue
			}
			r.logic = r.logic || text == "requires"
			i = r.putWord(i, to, text, inBounds > 0)
			before = 'w'
			continue
		}
		switch text {
		case "[":
			inBounds++
		case "]":
			inBounds--
		}
		r.putMark(i, text, before)
		if before = text[0]; (before == '<' || before == '>') && t.Partner < 0 {
			before = 0 // a comparison, with its blanks
		}
		i++
	}
}

// spaced reports whether a blank stands between what was put and a word.
func (r *reader) spaced(before byte) bool {
	switch before {
	case '.':
		return true
	case 'w', '>', ')', ']', '}':
		return true
	case '*':
		return r.plus
	case '&':
		return r.plus
	}
	return false
}

// putMark puts a mark with the blanks around it.
func (r *reader) putMark(i int, text string, before byte) {
	switch text {
	case "*", "&", "&&", "^":
		if !r.plus && (before == 'w' || before == '>' || before == ')') {
			text = " " + text
		} else if r.plus && text == "&&" && r.logic {
			text = " && "
		}
	case ",":
		text = ", "
	case "(":
		if before == 'w' && r.pointerIn(i, r.Close(i, len(r.Tokens))) {
			text = " ("
		}
	case "=", "==", "!=", "<=", "||", "?", "+", "/", "<<", "->":
		text = " " + text + " "
	case "<", ">":
		if r.Tokens[i].Partner < 0 {
			text = " " + text + " "
		}
	case "...":
		if before == 'w' && !r.plus {
			text = " ..."
		}
	case "{":
		if before == ')' {
			text = " {"
		}
	}
	r.Arena.Put(model.TokenPunctuation, text)
}

// putWord puts a word, and what belongs to the name that it begins; it gives the index behind.
func (r *reader) putWord(i, to int, text string, inBounds bool) int {
	switch {
	case r.isParameter(i):
		r.Arena.Put(model.TokenParameter, text)
	case r.isScoped(text):
		r.Arena.Put(model.TokenTypeParam, text)
	case r.names.reserved(text) || isQualifier(text) || isStorage(text):
		r.Arena.Put(model.TokenKeyword, text)
	case inBounds:
		r.Arena.Put(model.TokenValue, text)
	default:
		end := i + 1
		for r.plus && end+1 < to && r.IsMark(end, "::") && r.Word(end+1) != "" {
			end += 2
		}
		r.Arena.Put(model.TokenType, r.Dotted(i, end))
		return end
	}
	return i + 1
}

// isParameter reports whether a token is the name of a parameter of the signature at hand.
func (r *reader) isParameter(i int) bool {
	_, is := slices.BinarySearch(r.params, i) // they were found in the order of the text
	return is
}

func (r *reader) isScoped(name string) bool { return slices.Contains(r.scoped, name) }

// putTail puts what follows the parameters of a function and tells how it is used.
func (r *reader) putTail(from, to int) {
	for i := from; i < to; i++ {
		if next := r.dropped(i); next > i {
			i = next - 1
			continue
		}
		switch w := r.Word(i); {
		case w == "const" || w == "volatile" || w == "noexcept" || w == "override" || w == "final":
			r.Arena.Put(model.TokenKeyword, " "+w)
			if w == "noexcept" && r.Is(i+1, '(') {
				r.put(i+1, r.Over(i+1), putting{})
				i = r.Over(i+1) - 1
			}
		case r.Is(i, '&') || r.IsMark(i, "&&"):
			r.Arena.Put(model.TokenPunctuation, " "+r.Text[r.Tokens[i].From:r.Tokens[i].To])
		case r.IsMark(i, "->"):
			end := i + 1
			for end < to && !r.Is(end, '=') && r.Word(end) != "requires" && r.Word(end) != "override" {
				end = r.OverType(end)
			}
			r.Arena.Put(model.TokenPunctuation, " -> ")
			r.put(i+1, end, putting{})
			i = end - 1
		case w == "requires":
			end := min(r.overRequires(i+1, to), to)
			r.Arena.Put(model.TokenPunctuation, " ")
			r.put(i, end, putting{})
			i = end - 1
		case r.Is(i, '='):
			r.Arena.Put(model.TokenPunctuation, " = ")
			if r.Word(i+1) != "" {
				r.Arena.Put(model.TokenKeyword, r.Word(i+1))
			} else {
				r.Arena.Put(model.TokenLiteral, "0")
			}
			i++
		case r.Is(i, ':'):
			return
		}
	}
}

// putTemplate puts the heads of a template.
func (r *reader) putTemplate(t template) {
	if t.to > t.from {
		r.put(t.from, t.to, putting{})
		r.Arena.Put(model.TokenPunctuation, " ")
	}
}

// parameter is where the parts of a parameter stand.
type parameter struct {
	from, to int
	name     int // or -1
	value    int // of what it is where it is left out, or to
	variadic bool
}

// eachParameter gives the parameters in the brackets of a declarator.
func (r *reader) eachParameter(open, shut int, yield func(p parameter)) {
	for i := open + 1; i < shut; {
		next := i
		for next < shut && !r.Is(next, ',') {
			if r.plus {
				next = r.OverType(next)
			} else {
				next = r.Over(next)
			}
		}
		next = min(next, shut)
		if next > i {
			yield(r.parameterOf(i, next))
		}
		i = next + 1
	}
}

// parameterOf takes a parameter apart.
func (r *reader) parameterOf(from, to int) parameter {
	p := parameter{from: from, to: to, name: -1, value: to}
	if r.IsMark(from, "...") {
		p.variadic = true
		return p
	}
	for i := from; i < to; i = r.overInParameter(i) {
		if r.Is(i, '=') {
			p.value = i
			break
		}
	}
	s := specs{from: from, begin: from, call: -1, param: true, tag: noTag, run: r.roomForRun()}
	r.findName(&p, &s)
	r.backFromRun(&s)
	return p
}

// findName finds the name of a parameter.
func (r *reader) findName(p *parameter, s *specs) {
	own := owner{at: -1}
	i, stop := r.take(p.from, p.value, s, &own)
	if stop {
		return
	}
	if len(s.run) == 1 && !s.typed && s.call < 0 && s.wraps[1] == 0 {
		p.variadic = r.plus && r.IsMark(s.run[0].end, "...")
		return // a type alone
	}
	p.name = r.declarator(i, p.value, s, &own).name
	for n := p.from; r.plus && n < p.value; n++ {
		p.variadic = p.variadic || r.IsMark(n, "...")
	}
}

func (r *reader) overInParameter(i int) int {
	if r.plus {
		return r.OverType(i)
	}
	return r.Over(i)
}

// readParameters keeps the parameters of a callable. They are put with the rest of its signature.
func (r *reader) readParameters(d declared, o *model.Occurrence) {
	shut := d.callEnd - 1
	if shut <= d.call || !r.Is(shut, ')') && !r.Is(d.callEnd-1, ')') {
		shut = d.callEnd
	}
	if r.Is(d.call, '(') && int(r.Tokens[d.call].Partner) > d.call {
		shut = int(r.Tokens[d.call].Partner)
	}
	r.taken = r.taken[:0]
	r.eachParameter(d.call, shut, func(p parameter) {
		if p.variadic && p.to == p.from+1 {
			return // no parameter: it has no name and no type
		}
		if p.to == p.from+1 && r.Word(p.from) == "void" {
			return
		}
		out := model.Param{Variadic: p.variadic}
		if p.name >= 0 {
			out.Name = r.Word(p.name)
			r.params = append(r.params, p.name)
		} else if d.old && p.to == p.from+1 {
			out.Name = r.Word(p.from)
			r.params = append(r.params, p.from)
		}
		if p.value < p.to {
			out.Optional, out.Default = true, r.Span(p.value+1, p.to)
		}
		mark := r.Arena.Begin()
		out.Type = r.parameterType(p, mark)
		r.taken = append(r.taken, out)
	})
	o.Callable.Params = slices.Clone(r.taken)
}

// parameterType is the type of a parameter, with its name left out.
func (r *reader) parameterType(p parameter, mark int) model.Tokens {
	r.sortDrops()
	skip := [2]int{}
	if p.name >= 0 {
		skip = [2]int{p.name, p.name + 1}
	}
	r.put(p.from, p.value, putting{skip: skip})
	return r.Arena.Since(mark)
}

// typeAt is the index behind the type at an index, as code in bodies writes it; ok is false
// where there is none.
func (r *reader) typeAt(i int) (end int, ok bool) {
	last := i + mostTypeWords
	for i < last && (isQualifier(r.Word(i)) || r.Word(i) == "static" || r.Word(i) == "struct" || r.Word(i) == "enum" || r.Word(i) == "union" || r.Word(i) == "constexpr" || r.Word(i) == "typename") {
		i++
	}
	switch w := r.Word(i); {
	case r.names.builtin(w):
		for i < last && (r.names.builtin(r.Word(i)) || isQualifier(r.Word(i))) {
			i++
		}
	case w == "auto":
		i++
	case w == "" || r.names.reserved(w):
		return i, false
	default:
		q := r.qualified(i, len(r.Tokens))
		if q <= i {
			return i, false
		}
		i = q
	}
	for i < last && (r.Is(i, '*') || r.Is(i, '&') || r.IsMark(i, "&&") || isQualifier(r.Word(i))) {
		i++
	}
	return i, true
}

// mostTypeWords is how many words and marks a type in a body has at most.
const mostTypeWords = 12
