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

// callee is a name that brackets follow.
type callee struct {
	word
	s     *specs
	own   *owner
	open  int  // the brackets
	shut  int  // what closes them
	after int  // behind that
	end   int  // of what is read
	prior bool // something stands before that may be the type
}

// single reports whether the name is one word.
func (c *callee) single() bool { return c.word.end == c.at+1 }

// called decides what a name is that "(" follows: what is declared, a type before a declarator
// in brackets, or a macro.
func (r *reader) called(w word, end int, s *specs, own *owner) (next int, stop, done bool) {
	c := callee{word: w, s: s, own: own, open: w.end, shut: r.Close(w.end, end), end: end}
	c.after = min(c.shut+1, end)
	c.prior = s.prior() || s.hasCalls() && (!w.macro || r.plainParameters(c.open, c.shut)) // a macro around the type
	if next, done := r.nameInMacro(&c); done {
		return next, false, true
	}
	after := c.after
	switch {
	case own.record && !r.plus && !s.param && c.single() && r.Word(after) != "" && !tailWords[r.Word(after)]: // C has no members that are functions
		return r.asMacro(&c)
	case r.pointsAt(&c):
		return r.asType(&c)
	case r.plus && !s.typed && r.constructs(w, own):
		if len(s.run) > 0 && s.macrosAlone() {
			r.dropRun(s)
		}
		return r.asName(&c)
	case r.plus && !c.prior && own.at < 0 && r.IsMark(after, "->"): // a deduction guide
		s.guide = true
		return r.asName(&c)
	case after >= end || r.endsHead(after):
		return r.calledLast(&c)
	case r.Word(after) != "":
		return r.calledBeforeWord(&c)
	case r.Is(after, '*') || r.Is(after, '&') || r.IsMark(after, "&&"):
		if c.prior && (!w.macro || r.Is(after+1, ';') || r.Is(after+1, '{')) {
			return r.asName(&c)
		}
		if r.dropRun(s); s.typed {
			return r.asMacro(&c)
		}
		s.typed, s.typeFrom = true, w.at
		return after, false, false
	case r.Is(after, '('):
		return r.calledTwice(&c)
	case c.prior:
		return r.asName(&c)
	}
	return r.PastUnknown(after, end), true, true
}

// asName takes it for what is declared.
func (r *reader) asName(c *callee) (next int, stop, done bool) {
	c.s.run, c.s.call, c.s.callEnd = append(c.s.run, c.word), c.open, c.after
	return c.after, false, true
}

// asMacro takes it for a macro.
func (r *reader) asMacro(c *callee) (next int, stop, done bool) {
	if c.s.wraps[1] == 0 {
		c.s.wraps, c.s.wrapper = [2]int{c.open + 1, c.shut}, c.at
	}
	r.macroWord(c.at, c.after, c.s)
	return c.after, false, false
}

// asType takes it for the type, and the brackets for a declarator.
func (r *reader) asType(c *callee) (next int, stop, done bool) {
	c.s.run = append(c.s.run, c.word)
	r.settleType(c.s)
	return c.open, false, true
}

// unwrap takes one word in the brackets for the name, and the macro around it for nothing.
func (r *reader) unwrap(c *callee, until int) {
	r.drop(c.at, c.open+1)
	r.drop(c.shut, c.after)
	c.s.run = append(c.s.run, word{at: c.open + 1, end: until})
}

// nameInMacro reads what macros have the name, or the parameters, in their brackets; done is
// false where it is none of these.
func (r *reader) nameInMacro(c *callee) (next int, done bool) {
	s, open, after := c.s, c.open, c.after
	if !c.single() {
		return 0, false
	}
	alone := c.shut == open+2 && r.Word(open+1) != ""
	switch {
	case c.macro && len(s.run) > 0 && r.Is(open+1, '(') && int(r.Tokens[open+1].Partner) == c.shut-1: // inflate OF((int flush))
		s.call, s.callEnd = open+1, after
		r.drop(c.at, open+1)
		r.drop(c.shut, after)
	case c.macro && r.Word(open+1) != "" && r.Is(open+2, ',') && r.Is(open+3, '(') && (r.Is(r.Over(open+3), ')') || r.Is(r.Over(open+3), ',')): // __REDIRECT (open, (int n), open64)
		s.call, s.callEnd = open+3, after
		r.drop(c.at, open+1)
		r.drop(open+2, open+3)
		r.drop(r.Over(open+3), after)
		s.run = append(s.run, word{at: open + 1, end: open + 2})
	case c.macro && !c.prior && c.own.at < 0 && !s.param && (r.Is(after, ';') || after >= c.end || isMacro(r.Word(after)) && r.Is(after+1, '(')) && r.declaring(open, c.shut) > 0: // EXPORT(1, int, open, (const char *path))
		r.declaredBy(c, r.declaring(open, c.shut))
	case c.own.record && !r.plus && s.typed && alone && (r.Is(after, ';') || r.Is(after, ',') || r.Is(after, '[')): // int NAME(a);
		r.unwrap(c, c.shut)
	case s.param && (c.macro || c.prior) && after >= c.end && alone && !r.names.builtin(r.Word(open+1)): // int UNUSED(n)
		r.unwrap(c, c.shut)
	default:
		return 0, false
	}
	return after, true
}

