package lexing

import (
	"maps"
	"slices"
	"sort"
	"strings"

	"codrel/internal/source"
)

// Branches are the pieces of a text that a preprocessor takes along under conditions.
type Branches struct {
	pieces []conditional // in the order of where they begin
	off    []source.Span // those that are not read, in order and without overlap
}

// conditional is a piece of a text that is there under a condition.
type conditional struct {
	span  source.Span
	when  string
	outer int // the one around it, or -1
}

// mostConditions is how many conditions around one another are told, the innermost ones.
const mostConditions = 16

// At are the conditions of what stands at an offset, the outermost first.
func (b *Branches) At(offset int32) (conditions []string) {
	i := sort.Search(len(b.pieces), func(i int) bool { return b.pieces[i].span.Start > offset }) - 1
	for ; i >= 0 && len(conditions) < mostConditions; i = b.pieces[i].outer {
		if p := &b.pieces[i]; p.span.End > offset {
			conditions = append(conditions, p.when)
		}
	}
	slices.Reverse(conditions)
	return conditions
}

// Off reports whether what stands at an offset is in a branch that is not read.
func (b *Branches) Off(offset int32) bool {
	i := sort.Search(len(b.off), func(i int) bool { return b.off[i].End > offset })
	return i < len(b.off) && b.off[i].Start <= offset
}

// nest finds what each piece stands in.
func (b *Branches) nest() {
	sort.SliceStable(b.pieces, func(i, j int) bool { return b.pieces[i].span.Start < b.pieces[j].span.Start })
	sort.Slice(b.off, func(i, j int) bool { return b.off[i].Start < b.off[j].Start })
	n := 0
	for _, span := range b.off { // one may stand in another
		if n > 0 && span.Start < b.off[n-1].End {
			b.off[n-1].End = max(b.off[n-1].End, span.End)
			continue
		}
		b.off[n] = span
		n++
	}
	b.off = b.off[:n]
	around := -1
	for i := range b.pieces {
		for around >= 0 && b.pieces[around].span.End <= b.pieces[i].span.Start {
			around = b.pieces[around].outer
		}
		b.pieces[i].outer, around = around, i
	}
}

// group is what stands between "#if" and "#endif".
type group struct {
	branches []branch
	plain    bool // what stands before it is complete: declarations may follow
}

// branch is one of the texts of a group. Depths count brackets from its beginning.
type branch struct {
	when     string
	from, to int // tokens
	span     source.Span
	depth    int // at its end
	least    int
	last     int  // index of its last token, or -1
	rather   bool // it has the word that makes it preferred
}

// settling decides which branches are read.
type settling struct {
	*Stream
	text    string
	open    []group
	dropped []int // how many ranges of dropped tokens begin at an index, less those that end; nil where none are
	assumed map[string]bool
	lists   int                    // how many brackets of lists are open
	ends    func(word string) bool // see [Shape]
	rather  string                 // the word of branches that are preferred
	out     Branches
}

// Settle makes one text of a text with branches: lines to the preprocessor are no tokens
// any more. Where each branch of a group is whole, with brackets that close and complete
// declarations, all are read. Else a group has but one that is: two heads of a type share its
// body. That is the first, or the first that has a word, such as "public", and it stays the same
// for the same condition.
// What the shape assumes of conditions is so from the beginning.
func (s *Stream) Settle(text string, shape *Shape) Branches {
	if len(s.Lines) == 0 {
		return Branches{}
	}
	d := settling{Stream: s, text: text, rather: shape.Rather, ends: shape.Ends, assumed: maps.Clone(shape.Assume)}
	if d.assumed == nil {
		d.assumed = map[string]bool{}
	}
	at := 0
	for i := range s.Lines {
		line := &s.Lines[i]
		d.tokens(at, int(line.Next))
		d.directive(line)
		at = int(line.Next)
	}
	d.tokens(at, len(s.Tokens))
	for len(d.open) > 0 { // never closed
		d.end(len(s.Tokens), int32(len(text)))
	}
	d.out.nest()
	d.pairAnew()
	return d.out
}

