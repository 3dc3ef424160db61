package perl

import (
	"slices"
	"sort"
	"strings"

	"codrel/internal/finding"
	"codrel/internal/lexing"
	"codrel/internal/source"
)

// This file finds what of the documentation speaks of which declaration: a heading or an entry of a list
// that names one, wherever it stands, with what follows it. The rest is the module's.

// paragraph is one of the documentation.
type paragraph struct {
	lines   []source.Span
	command string // "" for text
	level   int    // of a heading
	rest    string // of a command, what stands behind its word
	of      int    // behind the subject that it speaks of, or 0
	gone    bool   // nothing of it is left to show
}

func (p *paragraph) span() source.Span {
	return source.Span{Start: p.lines[0].Start, End: p.lines[len(p.lines)-1].End}
}

// subject is what a heading or several entries name.
type subject struct {
	names []int // of occurrences
	span  source.Span
	first int // the paragraph that names them
	under int // behind the heading above, once it was looked for
	into  int // behind the subject of the same name whose text goes on here, or 0
}

// document attaches the documentation.
func (r *reader) document() {
	paragraphs := r.paragraphs()
	r.mistakes(paragraphs)
	byName := map[string][]int{}
	for i := range r.facts.Occurrences {
		name := r.facts.Occurrences[i].Name
		byName[name] = append(byName[name], i)
	}
	subjects := r.assign(paragraphs, byName)
	r.settle(paragraphs, subjects)
	for n := range subjects {
		var lines []source.Span
		for i := range paragraphs {
			if p := &paragraphs[i]; p.of == n+1 && !p.gone {
				lines = appendParagraph(lines, p)
			}
		}
		doc := lexing.MakeDoc(r.Text, lines, subjects[n].span)
		if doc == nil { // the heading is all there is
			continue
		}
		for _, at := range subjects[n].names {
			if o := &r.facts.Occurrences[at]; o.Doc == nil {
				o.Doc, o.Deprecated = doc, strings.HasPrefix(doc.Text, "DEPRECATED") || strings.HasPrefix(doc.Text, "Deprecated:") || strings.HasPrefix(doc.Text, "B<DEPRECATED")
			}
		}
	}
	r.share(paragraphs, byName)
	r.group(paragraphs, subjects)
	r.tidy(paragraphs)
	var lines []source.Span
	for i := range paragraphs {
		if p := &paragraphs[i]; p.of == 0 && !p.gone {
			lines = appendParagraph(lines, p)
		}
	}
	if len(lines) > 0 {
		r.facts.ModuleDoc = lexing.MakeDoc(r.Text, lines, source.Span{Start: lines[0].Start, End: lines[len(lines)-1].End})
	}
}

// appendParagraph puts a paragraph behind others, with an empty line between.
func appendParagraph(lines []source.Span, p *paragraph) []source.Span {
	if n := len(lines); n > 0 {
		lines = append(lines, source.Span{Start: lines[n-1].End, End: lines[n-1].End})
	}
	return append(lines, p.lines...)
}

// paragraphs are those of all blocks of documentation.
func (r *reader) paragraphs() (out []paragraph) {
	for _, block := range r.pods {
		var p paragraph
		flush := func() {
			if len(p.lines) > 0 {
				out = append(out, p)
			}
			p = paragraph{}
		}
		for at := int(block.Start); at < int(block.End); {
			end := min(lexing.EndOfLine(r.Text, at), int(block.End))
			span := source.NewSpan(at, at+len(strings.TrimRight(r.Text[at:end], "\r")))
			line := span.In(r.Text)
			at = end + 1
			if strings.TrimSpace(line) == "" {
				flush()
				continue
			}
			if len(line) > 1 && line[0] == '=' && isLetter(line[1]) && (len(p.lines) == 0 || commands[commandOf(line)]) { // else text, such as "=E<gt>"
				flush()
				p.command, p.rest, _ = strings.Cut(line[1:], " ")
				if word, tail, ok := strings.Cut(p.command, "\t"); ok {
					p.command, p.rest = word, tail
				}
				p.rest = strings.TrimSpace(p.rest)
				if strings.HasPrefix(p.command, "head") && len(p.command) == 5 {
					p.level = int(p.command[4] - '0')
				}
			} else if p.command != "" && len(p.lines) == 1 && p.command != "item" && p.command != "for" && p.command != "begin" {
				flush() // a command ends with its line, as was meant
			}
			p.lines = append(p.lines, span)
		}
		flush()
	}
	return out
}

