package lexing

import (
	"slices"

	"codrel/internal/model"
	"codrel/internal/source"
)

// CodeUses finds what the code of a file names, in languages in which a type stands before
// the name of what is declared and braces stand around what sees it: those of C's family.
type CodeUses struct {
	*Cursor
	// Type is the index behind the type at an index; ok is false where there is none.
	Type func(i int) (end int, ok bool)
	// Keyword reports whether a word names nothing.
	Keyword func(word string) bool
	// Arrow stands behind the parameters of a function without a name.
	Arrow string
	// Path stands between the parts of a name, beside a dot; "" where nothing else does.
	Path string
	// Globals says that what is declared in no function and no type is no local.
	Globals bool
	// Tags are words behind which a name is that of a type, whatever else is called so.
	Tags map[string]bool
	// Self is the word for the object at hand.
	Self string
	// SelfType is the word for the type at hand, before a member of it; "" for none.
	SelfType string
	// Roots are words that say where a path begins, and are names only there.
	Roots map[string]bool
	// Labels are words behind which a name is one of a type that is not written there, as
	// "case" is of a constant.
	Labels map[string]bool
	// Soft are words of the language in some places, before another word or a body, and names
	// elsewhere.
	Soft map[string]bool
	// Patterns says that a name stands before its type, behind ":", and that names are declared by
	// patterns: behind Binders, in lists that "=" or an arrow follows, and between bars.
	Patterns bool
	// Qualified says that members are named only behind their type or an object, in its body too.
	Qualified bool
	// Binders are words behind which a name is declared.
	Binders map[string]bool
	// Makers are what functions are called that make a value of the type before them.
	Makers map[string]bool
}

// within is a scope that the code stands in.
type within struct {
	before int32 // the scope to return to
	end    int32 // offset at which it ends
	o      *model.Occurrence
	body   bool // of a type: its braces were opened
	global bool // no function and no type is around
}

// codeWalk is a walk through the tokens of a file.
type codeWalk struct {
	*CodeUses
	names    *Names
	scopes   []*model.Occurrence // those with a scope that are to come, in order
	declared []source.Span       // names of declarations that are to come, in order
	in       []within
	bodies   []source.Span
	bound    int                    // the token of a variable that was bound when its type was read
	types    map[string]source.Span // with Patterns: the names of the types of the file
}

// Find walks through the tokens of a file with the declarations that were found in it.
func (c *CodeUses) Find(facts *model.Facts) (uses model.Uses, bodies []source.Span) {
	w := codeWalk{CodeUses: c, names: NewNames(c.Text), bound: -1}
	w.names.ownType = c.SelfType
	for i := range facts.Occurrences {
		o := &facts.Occurrences[i]
		w.declared = append(w.declared, o.NameSpan)
		if c.Patterns && o.Kind.IsType() && o.Parent < 0 {
			if w.types == nil {
				w.types = map[string]source.Span{}
			}
			w.types[o.Name] = o.NameSpan
		}
		if o.Kind.IsType() || o.Callable != nil {
			w.scopes = append(w.scopes, o)
		}
	}
	slices.SortStableFunc(w.declared, func(a, b source.Span) int { return int(a.Start - b.Start) })
	slices.SortStableFunc(w.scopes, func(a, b *model.Occurrence) int { return int(a.Span.Start - b.Span.Start) })
	for i := 0; i < len(c.Tokens); {
		i = max(i+1, w.step(i))
	}
	return w.names.Uses(), w.bodies
}

// step goes on by one token, and by what belongs to it.
func (w *codeWalk) step(i int) int {
	t := &w.Tokens[i]
	for n := len(w.in); n > 0 && t.From >= w.in[n-1].end; n-- {
		w.names.Return(w.in[n-1].before)
		w.in = w.in[:n-1]
	}
	for len(w.scopes) > 0 && w.scopes[0].Span.Start <= t.From {
		w.enter(w.scopes[0])
		w.scopes = w.scopes[1:]
	}
	for len(w.declared) > 0 && w.declared[0].End <= t.From {
		w.declared = w.declared[1:]
	}
	switch {
	case len(w.declared) > 0 && w.declared[0].Start <= t.From, i == w.bound:
	case w.Is(i, '{'):
		w.open(i)
	case t.Kind == Word:
		return w.word(i)
	}
	return i + 1
}