// tokens takes the tokens between two lines: what they do to the brackets of lists that are open,
// and to the branch that they stand in.
func (d *settling) tokens(from, to int) {
	if from == to {
		return
	}
	var b *branch
	if len(d.open) > 0 {
		g := &d.open[len(d.open)-1]
		b = &g.branches[len(g.branches)-1]
		b.last = to - 1
	}
	lists, depth, least := d.lists, 0, 0
	for i := range d.Tokens[from:to] {
		switch d.Tokens[from+i].Sign {
		case '(':
			lists++
			depth++
		case ')':
			lists = max(0, lists-1)
			depth--
		case '{':
			lists = 0
			depth++
		case '}':
			lists = 0
			depth--
		case '[':
			depth++
		case ']':
			depth--
		}
		least = min(least, depth)
	}
	if d.lists = lists; b == nil {
		return
	}
	b.least = min(b.least, b.depth+least)
	b.depth += depth
	if d.rather != "" && !b.rather {
		for i := range d.Tokens[from:to] {
			t := &d.Tokens[from+i]
			b.rather = b.rather || t.Kind == Word && d.text[t.From:t.To] == d.rather
		}
	}
}

// directive takes a line to the preprocessor.
func (d *settling) directive(t *Line) {
	i := int(t.Next)
	line := strings.TrimLeft(d.text[t.From+1:t.To], " \t")
	end := 0
	for end < len(line) && isLower(line[end]) {
		end++
	}
	word, rest := line[:end], line[end:]
	switch word {
	case "if", "ifdef", "ifndef", "elif", "else", "endif":
	default:
		return
	}
	switch rest = conditionIn(rest); word {
	case "if", "ifdef", "ifndef":
		if word == "ifndef" {
			rest = negated(rest)
		}
		last := i - 1
		d.open = append(d.open, group{plain: last < 0 || d.lists == 0 && d.endsWhole(last)})
		d.begin(rest, i, t.To)
	case "elif", "else":
		if len(d.open) == 0 {
			return
		}
		g := &d.open[len(d.open)-1]
		d.finish(g, i, t.From)
		if word == "else" {
			rest = ""
			for i := range g.branches {
				if i == mostNegated {
					break
				}
				if i > 0 {
					rest += " && "
				}
				rest += negated(g.branches[i].when)
			}
		}
		d.begin(rest, i, t.To)
	case "endif":
		if len(d.open) > 0 {
			d.end(i, t.From)
		}
	}
}

// conditionIn is what a line to the preprocessor says behind its word, without comments and with
// single blanks.
func conditionIn(rest string) string {
	if i := strings.Index(rest, "//"); i >= 0 {
		rest = rest[:i]
	}
	if !strings.Contains(rest, "/*") {
		return strings.Join(strings.Fields(rest), " ")
	}
	var without strings.Builder
	for more := true; more; {
		var before string
		before, rest, more = strings.Cut(rest, "/*")
		without.WriteString(before + " ")
		_, rest, _ = strings.Cut(rest, "*/")
	}
	return strings.Join(strings.Fields(without.String()), " ")
}

// mostNegated is how many conditions that do not hold are said of what stands behind "else".
const mostNegated = 4

func isLower(c byte) bool { return c >= 'a' && c <= 'z' }

// negated is the condition that holds where another one does not.
func negated(when string) string {
	inner, not := strings.CutPrefix(when, "!")
	if not && !strings.ContainsAny(inner, " &|") {
		return inner
	}
	if strings.ContainsAny(when, " &|") {
		return "!(" + when + ")"
	}
	return "!" + when
}

// begin begins a branch with the token at an index, behind a line that ends at an offset.
func (d *settling) begin(when string, i int, at int32) {
	g := &d.open[len(d.open)-1]
	g.branches = append(g.branches, branch{when: when, from: i, last: -1, span: source.Span{Start: at, End: at}})
}

func (d *settling) finish(g *group, i int, at int32) {
	b := &g.branches[len(g.branches)-1]
	b.to, b.span.End = i, at
}