// commandOf is the word of a command.
func commandOf(line string) string {
	if i := strings.IndexAny(line, " \t"); i > 0 {
		return line[1:i]
	}
	return line[1:]
}

// assign finds for each paragraph which subject it speaks of.
func (r *reader) assign(paragraphs []paragraph, byName map[string][]int) (subjects []subject) {
	now, level, list, depth := 0, 0, 0, 0 // the subject, its heading's level or its list's depth
	heading := 0                          // behind the index of the last heading that names something
	entry := false                        // the paragraph before was an entry that names something
	begin := func(i int, names []int) {
		p := &paragraphs[i]
		subjects = append(subjects, subject{names: names, span: p.span(), first: i})
		now = len(subjects)
		p.of, p.gone = now, true
	}
	r.about = ""
	said, under := "", 0 // the package under NAME, and the level of a heading that names another one for what is below it
	for i := range paragraphs {
		p := &paragraphs[i]
		if p.command == "" && i > 0 && paragraphs[i-1].level > 0 && strings.EqualFold(paragraphs[i-1].rest, "name") {
			r.namesPackage(p)
			said = r.about
		}
		if p.level > 0 {
			if under > 0 && p.level <= under {
				r.about, under = said, 0
			}
			if pkg := r.packageNamed(p.rest); pkg != "" {
				r.about, under = pkg, p.level
			}
		}
		was := entry
		entry = false
		switch {
		case p.level > 0:
			if now > 0 && (list > 0 || p.level <= level) {
				now, list = 0, 0
			}
			names := r.named(p.rest, byName, p.lines[0].Start)
			switch {
			case len(names) == 0 || now > 0 && p.level > level && overlaps(names, subjects[now-1].names):
			case heading > 0 && i == heading && p.level == level: // several headings have one text
				now = len(subjects)
				s := &subjects[now-1]
				s.names, p.of, p.gone, heading = append(s.names, names...), now, true, i+1
				continue
			default:
				begin(i, names)
				level, list, heading = p.level, 0, i+1
				continue
			}
		case p.command == "over":
			depth++
		case p.command == "item":
			if now > 0 && list == 0 {
				break // it describes what the heading names
			}
			if now > 0 && list < depth {
				break // an entry of a list in what is said
			}
			if names := r.named(p.rest, byName, p.lines[0].Start); len(names) > 0 {
				if was && now > 0 { // several entries have one text
					s := &subjects[now-1]
					s.names, p.of, p.gone = append(s.names, names...), now, true
				} else {
					begin(i, names)
				}
				level, list, entry = 0, depth, true
				if len(p.lines) > 1 { // its text follows at once
					p.lines, p.gone, entry = p.lines[1:], false, false
				}
				continue
			}
			now, list = 0, 0
		case p.command == "back":
			depth = max(0, depth-1)
			if list > depth {
				now, list = 0, 0
			}
		case p.command == "cut", p.command == "pod", p.command == "encoding":
			p.gone = true
		}
		if p.of = now; now > 0 {
			subjects[now-1].span.End = max(subjects[now-1].span.End, p.span().End)
		}
	}
	return subjects
}

func overlaps(a, b []int) bool {
	for _, x := range a {
		for _, y := range b {
			if x == y {
				return true
			}
		}
	}
	return false
}

// tidy takes away what has nothing left to stand over: headings and lists whose entries went to what
// they speak of.
func (r *reader) tidy(paragraphs []paragraph) {
	var open []int // lists without an entry so far that is the module's
	for i := range paragraphs {
		p := &paragraphs[i]
		switch {
		case p.of != 0:
		case p.command == "over":
			open = append(open, i)
		case p.command == "back" && len(open) > 0:
			first := open[len(open)-1]
			open = open[:len(open)-1]
			empty, moved := true, false
			for k := first + 1; k < i; k++ {
				empty = empty && (paragraphs[k].of != 0 || paragraphs[k].gone)
				moved = moved || paragraphs[k].of != 0
			}
			if empty && moved {
				paragraphs[first].gone, p.gone = true, true
			}
		}
	}
	low, moved := 7, false // the level of the heading behind, as far as nothing stands between; whether something went away there
	for i := len(paragraphs) - 1; i >= 0; i-- {
		p := &paragraphs[i]
		switch {
		case p.of != 0:
			moved = true
		case p.gone:
		case p.level > 0:
			if moved && low != 0 && (low == 7 || low <= p.level) {
				p.gone = true
				r.emptied(p)
				continue
			}
			low, moved = p.level, false
		default:
			low, moved = 0, false
		}
	}
}

