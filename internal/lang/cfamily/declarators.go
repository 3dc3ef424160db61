package cfamily

import (
	"strings"

	"codrel/internal/lexing"
)

// This file reads declarators (6.7.7 of C's standard, [dcl.decl] of C++'s): what is declared,
// among marks of pointers, brackets and macros.

// declared is what a declarator says.
type declared struct {
	from          int // where the declarator begins
	name, nameEnd int // tokens; name is -1 where nothing is named
	qual          int // where the qualified name begins
	call, callEnd int // the brackets of its parameters and behind them; call is -1 where there are none
	fn            bool
	pointer       bool
	operator      bool
	destructor    bool
	array         bool
	old           bool // its parameters are declared behind their brackets
	next          int
}

// called decides what a name is that "(" follows: what is declared, a type before a declarator
// in brackets, or a macro.
func (r *reader) called(w word, end int, s *specs, own *owner) (next int, stop, done bool) {
	open := w.end
	shut := r.Close(open, end)
	after := min(shut+1, end)
	single := w.end == w.at+1
	isName := func() (int, bool, bool) {
		s.run, s.call, s.callEnd = append(s.run, w), open, after
		return after, false, true
	}
	macro := func() (int, bool, bool) {
		if s.wraps[1] == 0 {
			s.wraps, s.wrapper = [2]int{open + 1, shut}, w.at
		}
		r.macroWord(w.at, after, s)
		return after, false, false
	}
	prior := s.prior() || s.hasCalls() && (!w.macro || r.plainParameters(open, shut)) // a macro around the type
	switch {
	case single && len(s.run) > 0 && r.Is(open+1, '(') && int(r.Tokens[open+1].Partner) == shut-1 && w.macro: // inflate OF((int flush))
		s.call, s.callEnd = open+1, after
		r.drop(w.at, open+1)
		r.drop(shut, after)
		return after, false, true
	case single && w.macro && r.Word(open+1) != "" && r.Is(open+2, ',') && r.Is(open+3, '(') && (r.Is(r.Over(open+3), ')') || r.Is(r.Over(open+3), ',')): // __REDIRECT (open, (int n), open64)
		s.call, s.callEnd = open+3, after
		r.drop(w.at, open+1)
		r.drop(open+2, open+3)
		r.drop(r.Over(open+3), after)
		s.run = append(s.run, word{at: open + 1, end: open + 2})
		return after, false, true
	case single && w.macro && !prior && own.at < 0 && !s.param && (r.Is(after, ';') || after >= end) && r.declaring(open, shut) > 0: // EXPORT(1, int, open, (const char *path))
		name := r.declaring(open, shut)
		s.call, s.callEnd = name+2, after
		r.drop(w.at, open+1)
		r.dropToType(open, name)
		if r.drop(name-1, name); r.Is(name-1, '*') {
			r.drop(name-2, name-1)
		}
		r.drop(name+1, name+2)
		r.drop(r.Over(name+2), after)
		s.typed, s.typeFrom = true, open+1
		s.run = append(s.run[:0], word{at: name, end: name + 1})
		return after, false, true
	case own.record && !r.plus && single && s.typed && shut == open+2 && r.Word(open+1) != "" && (r.Is(after, ';') || r.Is(after, ',') || r.Is(after, '[')): // C has no members that are functions
		r.drop(w.at, open+1)
		r.drop(shut, after)
		s.run = append(s.run, word{at: open + 1, end: open + 2})
		return after, false, true
	case own.record && !r.plus && !s.param && single && r.Word(after) != "" && !tailWords[r.Word(after)]: // nor does it have functions
		return macro()
	case s.param && single && (w.macro || prior) && after >= end && shut == open+2 && r.Word(open+1) != "" && !r.names.builtin(r.Word(open+1)): // int UNUSED(n)
		r.drop(w.at, open+1)
		r.drop(shut, after)
		s.run = append(s.run, word{at: open + 1, end: open + 2})
		return after, false, true
	case r.pointerIn(open, shut) && (after >= end || r.Is(after, '(') || r.Is(after, '[') || r.Is(after, ';') || r.Is(after, '=') || r.Is(after, ',') || isMacro(r.Word(after)) || isAttribute(r.Word(after))) && !s.prior() && (r.Is(after, '(') || r.Is(after, '[') || !isMacro(r.Word(open+1)) || !r.Is(open+2, '*')):
		s.run = append(s.run, w)
		r.settleType(s)
		return open, false, true
	case r.plus && !s.typed && r.constructs(w, own):
		return isName()
	case r.plus && !prior && own.at < 0 && r.IsMark(after, "->"): // a deduction guide
		s.guide = true
		return isName()
	case after >= end || r.endsHead(after):
		return r.calledLast(w, open, shut, after, end, prior, s, own, isName, macro)
	case r.Word(after) != "":
		return r.calledBeforeWord(w, open, shut, after, end, prior, s, isName, macro)
	case r.Is(after, '*') || r.Is(after, '&') || r.IsMark(after, "&&"):
		if prior && (!w.macro || r.Is(after+1, ';') || r.Is(after+1, '{')) {
			return isName()
		}
		r.dropRun(s)
		if s.typed {
			return macro()
		}
		s.typed, s.typeFrom = true, w.at
		return after, false, false
	case r.Is(after, '('):
		inner := r.Word(open+1) != "" && r.qualified(open+1, shut) == shut
		switch {
		case !prior && (!w.macro || s.typedef) && r.wordsIn(open, shut): // a macro hides the mark of a pointer
			s.run = append(s.run, w)
			r.settleType(s)
			return open, false, true
		case inner && !prior && !w.macro:
			s.run = append(s.run, w)
			r.settleType(s)
			return open, false, true
		case inner && prior: // int NAME(open)(int n)
			r.drop(w.at, open+1)
			r.drop(shut, after)
			s.run = append(s.run, word{at: open + 1, end: shut})
			s.call, s.callEnd = after, min(r.Over(after), end)
			return s.callEnd, false, true
		}
		return macro()
	}
	if prior {
		return isName()
	}
	return r.PastUnknown(after, end), true, true
}