// enter begins the scope of a declaration.
func (w *codeWalk) enter(o *model.Occurrence) {
	kind := FunctionScope
	if o.Kind.IsType() {
		kind = BlockScope
	}
	w.in = append(w.in, within{before: w.names.Open(kind), end: o.Span.End, o: o})
	if o.Kind.IsType() && o.Kind != model.KindDelegate {
		if !w.Qualified {
			w.names.Home(o.NameSpan)
		}
		w.names.BindLocal(w.Self, o.NameSpan, true)
		if w.SelfType != "" {
			w.names.BindLocal(w.SelfType, o.NameSpan, true)
		}
	}
	if of, known := w.types[o.Scope]; known && o.Callable != nil {
		w.names.BindLocal(w.Self, of, true)
		if w.SelfType != "" {
			w.names.BindLocal(w.SelfType, of, true)
		}
	}
	for _, p := range o.TypeParams() {
		w.names.BindLocal(p.Name, source.Span{}, false)
	}
}

// global reports whether no function and no type is around.
func (w *codeWalk) global() bool { return len(w.in) == 0 || w.in[len(w.in)-1].global }

// open begins the scope of what braces hold.
func (w *codeWalk) open(i int) {
	t := &w.Tokens[i]
	if int(t.Partner) < i {
		return
	}
	end := w.Tokens[t.Partner].To
	if n := len(w.in); n > 0 && w.in[n-1].o != nil {
		switch in := &w.in[n-1]; {
		case !in.o.Kind.IsType():
			if n := len(w.bodies); n == 0 || w.bodies[n-1].End <= t.From { // else it is a part of one
				w.bodies = append(w.bodies, source.Span{Start: t.From, End: end})
			}
		case !in.body:
			in.body = true // its members see what its head declares
			return
		}
	}
	w.in = append(w.in, within{before: w.names.Open(BlockScope), end: end, global: w.global()})
}

// word reads a word: the type of something that is declared, or the name of something.
func (w *codeWalk) word(i int) int {
	text := w.Word(i)
	if w.Is(i-1, '.') || w.IsMark(i-1, "::") && !w.Soft[w.Word(i-2)] || w.IsMark(i-1, "->") && w.Arrow != "->" && !w.Patterns {
		return i + 1
	}
	if w.Patterns && w.pattern(i, text) {
		return i + 1
	}
	switch {
	case w.Patterns:
	case w.IsMark(i+1, w.Arrow) && !w.Keyword(text) && !w.Labels[w.Word(i-1)] && !w.Soft[text]:
		w.names.BindLocal(text, source.Span{}, false)
		return i + 1
	case w.lambda(i):
		return i + 1
	case w.Soft[text] && (w.Word(i+1) != "" || w.Is(i+1, '{') || w.Is(i+1, ';') || w.IsMark(i+1, w.Arrow)) && !w.typed(i, text):
		return i + 1
	}
	if !w.Patterns && w.begins(i) {
		if end, ok := w.Type(i); ok && end > i {
			w.variable(i, end)
		}
	}
	if w.Keyword(text) && text != w.Self && !w.rooted(i, text) || w.label(i) || w.set(i) || w.named(i) || w.format(i) {
		return i + 1
	}
	end := i
	for w.joins(end+1) && w.Word(end+2) != "" && !w.Keyword(w.Word(end+2)) {
		end += 2
	}
	from, to := w.Tokens[i].From, w.Tokens[end].To
	if end == i && w.Tags[w.Word(i-1)] || w.Roots[text] && w.IsMark(i+1, w.Path) {
		w.names.MentionOutside(int(from), int(to))
	} else if int(to-from) == len(w.Dotted(i, end+1)) {
		w.names.Mention(int(from), int(to))
	} else { // blanks stand between
		w.names.Mention(int(from), int(w.Tokens[i].To))
	}
	return end + 1
}

// rooted reports whether a word of the language begins a path.
func (w *codeWalk) rooted(i int, text string) bool {
	return w.Path != "" && (text == w.SelfType && w.names.Known(text) || w.Roots[text]) && w.IsMark(i+1, w.Path)
}

