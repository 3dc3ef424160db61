package cfamily

import (
	"path"
	"slices"
	"strings"

	"codrel/internal/model"
)

// This file finds what macros stand for that open and close namespaces: by the settings, by the
// file itself, and by what it includes of the project.

// definitions are the macros without parameters of a text, by their names.
type definitions map[string]string

// table looks macros up.
type table struct {
	said  map[string]string // by the settings
	own   definitions
	other func(file string) []byte // see lang.File; nil where nothing is known
	read  bool                     // what is included was read
	from  []definitions            // of what is included, the nearest first
	// makers are macros with parameters that may declare something.
	makers map[string]*maker
	// fields are macros without parameters that stand where fields do.
	fields map[string]*maker
}

// mostIncluded is how many headers of the project are looked through for macros.
const mostIncluded = 40

// macro is what a macro stands for, or "".
func (r *reader) macro(name string) (definition string, ok bool) {
	t := &r.table
	if definition, ok = t.said[name]; ok {
		return definition, true
	}
	if t.own == nil {
		t.own = r.definitionsIn(r.ownDirectives)
	}
	if definition, ok = t.own[name]; ok {
		return definition, true
	}
	if t.other != nil && !t.read {
		t.read = true
		r.readIncluded(r.Facts.Path, r.Text, 0)
	}
	for _, from := range t.from {
		if definition, ok = from[name]; ok {
			return definition, true
		}
	}
	return "", false
}

// readIncluded reads the macros of the headers that a text of a file includes, and of theirs.
func (r *reader) readIncluded(file, text string, depth int) {
	for _, name := range includesIn(text, r.plus) {
		at, data := r.find(file, name)
		if data == nil || slices.Contains(r.Facts.Takes, at) || len(r.table.from) >= mostIncluded {
			continue
		}
		r.Facts.Takes = append(r.Facts.Takes, at)
		r.table.from = append(r.table.from, r.definitionsIn(func(yield func(word, rest string)) { eachDirective(string(data), yield) }))
		if depth < 2 {
			r.readIncluded(at, string(data), depth+1)
		}
	}
}

// find is the file of the project that another one includes by a name.
func (r *reader) find(file, name string) (at string, data []byte) {
	for dir := path.Dir(file); ; dir = path.Dir(dir) {
		for _, below := range []string{"", "include"} {
			at = path.Join(dir, below, name)
			if strings.HasPrefix(at, "..") {
				continue
			}
			if data = r.table.other(at); data != nil {
				return at, data
			}
		}
		if dir == "." || dir == "/" {
			return "", nil
		}
	}
}

// eachDirective gives the lines to the preprocessor of a text: their word and what follows.
func eachDirective(text string, yield func(word, rest string)) {
	comment := false
	for at := 0; at < len(text); {
		end := strings.IndexByte(text[at:], '\n')
		if end < 0 {
			end = len(text) - at
		}
		line := text[at : at+end]
		at += end + 1
		if comment { // what stands in one is no directive
			_, after, ends := strings.Cut(line, "*/")
			if comment = !ends; comment {
				continue
			}
			line = after
		}
		if i := strings.LastIndex(line, "/*"); i >= 0 && !strings.Contains(line[i:], "*/") {
			comment, line = true, line[:i]
		}
		rest, ok := strings.CutPrefix(strings.TrimLeft(line, " \t"), "#")
		if !ok {
			continue
		}
		rest = strings.TrimSpace(rest)
		for more := 0; strings.HasSuffix(rest, "\\") && at < len(text) && more < mostJoined; more++ {
			end := strings.IndexByte(text[at:], '\n')
			if end < 0 {
				end = len(text) - at
			}
			rest = strings.TrimSpace(strings.TrimSuffix(rest, "\\")) + " " + strings.TrimSpace(text[at:at+end])
			at += end + 1
		}
		end = 0
		for end < len(rest) && 'a' <= rest[end] && rest[end] <= 'z' {
			end++
		}
		yield(rest[:end], strings.TrimSpace(rest[end:]))
	}
}

