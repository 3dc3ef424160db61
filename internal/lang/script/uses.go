package script

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file finds what the code of a file uses (ECMA-262, "Scope Analysis"). What
// a block, function or class declares is seen in all of it. Where it is not plain
// how far a scope goes, it goes too far: a name that links nowhere is no harm.

// uses reads the whole text of a file whose declarations are known.
func (r *reader) uses() model.Uses {
	t := r.stream
	u := usesReader{lexer: &t.lexer, stream: &t.Stream, tokens: t.Tokens, names: lexing.NewNames(r.text), declared: make(map[int32]bool, len(r.facts.Occurrences)), classes: map[int]source.Span{}}
	u.sig, u.unclosed = -1, 0
	for i := range r.facts.Occurrences {
		u.declared[r.facts.Occurrences[i].NameSpan.Start] = true
	}
	u.names.Bind(lexing.Outermost, "this", source.Span{}, false)
	for i := 0; i < len(u.tokens); {
		u.leave(i)
		i = u.token(i)
	}
	return u.names.Uses()
}

// usesReader goes from token to token.
type usesReader struct {
	*lexer
	stream   *lexing.Stream
	tokens   []lexing.Token
	names    *lexing.Names
	declared map[int32]bool // places of names that declare what the file has
	open     []openScope
	classes  map[int]source.Span // by the brace of a body: the name of the class, or empty
	body     []int               // braces of classes that are open
	spent    int                 // bytes of types that were passed over
}

// openScope is a scope that ends with a token.
type openScope struct {
	last   int  // index of its last token
	exact  bool // that closes brackets
	before int32
}

// farthest bounds how many tokens are looked at for the sake of one.
const farthest = 1000

// mostSpent bounds how often, on the average, a byte is looked at as part of a
// type: types in types are passed over again each time.
const mostSpent = 100

func (u *usesReader) leave(i int) {
	for n := len(u.open); n > 0 && u.open[n-1].last < i; n-- {
		u.names.Return(u.open[n-1].before)
		u.open = u.open[:n-1]
	}
	for n := len(u.body); n > 0 && u.partner(u.body[n-1]) < i; n-- {
		u.body = u.body[:n-1]
	}
}

// wholeBody reports whether a brace closes a body that a scope can end with.
func (u *usesReader) wholeBody(last int) bool {
	open := int(u.tokens[last].Partner)
	return open > 0 && (u.isOne(open-1, ")") || u.is(open-1, "=>") || u.tokens[open-1].Kind == lexing.Word || u.isOne(open-1, ">{};"))
}

// enter opens a scope that ends with a token. Brackets around end it at the latest;
// what ends nobody knows quite where goes on as long as what stands in it.
func (u *usesReader) enter(kind lexing.ScopeKind, last int) {
	exact := u.isOne(last, "}") && u.wholeBody(last)
	for n := len(u.open); n > 0 && u.open[n-1].last < last; n-- {
		if u.open[n-1].exact {
			last = u.open[n-1].last
			break
		}
		u.open[n-1].last = last
	}
	u.open = append(u.open, openScope{last: last, exact: exact, before: u.names.Open(kind)})
}

func (u *usesReader) is(i int, mark string) bool {
	if i < 0 || i >= len(u.tokens) {
		return false
	}
	t := u.tokens[i]
	return t.Kind == lexing.Mark && int(t.To-t.From) == len(mark) && u.text[t.From:t.To] == mark
}

func (u *usesReader) isOne(i int, marks string) bool {
	if i < 0 || i >= len(u.tokens) {
		return false
	}
	t := u.tokens[i]
	return t.Kind == lexing.Mark && t.To-t.From == 1 && strings.IndexByte(marks, u.text[t.From]) >= 0
}

// wordOf is the word at an index, or "".
func (u *usesReader) wordOf(i int) string {
	if i < 0 || i >= len(u.tokens) || u.tokens[i].Kind != lexing.Word {
		return ""
	}
	return u.text[u.tokens[i].From:u.tokens[i].To]
}

