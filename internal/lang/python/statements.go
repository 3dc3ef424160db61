package python

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads the statements of modules and classes.

// module reads the whole file.
func (r *reader) module() {
	r.blocks = append(r.blocks, block{indent: -1, parent: -1, kind: model.KindModule})
	first := true
	for {
		column, ok := r.next()
		if !ok {
			r.leave(-1)
			return
		}
		if first {
			first = false
			r.facts.ModuleSpan = source.NewSpan(0, 0)
			if word := r.text[r.at:r.nameEnd(r.at)]; word == "import" || word == "from" || word == "" && r.text[r.at] != '@' {
				r.facts.Directives = r.directives()
			}
			if doc, end, ok := r.docstring(r.at); ok {
				r.facts.ModuleDoc = doc
				r.at, r.last = r.logicalEnd(end), end
				continue
			}
		}
		r.leave(column)
		r.statement(column)
	}
}

// leave ends the blocks that a line at this column is no part of.
func (r *reader) leave(column int) {
	for len(r.blocks) > 1 && r.blocks[len(r.blocks)-1].indent >= column {
		if b := r.inner(); b.opens {
			span := &r.facts.Occurrences[b.parent].Span
			span.End = max(span.End, int32(r.last))
		}
		r.assigned = nil
		r.blocks = r.blocks[:len(r.blocks)-1]
	}
}

func (r *reader) inner() *block { return &r.blocks[len(r.blocks)-1] }

// statement reads the logical line at r.at and goes behind it.
func (r *reader) statement(column int) {
	at := r.at
	word := r.text[at:r.nameEnd(at)]
	if r.text[at] != '@' && word != "def" && word != "class" && word != "async" {
		r.decorators = r.decorators[:0]
	}
	switch word {
	case "def":
		r.definition(column, at, at)
		return
	case "class":
		r.class(column, at)
		return
	case "async":
		if after := r.blanks(at+len(word), false); r.wordAt(after, "def") {
			r.definition(column, at, after)
			return
		}
		r.compound(column, "")
		return
	case "if", "elif", "else":
		r.compound(column, word)
		return
	case "try", "except", "finally", "with", "for", "while":
		r.compound(column, "")
		return
	case "match", "case":
		if s := r.peek(at); s.colon >= 0 && len(s.equals) == 0 && r.blanks(s.colon+1, false) >= s.stop {
			r.compound(column, "")
			return
		}
	}
	if r.text[at] == '@' {
		r.decorator(at)
		return
	}
	r.simple(at)
}

// peek scans a statement without complaints, since it is scanned again.
func (r *reader) peek(at int) statement {
	was := r.troubled
	r.troubled = true
	problems := r.facts.Problems
	s := r.scan(at, false)
	r.facts.Problems = problems
	r.troubled = was
	return s
}

func (r *reader) decorator(at int) {
	s := r.scan(at, false)
	if len(r.decorators) == 0 {
		r.decorated = at
	}
	from, to := r.trimmed(at+1, s.stop)
	r.decorators = append(r.decorators, source.NewSpan(from, to))
	r.at = s.end
}

// compound reads the header of a statement whose body declares in the same scope.
func (r *reader) compound(column int, word string) {
	r.assigned = nil
	s := r.scan(r.at, true)
	outer := r.inner()
	inner := block{indent: column, scope: outer.scope, parent: outer.parent, kind: outer.kind}
	if s.colon < 0 { // broken, or no compound statement after all
		r.at = s.end
		return
	}
	from, to := r.trimmed(r.at+len(word), s.colon)
	switch word {
	case "if":
		inner.condition = r.text[from:to]
		outer.branch, outer.branched = inner.condition, column
	case "elif":
		inner.condition = r.text[from:to]
		if outer.branched == column && len(outer.branch) < 200 {
			outer.branch += " or " + inner.condition
		}
	case "else":
		if outer.branch != "" && outer.branched == column {
			inner.condition = "not (" + outer.branch + ")"
		}
	default:
		outer.branch = ""
	}
	inner.apart = strings.HasPrefix(inner.condition, "__name__") || strings.HasSuffix(inner.condition, "TYPE_CHECKING")
	if strings.HasPrefix(inner.condition, "__name__") {
		inner.condition = ""
	}
	r.blocks = append(r.blocks, inner)
	r.suite(s.end)
}