// calledLast decides what a name is behind whose brackets the head of a declaration ends.
func (r *reader) calledLast(w word, open, shut, after, end int, prior bool, s *specs, own *owner, isName, macro func() (int, bool, bool)) (next int, stop, done bool) {
	switch {
	case !prior && !r.plus && r.Is(after, '{') && w.end == w.at+1 && !w.macro && own.at < 0: // old code: main() {
		return isName()
	case !prior && r.Is(after, '{'):
		return r.Over(after), true, true
	case !prior && s.param:
		return isName()
	case !prior:
		if r.Is(after, ';') || after >= end {
			return after, true, true
		}
		return r.PastUnknown(after, end), true, true
	case w.macro && s.complete() && !r.Is(after, '{') && !r.plainParameters(open, shut):
		return macro()
	case r.plus && !s.param && (r.Is(after, ';') || r.Is(after, ',')) && !r.mayBeParameters(open, shut):
		s.run = append(s.run, w)
		return after, false, true // a variable with what it begins with
	}
	return isName()
}

// calledBeforeWord decides what a name is behind whose brackets a word stands.
func (r *reader) calledBeforeWord(w word, open, shut, after, end int, prior bool, s *specs, isName, macro func() (int, bool, bool)) (next int, stop, done bool) {
	x := r.Word(after)
	switch {
	case tailWords[x] && prior:
		return isName()
	case prior && !s.prior() && (r.Tokens[after].Newline && !isMacro(x) && !tailWords[x] || !r.plainParameters(open, shut)): // one macro after the other
		if r.Tokens[after].Newline && r.declaresAt(after) {
			return after, true, true
		}
		return macro()
	case !prior:
		if !r.plus && !w.macro && r.oldParameters(open, shut) && r.oldBody(after, end) {
			return isName()
		}
		if r.Tokens[after].Newline && !s.hasWords() && r.declaresAt(after) { // a macro that stands for something whole
			return after, true, true
		}
		return macro()
	case w.macro && s.complete() && !r.plainParameters(open, shut):
		return macro()
	case w.macro && !isMacro(x) && !r.plainParameters(open, shut):
		return macro()
	case w.macro && r.Tokens[after].Newline && (mayOpen(x) || isMacro(x) && !s.typed && s.allMacros()): // one on each line
		return macro()
	case w.macro && !s.typed && s.macrosAlone() && !r.plainParameters(open, shut):
		return macro()
	case w.macro && !isMacro(x) && !s.typed && (len(s.run) == 0 || r.Is(after+1, '(')):
		return macro()
	}
	return isName()
}

// declaresAt reports whether a declaration surely begins at a word.
func (r *reader) declaresAt(i int) bool {
	w := r.Word(i)
	begins := isStorage(w) || w == "struct" || w == "enum" || w == "union" || w == "class"
	return begins && r.apart(i) || r.commented(i)
}