func (u *usesReader) newline(i int) bool { return i < len(u.tokens) && u.tokens[i].Newline }

// partner is the index of the bracket that closes the one at an index, or of the
// last token.
func (u *usesReader) partner(i int) int {
	if p := int(u.tokens[i].Partner); p > i {
		return p
	}
	return len(u.tokens) - 1
}

// skip is the index behind a token, or behind the brackets that it opens.
func (u *usesReader) skip(i int) int {
	if u.isOne(i, "([{") {
		return u.partner(i) + 1
	}
	return i + 1
}

// typeAt is the index behind the type that begins at an index.
func (u *usesReader) typeAt(i int) int {
	if i >= len(u.tokens) || u.spent > mostSpent*len(u.text) {
		return i
	}
	from := int(u.tokens[i].From)
	end := u.typeEnd(from)
	u.spent += end - from
	return u.stream.At(end)
}

// token reads the token at an index, maybe with some behind it, and gives the
// index of the next one to read.
func (u *usesReader) token(i int) int {
	if u.tokens[i].Kind == lexing.Mark {
		switch {
		case u.is(i, "{"):
			u.enter(lexing.BlockScope, u.partner(i))
			if class, ok := u.classes[i]; ok {
				u.body = append(u.body, i)
				u.names.Bind(u.names.Current(), "this", class, !class.Empty())
			}
		case u.is(i, "("):
			u.arrow(i)
		case u.is(i, "<") && u.typed && u.wordOf(i+1) != "":
			u.generic(i)
		}
		return i + 1
	}
	word := u.wordOf(i)
	if word == "" || u.isOne(i-1, ".") {
		return i + 1
	}
	if u.inClass(i) && u.method(i) {
		return i + 1
	}
	switch word {
	case "function":
		u.function(i)
		return i + 1
	case "class":
		if !u.isKey(i) {
			return u.class(i)
		}
	case "enum":
		if u.wordOf(i+1) != "" && u.is(i+2, "{") {
			u.bindInner(i + 1)
			return u.partner(i+2) + 1
		}
	case "const", "let", "var", "using":
		if u.wordOf(i-1) != "as" && u.wordOf(i+1) != "enum" && (u.wordOf(i+1) != "" || u.isOne(i+1, "{[")) {
			u.declarators(i+1, word)
			return i + 1
		}
	case "import":
		if !u.isOne(i+1, "(.") && len(u.open) == 0 {
			return u.importing(i + 1)
		}
	case "export":
		if (u.is(i+1, "{") || u.is(i+1, "*") || u.wordOf(i+1) == "type" && u.is(i+2, "{")) && !u.isKey(i) {
			return u.exporting(i + 1)
		}
	case "catch":
		if u.is(i+1, "(") {
			if end := u.partner(i+1) + 1; u.is(end, "{") {
				u.enter(lexing.BlockScope, u.partner(end))
				u.pattern(i+2, u.names.Current(), source.Span{})
			}
			return i + 1
		}
	case "for":
		if u.is(i+1, "(") || u.wordOf(i+1) == "await" {
			u.loop(i)
			return i + 1
		}
	case "namespace", "module":
		if u.wordOf(i+1) != "" && !u.newline(i+1) {
			u.bindInner(i + 1)
			return i + 2
		}
	case "interface":
		if u.wordOf(i+1) != "" && !u.newline(i+1) {
			return u.class(i)
		}
	case "type":
		if u.wordOf(i+1) != "" && !u.newline(i+1) {
			u.bindInner(i + 1)
			u.typeParameters(i+2, u.names.Current())
			return i + 2
		}
	case "infer":
		// It is seen where the condition holds, which may be outside the brackets
		// that it stands in: in all of the file then.
		u.bind(lexing.Outermost, i+1, source.Span{})
		return i + 2
	case "this":
		u.mention(i)
		return i + 1
	}
	switch word {
	case "if", "while", "switch", "with", "return", "for", "catch", "function":
		if !u.is(i-1, ",") {
			return i + 1
		}
	}
	if u.method(i) || isKeyword(word, false) || contextual(word) {
		return i + 1
	}
	return u.name(i, word)
}