// named are the declarations that a heading or an entry names: by a name alone, by a call with arguments
// or by several of these.
func (r *reader) named(text string, byName map[string][]int, at int32) (out []int) {
	if text == "" || len(text) > longestHeading {
		return nil
	}
	text = withoutCodes(strings.TrimSpace(strings.TrimLeft(text, "*0123456789. ")))
	for n, part := range parts(text) {
		if n > 0 && part == strings.ToUpper(part) && len(byName[part]) == 0 { // an argument
			continue
		}
		name, ok := nameIn(part)
		if !ok {
			return nil
		}
		found := r.nearest(byName[name], at)
		if found < 0 {
			return nil
		}
		out = append(out, found)
	}
	return out
}

// namesPackage notes which package the documentation is about, by the paragraph under NAME.
func (r *reader) namesPackage(p *paragraph) {
	name := withoutCodes(firstWord(p.lines[0].In(r.Text)))
	if slices.Contains(r.packages, name) {
		r.about = name
	}
}

// packageNamed is the one package of the file, of a name in parts, that a heading names, or "".
func (r *reader) packageNamed(heading string) (found string) {
	if len(r.packages) < 2 || len(heading) > longestHeading || !strings.Contains(heading, "::") {
		return ""
	}
	for word := range strings.FieldsSeq(withoutCodes(heading)) {
		word = strings.TrimRight(word, ":;,.")
		if !strings.Contains(word, "::") || !slices.Contains(r.packages, word) {
			continue
		}
		if found != "" && found != word {
			return ""
		}
		found = word
	}
	return found
}

// longestHeading is how many bytes a heading has that names something.
const longestHeading = 300

// mostNamesakes is how many declarations of one name are looked through.
const mostNamesakes = 64

// nearest is, of several declarations of a name, the one in the package that the documentation is about:
// that which it names under NAME, that of the last declaration before it, else the file's own.
func (r *reader) nearest(list []int, at int32) int {
	if len(list) == 0 {
		return -1
	}
	list = list[:min(len(list), mostNamesakes)]
	best := list[0]
	for _, i := range list {
		o := &r.facts.Occurrences[i]
		if o.Doc == nil && o.In() == "" && r.facts.Occurrences[best].In() != "" {
			best = i
		}
	}
	if len(list) < 2 {
		return best
	}
	pkg := ""
	n := sort.Search(len(r.facts.Occurrences), func(i int) bool { return r.facts.Occurrences[i].NameSpan.Start >= at })
	switch {
	case r.about != "": // said under NAME
		if pkg = r.about; pkg == r.main {
			pkg = ""
		}
	case n > 0 && n < len(r.facts.Occurrences): // what stands behind all of the code is about the file's own
		pkg = r.facts.Occurrences[n-1].In()
	}
	for _, i := range list {
		if r.facts.Occurrences[i].In() == pkg {
			return i
		}
	}
	return best
}

// parts are the names in a row: "one, two", "one / two", "one and two", "one or two".
func parts(text string) (out []string) {
	depth, from := 0, 0
	put := func(to int) {
		if part := strings.TrimSpace(text[from:to]); part != "" {
			out = append(out, part)
		}
	}
	for i := 0; i < len(text); i++ {
		switch c := text[i]; {
		case c == '(' || c == '[' || c == '{':
			depth++
		case c == ')' || c == ']' || c == '}':
			depth--
		case depth > 0:
		case c == ',' || c == ';' && i+1 < len(text):
			rest := strings.TrimSpace(text[i+1:])
			if rest == "" || !isLetter(rest[0]) && rest[0] != '_' && rest[0] != '&' && !(rest[0] == '$' && strings.Contains(rest, "->")) {
				continue // an argument
			}
			put(i)
			from = i + 1
		case c == ' ' && (strings.HasPrefix(text[i:], " / ") || strings.HasPrefix(text[i:], " and ") || strings.HasPrefix(text[i:], " or ") || strings.HasPrefix(text[i:], " | ")):
			put(i)
			from = i + strings.IndexByte(text[i+1:], ' ') + 1
			i = from
		}
	}
	put(len(text))
	return out
}