// apart reports whether an empty line stands before a token, or a line to the preprocessor.
func (r *reader) apart(i int) bool {
	if i == 0 {
		return true
	}
	between := r.Text[r.Tokens[i-1].To:r.Tokens[i].From]
	return strings.Count(between, "\n") > 1 || strings.Contains(between, "#")
}

// hasWords reports whether words of the language stood before.
func (s *specs) hasWords() bool { return len(s.words) > 0 || s.extern || s.typedef || s.typed }

// prior reports whether something stands before that may be the type.
func (s *specs) prior() bool {
	if s.typed {
		return true
	}
	for _, w := range s.run {
		if !w.macro {
			return true
		}
	}
	return len(s.run) > 1 || len(s.run) == 1 && s.wraps[1] == 0
}

// allMacros reports whether no word stands before that is not formed as a macro's.
func (s *specs) allMacros() bool { return len(s.run) == 0 || s.macrosAlone() }

// complete reports whether a type and a name stand before.
func (s *specs) complete() bool {
	n := 0
	for _, w := range s.run {
		if !w.macro {
			n++
		}
	}
	return s.typed && n > 0 || n > 1
}

// tailWords may follow the parameters of a function.
var tailWords = lexing.WordSet(`const volatile noexcept throw override final try requires __attribute__ __attribute asm __asm __asm__ _Nonnull __const restrict`)

// endsHead reports whether what stands at an index ends the head of a declaration.
func (r *reader) endsHead(i int) bool {
	return r.Is(i, ';') || r.Is(i, '{') || r.Is(i, ',') || r.Is(i, '=') || r.Is(i, ':') || r.Is(i, '[') || r.IsMark(i, "->") || r.Is(i, '}') || r.Is(i, ')')
}

// pointerIn reports whether brackets hold a declarator with a mark of a pointer.
func (r *reader) pointerIn(open, shut int) bool {
	i := open + 1
	for i < shut && (isAttribute(r.Word(i)) || r.Word(i) != "" && (isMacro(r.Word(i)) || strings.HasPrefix(r.Word(i), "__"))) && (r.Is(i+1, '*') || r.Is(i+1, '^')) {
		i++ // how it is called
	}
	if r.plus {
		if q := r.qualified(i, shut); q > i && r.IsMark(q, "::") && r.Is(q+1, '*') {
			return true
		}
		if (r.Is(i, '&') || r.IsMark(i, "&&")) && r.Word(i+1) != "" && i+2 == shut {
			return true
		}
	}
	if !r.Is(i, '*') && !r.Is(i, '^') {
		return false
	}
	for i < shut && (r.Is(i, '*') || r.Is(i, '^') || isQualifier(r.Word(i)) || isMacro(r.Word(i)) && i+1 < shut) {
		i++
	}
	return i >= shut || r.Word(i) != "" && (i+1 >= shut || r.Is(i+1, '(') || r.Is(i+1, '[') || r.Word(i+1) != "") || r.Is(i, '(')
}

// declaring is the token of the name among the arguments of a macro that declares a function: a
// type, a name and parameters in brackets stand in a row. It is 0 where they do not.
func (r *reader) declaring(open, shut int) int {
	for i, n := open+1, 0; i < shut; i = r.Over(i) {
		if r.Is(i, ',') {
			n++
		}
		before := i - 3 // the comma behind the type
		if r.Is(before, '*') {
			before--
		}
		if n > 1 && r.Is(i, '(') && r.Is(i-1, ',') && r.Word(i-2) != "" && r.Is(before, ',') && (r.Is(r.Over(i), ',') || r.Over(i) == shut) && (r.Word(before-1) != "" || r.Is(before-1, '*')) {
			return i - 2
		}
	}
	return 0
}

// dropToType keeps the arguments out of the signature that stand before the type.
func (r *reader) dropToType(open, name int) {
	from := open + 1
	for i := open + 1; i < name-1 && !(r.Is(name-1, '*') && i == name-2); i = r.Over(i) {
		if r.Is(i, ',') {
			from = i + 1
		}
	}
	r.drop(open+1, from)
}

// wordsIn reports whether brackets hold a macro and a name.
func (r *reader) wordsIn(open, shut int) bool {
	return shut == open+3 && isMacro(r.Word(open+1)) && r.Word(open+2) != "" && !r.names.reserved(r.Word(open+2))
}