// joins reports whether a mark stands between the parts of a name.
func (w *codeWalk) joins(i int) bool {
	return w.Is(i, '.') || w.Path != "" && (w.IsMark(i, w.Path) || w.IsMark(i, "->"))
}

// typed reports whether a word that is mostly one of the language stands for a type here:
// "var" does before what is declared.
func (w *codeWalk) typed(i int, text string) bool {
	return w.Keyword(text) && w.begins(i)
}

// label reports whether a word is a constant of a type that is not written there.
func (w *codeWalk) label(i int) bool {
	return w.Labels[w.Word(i-1)] && (w.Is(i+1, ':') || w.Is(i+1, ';') || w.Is(i+1, ',') || w.IsMark(i+1, w.Arrow))
}

// begins reports whether a declaration may begin at a word.
func (w *codeWalk) begins(i int) bool {
	if i == 0 {
		return true
	}
	if before := w.Word(i - 1); before != "" {
		return w.Keyword(before) || w.Labels[before]
	}
	for _, mark := range []byte("{};(,)]") {
		if w.Is(i-1, mark) {
			return true
		}
	}
	return false
}

// variable binds the name behind a type, where one follows that is declared there: two words
// in a row are nothing else.
func (w *codeWalk) variable(from, end int) {
	if w.Globals && w.global() {
		return
	}
	several := w.Is(end, '|')
	for w.Is(end, '|') {
		next, ok := w.Type(end + 1)
		if !ok {
			return
		}
		end = next
	}
	name := end
	if w.IsMark(name, "...") {
		name++
	}
	word := w.Word(name)
	if word == "" || w.Keyword(word) || w.Soft[word] && w.Word(name+1) != "" || w.Is(name+1, '(') || w.Is(name+1, '.') || w.Is(name+1, '<') {
		return
	}
	for w.Keyword(w.Word(from)) && from+1 < end && w.Word(from+1) != "" { // "const", "struct"
		from++
	}
	typ := from
	for w.joins(typ+1) && w.Word(typ+2) != "" {
		typ += 2
	}
	span := w.Span(from, typ+1)
	if several || w.Keyword(w.Word(from)) {
		span = source.Span{}
	}
	bind := func(word string) {
		if n := len(w.in); n > 0 && w.in[n-1].o != nil && w.in[n-1].o.Kind.IsType() && (w.in[n-1].body || w.in[n-1].o.Kind == model.KindRecord) {
			w.names.Bind(w.names.Current(), word, span, true) // a member
		} else {
			w.names.BindLocal(word, span, true)
		}
	}
	bind(word)
	w.bound = name
	for next := name + 1; w.Is(next, ',') && w.Word(next+1) != "" && (w.Is(next+2, ',') || w.Is(next+2, ';') || w.Is(next+2, '=')); next += 2 {
		bind(w.Word(next + 1))
	}
}

// lambda binds a name in a list that an arrow follows, and reports whether it is one.
func (w *codeWalk) lambda(i int) bool {
	if !w.Is(i+1, ',') && !w.Is(i+1, ')') || !w.Is(i-1, ',') && !w.Is(i-1, '(') {
		return false
	}
	for at := i; at > 0 && i-at < mostLambda; at -= 2 {
		if w.Is(at-1, '(') {
			if end := int(w.Tokens[at-1].Partner); end < at || !w.IsMark(end+1, w.Arrow) {
				return false
			}
			w.names.BindLocal(w.Word(i), source.Span{}, false)
			return true
		}
		if !w.Is(at-1, ',') || w.Word(at-2) == "" {
			return false
		}
	}
	return false
}

// mostLambda is how many tokens a list of names has that is looked through.
const mostLambda = 40

// format reports whether a word says how a value in a string is written.
func (w *codeWalk) format(i int) bool {
	if !w.Is(i-1, ':') || !w.Is(i+1, '}') {
		return false
	}
	open := int(w.Tokens[i+1].Partner)
	return open > 0 && w.Tokens[open-1].Kind == Value && w.Tokens[open-1].To == w.Tokens[open].From
}