// suite goes behind a header: to the statements on its own line, or to the next line.
func (r *reader) suite(at int) {
	at = r.blanks(at, false)
	if at >= len(r.text) || r.text[at] == '\n' || r.text[at] == '#' {
		r.at = min(r.endOfLine(at)+1, len(r.text))
		return
	}
	r.simple(at)
}

// simple reads the simple statements of one logical line.
func (r *reader) simple(at int) {
	for {
		at = r.blanks(at, false)
		if at >= len(r.text) {
			r.at = len(r.text)
			return
		}
		s := r.scan(at, false)
		_, r.last = r.trimmed(at, s.stop)
		r.small(at, s)
		if !s.more {
			r.at = s.end
			return
		}
		at = s.end
		if end := r.blanks(at, false); end >= len(r.text) || r.text[end] == '\n' || r.text[end] == '#' {
			r.at = min(r.endOfLine(end)+1, len(r.text))
			return
		}
	}
}

// small reads one simple statement.
func (r *reader) small(at int, s statement) {
	before := r.assigned
	r.assigned = nil
	word := r.text[at:r.nameEnd(at)]
	switch word {
	case "import", "from":
		r.importing(word, at, s.stop)
		return
	case "del":
		if len(s.equals) == 0 {
			r.remove(at+len(word), s.stop)
			return
		}
	case "pass", "return", "raise", "assert", "global", "nonlocal", "break", "continue", "exec", "print", "yield", "await":
		if len(s.equals) == 0 || word != "exec" && word != "print" {
			return
		}
	case "type":
		if r.typeAlias(at, s) {
			return
		}
	}
	if len(s.equals) > 0 || s.colon >= 0 {
		r.assignment(at, s)
		return
	}
	if strings.HasPrefix(r.text[at:], "__all__") && (s.augmented || word == "__all__") {
		r.list(at+len("__all__"), s.stop)
		return
	}
	r.called(at, s)
	if len(before) > 0 {
		if doc, _, ok := r.docstring(at); ok && doc != nil {
			for _, i := range before {
				if o := &r.facts.Occurrences[i]; o.Doc == nil {
					o.Doc = doc
					o.Deprecated = o.Deprecated || deprecates(doc.Text)
				}
			}
		}
	}
}

// add keeps an occurrence of the innermost block and returns its index.
func (r *reader) add(o model.Occurrence) int32 {
	b := r.inner()
	o.Scope, o.Parent = b.scope, b.parent
	o.Name = o.NameSpan.In(r.text)
	o.Line = r.line(int(o.NameSpan.Start))
	if o.Visibility == model.Public && strings.HasPrefix(o.Name, "_") && !(b.kind != model.KindModule && o.Callable != nil && special(o.Name)) {
		o.Visibility = model.Private
	}
	if o.Doc != nil {
		o.Deprecated = o.Deprecated || deprecates(o.Doc.Text)
	}
	if conditions := r.conditions(); len(conditions) > 0 {
		if o.Extra == nil {
			o.Extra = &model.Extra{}
		}
		o.Extra.Conditions = conditions
	}
	r.facts.Occurrences = append(r.facts.Occurrences, o)
	return int32(len(r.facts.Occurrences) - 1)
}

// special reports whether a method's name is one that the language gives a
// meaning ("Special method names"): such methods are used through it.
func special(name string) bool {
	return len(name) > 4 && strings.HasPrefix(name, "__") && strings.HasSuffix(name, "__")
}

// conditions are those of the blocks around, up to the class or module.
func (r *reader) conditions() []string {
	var out []string
	for i := range r.blocks {
		if c := r.blocks[i].condition; c != "" {
			out = append(out, c)
		}
		if i+1 < len(r.blocks) && r.blocks[i+1].parent != r.blocks[i].parent {
			out = out[:0]
		}
	}
	return out
}

// directives are the words to Codrel among the comments above the statement.
func (r *reader) directives() []model.Directive {
	var out []model.Directive
	for _, span := range r.above {
		out = r.directive(out, span)
	}
	return out
}

func (r *reader) directive(out []model.Directive, span source.Span) []model.Directive {
	body := source.Span{Start: span.Start + 1, End: span.End}
	if d, ok := lexing.ParseDirective(strings.TrimSpace(body.In(r.text)), body); ok {
		return append(out, d)
	}
	return out
}

// extra is what an occurrence has of these, or nil.
func extra(typeParams []model.Param, bases []model.Base, directives []model.Directive) *model.Extra {
	return model.NewExtra(typeParams, bases, directives)
}