// constructs reports whether a name is that of a constructor of the type around, or, with what
// qualifies it, of another one.
func (r *reader) constructs(w word, own *owner) bool {
	if w.end == w.at+1 {
		return own.record && r.Word(w.at) == own.name
	}
	if own.record && r.Word(w.at) == own.name && r.Is(w.at+1, '<') && r.OverType(w.at+1) == w.end {
		return true
	}
	last := r.Word(w.end - 1)
	if last == "" || !r.IsMark(w.end-2, "::") {
		return false
	}
	before := w.end - 3
	if r.Is(before, '>') && r.Tokens[before].Partner >= 0 {
		before = int(r.Tokens[before].Partner) - 1
	}
	return r.Word(before) == last
}

// plainParameters reports whether brackets surely hold the parameters of a function: nothing, or
// types.
func (r *reader) plainParameters(open, shut int) bool {
	if shut <= open+1 {
		return true
	}
	for i := open + 1; i < shut; i = r.Over(i) {
		w := r.Word(i)
		if r.names.builtin(w) || w == "const" || w == "struct" || w == "enum" || w == "union" || w == "auto" || w != "" && r.Word(i+1) != "" {
			return true
		}
		if (r.Is(i, '*') || r.Is(i, '&') || r.IsMark(i, "&&")) && i > open+1 || r.IsMark(i, "...") {
			return true
		}
	}
	return false
}

// mayBeParameters reports whether brackets may hold the parameters of a function, and no values.
func (r *reader) mayBeParameters(open, shut int) bool {
	if shut <= open+1 {
		return true
	}
	i := open + 1
	if r.Tokens[i].Kind == lexing.Value || r.Tokens[i].Kind == lexing.Mark && !r.IsMark(i, "::") && !r.IsMark(i, "...") && !r.Is(i, '[') {
		return false
	}
	switch w := r.Word(i); {
	case w == "true" || w == "false" || w == "nullptr" || w == "this" || w == "new" || w == "sizeof" || w == "static_cast" || w == "reinterpret_cast" || w == "NULL":
		return false
	case w != "":
		q := r.qualified(i, shut)
		if r.names.reserved(w) && w != "auto" || q >= shut {
			return true
		}
		for r.Is(q, '(') && !r.pointerIn(q, r.Close(q, shut)) || r.Is(q, '.') || r.IsMark(q, "->") || r.Is(q, '+') || r.Is(q, '-') || r.Is(q, '/') || r.Is(q, '?') || r.Is(q, '{') || r.IsMark(q, "==") || r.IsMark(q, "||") || r.IsMark(q, "<<") {
			return false
		}
	}
	return true
}

// oldParameters reports whether brackets hold nothing but names.
func (r *reader) oldParameters(open, shut int) bool {
	for i := open + 1; i < shut; i += 2 {
		if r.Word(i) == "" || r.names.builtin(r.Word(i)) || i+1 < shut && !r.Is(i+1, ',') {
			return false
		}
	}
	return shut > open+1
}

// mostOld is how many tokens declare the parameters of a function of old code.
const mostOld = 400

// oldBody reports whether declarations of parameters follow, and then a body.
func (r *reader) oldBody(i, end int) bool {
	if r.Word(i) == "" {
		return false
	}
	seen := false
	for n := 0; i < end && n < mostOld; n++ {
		switch {
		case r.Is(i, '{'):
			return seen && r.Is(i-1, ';')
		case r.Is(i, ';'):
			seen = true
		case r.Word(i) != "" || r.Is(i, '*') || r.Is(i, ',') || r.Is(i, '[') || r.Is(i, '('):
			if w := r.Word(i); w == "typedef" || w == "extern" || w == "static" {
				return false
			}
		default:
			return false
		}
		i = r.Over(i)
	}
	return false
}

