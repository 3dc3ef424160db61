package perl

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads packages and what these declare (perlmod, perlsub, perlclass of the manual).

// reader extracts the facts of one file.
type reader struct {
	lexing.Cursor
	facts    *model.Facts
	arena    *lexing.Arena
	pods     []source.Span
	encoded  bool   // the documentation says how it is encoded
	name     string // what the file is called as a module
	main     string // the package that the file is about
	pkg      string // the one at hand
	class    bool   // it is one of the class syntax
	packages []string
	subs     map[string]bool  // all names of subs in the file, once they were asked for
	defined  map[string][]int // where values of variables begin, once they were asked for
	steps    int              // that were taken to work values out
	about    string           // the package that the documentation at hand is about, as it says itself
	blocks   []block
	subEnd   int // the token that ends the body of the sub at hand, or 0
	exports  exports
	hasGroup map[string]bool // the names of the groups that were noted
}

// block is what braces stand around, and the package before it.
type block struct {
	open  int // of a package with braces, these
	brace int // what it begins with
	end   int
	pkg   string // the one around it
	class bool
}

// unit reads the file.
func (r *reader) unit() {
	for i := 0; i < len(r.Tokens); {
		for n := len(r.blocks); n > 0 && i >= r.blocks[n-1].end; n-- {
			r.pkg, r.class = r.blocks[n-1].pkg, r.blocks[n-1].class
			r.blocks = r.blocks[:n-1]
		}
		if i >= r.subEnd {
			r.subEnd = 0
		}
		if r.Is(i, '{') && int(r.Tokens[i].Partner) > i && (len(r.blocks) == 0 || r.blocks[len(r.blocks)-1].open != i) { // a package ends with the block that it stands in
			r.blocks = append(r.blocks, block{brace: i, end: int(r.Tokens[i].Partner), pkg: r.pkg, class: r.class})
		}
		i = max(i+1, r.statement(i))
	}
	r.choose()
	r.place()
}

// begins reports whether a statement may begin at a token.
func (r *reader) begins(i int) bool {
	return i == 0 || r.Is(i-1, ';') || r.Is(i-1, '{') || r.Is(i-1, '}') || r.Is(i-1, ':')
}

// statement reads what begins at a token, and gives the index behind what it has read.
func (r *reader) statement(i int) int {
	switch w := r.Word(i); w {
	case "package":
		return r.packageAt(i, false)
	case "class":
		if r.begins(i) && isPlain(r.Word(i+1)) {
			return r.packageAt(i, true)
		}
	case "sub":
		if isPlain(r.Word(i+1)) || r.IsMark(i+1, "::") && isPlain(r.Word(i+2)) {
			return r.sub(i)
		}
		if i > 0 && r.Word(i-1) == "my" || r.Word(i-1) == "our" {
			return i + 1
		}
	case "AUTOLOAD", "DESTROY":
		if r.begins(i) && r.Is(i+1, '{') {
			return r.sub(i - 1)
		}
	case "method":
		if r.class && r.begins(i) && isPlain(r.Word(i+1)) {
			return r.sub(i)
		}
	case "field":
		if r.class && r.begins(i) && strings.HasPrefix(r.Word(i+1), "$") {
			r.field(i)
		}
	case "use", "no":
		if r.begins(i) {
			return r.use(i)
		}
	case "our":
		if r.subEnd == 0 {
			r.our(i)
		}
	case "eval":
		if r.subEnd == 0 {
			r.evaluated(i)
		}
	case "has":
		if r.begins(i) && r.subEnd == 0 {
			r.has(i)
		}
	case "extends", "with":
		if r.begins(i) && r.subEnd == 0 && !r.IsMark(i+1, "=>") {
			r.inherits(i, i+1)
		}
	case "__PACKAGE__":
		if r.IsMark(i+1, "->") && r.subEnd == 0 {
			r.accessors(i)
		}
	case "@EXPORT", "@EXPORT_OK":
		r.listed(i, w)
	case "%EXPORT_TAGS":
		r.tagged(i)
	case "@ISA":
		if r.subEnd == 0 {
			r.inherits(i, i+1)
		}
	default:
		if pkg, ok := strings.CutSuffix(w, "::ISA"); ok && len(pkg) > 1 && pkg[0] == '@' && r.subEnd == 0 {
			was := r.pkg
			r.pkg = pkg[1:]
			r.inherits(i, i+1)
			r.pkg = was
		}
		if len(w) > 1 && w[0] == '*' && isPlain(w[1:]) && r.begins(i) && r.subEnd == 0 && r.Is(i+1, '=') {
			r.assigned(i)
		}
		if (r.Is(i, '*') || strings.HasPrefix(w, "*$")) && r.begins(i) && r.subEnd == 0 {
			r.computed(i)
		}
	}
	return i + 1
}