// set reports whether a word is rather a member of what is made with values in brackets.
func (w *codeWalk) set(i int) bool {
	return w.Is(i+1, '=') && (w.Is(i-1, '{') || w.Is(i-1, ',') || w.Is(i-1, '('))
}

// named reports whether a word is the name that an argument is for, or a label.
func (w *codeWalk) named(i int) bool {
	return w.Is(i+1, ':') && (w.Is(i-1, '(') || w.Is(i-1, ',') || w.Is(i-1, '{') || w.Is(i-1, '}') || w.Is(i-1, ';') || w.Is(i-1, '['))
}

// pattern binds a name that a pattern declares, and reports whether it is one. Names of types and
// constants begin with a capital letter: they are what a pattern is compared with.
func (w *codeWalk) pattern(i int, text string) bool {
	if w.Keyword(text) || text[0] >= 'A' && text[0] <= 'Z' || w.IsMark(i+1, w.Path) {
		return false
	}
	var typ source.Span
	before := w.Word(i - 1)
	switch {
	case w.Binders[before]:
	case w.Is(i+1, ':') && (w.Is(i-1, '(') || w.Is(i-1, ',') || w.Is(i-1, '|')): // a parameter
	case w.Is(i-1, '|') && (w.Is(i+1, '|') || w.Is(i+1, ',')):
	case w.IsMark(i+1, w.Arrow):
	case w.inPattern(i): // whose braces are no block
		if around := w.names.Around(FunctionScope); around != Outermost {
			w.names.Bind(around, text, typ, false)
			return true
		}
	default:
		return false
	}
	if w.Is(i+1, ':') {
		at := i + 2
		for w.Is(at, '&') || w.Word(at) == "mut" || w.Is(at, '\'') || w.Is(at-1, '\'') && w.Word(at) != "" {
			at++
		}
		if end, ok := w.Type(at); ok && end > at && !w.Keyword(w.Word(at)) {
			last := at
			for w.IsMark(last+1, w.Path) && w.Word(last+2) != "" {
				last += 2
			}
			typ = w.Span(at, last+1)
		}
	}
	if w.Is(i+1, '=') && w.Binders[before] {
		typ = w.made(i + 2)
	}
	w.names.BindLocal(text, typ, !typ.Empty())
	return true
}

// made is the type of a value that is made by naming it: "Berth { … };", or "Berth::new(…);" where the
// word for one that makes a value of its type is known. It is empty for other values.
func (w *codeWalk) made(at int) source.Span {
	last := at
	for w.IsMark(last+1, w.Path) && w.Word(last+2) != "" && !w.Makers[w.Word(last+2)] {
		last += 2
	}
	name := w.Word(last)
	if name == "" || name[0] < 'A' || name[0] > 'Z' || w.Keyword(name) {
		return source.Span{}
	}
	open := last + 1
	if w.IsMark(open, w.Path) && w.Is(open+2, '(') {
		open += 2
	} else if !w.Is(open, '{') {
		return source.Span{}
	}
	if end := int(w.Tokens[open].Partner); end < open || !w.Is(end+1, ';') {
		return source.Span{}
	}
	return w.Span(at, last+1)
}

// deepestPattern is how many lists around a name may be a pattern with it.
const deepestPattern = 32

// inPattern reports whether a name stands in a list that is compared with something: "=", an arrow or
// "in" follows it.
func (w *codeWalk) inPattern(i int) bool {
	if !w.Is(i+1, ',') && !w.Is(i+1, ')') && !w.Is(i+1, '}') {
		return false
	}
	for at := i - 1; at >= 0 && i-at < mostLambda; at-- {
		switch {
		case w.Is(at, '(') || w.Is(at, '{'):
			end := int(w.Tokens[at].Partner)
			if end < i {
				return false
			}
			for stop := end + deepestPattern; end < stop && (w.Is(end+1, ')') || w.Is(end+1, '}') && w.IsMark(end+2, w.Arrow)); {
				end++
			}
			return w.Is(end+1, '=') || w.IsMark(end+1, w.Arrow) || w.Word(end+1) == "in" || w.Is(end, '}') && w.Is(end+1, ':')
		case w.Is(at, ';') || w.Is(at, ')') || w.Is(at, '}'):
			return false
		}
	}
	return false
}