// declarator reads a declarator, of which the words before the first mark may have been taken.
func (r *reader) declarator(i, end int, s *specs, own *owner) (d declared) {
	d = declared{from: i, name: -1, qual: -1, call: -1, next: i}
	for depth := 0; ; depth++ {
		switch {
		case s.call >= 0 && len(s.run) > 0:
			w := s.run[len(s.run)-1]
			d.call, d.callEnd, d.fn = s.call, s.callEnd, true
			r.leave(s, len(s.run)-1)
			r.nameOf(&d, w)
			d.next = d.callEnd
			r.suffixes(&d, end, s)
			return d
		case len(s.run) > 0:
			n := s.pick()
			if n < 0 {
				d.next = i
				return d
			}
			w := s.run[n]
			r.leave(s, n)
			r.nameOf(&d, w)
			d.next = i
			r.suffixes(&d, end, s)
			return d
		case i >= end:
			d.next = end
			return d
		case r.plus && (r.operatorAt(i) || r.qualifiedOperator(i, end) > i):
			return r.operatorName(i, end, s, d)
		case r.plus && r.tilde(i, end) >= 0:
			at := r.tilde(i, end)
			d.qual, d.name, d.nameEnd, d.destructor = i, at, at+2, true
			d.next = at + 2
			r.suffixes(&d, end, s)
			return d
		case r.Is(i, '*') || r.Is(i, '&') || r.IsMark(i, "&&") || r.Is(i, '^'):
			d.pointer, s.typed = true, true
			var stop bool
			if i, stop = r.take(i+1, end, s, own); stop {
				d.next = i
				return d
			}
		case r.plus && (r.Word(i) != "" || r.IsMark(i, "::")): // a pointer to a member
			q := r.qualified(i, end)
			if !r.IsMark(q, "::") || !r.Is(q+1, '*') {
				d.next = i
				return d
			}
			d.pointer, s.typed = true, true
			var stop bool
			if i, stop = r.take(q+2, end, s, own); stop {
				d.next = i
				return d
			}
		case r.IsMark(i, "::") && r.Is(i+1, '*'):
			i++
		case r.Is(i, '(') && depth < deepest:
			return r.nested(i, end, s, own, d)
		default:
			d.next = i
			return d
		}
	}
}

// nested reads a declarator in brackets, or the parameters of a function without a name.
func (r *reader) nested(i, end int, s *specs, own *owner, d declared) declared {
	shut := r.Close(i, end)
	inner := specs{from: i + 1, typed: true, nested: true, call: -1, param: s.param, tag: noTag}
	if r.nesting >= deepest {
		d.next = shut + 1
		return d
	}
	r.nesting++
	at, stop := r.take(i+1, shut, &inner, own)
	in := declared{name: -1, call: -1}
	if !stop {
		in = r.declarator(at, shut, &inner, own)
	}
	r.nesting--
	d.next = min(shut+1, end)
	if in.name < 0 {
		if !in.pointer { // the parameters of what has no name
			d.call, d.callEnd = i, d.next
		}
		d.pointer = d.pointer || in.pointer
		outer := d.pointer
		r.suffixes(&d, end, s)
		d.fn = d.fn && !outer
		return d
	}
	pointer := d.pointer
	d.name, d.nameEnd, d.qual, d.call, d.callEnd, d.fn, d.array = in.name, in.nameEnd, in.qual, in.call, in.callEnd, in.fn, in.array
	d.operator, d.destructor = in.operator, in.destructor
	if in.call >= 0 { // a function that gives a pointer to one
		r.overSuffixes(&d, end)
		return d
	}
	d.pointer = in.pointer
	r.suffixes(&d, end, s)
	d.fn = d.fn && !in.pointer && !in.array
	d.pointer = d.pointer || pointer
	return d
}

// overSuffixes goes over brackets behind a declarator.
func (r *reader) overSuffixes(d *declared, end int) {
	for d.next < end && (r.Is(d.next, '(') || r.Is(d.next, '[')) {
		d.next = min(r.Over(d.next), end)
	}
}

// suffixes reads what stands behind a name: bounds of arrays, parameters, attributes and macros.
func (r *reader) suffixes(d *declared, end int, s *specs) {
	for d.next < end {
		i := d.next
		switch {
		case r.Is(i, '[') && r.Is(i+1, '['):
			d.next = r.attribute(i, end, s)
		case r.Is(i, '['):
			d.array = true
			d.next = min(r.Over(i), end)
		case r.Is(i, '(') && d.call < 0:
			d.call, d.callEnd = i, min(r.Over(i), end)
			d.fn = !d.array
			d.next = d.callEnd
		case isAttribute(r.Word(i)) && !d.fn:
			d.next = r.attribute(i, end, s)
		case r.IsMark(i, "..."):
			d.next++
		case r.Word(i) != "" && d.call < 0 && d.pointer && r.Is(i+1, '(') && r.Is(i+2, '(') && isMacro(r.Word(i)): // (*alloc) OF((int n))
			end := min(r.Over(i+1), end)
			d.call, d.callEnd, d.next = i+2, end, end
			r.drop(i, i+2)
			r.drop(end-1, end)
		case r.Word(i) != "" && !d.fn && !r.names.reserved(r.Word(i)):
			from := i
			if i++; r.Is(i, '(') {
				i = min(r.Over(i), end)
			}
			r.macroWord(from, i, s)
			d.next = i
		default:
			return
		}
	}
}