// assigned reads a sub that a name is given, or several: "*read = sub { ... }", "*read = *take = \&draw".
func (r *reader) assigned(i int) {
	names := []int{i}
	for r.Is(i+1, '=') && len(r.Word(i+2)) > 1 && r.Word(i + 2)[0] == '*' && isPlain(r.Word(i + 2)[1:]) && r.Is(i+3, '=') && len(names) < mostAssigned {
		i += 2
		names = append(names, i)
	}
	other := r.Is(i+2, '\\') && strings.HasPrefix(r.Word(i+3), "&")
	if glob := r.Word(i + 2); len(glob) > 1 && glob[0] == '*' && r.isSub(glob[1:]) { // all of the name, the sub among it
		other = true
	}
	if r.Word(i+2) != "sub" && !other {
		return
	}
	for _, at := range names {
		span := r.Span(at, at+1)
		span.Start++
		r.made(said{r.Word(at)[1:], span}, at, i+2)
	}
}

// computed reads subs whose names are put together: "*{"draw_$_"} = sub { ... } for qw(berth tide);".
func (r *reader) computed(i int) {
	value := i + 2
	if r.Is(i+1, '{') {
		value = r.Over(i+1) + 1
	}
	if !r.Is(value-1, '=') || !r.isCode(value) {
		return
	}
	var names []said
	if v := r.valuesAt(i); r.Is(i+1, '{') {
		names = v.scalar(i+2, r.Close(i+1, len(r.Tokens)))
	} else {
		names = v.variable(strings.TrimPrefix(r.Word(i), "*"))
	}
	for _, name := range names {
		r.made(name, i, value)
	}
}

// evaluated reads the subs that stand in a text which is run: eval "sub $name { ... }".
func (r *reader) evaluated(i int) {
	at := i + 1
	if r.Is(at, '(') {
		at++
	}
	if w := r.Word(at); len(w) > 1 && w[0] == '$' { // $code = "..."; eval $code
		if at = r.valuesAt(i).defined(w); at < 0 {
			return
		}
	}
	if at >= len(r.Tokens) || r.Tokens[at].Kind != lexing.Value {
		return
	}
	list := r.strings(at, at+1)
	if len(list) != 1 || strings.HasPrefix(r.Text[r.Tokens[at].From:], "qw") {
		return
	}
	text, literal := list[0].text, r.isLiteral(at)
	for from := 0; ; {
		n := strings.Index(text[from:], "sub ")
		if n < 0 {
			return
		}
		begin := from + n
		from = begin + len("sub ")
		end := from
		for end < len(text) && (wordBytes[text[end]] || strings.IndexByte("${}:\\", text[end]) >= 0) {
			end++
		}
		if begin > 0 && strings.IndexByte(" \t\n;{}", text[begin-1]) < 0 || end == from {
			continue
		}
		start := int(list[0].span.Start) + from
		name := said{text[from:end], source.NewSpan(start, start+end-from)}
		names := []said{name}
		if !literal {
			names = r.valuesAt(i).interpolated(name)
		}
		for _, name := range names {
			r.made(name, i, -1)
		}
	}
}

// isCode reports whether what begins at a token is a sub, or leads to one.
func (r *reader) isCode(i int) bool {
	w := r.Word(i)
	if v := r.valuesAt(i); len(w) > 1 && w[0] == '$' && r.Is(i+1, ';') {
		if at := v.defined(w); at >= 0 {
			i, w = at, r.Word(at)
		}
	}
	return w == "sub" || r.Is(i, '\\') && (strings.HasPrefix(r.Word(i+1), "&") || r.Is(i+1, '&'))
}