// mostJoined is how many lines are joined with one that a backslash ends.
const mostJoined = 64

// ownDirectives gives the lines to the preprocessor of the file.
func (r *reader) ownDirectives(yield func(word, rest string)) {
	for n := range r.Lines {
		word, at := r.line(n)
		rest := r.Text[at:r.Lines[n].To]
		if strings.IndexByte(rest, '\n') >= 0 {
			var parts []string
			for line := range strings.Lines(rest) {
				parts = append(parts, strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(line), "\\")))
			}
			rest = strings.Join(parts, " ")
		}
		yield(word, strings.TrimSpace(rest))
	}
}

// definitionsIn are the macros without parameters that lines define, each as it is first defined
// with something. Those with parameters that may declare something are put aside.
// What stands in branches that a common machine does not take counts where there is nothing else.
func (r *reader) definitionsIn(each func(yield func(word, rest string))) definitions {
	out, others := definitions{}, definitions{}
	taken := takingOf(r.plus)
	each(func(word, rest string) {
		off := taken.off(word, rest)
		if word != "define" {
			return
		}
		end := 0
		for end < len(rest) && isNameByte(rest[end]) {
			end++
		}
		if end < len(rest) && rest[end] == '(' {
			if m := makerIn(rest[end:]); m != nil && r.table.makers[rest[:end]] == nil {
				if r.table.makers == nil {
					r.table.makers = map[string]*maker{}
				}
				r.table.makers[rest[:end]] = m
			}
			return
		}
		if end == 0 {
			return
		}
		value, into := strings.TrimSpace(rest[end:]), out
		if off {
			into = others
		}
		if len(value) <= longestDefinition && into[rest[:end]] == "" {
			into[rest[:end]] = value
		}
	})
	for name, value := range others {
		if _, known := out[name]; !known {
			out[name] = value
		}
	}
	return out
}

// branches tells of lines to the preprocessor whether they stand in branches that a common machine
// does not take.
type branches struct {
	assumed map[string]bool
	open    []taken
}

// taken is what is known of the branches of one condition.
type taken struct{ off, held bool }

func takingOf(plus bool) branches {
	if plus {
		return branches{assumed: shapeOfPlus.Assume}
	}
	return branches{assumed: shapeOfC.Assume}
}

// off takes the next line.
func (b *branches) off(word, rest string) bool {
	last := len(b.open) - 1
	switch word {
	case "if", "ifdef", "ifndef":
		b.open = append(b.open, taken{})
		b.begin(&b.open[last+1], rest, word == "ifndef")
	case "elif", "else":
		if last >= 0 {
			if t := &b.open[last]; t.held {
				t.off = true
			} else if t.off = false; word == "elif" {
				b.begin(t, rest, false)
			}
		}
	case "endif":
		if last >= 0 {
			b.open = b.open[:last]
		}
	}
	return slices.ContainsFunc(b.open, func(t taken) bool { return t.off })
}

// begin begins a branch under a condition.
func (b *branches) begin(t *taken, condition string, not bool) {
	if i := strings.Index(condition, "/"); i >= 0 {
		condition = condition[:i] // a comment
	}
	condition = strings.TrimSpace(condition)
	if bare, negated := strings.CutPrefix(condition, "!"); negated {
		condition, not = strings.TrimSpace(bare), !not
	}
	if holds, known := b.assumed[condition]; known {
		t.held, t.off = holds != not, holds == not
	}
}

// longestDefinition is how many bytes a macro stands for that is looked into.
const longestDefinition = 400