// leave makes types and macros of the words of a run but the one that is the name.
func (r *reader) leave(s *specs, name int) {
	typed := -1
	if !s.typed && s.wraps[1] == 0 || !s.typed && name > 0 {
		for n := name - 1; n >= 0; n-- {
			if typed < 0 || !s.run[n].macro && s.run[typed].macro {
				typed = n
			}
		}
	}
	for n, w := range s.run {
		if n != name && n != typed {
			r.macroWord(w.at, w.end, s)
		}
	}
	if typed >= 0 && s.run[typed].macro && s.wraps[1] > 0 { // the type is what another macro stands around
		r.macroWord(s.run[typed].at, s.run[typed].end, s)
		typed = -1
	}
	if typed >= 0 {
		s.typed, s.typeFrom = true, s.run[typed].at
	}
	s.run, s.call = s.run[:0], -1
}

// pick is the index of the word of a run that is the name of a variable, or -1.
func (s *specs) pick() int {
	n := len(s.run)
	first, last := -1, -1 // that are not formed as macros
	for i, w := range s.run {
		if !w.macro {
			if first < 0 {
				first = i
			}
			last = i
		}
	}
	switch {
	case s.typed || s.wraps[1] > 0 && n == 1:
		switch {
		case last >= 0:
			return last
		case s.nested || s.typedef:
			return n - 1
		}
		return 0
	case n == 1:
		return -1
	case last > first:
		return last
	case first > 0 && s.member: // CARD32 length B32
		return first
	case first >= 0 && first < n-1:
		return first + 1
	}
	return n - 1
}

// nameOf sets the name of a declarator.
func (r *reader) nameOf(d *declared, w word) {
	d.qual, d.name, d.nameEnd = w.at, w.end-1, w.end
	if r.plus && r.Is(d.name, '>') && r.Tokens[d.name].Partner >= 0 { // a specialisation
		d.name = int(r.Tokens[d.name].Partner) - 1
		d.nameEnd = d.name + 1
	}
	if r.Word(d.name) == "" {
		d.name = -1
	}
}

// tilde is the index of the mark of a destructor whose name begins at an index, or -1.
func (r *reader) tilde(i, end int) int {
	if r.Is(i, '~') && r.Word(i+1) != "" {
		return i
	}
	if r.Word(i) == "" && !r.IsMark(i, "::") {
		return -1
	}
	if q := r.qualified(i, end); q > i && r.Is(q, '~') && r.IsMark(q-1, "::") && r.Word(q+1) != "" {
		return q
	}
	return -1
}

// qualifiedOperator is the index of "operator" behind what qualifies it, or the index.
func (r *reader) qualifiedOperator(i, end int) int {
	if r.Word(i) == "" && !r.IsMark(i, "::") {
		return i
	}
	if q := r.qualified(i, end); q > i && r.IsMark(q-1, "::") && r.operatorAt(q) {
		return q
	}
	return i
}

// operatorName reads the name of an operator ([over.oper], [class.conv.fct], [over.literal]).
func (r *reader) operatorName(i, end int, s *specs, d declared) declared {
	at := max(i, r.qualifiedOperator(i, end))
	d.qual, d.name, d.operator = i, at, true
	j := at + 1
	switch {
	case r.Is(j, '(') && r.Is(j+1, ')'), r.Is(j, '[') && r.Is(j+1, ']'):
		j += 2
	case j < end && r.Tokens[j].Kind == lexing.Value:
		if j++; r.Word(j) != "" {
			j++
		}
	case r.Word(j) == "new" || r.Word(j) == "delete":
		if j++; r.Is(j, '[') && r.Is(j+1, ']') {
			j += 2
		}
	default:
		for j < min(end, at+mostWords) && !r.Is(j, '(') && !r.Is(j, ';') && !r.Is(j, '{') {
			if r.Word(j) != "" || r.Is(j, '<') && r.Word(j-1) != "" && r.Word(j-1) != "operator" {
				j = r.OverType(j)
			} else {
				j++
			}
		}
	}
	d.nameEnd, d.next = min(j, end), min(j, end)
	if r.Is(j, '<') && int(r.Tokens[j].Partner) > j { // arguments of a specialisation
		d.next = min(r.OverType(j), end)
	}
	r.suffixes(&d, end, s)
	d.fn = d.call >= 0
	return d
}