// made adds a sub of a name that no "sub" stands before, with the package if it says one, of the statement at a
// token; its value begins at another one, or nowhere (-1).
func (r *reader) made(name said, i, value int) {
	pkg := r.pkg
	if n := strings.LastIndex(name.text, "::"); n >= 0 {
		if pkg, name.text = name.text[:n], name.text[n+2:]; pkg == "" && r.pkg != "" {
			pkg = "main"
		}
	}
	if !isName(name.text) {
		return
	}
	o := model.Occurrence{Kind: model.KindFunction, Name: name.text, Parent: -1, NameSpan: name.span, Span: r.whole(i, r.statementEnd(i)), Callable: &model.Callable{}}
	open, body := -1, -1
	if value >= 0 && r.Word(value) == "sub" {
		if body = r.body(value + 1); r.Is(value+1, '(') {
			open = value + 1
		}
	}
	r.take(&o, "sub", open, body)
	r.add(o, pkg, i)
}

// isName reports whether a text is a name, without packages before it.
func isName(text string) bool {
	for i := range len(text) {
		if !wordBytes[text[i]] {
			return false
		}
	}
	return isPlain(text)
}

// isSub reports whether the file declares a sub of a name.
func (r *reader) isSub(name string) bool {
	if r.subs == nil {
		r.subs = map[string]bool{}
		for i := range r.Tokens {
			if r.Word(i) == "sub" && isPlain(r.Word(i+1)) {
				r.subs[r.Word(i+1)] = true
			}
		}
	}
	return r.subs[name]
}

// mostAssigned is how many names are given one sub at a time.
const mostAssigned = 16

// isPlain reports whether a word is a name, without a sign before it.
func isPlain(w string) bool { return w != "" && (isLetter(w[0]) || w[0] == '_' || w[0] >= 0x80) }

// packageAt reads a package, with or without braces.
func (r *reader) packageAt(i int, class bool) int {
	name := r.Word(i + 1)
	if !isPlain(name) || r.IsMark(i+1, "=>") || i > 0 && r.IsMark(i-1, "->") {
		return i + 1
	}
	at := i + 2
	for at < len(r.Tokens) && (r.Tokens[at].Kind == lexing.Value || r.Word(at) != "" && r.Word(at)[0] == 'v') {
		at++
	}
	for class && r.Is(at, ':') { // :isa(Base)
		if r.Word(at+1) == "isa" && r.Is(at+2, '(') {
			r.base(r.Word(at+3), at+3)
		}
		at += 2
		if r.Is(at, '(') {
			at = r.Over(at)
		}
	}
	switch {
	case r.Is(at, '{'):
		r.blocks = append(r.blocks, block{open: at, end: r.Close(at, len(r.Tokens)), pkg: r.pkg, class: r.class})
	case r.Is(at, ';') || at >= len(r.Tokens):
	default:
		return i + 1
	}
	r.pkg, r.class = name, class
	r.packages = append(r.packages, name)
	r.facts.Modules = append(r.facts.Modules, model.ModuleIn{Name: name, Span: r.Span(i+1, i+2), Kept: r.hides(i)})
	if r.facts.ModuleSpan.Empty() {
		r.facts.ModuleSpan = r.Span(i+1, i+2)
	}
	if r.Is(at, '{') {
		return at // its own braces
	}
	return at + 1
}

// hides reports whether a remark stands between the word "package" at a token and the name: by convention that
// hides a package from the index of all packages, since its users are not to know it.
func (r *reader) hides(i int) bool {
	n := r.CommentAt(r.Tokens[i].To)
	return n < len(r.Comments) && r.Comments[n].Start < r.Tokens[i+1].From
}

// whole is the span of the tokens between two indices, the last of which may lie behind all.
func (r *reader) whole(i, end int) source.Span {
	return r.Span(i, max(i+1, min(end, len(r.Tokens))))
}