// nameIn is the name of what a heading speaks of: what is called in it, or what it is alone.
func nameIn(text string) (string, bool) {
	if i := strings.Index(text, "="); i > 0 && !strings.HasPrefix(text[i:], "=>") && !strings.HasPrefix(text[i:], "==") && strings.Trim(text[:i], " $@%&(),_abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789{}->|:*") == "" && strings.ContainsAny(text[:i], "$@%") {
		text = strings.TrimSpace(strings.TrimLeft(text[i+1:], "> ")) // what it gives is assigned
	}
	if i := strings.LastIndex(headOf(text), "->"); i >= 0 {
		text = text[i+2:]
	}
	text = strings.TrimPrefix(text, "&")
	for _, word := range []string{"new ", "sub ", "method ", "function "} {
		if rest, ok := strings.CutPrefix(text, word); ok && rest != "" && isLetter(rest[0]) && !strings.Contains(rest, " ") {
			if word == "new " {
				text = "new"
			} else {
				text = rest
			}
		}
	}
	end := 0
	if end < len(text) && strings.IndexByte("$@%", text[0]) >= 0 {
		end++
	}
	for end < len(text) && (wordBytes[text[end]] || strings.HasPrefix(text[end:], "::") || text[end] == ':' && end > 0 && text[end-1] == ':') {
		end++
	}
	name, rest := text[:end], strings.TrimSpace(text[end:])
	if i := strings.LastIndex(name, "::"); i >= 0 {
		if strings.IndexByte("$@%", firstOf(name)) >= 0 {
			name = name[:1] + name[i+2:]
		} else {
			name = name[i+2:]
		}
	}
	if name == "" {
		return "", false
	}
	switch {
	case rest == "", rest == ";", rest[0] == '(', rest[0] == '{', rest[0] == '[', rest[0] == '<':
		return name, true
	case strings.IndexByte("$@%\\\"'&", rest[0]) >= 0, strings.HasPrefix(rest, "=>"), rest[0] == '-' && strings.HasPrefix(text[end:], " -"):
		return name, true
	}
	if first, _, _ := strings.Cut(rest, " "); first == strings.ToUpper(first) && isLetter(first[0]) && len(first) > 1 { // bind SOCKET, NAME
		return name, true
	}
	return "", false
}

// headOf is what stands before the first bracket.
func headOf(text string) string {
	if i := strings.IndexAny(text, "(\"'"); i >= 0 {
		return text[:i]
	}
	return text
}

func firstOf(text string) byte {
	if text == "" {
		return 'a'
	}
	return text[0]
}

// withoutCodes is a text without the codes around its words: "C<read>" is "read".
func withoutCodes(text string) string {
	if !strings.Contains(text, "<") {
		return text
	}
	var b strings.Builder
	var open []string
	for i := 0; i < len(text); i++ {
		c := text[i]
		if 'A' <= c && c <= 'Z' && i+1 < len(text) && text[i+1] == '<' && (i == 0 || !wordBytes[text[i-1]]) {
			n := 1
			for i+1+n < len(text) && text[i+1+n] == '<' {
				n++
			}
			if c == 'X' || c == 'Z' { // nothing of it is shown
				if end := strings.IndexByte(text[i:], '>'); end > 0 {
					i += end
					continue
				}
			}
			if c == 'E' {
				if end := strings.IndexByte(text[i:], '>'); end > 0 {
					b.WriteString(map[string]string{"E<gt>": ">", "E<lt>": "<", "E<sol>": "/", "E<verbar>": "|"}[text[i:i+end+1]])
					i += end
					continue
				}
			}
			open = append(open, strings.Repeat(">", n))
			i += n
			continue
		}
		if len(open) > 0 && strings.HasPrefix(text[i:], open[len(open)-1]) && !(c == '>' && i > 0 && text[i-1] == '-' && len(open[len(open)-1]) == 1 && strings.Contains(text[i+1:], ">")) {
			i += len(open[len(open)-1]) - 1
			open = open[:len(open)-1]
			continue
		}
		b.WriteByte(c)
	}
	return strings.TrimSpace(b.String())
}

// commands are those of the manual.
var commands = lexing.WordSet("head1 head2 head3 head4 head5 head6 over item back begin end for pod cut encoding")