// bindInner binds the name of a declaration where it does not stand at the top.
func (u *usesReader) bindInner(i int) {
	if scope := u.names.Current(); scope != lexing.Outermost {
		u.bind(scope, i, source.Span{})
	}
}

// contextual reports whether a word is a keyword in most places where it stands.
func contextual(word string) bool {
	switch word {
	case "of", "as", "is", "keyof", "infer", "readonly", "satisfies", "asserts", "type", "interface", "namespace", "module", "declare", "abstract",
		"get", "set", "unique", "global", "implements", "private", "public", "protected", "override", "accessor", "from", "arguments", "undefined":
		return true
	}
	return false
}

// name reads a word that is no keyword: a declaration, a key, or a use.
func (u *usesReader) name(i int, word string) int {
	if u.is(i+1, "=>") { // the only parameter
		u.enter(lexing.FunctionScope, u.bodyEnd(i+2))
		u.bind(u.names.Current(), i, source.Span{})
		return i + 1
	}
	switch {
	case u.declared[u.tokens[i].From], u.isKey(i):
		return i + 1
	case u.wordOf(i+1) == "in" && u.is(i-1, "["): // the key of a mapped type
		u.bind(u.names.Current(), i, source.Span{})
		return i + 1
	}
	if next := u.wordOf(i + 1); next != "" && !u.newline(i+1) {
		switch next {
		case "in", "of", "instanceof", "as", "is", "satisfies", "extends", "implements":
		default:
			return i + 1 // a keyword of some place
		}
	}
	return u.mention(i)
}

// mention notes a name with the members behind it, and gives the index behind them.
func (u *usesReader) mention(i int) int {
	from, to := u.tokens[i].From, u.tokens[i].To
	for i++; u.is(i, ".") && u.wordOf(i+1) != "" && u.tokens[i].From == to && u.tokens[i+1].From == to+1; i += 2 {
		to = u.tokens[i+1].To
	}
	u.names.Mention(int(from), int(to))
	return i
}

func (u *usesReader) bind(scope int32, i int, typ source.Span) {
	if word := u.wordOf(i); word != "" && (word == "this" || !isKeyword(word, false)) {
		u.names.Bind(scope, word, typ, !typ.Empty())
	}
}

// isKey reports whether a word is the name of a property: in a literal, in the
// type of an object, in the body of a class, or of a parameter in a type.
func (u *usesReader) isKey(i int) bool {
	begins := u.isOne(i-1, "{,;([") || i == 0 || u.newline(i) && !u.isOne(i-1, "=+-*/%&|^?:<>!~") && !u.is(i-1, "=>")
	switch before := u.wordOf(i - 1); before {
	case "readonly", "static", "get", "set", "async", "declare", "public", "private", "protected", "override", "abstract", "accessor":
		begins = begins || !u.newline(i)
	}
	if !begins && !(u.is(i-1, "*") && u.inClass(i)) {
		return u.inClass(i) && (u.isOne(i-1, "}") || u.isOne(i-1, ")") && u.newline(i))
	}
	if u.is(i+1, ":") || u.is(i+1, "?") && (u.is(i+2, ":") || u.is(i+2, "(")) || u.is(i+1, "!") && u.is(i+2, ":") {
		return true
	}
	if u.inClass(i) {
		return true
	}
	if u.is(i+1, "(") && !u.isOne(i-1, "([") { // the signature of a method
		return u.is(u.partner(i+1)+1, ":")
	}
	return false
}