// sub reads a sub or a method with a name.
func (r *reader) sub(i int) int {
	name, pkg := i+1, r.pkg
	if r.IsMark(name, "::") { // of the program's own package
		name, pkg = i+2, "main"
	}
	written := r.Word(name)
	if written == "" || r.IsMark(name+1, "=>") {
		return i + 1
	}
	o := model.Occurrence{Kind: model.KindFunction, Name: written, Parent: -1, NameSpan: r.Span(name, name+1), Callable: &model.Callable{}}
	if n := strings.LastIndex(written, "::"); n >= 0 {
		pkg, o.Name = written[:n], written[n+2:]
		o.NameSpan.Start += int32(n + 2)
	}
	at := r.body(name + 1)
	word := "sub"
	if r.Word(i) == "method" {
		word = "method"
	}
	open := -1
	for k := name + 1; k < at; k++ {
		if r.Is(k, '(') && !r.Is(k-1, ':') && !(r.Word(k-1) != "" && k > name+1) {
			open = k
		}
	}
	end := at
	if r.Is(at, '{') {
		end = min(r.Over(at), len(r.Tokens))
		if r.subEnd == 0 && !phases[o.Name] {
			r.subEnd = end
		}
	}
	if phases[o.Name] { // nothing that may be called
		return at
	}
	r.take(&o, word, open, at)
	from := i
	if r.Word(i) != word { // the word may be left out
		from++
	}
	o.Span = r.whole(from, end)
	r.add(o, pkg, from)
	return at // the body may hold more
}

// phases are what the language runs at once, when it has read it or before it ends.
var phases = lexing.WordSet("BEGIN UNITCHECK CHECK INIT END")

// body is the index of the body of a sub, or of what ends a sub without one, from behind its name.
func (r *reader) body(at int) int {
	for at < len(r.Tokens) && !r.Is(at, '{') && !r.Is(at, ';') && !r.Is(at, '}') {
		at = r.Over(at)
	}
	return at
}

// take reads the parameters of a sub: those of its signature, which an index is that of or -1, else those that
// its body takes first; and puts its signature.
func (r *reader) take(o *model.Occurrence, word string, open, body int) {
	mark := r.arena.Begin()
	r.arena.Put(model.TokenKeyword, word+" ")
	r.arena.Put(model.TokenName, o.Name)
	if open >= 0 {
		r.parameters(o, open)
	} else if r.Is(body, '{') {
		r.unpacked(o, body)
	}
	r.putParameters(o)
	o.Signature = r.arena.Since(mark)
}

// parameters reads the parameters between brackets; of a prototype there are no names.
func (r *reader) parameters(o *model.Occurrence, open int) {
	stop := r.Close(open, len(r.Tokens))
	for i := open + 1; i < stop; {
		next := i
		for next < stop && !r.Is(next, ',') {
			next = r.Over(next)
		}
		w := r.Word(i)
		switch {
		case w != "" && strings.IndexByte("$@%", w[0]) >= 0:
			p := model.Param{Name: w, Variadic: w[0] != '$'}
			if i+2 < next && (r.Is(i+1, '=') || r.IsMark(i+1, "//=") || r.IsMark(i+1, "||=")) {
				p.Default, p.Optional = r.Span(i+2, next), true
			}
			o.Callable.Params = append(o.Callable.Params, p)
		case r.Is(i, '$') || r.Is(i, '@') || r.Is(i, '%'):
			o.Callable.Params = append(o.Callable.Params, model.Param{Name: r.Text[r.Tokens[i].From:r.Tokens[i].To], Variadic: !r.Is(i, '$')})
		}
		i = next + 1
	}
}

