package python

import (
	"strings"

	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads parameter lists, type parameters (PEP 695) and the expressions in them.

// parameters reads a parameter list from its opening bracket and returns the
// offset behind the closing one.
func (r *reader) parameters(at int, o *model.Occurrence) int {
	if at >= len(r.text) || r.text[at] != '(' {
		r.problem(at, "expected a list of parameters")
		return at
	}
	opened := at
	r.put(model.TokenPunctuation, "(")
	at = r.blanks(at+1, true)
	for n := 0; at < len(r.text) && r.text[at] != ')' && !r.runsInto(at); n++ {
		if n > 0 {
			r.put(model.TokenPunctuation, ", ")
		}
		was := at
		at = r.parameter(at, o)
		if at < len(r.text) && r.text[at] == ',' {
			at = r.blanks(at+1, true)
			continue
		}
		if at = r.blanks(at, true); at < len(r.text) && r.text[at] == ')' || r.runsInto(at) {
			break
		}
		r.problem(max(at, was), "expected a comma or the end of the parameters")
		at = r.blanks(r.expression(at, ")"), true)
		break
	}
	r.put(model.TokenPunctuation, ")")
	if at >= len(r.text) || r.text[at] != ')' {
		r.problem(opened, "this bracket is not closed")
		return at
	}
	return at + 1
}

// parameter reads one parameter, with its annotation and default.
func (r *reader) parameter(at int, o *model.Occurrence) int {
	start := at
	for at < len(r.text) && r.text[at] == '*' {
		at++
	}
	stars := r.text[start:at]
	if stars != "" {
		r.put(model.TokenPunctuation, stars)
	} else if r.text[at] == '/' {
		r.put(model.TokenPunctuation, "/")
		return r.blanks(at+1, true)
	}
	name := r.blanks(at, true)
	end := r.nameEnd(name)
	p := model.Param{Name: r.text[name:end], Variadic: stars != "", Optional: stars != ""}
	switch {
	case end > name && name == at:
		p.Name = r.text[start:end]
	case end > name:
		p.Name = stars + p.Name
	case name < len(r.text) && r.text[name] == '(': // parameters could be tuples before Python 3
		end = r.expression(name, ",)=")
		p.Name = collapsed(r.text[name:end])
	case stars == "*": // all that follow are given by keyword
		return name
	default:
		r.problem(name, "expected the name of a parameter")
		return r.expression(name, ",)")
	}
	r.put(model.TokenParameter, r.text[name:end])
	at = r.blanks(end, true)
	typed := at < len(r.text) && r.text[at] == ':'
	if typed {
		from := r.blanks(at+1, true)
		at = r.expression(from, ",)=")
		r.put(model.TokenPunctuation, ": ")
		mark := r.arena.Mark()
		f, t := r.trimmed(from, at)
		r.typeTokens(f, t)
		p.Type = r.arena.Since(mark)
	}
	if at < len(r.text) && r.text[at] == '=' {
		from := r.blanks(at+1, true)
		at = r.expression(from, ",)")
		p.Optional = true
		sign := "="
		if typed {
			sign = " = "
		}
		r.put(model.TokenPunctuation, sign)
		f, t := r.trimmed(from, at)
		p.Default = source.NewSpan(f, max(f, t))
		r.valueToken(f, t)
	}
	o.Variadic = o.Variadic || p.Variadic
	o.Callable.Params = append(o.Callable.Params, p)
	return at
}

// typeParams reads "[T: Bound = Default, *Ts, **P]" and returns the offset behind it.
func (r *reader) typeParams(at int) ([]model.Param, int) {
	var params []model.Param
	r.put(model.TokenPunctuation, "[")
	at = r.blanks(at+1, true)
	for n := 0; at < len(r.text) && r.text[at] != ']'; n++ {
		if n > 0 {
			r.put(model.TokenPunctuation, ", ")
		}
		start := at
		for at < len(r.text) && r.text[at] == '*' {
			at++
		}
		if at > start {
			r.put(model.TokenPunctuation, r.text[start:at])
		}
		end := r.nameEnd(at)
		if end == at {
			r.problem(at, "expected the name of a type parameter")
			at = r.expression(at, "]")
			break
		}
		p := model.Param{Name: r.text[at:end]}
		r.put(model.TokenTypeParam, p.Name)
		at = r.blanks(end, true)
		for _, sign := range []struct {
			mark  byte
			shown string
		}{{':', ": "}, {'=', " = "}} {
			if at < len(r.text) && r.text[at] == sign.mark {
				from := r.blanks(at+1, true)
				at = r.expression(from, ",]=")
				r.put(model.TokenPunctuation, sign.shown)
				mark := r.arena.Mark()
				f, t := r.trimmed(from, at)
				r.typeTokens(f, t)
				p.Type = r.arena.Since(mark)
			}
		}
		params = append(params, p)
		if at >= len(r.text) || r.text[at] != ',' {
			break
		}
		at = r.blanks(at+1, true)
	}
	r.put(model.TokenPunctuation, "]")
	if at < len(r.text) && r.text[at] == ']' {
		return params, at + 1
	}
	return params, at
}

// expression is the offset of the first of some marks behind an expression that
// begins at an offset inside brackets, or of the ":" that ends a head.
func (r *reader) expression(at int, stops string) int {
	text, depth, lambdas := r.text, 0, 0
	head := stops == ":"
	for at < len(text) {
		c := text[at]
		if depth == 0 && strings.IndexByte(stops, c) >= 0 && !r.partOfSign(at) && (lambdas == 0 || c == ')' || c == ']') {
			return at
		}
		switch bytesOfStatements[c] {
		case lineEnd:
			if head && depth == 0 || r.definitionAt(at+1) {
				return at
			}
		case comment:
			at = r.endOfLine(at)
			continue
		case quote:
			at = r.string(at)
			continue
		case opening:
			depth++
		case closing:
			if depth == 0 {
				return at
			}
			depth--
		case backslash:
			at, _ = r.continued(at)
			continue
		case colon:
			if depth == 0 && lambdas > 0 {
				lambdas--
			}
		case letterL:
			if depth == 0 && r.wordAt(at, "lambda") && !inNames[text[at-1]] {
				lambdas++
				at += len("lambda")
				continue
			}
		}
		at++
	}
	return at
}

// partOfSign reports whether "=" or ":" belongs to a longer sign such as "==" or ":=".
func (r *reader) partOfSign(at int) bool {
	next := at+1 < len(r.text) && r.text[at+1] == '='
	switch r.text[at] {
	case '=':
		return next || at > 0 && strings.IndexByte("=<>!:", r.text[at-1]) >= 0
	case ':':
		return next
	}
	return false
}