// declaredBy takes apart what a macro declares whose arguments are a type, a name and parameters.
func (r *reader) declaredBy(c *callee, name int) {
	s := c.s
	s.call, s.callEnd = name+2, c.after
	r.drop(c.at, c.open+1)
	r.dropToType(c.open, name)
	if r.drop(name-1, name); r.Is(name-1, '*') {
		r.drop(name-2, name-1)
	}
	r.drop(name+1, name+2)
	r.drop(r.Over(name+2), c.after)
	s.typed, s.typeFrom, s.whole = true, c.open+1, true
	s.run = append(s.run[:0], word{at: name, end: name + 1})
}

// pointsAt reports whether the brackets hold a declarator with a mark of a pointer, so that the
// name is the type.
func (r *reader) pointsAt(c *callee) bool {
	if !r.pointerIn(c.open, c.shut) || c.s.prior() {
		return false
	}
	if r.Is(c.after, '(') || r.Is(c.after, '[') {
		return true
	}
	ends := c.after >= c.end || r.Is(c.after, ';') || r.Is(c.after, '=') || r.Is(c.after, ',') || isMacro(r.Word(c.after)) || isAttribute(r.Word(c.after))
	return ends && !(isMacro(r.Word(c.open+1)) && r.Is(c.open+2, '*'))
}

// calledTwice decides what a name is behind whose brackets others open.
func (r *reader) calledTwice(c *callee) (next int, stop, done bool) {
	inner := r.Word(c.open+1) != "" && r.qualified(c.open+1, c.shut) == c.shut
	switch {
	case !c.prior && (!c.macro || c.s.typedef) && r.wordsIn(c.open, c.shut), inner && !c.prior && !c.macro: // a macro hides the mark of a pointer, or there is none
		return r.asType(c)
	case inner && c.prior: // int NAME(open)(int n)
		r.unwrap(c, c.shut)
		c.s.call, c.s.callEnd = c.after, min(r.Over(c.after), c.end)
		return c.s.callEnd, false, true
	}
	return r.asMacro(c)
}

// calledLast decides what a name is behind whose brackets the head of a declaration ends.
func (r *reader) calledLast(c *callee) (next int, stop, done bool) {
	after, s := c.after, c.s
	switch {
	case !c.prior && !r.plus && r.Is(after, '{') && c.single() && !c.macro && c.own.at < 0: // old code: main() {
		return r.asName(c)
	case !c.prior && r.Is(after, '{'):
		return r.Over(after), true, true
	case !c.prior && s.param:
		return r.asName(c)
	case !c.prior:
		if r.Is(after, ';') || after >= c.end {
			return after, true, true
		}
		return r.PastUnknown(after, c.end), true, true
	case c.macro && s.complete() && !r.Is(after, '{') && !r.plainParameters(c.open, c.shut):
		return r.asMacro(c)
	case r.plus && !s.param && (r.Is(after, ';') || r.Is(after, ',')) && !r.mayBeParameters(c.open, c.shut):
		s.run = append(s.run, c.word)
		return after, false, true // a variable with what it begins with
	}
	return r.asName(c)
}

// calledBeforeWord decides what a name is behind whose brackets a word stands.
func (r *reader) calledBeforeWord(c *callee) (next int, stop, done bool) {
	x, after, s := r.Word(c.after), c.after, c.s
	below, plain := r.Tokens[after].Newline, r.plainParameters(c.open, c.shut)
	switch {
	case tailWords[x] && c.prior:
		return r.asName(c)
	case c.prior && !s.prior() && (below && !isMacro(x) && !tailWords[x] || !plain): // one macro after the other
		if below && r.declaresAt(after) {
			return after, true, true
		}
		return r.asMacro(c)
	case !c.prior:
		if !r.plus && !c.macro && r.oldParameters(c.open, c.shut) && r.oldBody(after, c.end) {
			return r.asName(c)
		}
		if below && !s.hasWords() && r.declaresAt(after) { // a macro that stands for something whole
			return after, true, true
		}
		return r.asMacro(c)
	case c.macro && r.looksLikeMacro(c, x, below, plain):
		return r.asMacro(c)
	}
	return r.asName(c)
}

// looksLikeMacro reports whether a name that is formed as a macro's is one, by the word x that
// follows its brackets, maybe on the line below, and by whether these surely hold parameters.
func (r *reader) looksLikeMacro(c *callee, x string, below, plain bool) bool {
	s := c.s
	switch {
	case s.complete() && !plain, below && mayOpen(x), below && isMacro(x) && !s.typed && s.allMacros(): // one on each line
		return true
	case !isMacro(x):
		return !plain || !s.typed && (len(s.run) == 0 || r.Is(c.after+1, '('))
	}
	return !s.typed && s.macrosAlone() && !plain
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
	for _, w := range s.lately() {
		if !w.macro {
			return true
		}
	}
	return len(s.run) > 1 || len(s.run) == 1 && s.wraps[1] == 0
}

// lately are the last words that stand before, as many as are looked through for each word.
func (s *specs) lately() []word { return s.run[max(0, len(s.run)-mostWords):] }

// allMacros reports whether no word stands before that is not formed as a macro's.
func (s *specs) allMacros() bool { return len(s.run) == 0 || s.macrosAlone() }

// complete reports whether a type and a name stand before.
func (s *specs) complete() bool {
	n := 0
	for _, w := range s.lately() {
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
	inner := specs{from: i + 1, typed: true, nested: true, call: -1, param: s.param, tag: noTag, run: r.roomForRun()}
	defer r.backFromRun(&inner)
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