// inClass reports whether a token stands right in the body of a class.
func (u *usesReader) inClass(i int) bool {
	n := len(u.body)
	if n == 0 {
		return false
	}
	// The scopes opened last are those of the body, unless something is open in it.
	last := u.partner(u.body[n-1])
	for k := len(u.open) - 1; k >= 0; k-- {
		if u.open[k].last < last && u.open[k].last >= i {
			return false
		}
		if u.open[k].last >= last {
			break
		}
	}
	return u.depthIn(u.body[n-1], i)
}

// depthIn reports whether no parenthesis is open between a brace and a token.
func (u *usesReader) depthIn(brace, i int) bool {
	for k, steps := i-1, 0; k > brace; steps++ {
		if steps > farthest {
			return false
		}
		t := u.tokens[k]
		if t.Kind == lexing.Mark && t.Partner >= 0 {
			if int(t.Partner) > k {
				return false
			}
			k = int(t.Partner)
		}
		if u.is(k, ";") {
			return true
		}
		k--
	}
	return true
}

// method opens the scope of a method of a class or object, or reports that a word
// is no method's name.
func (u *usesReader) method(i int) bool {
	open := i + 1
	if u.is(open, "?") {
		open++
	}
	if u.is(open, "<") && (u.inClass(i) || u.isOne(i-1, "{,")) {
		open = u.typeParametersEnd(open)
	}
	if !u.is(open, "(") {
		return false
	}
	starts := u.isOne(i-1, "{,*") || u.inClass(i)
	switch u.wordOf(i - 1) {
	case "get", "set", "async", "static", "public", "private", "protected", "override", "abstract":
		starts = true
	}
	if !starts {
		return false
	}
	end := u.partner(open)
	body := end + 1
	if u.is(body, ":") {
		body = u.typeAt(body + 1)
	}
	if !u.is(body, "{") {
		if u.inClass(i) && (u.is(end+1, ":") || u.is(end+1, ";") || u.newline(end+1)) {
			u.enter(lexing.FunctionScope, max(end, body-1))
			u.typeParameters(i+1, u.names.Current())
			u.parameters(open, u.names.Current())
			return true
		}
		return false
	}
	static := false
	for k := i - 1; k >= 0 && u.wordOf(k) != ""; k-- {
		static = static || u.wordOf(k) == "static"
	}
	inClass := u.inClass(i)
	u.enter(lexing.FunctionScope, u.partner(body))
	if static || !inClass {
		u.names.Bind(u.names.Current(), "this", source.Span{}, false)
	}
	u.typeParameters(i+1, u.names.Current())
	u.parameters(open, u.names.Current())
	return true
}

// function opens the scope of "function name(...) {...}".
func (u *usesReader) function(i int) {
	i++
	if u.is(i, "*") {
		i++
	}
	name := -1
	if u.wordOf(i) != "" {
		name = i
		i++
	}
	start := i
	if u.is(i, "<") {
		i = u.typeParametersEnd(i)
	}
	if !u.is(i, "(") {
		return
	}
	end := u.partner(i)
	last := end
	if u.is(end+1, ":") {
		last = u.typeAt(end+2) - 1
	}
	if u.is(last+1, "{") {
		last = u.partner(last + 1)
	}
	known := name >= 0 && u.declared[u.tokens[name].From]
	if name >= 0 {
		if scope := u.names.Around(lexing.FunctionScope); !known && scope != lexing.Outermost {
			u.bind(scope, name, source.Span{})
		}
		u.bindInner(name)
	}
	u.enter(lexing.FunctionScope, last)
	if name >= 0 && !known {
		u.bind(u.names.Current(), name, source.Span{})
	}
	u.names.Bind(u.names.Current(), "this", source.Span{}, false)
	u.typeParameters(start, u.names.Current())
	u.parameters(i, u.names.Current())
}