// mistakes reports what of the markup is not as the manual has it. All of it is shown as it was meant.
func (r *reader) mistakes(paragraphs []paragraph) {
	report := func(form string, span source.Span, text string) {
		r.facts.Problems = append(r.facts.Problems, finding.Finding{
			Rule: finding.MalformedComment, Severity: finding.Warning, Form: form, Place: r.facts.Place(span), Arguments: []finding.Argument{{Name: "text", Value: text}},
		})
	}
	var open []opened
	begun := 0
	for i := range paragraphs {
		p := &paragraphs[i]
		first := p.lines[0]
		word := source.Span{Start: first.Start, End: first.Start + int32(1+len(p.command))}
		if p.command == "" {
			r.unclosed(p, report)
			continue
		}
		text := "=" + p.command
		if begun > 0 && p.command != "end" && p.command != "begin" {
			continue
		}
		if !commands[p.command] {
			report("command", word, text)
			continue
		}
		if i > 0 && paragraphs[i-1].lines[len(paragraphs[i-1].lines)-1].End+2 >= first.Start && strings.Count(r.Text[paragraphs[i-1].span().End:first.Start], "\n") < 2 && p.command != "cut" {
			report("line before", word, text)
		}
		if i+1 < len(paragraphs) && paragraphs[i+1].command == "" && strings.Count(r.Text[p.span().End:paragraphs[i+1].lines[0].Start], "\n") == 1 {
			report("line behind", word, text)
		}
		switch p.command {
		case "over":
			open = append(open, opened{span: word})
		case "item":
			if len(open) == 0 {
				report("item", word, text)
				break
			}
			rest := p.rest
			if rest == "" && len(p.lines) > 1 { // on the next line
				rest = strings.TrimSpace(p.lines[1].In(r.Text))
			}
			kind := kindOf(rest)
			if list := &open[len(open)-1]; list.kind == 0 {
				list.kind = kind
			} else if list.kind != kind && !list.said && !(list.kind == '1' && lexing.IsDigit(firstOf(rest))) { // "4.1" among numbers
				list.said = true
				report("mixed", word, text)
			}
		case "back":
			if len(open) == 0 {
				report("back", word, text)
				break
			}
			open = open[:len(open)-1]
		case "begin":
			if !strings.HasPrefix(p.rest, ":") {
				begun++
			}
		case "end":
			begun = max(0, begun-1)
		case "head1", "head2", "head3", "head4", "head5", "head6":
			r.unclosed(p, report)
			for _, list := range open {
				report("over", list.span, "=over")
			}
			open = nil
		}
	}
	for _, list := range open {
		report("over", list.span, "=over")
	}
	if !r.encoded {
		for _, block := range r.pods {
			for i := block.Start; i < block.End; i++ {
				if r.Text[i] >= 0x80 {
					report("encoding", source.Span{Start: i, End: i + 1}, "=encoding UTF-8")
					return
				}
			}
		}
	}
}

// opened is a list that is open.
type opened struct {
	span source.Span
	kind byte
	said bool
}

// kindOf tells the three kinds of lists by an entry.
func kindOf(rest string) byte {
	switch {
	case rest == "" || firstWord(rest) == "*":
		return '*'
	case lexing.IsDigit(rest[0]) && strings.Trim(strings.TrimRight(firstWord(rest), ".)"), "0123456789") == "":
		return '1'
	}
	return 't'
}

func firstWord(text string) string {
	word, _, _ := strings.Cut(text, " ")
	return word
}

// unclosed reports codes that nothing closes.
func (r *reader) unclosed(p *paragraph, report func(form string, span source.Span, text string)) {
	span := p.span()
	text := span.In(r.Text)
	if p.command == "" && (text[0] == ' ' || text[0] == '\t') || !strings.Contains(text, "<") {
		return
	}
	type code struct{ at, n int }
	var open []code
	for i := 0; i < len(text); i++ {
		switch c := text[i]; {
		case 'A' <= c && c <= 'Z' && i+1 < len(text) && text[i+1] == '<':
			n := 1
			for i+1+n < len(text) && text[i+1+n] == '<' {
				n++
			}
			if n > 1 && (i+1+n >= len(text) || strings.IndexByte(" \t\n\r", text[i+1+n]) < 0) {
				n = 1
			}
			if len(open) < deepest {
				open = append(open, code{i, n})
			}
			i += n
		case c == '>' && len(open) > 0:
			last := open[len(open)-1]
			if last.n == 1 {
				open = open[:len(open)-1]
			} else if strings.HasPrefix(text[i:], strings.Repeat(">", last.n)) && i > 0 && strings.IndexByte(" \t\n\r", text[i-1]) >= 0 {
				open = open[:len(open)-1]
				i += last.n - 1
			}
		}
	}
	if len(open) > 0 {
		at := span.Start + int32(open[0].at)
		report("unclosed", source.Span{Start: at, End: at + int32(1+open[0].n)}, text[open[0].at:open[0].at+1+open[0].n])
	}
}

// deepest is how deep codes in one another are followed.
const deepest = 40