// includesIn are the names that a text includes, those last that a common machine does not.
func includesIn(text string, plus bool) (out []string) {
	var others []string
	taken := takingOf(plus)
	eachDirective(text, func(word, rest string) {
		off := taken.off(word, rest)
		if word != "include" || rest == "" || rest[0] != '"' && rest[0] != '<' {
			return
		}
		if end := strings.IndexAny(rest[1:], "\">"); end > 0 && off {
			others = append(others, rest[1:1+end])
		} else if end > 0 {
			out = append(out, rest[1:1+end])
		}
	})
	return append(out, others...)
}

// frame is what a macro opened.
type frame struct{ space string }

// opens reads a macro that opens namespaces, or closes what others opened.
func (r *reader) opens(i int, own *owner) bool {
	if own.at >= 0 || !mayOpen(r.Word(i)) || r.Is(i+1, '(') {
		return false
	}
	definition, ok := r.macro(r.Word(i))
	if !ok {
		return false
	}
	return r.enter(strings.Fields(spread(definition)), 0)
}

// mayOpen reports whether a name is formed as those of macros that open or close something are.
func mayOpen(name string) bool {
	if !isMacro(name) {
		return false
	}
	for _, part := range []string{"BEGIN", "NAMESPACE", "OPEN", "START", "ENTER", "END", "CLOSE", "EXIT", "LEAVE", "_NS", "NS_", "DECLS", "EXTERN_C"} {
		if strings.Contains(name, part) {
			return true
		}
	}
	return false
}

// spread puts blanks around the marks of a definition.
func spread(definition string) string {
	for {
		before, rest, begins := strings.Cut(definition, "/*")
		_, after, ends := strings.Cut(rest, "*/")
		if !begins || !ends {
			break
		}
		definition = before + " " + after
	}
	definition, _, _ = strings.Cut(definition, "//")
	for _, mark := range []string{"{", "}", ";", "::", "(", ")"} {
		definition = strings.ReplaceAll(definition, mark, " "+mark+" ")
	}
	return definition
}

// enter does what a definition says that is made of namespaces alone; ok is false where it says
// anything else.
func (r *reader) enter(words []string, depth int) (ok bool) {
	if depth > 8 || len(words) == 0 {
		return false
	}
	var frames []frame
	closed, space := 0, r.space
	for i := 0; i < len(words); i++ {
		switch w := words[i]; w {
		case "inline", ";", "extern", `"C"`:
		case "namespace":
			inline := i > 0 && words[i-1] == "inline"
			for i++; i < len(words) && words[i] != "{"; i++ {
				name := words[i]
				if inline { // its names are those of the namespace around it
					continue
				}
				if isMacro(name) {
					if definition, known := r.macro(name); known {
						name = strings.Join(strings.Fields(definition), "")
					}
				}
				if name == "(" { // a macro makes the name
					for i < len(words) && words[i] != ")" {
						i++
					}
					continue
				}
				if name != "::" && name != "inline" && name != "" && !isMacro(name) {
					space = strings.TrimPrefix(space+"::"+name, "::")
				}
			}
			frames = append(frames, frame{r.space})
			r.space = space
		case "{":
			frames = append(frames, frame{r.space})
		case "}":
			closed++
		default:
			definition, known := "", false
			if isMacro(w) {
				definition, known = r.macro(w)
			}
			if !known {
				r.space = firstOf(frames, r.space)
				return false
			}
			if !r.enter(strings.Fields(spread(definition)), depth+1) && definition != "" {
				return false
			}
			space = r.space
		}
	}
	r.frames = append(r.frames, frames...)
	for ; closed > 0 && len(r.frames) > 0; closed-- {
		r.leaveFrame()
	}
	if len(frames) > 0 && r.space != "" {
		r.Facts.Modules = append(r.Facts.Modules, model.ModuleIn{Name: r.space})
	}
	return true
}

func firstOf(frames []frame, space string) string {
	if len(frames) > 0 {
		return frames[0].space
	}
	return space
}

// leaveFrame goes back to before the last macro that opened something.
func (r *reader) leaveFrame() {
	n := len(r.frames) - 1
	r.space, r.frames = r.frames[n].space, r.frames[:n]
}