// arrow opens the scope of an arrow function, or of a function's type, whose
// parameters stand in the parenthesis at an index.
func (u *usesReader) arrow(i int) {
	head := u.partner(i) + 1
	if u.is(head, ":") && u.typed {
		head = u.typeAt(head + 1)
	}
	if i > 0 && (u.is(i-1, "]") || u.tokens[i-1].Kind == lexing.Value) && u.is(head, "{") {
		u.enter(lexing.FunctionScope, u.partner(head)) // a method with a quoted or computed name
		u.names.Bind(u.names.Current(), "this", source.Span{}, false)
		u.parameters(i, u.names.Current())
		return
	}
	if w := u.wordOf(i - 1); w != "" && !beforeOperand[w] && w != "async" || u.isOne(i-1, ")]") {
		return
	}
	if !u.is(head, "=>") {
		return
	}
	u.enter(lexing.FunctionScope, u.bodyEnd(head+1))
	if u.is(i-1, ">") {
		for k := i - 2; k > max(0, i-farthest); k-- {
			if u.is(k, "<") {
				u.typeParameters(k, u.names.Current())
				break
			}
		}
	}
	u.parameters(i, u.names.Current())
}

// generic opens the scope of a function or of its type whose type parameters begin
// at an index: what is called with type arguments is none.
func (u *usesReader) generic(i int) {
	open := u.typeParametersEnd(i)
	if open <= i || !u.is(open, "(") {
		return
	}
	head := u.partner(open) + 1
	last := head
	switch {
	case u.is(head, "=>"):
		last = u.bodyEnd(head + 1)
	case u.is(head, ":"):
		if last = u.typeAt(head + 1); u.is(last, "=>") {
			last = u.bodyEnd(last + 1)
		} else if u.is(last, "{") {
			last = u.partner(last)
		} else {
			last--
		}
	default:
		return
	}
	u.enter(lexing.FunctionScope, last)
	u.typeParameters(i, u.names.Current())
	u.parameters(open, u.names.Current())
}

// bodyEnd is the index of the last token of what follows an arrow.
func (u *usesReader) bodyEnd(i int) int {
	if u.is(i, "{") {
		return u.partner(i)
	}
	start, typeEnd := i, i
	if u.typed { // it may be a type, whose arguments have commas between them
		typeEnd = u.typeAt(i)
	}
	for steps := 0; i < len(u.tokens) && steps < farthest; steps++ {
		if i >= typeEnd && (u.isOne(i, ",;)]}") || i > start && u.newline(i) && (u.endsBefore(i) || i == typeEnd && u.is(i-1, ">") && u.wordOf(i) != "")) {
			return i - 1
		}
		i = u.skip(i)
	}
	return len(u.tokens) - 1
}

// class reads the head of a class and gives the index behind its name.
func (u *usesReader) class(i int) int {
	i++
	name := -1
	if w := u.wordOf(i); w != "" && w != "extends" && w != "implements" {
		name = i
		i++
	}
	brace := i
	for steps := 0; brace < len(u.tokens) && steps < farthest; steps++ {
		if u.is(brace, "{") && (u.tokens[brace-1].Kind == lexing.Word && u.wordOf(brace-1) != "extends" || u.isOne(brace-1, ">)]}") || brace == i) {
			break
		}
		if u.is(brace, ";") {
			return i
		}
		brace = u.skip(brace)
	}
	if !u.is(brace, "{") {
		return i
	}
	typ := source.Span{}
	if name >= 0 && u.declared[u.tokens[name].From] && len(u.open) == 0 {
		typ = source.Span{Start: u.tokens[name].From, End: u.tokens[name].To}
	}
	if name >= 0 {
		u.bindInner(name)
	}
	u.classes[brace] = typ
	u.enter(lexing.BlockScope, u.partner(brace))
	if name >= 0 && !u.declared[u.tokens[name].From] {
		u.bind(u.names.Current(), name, source.Span{})
	}
	u.typeParameters(i, u.names.Current())
	return i
}