// unpacked finds the parameters in the first statements of a body, as old code has them: "my ($self, $n) =
// @_;" and "my $self = shift;".
func (r *reader) unpacked(o *model.Occurrence, open int) {
	i := open + 1
	for n := 0; n < 12 && r.Word(i) == "my"; n++ {
		var names []string
		next := i + 2
		if r.Is(i+1, '(') {
			next = r.Over(i + 1)
			for k := i + 2; k < next-1; k++ {
				if w := r.Word(k); w != "" && strings.IndexByte("$@%", w[0]) >= 0 {
					names = append(names, w)
				} else if w == "undef" {
					names = append(names, "undef")
				}
			}
		} else if w := r.Word(i + 1); w != "" {
			names = append(names, w)
		}
		if !r.Is(next, '=') {
			return
		}
		value := next + 1
		taken := r.Word(value) == "@_" || r.Word(value) == "shift" && (r.Is(value+1, ';') || r.IsMark(value+1, "||") || r.IsMark(value+1, "//") || r.Word(value+1) == "@_" || r.Is(value+1, '('))
		if !taken {
			return
		}
		for _, name := range names {
			o.Callable.Params = append(o.Callable.Params, model.Param{Name: name, Variadic: name[0] == '@' || name[0] == '%', Optional: r.IsMark(value+1, "||") || r.IsMark(value+1, "//")})
		}
		if r.Word(value) == "@_" {
			return
		}
		for value < len(r.Tokens) && !r.Is(value, ';') && !r.Is(value, '}') {
			value = r.Over(value)
		}
		i = value + 1
	}
}

// putParameters puts the parameters into the signature.
func (r *reader) putParameters(o *model.Occurrence) {
	r.arena.Put(model.TokenPunctuation, "(")
	for n, p := range o.Callable.Params {
		if n > 0 {
			r.arena.Put(model.TokenPunctuation, ", ")
		}
		r.arena.Put(model.TokenParameter, p.Name)
		if !p.Default.Empty() {
			r.arena.Put(model.TokenPunctuation, " = ")
			r.arena.Put(model.TokenLiteral, strings.Join(strings.Fields(p.Default.In(r.Text)), " "))
		}
		o.Variadic = o.Variadic || p.Variadic
	}
	r.arena.Put(model.TokenPunctuation, ")")
}

// private are names that the language calls itself, or that a class builder does.
var private = lexing.WordSet("BEGIN END INIT CHECK UNITCHECK AUTOLOAD DESTROY CLONE CLONE_SKIP BUILD BUILDARGS DEMOLISH ADJUST FOREIGNBUILDARGS")

// add puts a declaration of a package behind the others.
func (r *reader) add(o model.Occurrence, pkg string, at int) {
	o.Line = int32(r.facts.Lines.Line(o.NameSpan.Start))
	bare := strings.TrimLeft(o.Name, "$@%")
	if strings.HasPrefix(bare, "_") || private[bare] {
		o.Visibility = model.Private
	}
	if pkg != "" || r.class {
		if o.Extra == nil {
			o.Extra = &model.Extra{}
		}
		o.Extra.In = pkg
	}
	if list := r.directives(at); len(list) > 0 {
		if o.Extra == nil {
			o.Extra = &model.Extra{}
		}
		o.Extra.Directives = list
	}
	r.facts.Occurrences = append(r.facts.Occurrences, o)
}

// directives are the lines to Codrel right above a token.
func (r *reader) directives(at int) (out []model.Directive) {
	low := int32(0)
	if at > 0 {
		low = r.Tokens[at-1].To
	}
	for n := r.CommentAt(low); n < len(r.Comments) && r.Comments[n].Start < r.Tokens[at].From; n++ {
		c := r.Comments[n]
		if rest, ok := strings.CutPrefix(c.In(r.Text), "#"); ok {
			if d, ok := lexing.ParseDirective(strings.TrimSpace(rest), c); ok {
				out = append(out, d)
			}
		}
	}
	return out
}

// simple adds a declaration that is a name with, perhaps, a value.
func (r *reader) simple(kind model.Kind, name string, span source.Span, from, end int, words, value string) {
	o := model.Occurrence{Kind: kind, Name: name, Parent: -1, NameSpan: span, Span: r.whole(from, end)}
	mark := r.arena.Begin()
	if words != "" {
		r.arena.Put(model.TokenKeyword, words+" ")
	}
	r.arena.Put(model.TokenName, name)
	if value != "" {
		r.arena.Put(model.TokenPunctuation, " => ")
		r.arena.Put(model.TokenLiteral, value)
	}
	o.Signature = r.arena.Since(mark)
	r.add(o, r.pkg, from)
}

// ofTheLanguage are variables that packages have for the language and its tools.
var ofTheLanguage = lexing.WordSet("@EXPORT @EXPORT_OK %EXPORT_TAGS @EXPORT_FAIL @ISA $AUTOLOAD $VERSION $AUTHORITY $XS_VERSION")

