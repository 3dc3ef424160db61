package python

import (
	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file finds what the code of a file uses ("Naming and binding" in the
// language reference): a function's names are its parameters and all that it
// binds anywhere, unless it says that they are global.

// inside reads the whole text: what its code names, and the pieces that readers tell apart.
func inside(text string) (model.Uses, model.Pieces) {
	u := usesReader{tokenizer: tokenizer{lexer: lexer{text: text}}, names: lexing.NewNames(text)}
	for at := 0; at < len(text); {
		var column int
		if column, at = u.indentation(at); at >= len(text) {
			break
		}
		if at = u.takeLine(at); len(u.tokens) > 0 {
			u.leave(column)
			u.column = column
			u.statements(u.tokens)
		}
	}
	var pieces model.Pieces
	for _, p := range u.pieces {
		pieces.Add(p)
	}
	return u.names.Uses(), pieces
}

// usesReader goes from logical line to logical line.
type usesReader struct {
	tokenizer
	names     *lexing.Names
	suites    []suite // that the line stands in
	column    int     // of the line
	decorated bool    // the line before said that a method has no object
	inline    int     // statements on the line that stand in one another
}

// suite is the body of a function or class.
type suite struct {
	column int   // of its head
	before int32 // scope around
	class  source.Span
}

func isMark(text string, t token, mark byte) bool {
	return t.kind == lexing.Mark && t.to-t.from == 1 && text[t.from] == mark
}

func (u *usesReader) word(t token) string {
	if t.kind != lexing.Word || t.chained {
		return ""
	}
	return u.text[t.from:t.to]
}

// leave goes out of the blocks that a line at a column ends.
func (u *usesReader) leave(column int) {
	for n := len(u.suites); n > 0 && column <= u.suites[n-1].column; n-- {
		u.names.Return(u.suites[n-1].before)
		u.suites = u.suites[:n-1]
	}
}

// at is the index of the first token outside brackets that is one of the marks, or -1.
func (u *usesReader) at(list []token, depth int32, marks string) int {
	lambdas := 0
	for i, t := range list {
		if t.depth != depth {
			continue
		}
		if u.word(t) == "lambda" {
			lambdas++
		}
		for j := range len(marks) {
			if isMark(u.text, t, marks[j]) {
				if marks[j] == ':' && lambdas > 0 {
					lambdas--
					continue
				}
				return i
			}
		}
	}
	return -1
}

// statements reads the statements of a line, which semicolons part.
func (u *usesReader) statements(list []token) {
	if u.inline++; u.inline > deepestInline { // no Python: each would be looked through for those in it
		u.expression(list)
		list = nil
	}
	defer func() { u.inline-- }()
	for len(list) > 0 {
		if u.heads(list[0]) { // what it is followed by is its body
			u.statement(list)
			return
		}
		i := u.at(list, 0, ";")
		if i < 0 {
			u.statement(list)
			return
		}
		u.statement(list[:i])
		list = list[i+1:]
		u.decorated = false
	}
}

// heads reports whether a word begins a statement that has a body.
func (u *usesReader) heads(t token) bool {
	switch u.word(t) {
	case "def", "class", "async", "if", "elif", "else", "while", "for", "with", "try", "except", "finally":
		return true
	}
	return false
}

// deepestInline is how many statements may begin on one line, each in the one before. The
// language has two: "if" and what it holds.
const deepestInline = 4

func (u *usesReader) statement(list []token) {
	if len(list) > 1 && u.word(list[0]) == "async" {
		list = list[1:]
	}
	if len(list) == 0 {
		return
	}
	decorated := u.decorated
	u.decorated = isMark(u.text, list[0], '@') && len(list) == 2 && u.word(list[1]) == "staticmethod" || decorated && isMark(u.text, list[0], '@')
	switch word := u.word(list[0]); word {
	case "def":
		u.function(list[1:], decorated)
	case "class":
		u.class(list[1:])
	case "import", "from":
		u.imports(list, word == "from")
	case "global", "nonlocal":
		for _, t := range list[1:] {
			if name := u.word(t); name != "" && word == "global" {
				u.names.Outside(u.names.Current(), name)
			}
		}
	case "del":
		u.targets(list[1:])
	case "if", "elif", "else", "while", "for", "with", "try", "except", "finally":
		u.compound(word, list[1:])
	case "match", "case", "type":
		if len(list) > 1 && (list[1].kind != lexing.Mark || u.opens(list[1])) && u.soft(word, list) {
			u.compound(word, list[1:])
			return
		}
		u.simple(list)
	default:
		u.simple(list)
	}
}

func (u *usesReader) opens(t token) bool {
	return isMark(u.text, t, '(') || isMark(u.text, t, '[') || isMark(u.text, t, '{') || isMark(u.text, t, '-') || isMark(u.text, t, '*')
}

// soft reports whether a word that is a keyword in one place only is one here.
func (u *usesReader) soft(word string, list []token) bool {
	if word == "type" {
		return u.word(list[1]) != "" && u.at(list, 0, "=") > 0
	}
	return u.at(list, 0, ":") > 0 && u.at(list, 0, "=") < 0
}

// compound reads a line whose colon begins a block: the head, and what stands
// behind the colon.
func (u *usesReader) compound(word string, list []token) {
	head, rest := list, []token(nil)
	if word != "type" {
		if i := u.at(list, 0, ":"); i >= 0 {
			head, rest = list[:i], list[i+1:]
		}
	}
	defer u.names.Return(u.line(head))
	switch word {
	case "for":
		if i := u.wordAt(head, "in"); i >= 0 {
			u.targets(head[:i])
			head = head[i+1:]
		}
		u.expression(head)
	case "with", "except":
		u.named(head)
	case "case":
		guard := u.wordAt(head, "if")
		if guard < 0 {
			guard = len(head)
		}
		u.pattern(head[:guard])
		u.expression(head[guard:])
	case "type":
		u.bind(u.word(head[0]), source.Span{}, false)
		u.expression(u.typeParameters(head[1:]))
	default:
		u.expression(head)
	}
	u.statements(rest)
}

// named reads "value as target" as often as it stands in a head.
func (u *usesReader) named(head []token) {
	from := 0
	for i := range head {
		if i < from || u.word(head[i]) != "as" {
			continue
		}
		u.expression(head[from:i])
		from = i + 1
		for from < len(head) && head[from].depth >= head[i].depth && !(head[from].depth == head[i].depth && isMark(u.text, head[from], ',')) {
			from++
		}
		u.targets(head[i+1 : from])
	}
	u.expression(head[from:])
}

// wordAt is the index of the first such word that is not deeper in brackets than
// the list is as a whole, or -1.
func (u *usesReader) wordAt(list []token, word string) int {
	best := -1
	for i, t := range list {
		if u.word(t) == word && (best < 0 || t.depth < list[best].depth) {
			best = i
		}
	}
	return best
}

// farthest bounds how many tokens are looked at for the sake of one.
const farthest = 400

// line opens a scope for the names that only a part of a line binds, those of
// lambdas and comprehensions, and binds them.
func (u *usesReader) line(list []token) (before int32) {
	before = u.names.Current()
	opened := false
	for i, t := range list {
		word := u.word(t)
		if word != "lambda" && (word != "for" || t.depth == 0) {
			continue
		}
		if !opened {
			u.names.Open(lexing.BlockScope)
			opened = true
		}
		for j := i + 1; j < min(len(list), i+farthest) && list[j].depth >= t.depth; j++ {
			if word == "for" && u.word(list[j]) == "in" || word == "lambda" && list[j].depth == t.depth && isMark(u.text, list[j], ':') {
				break
			}
			if name := u.word(list[j]); name != "" && !isKeyword(name) && !(word == "lambda" && isMark(u.text, list[j-1], '=')) {
				u.names.Bind(u.names.Current(), name, source.Span{}, false)
			}
		}
	}
	return before
}

// bind declares a name where the statement stands.
func (u *usesReader) bind(name string, typ source.Span, declared bool) {
	if name == "" || isKeyword(name) {
		return
	}
	if scope := u.names.Around(lexing.FunctionScope, lexing.ClassScope); scope != lexing.Outermost {
		u.names.Bind(scope, name, typ, declared)
	}
}

// targets binds the names of targets, and reads what is no name of its own:
// objects whose members or elements are set.
func (u *usesReader) targets(list []token) {
	for i, t := range list {
		name := u.word(t)
		if name == "" || isKeyword(name) {
			continue
		}
		if !u.inSubscript(list, i) && (i+1 == len(list) || !isMark(u.text, list[i+1], '.') && !isMark(u.text, list[i+1], '[') && !isMark(u.text, list[i+1], '(')) {
			u.bind(name, source.Span{}, false)
		}
	}
	u.expression(list)
}

// inSubscript reports whether a token stands in the brackets behind a value.
func (u *usesReader) inSubscript(list []token, i int) bool {
	depth := list[i].depth
	for last := max(0, i-farthest); i > last && depth > 0; i-- {
		t := list[i-1]
		if t.depth >= depth || t.kind != lexing.Mark {
			continue
		}
		depth = t.depth
		if i >= 2 && (list[i-2].kind != lexing.Mark || isMark(u.text, list[i-2], ')') || isMark(u.text, list[i-2], ']')) {
			return true
		}
	}
	return false
}

// pattern binds the names that a pattern captures.
func (u *usesReader) pattern(list []token) {
	for i, t := range list {
		name := u.word(t)
		if name == "" || isKeyword(name) {
			continue
		}
		if i+1 < len(list) && (isMark(u.text, list[i+1], '.') || isMark(u.text, list[i+1], '(') || isMark(u.text, list[i+1], '=')) {
			continue
		}
		u.bind(name, source.Span{}, false)
	}
	u.expression(list)
}

// imports binds what an import in a function binds. What the file itself imports
// means something elsewhere.
func (u *usesReader) imports(list []token, from bool) {
	inside := u.names.Around(lexing.FunctionScope, lexing.ClassScope) != lexing.Outermost
	names := list[1:]
	if from {
		i := u.wordAt(list, "import")
		if i < 0 {
			return
		}
		names = list[i+1:]
	}
	for i, t := range names {
		name := u.word(t)
		if name == "" || isKeyword(name) {
			continue
		}
		end := i + 1
		for end < len(names) && (names[end].chained || isMark(u.text, names[end], '.')) {
			end++
		}
		switch renamed := end < len(names) && u.word(names[end]) == "as"; {
		case renamed:
		case inside:
			u.bind(name, source.Span{}, false)
		default:
			u.mention(names, i)
		}
	}
}

// simple reads a statement without a block: an assignment or an expression.
func (u *usesReader) simple(list []token) {
	defer u.names.Return(u.line(list))
	if colon := u.at(list, 0, ":"); colon > 0 && u.at(list[:colon], 0, "=") < 0 {
		value := u.at(list, 0, "=")
		if value < 0 {
			value = len(list)
		}
		if colon == 1 {
			u.bind(u.word(list[0]), u.typeName(list[colon+1:value]), true)
		}
		u.expression(list)
		return
	}
	first := list
	for {
		i := u.at(list, 0, "=")
		if i < 0 {
			break
		}
		if i == 1 && u.at(list[i+1:], 0, "=") < 0 {
			u.bind(u.word(list[0]), u.made(list[i+1:]), false)
			u.expression(list[:i])
		} else {
			u.targets(list[:i])
		}
		list = list[i+1:]
	}
	if len(first) > 1 && first[1].kind == lexing.Mark && first[1].to-first[1].from == 2 && u.text[first[1].to-1] == '=' && u.augments(first[1]) {
		u.bind(u.word(first[0]), source.Span{}, false)
	}
	u.expression(list)
}

// augments reports whether a mark is one of the "+=" kind.
func (u *usesReader) augments(t token) bool {
	switch u.text[t.from] {
	case '=', '<', '>', '!', ':':
		return false
	}
	return true
}

// made is the name of what is called as the whole of a value: "a.B(...)".
func (u *usesReader) made(list []token) source.Span {
	if len(list) < 3 || !isMark(u.text, list[len(list)-1], ')') {
		return source.Span{}
	}
	name := u.chain(list, 0)
	open := u.at(list, 0, "(")
	if name.Empty() || open < 0 || list[open].from != name.End {
		return source.Span{}
	}
	for _, t := range list[open+1 : len(list)-1] {
		if t.depth == 0 {
			return source.Span{}
		}
	}
	return name
}

// typeName is the name that is the whole of an annotation.
func (u *usesReader) typeName(list []token) source.Span {
	if len(list) == 0 {
		return source.Span{}
	}
	if name := u.chain(list, 0); name.End == list[len(list)-1].to {
		return name
	}
	return source.Span{}
}

// chain is the span of the name at an index with the members behind it, or nothing.
func (u *usesReader) chain(list []token, i int) source.Span {
	if name := u.word(list[i]); name == "" || isKeyword(name) {
		return source.Span{}
	}
	span := source.Span{Start: list[i].from, End: list[i].to}
	for i+2 < len(list) && isMark(u.text, list[i+1], '.') && list[i+2].chained && list[i+1].from == span.End && list[i+2].from == span.End+1 {
		span.End = list[i+2].to
		i += 2
	}
	return span
}

func (u *usesReader) mention(list []token, i int) {
	if span := u.chain(list, i); !span.Empty() {
		u.names.Mention(int(span.Start), int(span.End))
	}
}

// expression mentions the names in a row of tokens.
func (u *usesReader) expression(list []token) {
	for i, t := range list {
		name := u.word(t)
		if name == "" || isKeyword(name) || name == "__class__" {
			continue
		}
		if i+1 < len(list) {
			next := list[i+1]
			if isMark(u.text, next, '=') && t.depth > 0 {
				continue // the name of an argument
			}
			if next.to-next.from == 2 && u.text[next.from] == ':' && u.text[next.from+1] == '=' {
				u.bind(name, source.Span{}, false)
			}
		}
		u.mention(list, i)
	}
}

// typeParameters binds "[T: bound]" in the current scope and gives what follows.
func (u *usesReader) typeParameters(list []token) []token {
	if len(list) == 0 || !isMark(u.text, list[0], '[') {
		return list
	}
	for i := 1; i < len(list); i++ {
		if list[i].depth == list[0].depth {
			u.expression(list[1:i])
			return list[i+1:]
		}
		if name := u.word(list[i]); name != "" && list[i].depth == list[0].depth+1 && !isMark(u.text, list[i-1], ':') && !isMark(u.text, list[i-1], '=') {
			u.names.Bind(u.names.Current(), name, source.Span{}, false)
		}
	}
	return list
}

// function reads "name(parameters) -> result: body" from behind "def".
func (u *usesReader) function(list []token, static bool) {
	if len(list) == 0 {
		return
	}
	u.bind(u.word(list[0]), source.Span{}, false)
	around := u.names.Current()
	class := source.Span{}
	if n := len(u.suites); n > 0 && u.names.Kind(around) == lexing.ClassScope && !static {
		class = u.suites[n-1].class
	}
	open := u.at(list, 0, "(")
	if open < 1 {
		return
	}
	if open > 1 {
		u.names.Open(lexing.BlockScope)
		u.typeParameters(list[1:open])
	}
	signature := u.names.Current()
	u.names.Open(lexing.FunctionScope)
	inner := u.names.Current()
	end := open + 1
	for end < len(list) && list[end].depth > list[open].depth {
		end++
	}
	u.names.Return(signature)
	u.parameters(list[open+1:end], inner, class)
	rest := list[min(end+1, len(list)):]
	body := u.at(rest, 0, ":")
	if body < 0 {
		body = len(rest)
	}
	u.expression(rest[:body])
	u.enter(suite{before: around}, inner, rest[min(body+1, len(rest)):])
}

// enter goes into a body: the rest of the line, or the lines below that stand
// further right.
func (u *usesReader) enter(b suite, inner int32, rest []token) {
	u.names.Return(inner)
	if len(rest) > 0 {
		u.statements(rest)
		u.names.Return(b.before)
		return
	}
	b.column = u.column
	u.suites = append(u.suites, b)
}

// parameters binds the parameters in the scope of the function; what they are
// annotated with and their defaults are read in the current one. The first of a
// method is an object of the class.
func (u *usesReader) parameters(list []token, inner int32, class source.Span) {
	defer u.names.Return(u.line(list))
	for first := true; len(list) > 0; first = false {
		end := u.at(list, list[0].depth, ",")
		if end < 0 {
			end = len(list)
		}
		part := list[:end]
		list = list[min(end+1, len(list)):]
		for len(part) > 0 && part[0].kind == lexing.Mark {
			part = part[1:] // stars
		}
		if len(part) == 0 {
			continue
		}
		typ, declared := source.Span{}, false
		value := u.at(part, part[0].depth, "=")
		if value < 0 {
			value = len(part)
		}
		if len(part) > 1 && isMark(u.text, part[1], ':') {
			typ, declared = u.typeName(part[2:max(2, value)]), true
			u.expression(part[2:max(2, value)])
		} else if first && !class.Empty() && len(part) == 1 {
			typ, declared = class, true
		}
		u.names.Bind(inner, u.word(part[0]), typ, declared)
		u.expression(part[value:])
	}
}

// class reads "name(bases): body" from behind "class".
func (u *usesReader) class(list []token) {
	if len(list) == 0 {
		return
	}
	name := u.word(list[0])
	around := u.names.Current()
	b := suite{before: around}
	if around == lexing.Outermost {
		b.class = source.Span{Start: list[0].from, End: list[0].to}
	}
	u.bind(name, source.Span{}, false)
	body := u.at(list, 0, ":")
	if body < 1 {
		return
	}
	inner := int32(0)
	if open := u.at(list[:body], 0, "["); open == 1 {
		u.names.Open(lexing.BlockScope)
		rest := u.typeParameters(list[1:body])
		u.expression(rest)
	} else {
		u.expression(list[1:body])
	}
	u.names.Open(lexing.ClassScope)
	inner = u.names.Current()
	u.enter(b, inner, list[body+1:])
}