// loop opens the scope of a loop, in which the names in its parentheses are seen.
func (u *usesReader) loop(i int) {
	if i++; u.wordOf(i) == "await" {
		i++
	}
	if !u.is(i, "(") {
		return
	}
	body := u.partner(i) + 1
	last := body
	switch n := len(u.open); {
	case u.is(body, "{"):
		last = u.partner(body)
	case n > 0: // without braces it ends nobody knows where
		last = u.open[n-1].last
	default:
		for steps := 0; last < len(u.tokens) && steps < farthest && !u.isOne(last, ";)]}"); steps++ {
			last = u.skip(last)
		}
	}
	u.enter(lexing.BlockScope, last)
}

// declarators binds what "const a = ..., {b} = ..." declares, from behind the word.
func (u *usesReader) declarators(i int, word string) {
	scope := u.names.Current()
	if word == "var" {
		scope = u.names.Around(lexing.FunctionScope)
	}
	for steps := 0; i < len(u.tokens) && steps < farthest; steps++ {
		start := i
		end := i + 1
		if u.isOne(i, "{[") {
			end = u.partner(i) + 1
		}
		typ := source.Span{}
		at := end
		if u.is(at, "!") {
			at++
		}
		if u.is(at, ":") && u.typed {
			behind := u.typeAt(at + 1)
			typ = u.typeName(at+1, behind)
			at = behind
		} else if u.is(at, "=") && (word == "const" || u.typed) {
			typ = u.made(at + 1)
		}
		if scope != lexing.Outermost {
			u.pattern(start, scope, typ)
		}
		first := at
		for ; at < len(u.tokens) && steps < farthest; steps++ {
			if u.isOne(at, ",;)]}") || at > first && u.newline(at) && u.endsBefore(at) || at == first && (u.wordOf(at) == "of" || u.wordOf(at) == "in") {
				break
			}
			at = u.skip(at)
		}
		if !u.is(at, ",") {
			return
		}
		i = at + 1
	}
}

// endsBefore reports whether a statement may end between a token and the one
// before it, which stand on different lines.
func (u *usesReader) endsBefore(i int) bool {
	operand := u.tokens[i-1].Kind != lexing.Mark || u.isOne(i-1, ")]}")
	return operand && u.tokens[i].Kind == lexing.Word && !goesOn[u.wordOf(i)]
}

// made is the name of the class of which an object is made: "new A.B(...)", as a
// whole value.
func (u *usesReader) made(i int) source.Span {
	if u.wordOf(i) != "new" || u.wordOf(i+1) == "" {
		return source.Span{}
	}
	span := source.Span{Start: u.tokens[i+1].From, End: u.tokens[i+1].To}
	for i += 2; u.is(i, ".") && u.wordOf(i+1) != ""; i += 2 {
		span.End = u.tokens[i+1].To
	}
	if !u.is(i, "(") {
		return source.Span{}
	}
	if next := u.partner(i) + 1; next < len(u.tokens) && !u.isOne(next, ",;)}") && !(u.newline(next) && u.endsBefore(next)) {
		return source.Span{}
	}
	return span
}

// typeName is the name that a type begins with, where that is all of it but for
// its arguments.
func (u *usesReader) typeName(i, end int) source.Span {
	if w := u.wordOf(i); w == "" || isKeyword(w, false) || contextual(w) {
		return source.Span{}
	}
	span := source.Span{Start: u.tokens[i].From, End: u.tokens[i].To}
	for i++; u.is(i, ".") && u.wordOf(i+1) != ""; i += 2 {
		span.End = u.tokens[i+1].To
	}
	if i != end && !(u.is(i, "<") && u.is(end-1, ">")) {
		return source.Span{}
	}
	return span
}