// endsWhole reports whether a declaration, a list or a mark on what follows may end with a
// token.
func (d *settling) endsWhole(i int) bool {
	t := &d.Tokens[i]
	if t.Kind == Word && d.ends != nil {
		return d.ends(d.text[t.From:t.To])
	}
	return t.Kind == Mark && strings.IndexByte(";{}],", d.text[t.From]) >= 0
}

func isBracket(sign byte) bool {
	switch sign {
	case '(', '[', '{', ')', ']', '}':
		return true
	}
	return false
}

// end closes the innermost group.
func (d *settling) end(i int, at int32) {
	n := len(d.open) - 1
	g := &d.open[n]
	d.finish(g, i, at)
	d.open = d.open[:n]
	whole := g.plain || len(g.branches) == 1
	for k := range g.branches {
		b := &g.branches[k]
		whole = whole && b.depth == 0 && b.least == 0 && (b.last < 0 || len(g.branches) == 1 || d.endsWhole(b.last))
	}
	empty := true // nothing but lines to the preprocessor
	for k := range g.branches {
		empty = empty && g.branches[k].last < 0
	}
	last, depth, least := -1, 0, 0
	if whole || empty {
		for k := range g.branches {
			b := &g.branches[k]
			if b.when != "" {
				d.out.pieces = append(d.out.pieces, conditional{span: b.span, when: b.when})
			}
			last = max(last, b.last)
		}
	} else {
		kept := d.choose(g)
		for k := range g.branches {
			if b := &g.branches[k]; k == kept {
				last, depth, least = b.last, b.depth, b.least
			} else {
				if d.dropped == nil {
					d.dropped = make([]int, len(d.Tokens)+1)
				}
				d.dropped[b.from]++
				d.dropped[b.to]--
				d.out.off = append(d.out.off, b.span)
			}
		}
	}
	if n > 0 {
		outer := &d.open[n-1]
		b := &outer.branches[len(outer.branches)-1]
		b.least = min(b.least, b.depth+least)
		b.depth += depth
		b.last = max(b.last, last)
	}
}

// choose is the index of the branch of a group that is read where only one can be, or -1.
func (d *settling) choose(g *group) int {
	if k := slices.IndexFunc(g.branches, func(b branch) bool { return b.rather }); k > 0 && !g.branches[0].rather {
		if first := g.branches[0].when; !d.said(first) {
			d.assumed[first] = false
		}
	}
	for k := range g.branches {
		b := &g.branches[k]
		if b.when == "" {
			return k
		}
		holds, known := d.assumed[b.when]
		if other, said := d.assumed[negated(b.when)]; !known && said {
			holds, known = !other, true
		}
		if !known {
			d.assumed[b.when] = true
			holds = true
		}
		if holds {
			return k
		}
	}
	return -1
}

// said reports whether it is known by now whether a condition holds.
func (d *settling) said(when string) bool {
	_, known := d.assumed[when]
	_, other := d.assumed[negated(when)]
	return known || other
}

// pairAnew leaves the tokens that are read, and finds the partners of their brackets.
func (d *settling) pairAnew() {
	if d.dropped == nil {
		return
	}
	s, all, dropped := d.Stream, d.Tokens, 0
	s.Tokens, s.open, s.odd, s.last, s.floor = s.Tokens[:0], s.open[:0], false, [256]int32{}, 0
	lines := s.Lines
	for i, t := range all {
		for len(lines) > 0 && int(lines[0].Next) <= i {
			lines[0].Next = int32(len(s.Tokens))
			lines = lines[1:]
		}
		dropped += d.dropped[i]
		if dropped > 0 {
			continue
		}
		if isBracket(t.Sign) {
			s.Bracket(d.text, int(t.From))
			s.Tokens[len(s.Tokens)-1].Newline = t.Newline
			continue
		}
		t.Partner = -1
		s.Tokens = append(s.Tokens, t)
	}
	for i := range lines {
		lines[i].Next = int32(len(s.Tokens))
	}
}