// variable adds one.
func (r *reader) variable(name string, span source.Span, from, end int) {
	r.simple(model.KindVariable, name, span, from, end, "our", "")
	if ofTheLanguage[name] {
		r.facts.Occurrences[len(r.facts.Occurrences)-1].Visibility = model.Private
	}
}

// our reads variables of the package.
func (r *reader) our(i int) {
	one := func(k int) {
		w := r.Word(k)
		if len(w) < 2 || strings.IndexByte("$@%", w[0]) < 0 {
			return
		}
		r.variable(w, r.Span(k, k+1), i, k+1)
	}
	if !r.Is(i+1, '(') {
		k := i + 1
		if isPlain(r.Word(k)) { // our Type $x
			k++
		}
		one(k)
		return
	}
	for k := i + 2; k < r.Close(i+1, len(r.Tokens)); k++ {
		one(k)
	}
}

// field reads what each object of a class has.
func (r *reader) field(i int) {
	name := r.Word(i + 1)
	r.simple(model.KindField, name, r.Span(i+1, i+2), i, i+2, "field", "")
	r.facts.Occurrences[len(r.facts.Occurrences)-1].Visibility = model.Private
	for at := i + 2; r.Is(at, ':'); {
		if r.Word(at+1) == "reader" {
			reader := strings.TrimLeft(name, "$@%")
			span := r.Span(i+1, i+2)
			span.Start++
			if r.Is(at+2, '(') && isPlain(r.Word(at+3)) {
				reader, span = r.Word(at+3), r.Span(at+3, at+4)
			}
			r.simple(model.KindProperty, reader, span, i, at+2, "", "")
		}
		at += 2
		if r.Is(at, '(') {
			at = r.Over(at)
		}
	}
}

// place puts what is not of the file's own package into its own.
func (r *reader) place() {
	for i := range r.facts.Occurrences {
		o := &r.facts.Occurrences[i]
		if o.Extra == nil {
			continue
		}
		o.Extra.Modifiers = append(o.Extra.Modifiers, r.exports.of(o.Extra.In, o.Name)...)
		if o.Extra.In == r.main {
			o.Extra.In = ""
		}
	}
	for i := range r.facts.Classes {
		if c := &r.facts.Classes[i]; c.In == r.main {
			c.In = ""
		}
	}
	others, own, kept := r.facts.Modules[:0], false, true
	for _, m := range r.facts.Modules {
		if m.Name != r.main {
			others = append(others, m)
			continue
		}
		own, kept = true, kept && m.Kept
	}
	if own && kept {
		others = append(others, model.ModuleIn{Kept: true})
	}
	r.facts.Modules = others
}

// choose finds the package that the file is about: the one that it is called as, else the first.
func (r *reader) choose() {
	r.main = r.name
	if len(r.packages) == 0 {
		if said := r.saysName(); strings.HasSuffix(said, "::"+r.name) {
			r.main = said // as its folder alone does not tell
		}
		return
	}
	best := ""
	for _, p := range r.packages {
		switch {
		case p == r.name:
			r.main = p
			return
		case strings.HasSuffix(r.name, "::"+p), strings.HasSuffix(p, "::"+r.name):
			if best == "" {
				best = p
			}
		}
	}
	if best == "" && r.packages[0] != "main" {
		best = r.packages[0]
	}
	if best != "" && r.isModule() {
		r.main = best
	}
}

// saysName is the name under NAME of a file of documentation, or "".
func (r *reader) saysName() string {
	if !strings.HasSuffix(r.facts.Path, ".pod") {
		return ""
	}
	paragraphs := r.paragraphs()
	for i := 1; i < len(paragraphs); i++ {
		if p := &paragraphs[i]; p.command == "" && paragraphs[i-1].level > 0 && strings.EqualFold(paragraphs[i-1].rest, "name") {
			return withoutCodes(firstWord(p.lines[0].In(r.Text)))
		}
	}
	return ""
}

// isModule reports whether the file is one that others use.
func (r *reader) isModule() bool {
	return strings.HasSuffix(r.facts.Path, ".pm") || strings.HasSuffix(r.facts.Path, ".pod")
}