// pattern binds the names of a pattern and gives the index behind it.
func (u *usesReader) pattern(i int, scope int32, typ source.Span) int {
	if !u.isOne(i, "{[") {
		u.bind(scope, i, typ)
		return i + 1
	}
	object, end := u.is(i, "{"), u.partner(i)
	for i++; i < end; {
		if u.is(i, "...") || u.is(i, ",") {
			i++
			continue
		}
		if object && u.is(u.skip(i), ":") {
			i = u.skip(i) + 1
		}
		i = u.pattern(i, scope, source.Span{})
		for i < end && !u.is(i, ",") {
			i = u.skip(i)
		}
	}
	return end + 1
}

// parameters binds the names in the parentheses that open at an index.
func (u *usesReader) parameters(open int, scope int32) {
	end := u.partner(open)
	for i := open + 1; i < end; {
		for u.is(i, "@") {
			for i += 2; u.is(i, "."); i += 2 {
			}
			if u.is(i, "(") {
				i = u.skip(i)
			}
		}
		for isParameterModifier(u.wordOf(i)) && (u.wordOf(i+1) != "" || u.isOne(i+1, "{[")) {
			i++
		}
		if u.is(i, "...") {
			i++
		}
		start := i
		i = u.skip(i)
		if u.is(i, "?") {
			i++
		}
		typ := source.Span{}
		if u.is(i, ":") {
			behind := u.typeAt(i + 1)
			typ = u.typeName(i+1, behind)
			i = max(behind, i+1)
		}
		u.pattern(start, scope, typ)
		for i < end && !u.is(i, ",") {
			i = u.skip(i)
		}
		i++
	}
}

// typeParameters binds the names in "<T, U extends V>", if such open at an index.
func (u *usesReader) typeParameters(i int, scope int32) {
	if !u.is(i, "<") {
		return
	}
	end := u.typeParametersEnd(i)
	depth := 0
	for ; i < end; i = u.skip(i) {
		switch {
		case u.is(i, "<"):
			depth++
		case u.is(i, ">"):
			depth--
		}
		if depth == 1 && u.isOne(i, "<,") {
			name := i + 1
			for u.wordOf(name+1) != "" && (u.wordOf(name) == "const" || u.wordOf(name) == "in" || u.wordOf(name) == "out") {
				name++
			}
			u.bind(scope, name, source.Span{})
		}
	}
}

// typeParametersEnd is the index behind the ">" that closes type parameters.
func (u *usesReader) typeParametersEnd(i int) int {
	if u.spent > mostSpent*len(u.text) {
		return i
	}
	from := int(u.tokens[i].From)
	end, _ := u.typeArguments(from)
	u.spent += end - from
	return u.stream.At(end)
}

// importing mentions the names that an import at the top brings in.
func (u *usesReader) importing(i int) int {
	for ; i < len(u.tokens) && !u.is(i, ";"); i++ {
		if u.tokens[i].Kind == lexing.Value {
			return i + 1
		}
		switch w := u.wordOf(i); {
		case w == "", w == "from", w == "as", w == "type" && u.wordOf(i+1) != "from":
		case u.is(i+1, "="): // import x = require("...")
			return i + 1
		case u.wordOf(i+1) != "as":
			u.names.Mention(int(u.tokens[i].From), int(u.tokens[i].To))
		}
	}
	return i
}

// exporting mentions the names in "export {a, b as c}" that are the file's own.
func (u *usesReader) exporting(i int) int {
	if u.wordOf(i) == "type" {
		i++
	}
	end := u.skip(i)
	if !u.is(i, "{") || u.wordOf(end) == "from" {
		for end < len(u.tokens) && u.tokens[end].Kind != lexing.Value && !u.is(end, ";") {
			end++
		}
		return end
	}
	for k := i + 1; k < end-1; k++ {
		if w := u.wordOf(k); w != "" && w != "as" && w != "default" && u.wordOf(k-1) != "as" && !(w == "type" && u.wordOf(k+1) != "" && u.wordOf(k+1) != "as") {
			u.names.Mention(int(u.tokens[k].From), int(u.tokens[k].To))
		}
	}
	return end
}
