package script

import (
	"strings"

	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads functions: declarations, and values of constants.

// function is a function, taken apart.
type function struct {
	async, generator, arrow bool
	typeParams              source.Span
	open                    int // of the parameters; or of the only one, which has no parentheses
	bare                    int // offset behind the only parameter, or 0
	resultFrom, resultTo    int
	body                    source.Span
	end                     int
}

// function reads "function name(...) {...}" from behind the word.
func (r *reader) function(h *heads, at int) {
	f := function{async: h.async}
	if r.byteAt(at) == '*' {
		f.generator = true
		at = r.after(at + 1)
	}
	o := model.Occurrence{Kind: model.KindFunction, Export: r.exportOf(h)}
	end := r.nameEnd(at)
	o.NameSpan = source.NewSpan(at, end)
	if end == at {
		if !h.byDefault {
			r.expressionStatement(h)
			return
		}
		o.Name, o.NameSpan = "default", source.NewSpan(h.start, h.start)
	}
	if !r.begins(&f, r.after(end)) {
		r.missing(end)
		r.at = max(end, r.at+1)
		return
	}
	mark := r.arena.Begin()
	if f.async {
		r.put(model.TokenKeyword, "async ")
	}
	r.put(model.TokenKeyword, "function")
	if f.generator {
		r.put(model.TokenPunctuation, "*")
	}
	r.put(model.TokenPunctuation, " ")
	r.put(model.TokenName, r.nameOf(&o))
	r.functionTokens(&o, &f)
	o.Signature = r.arena.Since(mark)
	o.Span = source.NewSpan(h.start, f.end)
	name := r.nameOf(&o)
	o.Implementation = r.typed && !f.body.Empty() && r.forms == name
	r.forms = ""
	if f.body.Empty() {
		r.forms = name
	}
	switch {
	case h.byDefault && end > at:
		o.Export = model.Renamed
		r.givesByDefault(name, o.NameSpan)
	case h.byDefault: // it has no other name
		o.Export = model.Exported
	}
	index := r.add(o, h.comment, h.directives)
	r.keepBody(f)
	r.madeWithNew(index, &f)
	r.finish(f.end)
}

func (r *reader) nameOf(o *model.Occurrence) string {
	if o.Name != "" {
		return o.Name
	}
	return o.NameSpan.In(r.text)
}

// keepBody keeps the body's place for those who look inside.
func (r *reader) keepBody(f function) {
	if r.facts.Inside != nil && !f.body.Empty() {
		if n := len(r.facts.Inside.Bodies); n == 0 || r.facts.Inside.Bodies[n-1].End <= f.body.Start {
			r.facts.Inside.Bodies = append(r.facts.Inside.Bodies, f.body)
		}
	}
}

// callable reads type parameters, parameters, result and body. It is false
// where there is no list of parameters.
func (r *reader) callable(f *function, at int) bool {
	if !r.begins(f, at) {
		return false
	}
	f.end = r.bracketed(f.open)
	at = r.after(f.end)
	if r.byteAt(at) == ':' {
		f.resultFrom = r.after(at + 1)
		f.resultTo = r.typeEnd(f.resultFrom)
		f.end = f.resultTo
		at = r.after(f.end)
	}
	r.bodyOf(f, at)
	return true
}

// begins reads what stands before the parameters. It is false where no list of
// parameters follows; otherwise [reader.functionTokens] can read the rest.
func (r *reader) begins(f *function, at int) bool {
	if r.byteAt(at) == '<' {
		end, _ := r.typeArguments(at)
		f.typeParams = source.NewSpan(at, max(at, end))
		at = r.after(max(end, at+1))
	}
	if r.byteAt(at) != '(' {
		return false
	}
	f.open = at
	return true
}

func (r *reader) bodyOf(f *function, at int) {
	if r.byteAt(at) == '{' {
		f.end = r.bracketed(at)
		f.body = source.NewSpan(at, f.end)
	}
}

// functionValue reads a function or arrow function that is the whole value of
// an assignment.
func (r *reader) functionValue(at int) (f function, ok bool) {
	if r.wordAt(at, "async") {
		next, newline := r.skip(at + len("async"))
		if c := r.byteAt(next); !newline && (c == '(' || c == '<' || startsName(c)) {
			f.async = true
			at = next
		}
	}
	switch c := r.byteAt(at); {
	case r.wordAt(at, "function"):
		at = r.after(at + len("function"))
		if r.byteAt(at) == '*' {
			f.generator = true
			at = r.after(at + 1)
		}
		at = r.after(r.nameEnd(at))
		if !r.callable(&f, at) || f.body.Empty() {
			return f, false
		}
		next, newline := r.skip(f.end)
		return f, newline && strings.IndexByte(".([`?", r.byteAt(next)) < 0 || next >= len(r.text) || strings.IndexByte(";,})]", r.byteAt(next)) >= 0
	case c == '(' || c == '<' && r.typed:
		return f, r.arrow(&f, at)
	case startsName(c):
		end := r.nameEnd(at)
		next := r.after(end)
		if !strings.HasPrefix(r.text[next:], "=>") {
			return f, false
		}
		f.arrow, f.open, f.bare = true, at, end
		r.arrowBody(&f, next+2)
		return f, true
	}
	return f, false
}

// arrow reads "<T>(...): R => body".
func (r *reader) arrow(f *function, at int) bool {
	unclosed := r.unclosed
	if r.byteAt(at) == '<' {
		end, ok := r.typeArguments(at)
		if !ok {
			r.unclosed = unclosed
			return false
		}
		f.typeParams = source.NewSpan(at, end)
		at = r.after(end)
	}
	if r.byteAt(at) != '(' {
		return false
	}
	r.sig = at - 1
	f.open = at
	f.end = r.bracketed(at)
	next, newline := r.skip(f.end)
	if r.typed && r.byteAt(next) == ':' {
		f.resultFrom = r.after(next + 1)
		end, ok := r.typ(f.resultFrom)
		if !ok {
			r.unclosed = unclosed
			return false
		}
		f.resultTo = end
		next, newline = r.skip(end)
	}
	if newline || !strings.HasPrefix(r.text[next:], "=>") {
		r.unclosed = unclosed
		return false
	}
	f.arrow = true
	r.arrowBody(f, next+2)
	return true
}

func (r *reader) arrowBody(f *function, at int) {
	at = r.after(at)
	if r.byteAt(at) == '{' {
		f.end = r.bracketed(at)
	} else {
		f.end = r.back(r.expression(at))
	}
	f.body = source.NewSpan(at, max(at, f.end))
}

// valueTokens puts a function that is a value: " = async (params): result => …".
func (r *reader) valueTokens(o *model.Occurrence, f function) {
	r.put(model.TokenPunctuation, " = ")
	if f.async {
		r.put(model.TokenKeyword, "async ")
	}
	switch {
	case f.generator:
		r.put(model.TokenKeyword, "function* ")
	case !f.arrow:
		r.put(model.TokenKeyword, "function ")
	}
	r.functionTokens(o, &f)
	if f.arrow {
		r.put(model.TokenPunctuation, " => …")
	}
}

// functionTokens puts "<T>(params): result" and fills in what can be called. It
// reads on to the end of the function where nobody did.
func (r *reader) functionTokens(o *model.Occurrence, f *function) {
	typeParams := r.typeParamTokens(f.typeParams)
	if len(typeParams) > 0 {
		o.Extra = model.NewExtra(typeParams, nil, nil)
	}
	o.Callable = &model.Callable{}
	r.put(model.TokenPunctuation, "(")
	if f.bare > 0 {
		name := r.text[f.open:f.bare]
		r.put(model.TokenParameter, name)
		o.Callable.Params = append(o.Callable.Params, model.Param{Name: name})
	} else {
		end := r.parameters(f.open, o)
		if f.end == 0 {
			r.put(model.TokenPunctuation, ")")
			r.restOf(f, end, o.Callable)
			return
		}
	}
	r.put(model.TokenPunctuation, ")")
	if f.resultTo > f.resultFrom {
		r.put(model.TokenPunctuation, ": ")
		mark := r.arena.Mark()
		r.typeTokens(f.resultFrom, f.resultTo)
		o.Callable.Results = append(o.Callable.Results, model.Param{Type: r.arena.Since(mark)})
	}
	r.tells(o.Callable, f)
}

// restOf reads what follows the parameters, which were read up to an offset.
func (r *reader) restOf(f *function, at int, c *model.Callable) {
	if f.end = at + 1; r.byteAt(at) != ')' { // not all of it was understood
		r.sig = f.open - 1
		f.end = r.bracketed(f.open)
	}
	at = r.after(f.end)
	if r.byteAt(at) == ':' {
		f.resultFrom = r.after(at + 1)
		r.put(model.TokenPunctuation, ": ")
		mark := r.arena.Mark()
		f.resultTo = r.putType(f.resultFrom)
		c.Results = append(c.Results, model.Param{Type: r.arena.Since(mark)})
		f.end = f.resultTo
		at = r.after(f.end)
	}
	r.bodyOf(f, at)
	r.tells(c, f)
}

// parameters reads the list whose opening parenthesis stands at an offset, and
// gives the offset at which it ended.
func (r *reader) parameters(at int, o *model.Occurrence) int {
	at++
	for n := 0; at < len(r.text); n++ {
		at = r.after(at)
		if r.byteAt(at) == ')' {
			return at
		}
		if n > 0 {
			r.put(model.TokenPunctuation, ", ")
		}
		was := at
		at = r.after(r.parameter(at, o))
		if r.byteAt(at) != ',' {
			return at
		}
		if at++; at <= was {
			break
		}
	}
	return at
}

// modifiers of parameters make them properties of the object too.
func isParameterModifier(word string) bool {
	switch word {
	case "public", "private", "protected", "readonly", "override":
		return true
	}
	return false
}

func (r *reader) parameter(at int, o *model.Occurrence) int {
	for r.byteAt(at) == '@' {
		at = r.after(r.decorator(at))
	}
	for isParameterModifier(r.word(at)) {
		next := r.after(r.nameEnd(at))
		if c := r.byteAt(next); !startsName(c) && c != '{' && c != '[' {
			break
		}
		r.put(model.TokenKeyword, r.word(at)+" ")
		at = next
	}
	p := model.Param{}
	if strings.HasPrefix(r.text[at:], "...") {
		p.Variadic, p.Optional, o.Variadic = true, true, true
		r.put(model.TokenPunctuation, "...")
		at = r.after(at + 3)
	}
	end := at
	if c := r.byteAt(at); c == '{' || c == '[' {
		r.sig = at - 1
		end = r.bracketed(at)
		p.Name = map[byte]string{'{': "{}", '[': "[]"}[c]
		r.patternNames(at, end, 0, func(property string, name source.Span) {
			if property == "" {
				property = name.In(r.text)
			}
			fields := append(p.Names(), property)
			p.Fields = &fields
		})
		r.patternTokens(at, end)
	} else {
		end = r.nameEnd(at)
		if end == at {
			return r.argument(at)
		}
		p.Name = r.text[at:end]
		p.Implied = p.Name == "this"
		r.put(model.TokenParameter, p.Name)
	}
	if p.Variadic {
		p.Name = "..." + p.Name
	}
	at = r.after(end)
	if r.byteAt(at) == '?' {
		p.Optional = true
		r.put(model.TokenPunctuation, "?")
		at = r.after(at + 1)
	}
	if r.byteAt(at) == ':' && r.typed {
		from := r.after(at + 1)
		r.put(model.TokenPunctuation, ": ")
		mark := r.arena.Mark()
		to := r.putType(from)
		p.Type = r.arena.Since(mark)
		at = r.after(to)
	}
	if r.byteAt(at) == '=' {
		from := r.after(at + 1)
		at = r.argument(at + 1)
		p.Optional = true
		r.put(model.TokenPunctuation, " = ")
		p.Default = source.NewSpan(from, max(from, r.back(at)))
		r.put(model.TokenLiteral, shortened(p.Default.In(r.text)))
	}
	o.Callable.Params = append(o.Callable.Params, p)
	return at
}

// shortened is a value on one line.
func shortened(s string) string {
	s = strings.Join(strings.Fields(s), " ")
	if len(s) <= longestValue {
		return s
	}
	cut := longestValue
	for cut > 0 && s[cut]&0xC0 == 0x80 {
		cut--
	}
	return s[:cut] + "…"
}

// patternTokens puts the pattern of a parameter.
func (r *reader) patternTokens(at, end int) {
	r.put(model.TokenPunctuation, shortened(r.text[at:end]))
}

// tells looks through a body for what it says to callers: what it returns,
// yields and throws. Functions within it say nothing of it.
func (r *reader) tells(c *model.Callable, f *function) {
	c.TypeGuard = f.resultTo > f.resultFrom && isPredicate(r.text[f.resultFrom:f.resultTo])
	if f.body.Empty() {
		return
	}
	c.ReadsArguments = r.readsArguments(f) || r.namesMore(f)
	c.Placeholder = r.facts.Language == "javascript" && r.isBare(f) // TypeScript holds callers to the list
	c.Returns = model.ReturnsNothing
	if f.generator {
		c.Returns = model.ReturnsSeries
	}
	body := f.body.In(r.text)
	if f.arrow && body[0] != '{' {
		if len(c.Results) == 0 {
			c.Returns = model.ReturnsResult
		}
		return
	}
	own := body[:firstInner(body)] // what stands behind a function within may be its statement
	for _, word := range []string{"return", "throw"} {
		for at := 0; ; {
			i := strings.Index(own[at:], word)
			if i < 0 {
				break
			}
			i += at
			at = i + len(word)
			if inNames[body[i-1]] || body[i-1] == '.' || at >= len(body) || inNames[body[at]] || !startsStatement(body, i) {
				continue
			}
			value := strings.TrimLeft(body[at:], " \t")
			switch {
			case word == "return":
				if value != "" && strings.IndexByte(";\n}\r", value[0]) < 0 && c.Returns == model.ReturnsNothing {
					c.Returns = model.ReturnsResult
				}
			case strings.HasPrefix(value, "new "):
				l := lexer{text: value}
				from := l.after(len("new "))
				to := l.nameEnd(from)
				for to+1 < len(value) && value[to] == '.' {
					to = l.nameEnd(to + 1)
				}
				if name := value[from:to]; name != "" && len(c.Fails()) < 20 {
					start := int(f.body.End) - len(value) + from
					c.Body().Failures = append(c.Fails(), model.Failure{Name: name, Span: source.NewSpan(start, start+len(name))})
				}
			}
		}
	}
}

// readsArguments reports whether a body names the object that has all arguments.
func (r *reader) readsArguments(f *function) bool {
	if f.arrow {
		return false
	}
	const word = "arguments"
	body := f.body.In(r.text)
	for at := 0; ; {
		i := strings.Index(body[at:], word)
		if i < 0 {
			return false
		}
		i += at
		at = i + len(word)
		if i > 0 && !inNames[body[i-1]] && (body[i-1] != '.' || strings.HasSuffix(body[:i], "...")) && (at == len(body) || !inNames[body[at]]) {
			return true
		}
	}
}

// namesMore reports whether the list of parameters has comments in it: they often name
// those that callers give and the body has no use for.
func (r *reader) namesMore(f *function) bool {
	if f.bare > 0 || r.byteAt(f.open) != '(' {
		return false
	}
	unclosed := r.unclosed
	end := r.bracketed(f.open)
	r.unclosed = unclosed
	return strings.Contains(r.text[f.open:end], "/*")
}

// isBare reports whether a body is there for others to fill: it is empty, or its only
// statement fails or returns one fixed value.
func (r *reader) isBare(f *function) bool {
	if f.body.Empty() || r.text[f.body.Start] != '{' {
		return false
	}
	end := int(f.body.End) - 1
	at := r.after(int(f.body.Start) + 1)
	switch {
	case at >= end:
		return true
	case r.wordAt(at, "throw"):
		at = r.after(at + len("throw"))
		if r.wordAt(at, "new") {
			at = r.after(at + len("new"))
		}
		if at = r.after(r.nameEnd(at)); r.byteAt(at) == '(' {
			at = r.bracketed(at)
		}
	case r.wordAt(at, "return"):
		at = r.after(at + len("return"))
		switch c := r.byteAt(at); {
		case c == '"' || c == '\'':
			at = r.quoted(at)
		case startsName(c):
			at = r.nameEnd(at)
		case c >= '0' && c <= '9':
			for at < end && (inNames[r.text[at]] || r.text[at] == '.') {
				at++
			}
		}
	default:
		return false
	}
	if at = r.after(at); r.byteAt(at) == ';' {
		at = r.after(at + 1)
	}
	return at >= end
}

// lineBefore is what stands before an offset on its line, as far as it matters.
func lineBefore(body string, i int) string {
	const most = 400
	from := max(0, i-most)
	return strings.TrimSpace(body[from+strings.LastIndexByte(body[from:i], '\n')+1 : i])
}

// startsStatement reports whether a word stands at the start of a statement, as far as the
// line before it says so.
func startsStatement(body string, i int) bool {
	before := lineBefore(body, i)
	if inCommentOrText(before) {
		return false
	}
	return before == "" || strings.IndexByte("){;:", before[len(before)-1]) >= 0 || strings.HasSuffix(before, "else")
}

// inCommentOrText reports whether what follows the beginning of a line is a comment or a
// text in quotes.
func inCommentOrText(before string) bool {
	if strings.HasPrefix(before, "*") || strings.HasPrefix(before, "/*") && !strings.Contains(before, "*/") {
		return true
	}
	if i := strings.Index(before, "//"); i == 0 || i > 0 && before[i-1] != ':' {
		return true
	}
	return strings.Count(before, "'")%2 == 1 || strings.Count(before, `"`)%2 == 1 || strings.Count(before, "`")%2 == 1
}

// firstInner is the offset of the first function within a body, or of the body's end: as
// far as lines tell, words in comments and texts are none.
func firstInner(body string) int {
	first := len(body)
	for _, word := range []string{"=>", "function"} {
		for at, tried := 0, 0; ; tried++ {
			i := strings.Index(body[at:first], word)
			if i < 0 {
				break
			}
			i += at
			at = i + len(word)
			named := word == "function" && (i > 0 && (inNames[body[i-1]] || body[i-1] == '.') || at < len(body) && inNames[body[at]])
			if !named && (tried > 50 || !inCommentOrText(lineBefore(body, i))) {
				first = i
				break
			}
		}
	}
	return first
}

// isPredicate reports whether a result type says what another value is: "berth is Quay",
// "asserts berth", "asserts this is Quay".
func isPredicate(typ string) bool {
	asserted, asserts := strings.CutPrefix(typ, "asserts ")
	name, _, is := strings.Cut(strings.TrimSpace(asserted), " is ")
	return (asserts || is) && name != "" && (&lexer{text: name}).nameEnd(0) == len(name)
}
