package cfamily

import (
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads what stands before the name of a declaration: words of the language, the type,
// and macros, which are told by their shape (upper-case letters, a call, their place).

// specs are what stands before the declarators of a declaration.
type specs struct {
	from       int  // where the declaration begins
	begin      int  // where what its signature shows begins
	said       bool // its comment was looked for
	comment    lexing.Said
	words      []string // that change what is declared
	typedef    bool
	static     bool
	extern     bool
	inline     bool
	constant   bool
	friend     bool
	typed      bool // its type was read
	deprecated bool
	advice     source.Span
	tag        tag
	typeFrom   int // of the last word that was taken for the type
	run        []word
	wraps      [2]int // what a macro that stands around the type has in its brackets
	wrapper    int    // the name of that macro
	call       int    // the brackets of the parameters behind the last word of the run, or -1
	callEnd    int
	param      bool   // a parameter is read
	nested     bool   // in brackets
	headEnd    int    // where the first declarator begins
	member     bool   // of a type
	guide      bool   // a deduction guide is
	whole      bool   // a macro declares it whole, and its semicolon may be the macro's
	result     [2]int // the type behind "->"
}

// tag is a struct, union, class or enumeration that stands in a declaration.
type tag struct {
	kind        model.Kind
	at          int // the token of its word, or -1
	name        int // or -1
	nameFrom    int // where its qualified name begins
	open, close int // of its body, or -1
	bases       int // the token of ":", or -1
	scoped      bool
}

// word is a name, maybe with what qualifies it, of which is not known yet what it is.
type word struct {
	at, end int // tokens
	macro   bool
}

// isMacro reports whether a name is formed as those of macros are.
func isMacro(name string) bool {
	upper := false
	for i := range len(name) {
		switch c := name[i]; {
		case 'A' <= c && c <= 'Z':
			upper = true
		case c >= 'a' && c <= 'z' || c >= 0x80:
			return false
		}
	}
	return upper && len(name) > 1
}

// storage are words that stand before types and say something of what is declared.
var storage = lexing.WordSet(`typedef extern static inline register thread_local _Thread_local constexpr consteval constinit virtual friend mutable
	__inline __inline__ __forceinline _Noreturn __extension__ explicit noreturn __thread`)

// qualifiers are words of a type beside its name.
var qualifiers = lexing.WordSet(`const volatile restrict __restrict __restrict__ __const __const__ __volatile__ __volatile _Nonnull _Nullable _Null_unspecified __unaligned __ptr64 __ptr32`)

// attributeWords take brackets, or none, and say nothing of what a type is.
var attributeWords = lexing.WordSet(`__attribute__ __attribute __declspec alignas _Alignas __asm__ __asm asm __cdecl __stdcall __fastcall __thiscall __vectorcall __pragma _Pragma`)

// typeOperators take brackets and are a type.
var typeOperators = lexing.WordSet(`decltype typeof __typeof__ __typeof typeof_unqual __underlying_type _BitInt __decltype`)

var (
	isStorage   = lexing.OneOf(storage)
	isQualifier = lexing.OneOf(qualifiers)
	isAttribute = lexing.OneOf(attributeWords)
)

// attribute reads an attribute and gives the index behind it; it is not shown.
func (r *reader) attribute(i, end int, s *specs) int {
	from := i
	if r.Is(i, '[') {
		stop := r.Close(i, end)
		r.deprecation(i, stop, s)
		i = stop + 1
	} else if i++; r.Is(i, '(') {
		stop := r.Close(i, end)
		r.deprecation(i, stop, s)
		i = stop + 1
	}
	r.drop(from, min(i, end))
	return min(i, end)
}

// deprecation looks in an attribute for what says that something is deprecated.
func (r *reader) deprecation(i, stop int, s *specs) {
	for ; i < stop; i++ {
		w := r.Word(i)
		switch {
		case w == "deprecated" || w == "__deprecated__" || w == "unavailable":
			s.deprecated = true
			if r.Is(i+1, '(') && i+2 < stop && r.Tokens[i+2].Kind == lexing.Value {
				s.advice = r.Span(i+2, i+3)
			}
		case w == "nodiscard" || w == "noreturn" || w == "warn_unused_result":
			s.add(strings.ReplaceAll(w, "warn_unused_result", "nodiscard"))
		}
	}
}

func (s *specs) add(word string) {
	for _, w := range s.words {
		if w == word {
			return
		}
	}
	s.words = append(s.words, word)
}

// drop keeps tokens out of the signature.
func (r *reader) drop(from, to int) {
	if to > from {
		r.drops = append(r.drops, [2]int{from, to})
	}
}

// roomForRun lends room for the words before a declarator; [reader.backFromRun] takes it back.
func (r *reader) roomForRun() (room []word) {
	if n := len(r.runs) - 1; n >= 0 {
		room, r.runs = r.runs[n], r.runs[:n]
	}
	return room
}

func (r *reader) backFromRun(s *specs) {
	if cap(s.run) > 0 {
		r.runs = append(r.runs, s.run[:0])
	}
}

// macroWord takes note of a word that is a macro's: it is not shown.
func (r *reader) macroWord(at, end int, s *specs) {
	name := r.Word(at)
	if strings.Contains(name, "DEPRECATED") || strings.Contains(name, "deprecated") {
		s.deprecated = true
		if r.Is(at+1, '(') && at+2 < end && r.Tokens[at+2].Kind == lexing.Value && r.Text[r.Tokens[at+2].From] == '"' {
			s.advice = r.Span(at+2, at+3)
		}
	}
	r.drop(at, end)
}

// take reads the words before a declarator from an index, and gives the index at which that
// begins: with a mark of a pointer, a bracket, or what ends the declaration.
func (r *reader) take(i, end int, s *specs, own *owner) (next int, stop bool) {
	for i < end {
		if r.Tokens[i].Kind != lexing.Word {
			if r.Is(i, '[') && r.Is(i+1, '[') {
				i = r.attribute(i, end, s)
				continue
			}
			if r.IsMark(i, "::") && r.Word(i+1) != "" && r.plus {
				if next, stop, done := r.nameOrType(i, end, s, own); done {
					return next, stop
				} else {
					i = next
				}
				continue
			}
			if r.IsMark(i, "...") {
				i++
				continue
			}
			if r.Is(i, '*') || r.Is(i, '&') || r.IsMark(i, "&&") {
				r.settleType(s)
			}
			if r.Is(i, '~') {
				r.dropRun(s)
			}
			return i, false
		}
		w := r.Word(i)
		switch {
		case isStorage(w):
			if r.restart(i, s) {
				return i, true
			}
			i = r.storage(i, end, s)
		case isQualifier(w):
			i++
		case isAttribute(w):
			i = r.attribute(i, end, s)
		case r.names.builtin(w) || w == "auto" && !s.typed:
			if r.restart(i, s) {
				return i, true
			}
			r.dropRun(s)
			s.typed, s.typeFrom = true, i
			if i++; w == "_BitInt" {
				i = r.Over(i)
			}
		case w == "_Atomic":
			if i++; r.Is(i, '(') {
				s.typed = true
				i = r.Over(i)
			}
		case typeOperators[w]:
			s.typed, s.typeFrom = true, i
			if i++; r.Is(i, '(') {
				i = r.Over(i)
			}
		case w == "struct" || w == "union" || w == "enum" || w == "class" && r.plus:
			if r.restart(i, s) {
				return i, true
			}
			r.dropRun(s)
			if i = r.tagged(i, end, s, own); s.tag.at >= 0 {
				s.typed = true
			}
		case w == "typename" && r.plus:
			i++
		case w == "operator" && r.plus:
			return i, false
		case r.plus && (w == "template" || w == "namespace" || w == "using" || w == "public" || w == "private" || w == "protected" || w == "requires" || w == "concept" || w == "export"):
			return i, true
		case w == "return" || w == "if" || w == "for" || w == "while" || w == "switch" || w == "case" || w == "goto" || w == "do" || w == "else" || w == "break":
			return i, true
		default:
			next, stop, done := r.nameOrType(i, end, s, own)
			if done {
				return next, stop
			}
			i = next
		}
	}
	return end, false
}

// storage takes one of the words that say something of what is declared.
func (r *reader) storage(i, end int, s *specs) int {
	switch w := r.Word(i); w {
	case "typedef":
		s.typedef = true
	case "static":
		s.static = true
		s.add("static")
	case "extern":
		s.extern = true
		r.drop(i, i+1)
	case "inline", "__inline", "__inline__", "__forceinline":
		s.inline = true
		s.add("inline")
		r.drop(i, i+1)
	case "friend":
		s.friend = true
		s.add("friend")
	case "constexpr", "consteval", "constinit":
		s.constant = s.constant || w == "constexpr"
		s.add(w)
	case "virtual", "mutable", "thread_local":
		s.add(w)
	case "_Noreturn", "noreturn":
		s.add("noreturn")
		r.drop(i, i+1)
	case "explicit":
		s.add("explicit")
		if r.Is(i+1, '(') {
			return r.Over(i + 1)
		}
	default:
		r.drop(i, i+1)
	}
	return i + 1
}

// mostWords is how many words stand before a declaration at most, of those that are looked at.
const mostWords = 24

// restart reports whether a declaration of its own begins at a word that other words stand
// before, which are then macros on lines of their own.
func (r *reader) restart(i int, s *specs) bool {
	if i == s.from || !r.Tokens[i].Newline || len(s.run) > mostWords || s.typed || len(s.words) > 0 || s.extern || s.typedef {
		return false
	}
	for _, w := range s.run {
		if !w.macro {
			return false
		}
	}
	if len(s.run) == 0 && !s.hasCalls() {
		return false
	}
	return r.commented(i)
}

// hasCalls reports whether macros with arguments stood before.
func (s *specs) hasCalls() bool { return s.wraps[1] > 0 }

// commented reports whether a comment for users stands right before a token.
func (r *reader) commented(i int) bool {
	found := false
	r.Before(i, func(_ int, c source.Span) bool {
		text := c.In(r.Text)
		found = isDoc(text) && !isTrailing(text)
		return !found
	})
	return found
}

// dropRun makes macros of words that stand before the type.
func (r *reader) dropRun(s *specs) {
	for _, w := range s.run {
		r.macroWord(w.at, w.end, s)
	}
	s.run = s.run[:0]
}

// nameOrType reads a name that may be a type, a macro, or what is declared. done says that the
// declarator begins at next, or, with stop, that there is none.
func (r *reader) nameOrType(i, end int, s *specs, own *owner) (next int, stop, done bool) {
	q := r.qualified(i, end)
	if q <= i {
		return i + 1, true, true
	}
	if i > s.from && own.at < 0 && r.Tokens[i].Newline && !s.hasWords() && mayOpen(r.Word(i)) {
		return i, true, true // what may open something begins anew
	}
	if s.param && q == i+1 && r.qualifies(r.Word(i)) {
		r.macroWord(i, q, s)
		return q, false, false
	}
	w := word{at: i, end: q, macro: q == i+1 && isMacro(r.Word(i))}
	switch {
	case r.Is(q, '('):
		return r.called(w, end, s, own)
	case r.plus && r.operatorAt(q) && r.IsMark(q-1, "::"):
		if !s.typed && len(s.run) > 0 {
			r.settleType(s)
		}
		return i, false, true
	case r.plus && r.operatorAt(q):
		s.run = append(s.run, w)
		r.settleType(s)
		return q, false, true
	case r.Is(q, '~') && r.plus && r.IsMark(q-1, "::"):
		r.dropRun(s)
		return i, false, true
	case r.Is(q, '~') && r.plus && r.Word(q+1) != "" && w.macro:
		r.macroWord(i, q, s)
		r.dropRun(s)
		return q, false, true
	}
	if r.IsMark(q, "::") && r.Is(q+1, '*') { // a pointer to a member
		r.settleType(s)
		return i, false, true
	}
	s.run = append(s.run, word{at: w.at, end: w.end, macro: w.macro || q == i+1 && strings.HasPrefix(r.Word(i), "__")})
	switch {
	case q >= end:
		return q, false, true
	case r.Tokens[q].Kind == lexing.Word:
		if (w.macro || !s.typed && len(s.run) == 1) && r.Tokens[q].Newline && !s.typed && r.startsAnew(q, s) {
			return q, true, true
		}
		return q, false, false
	case r.Is(q, '*') || r.Is(q, '&') || r.IsMark(q, "&&") || r.Is(q, '^'):
		r.settleType(s)
		return q, false, true
	case r.IsMark(q, "...") || r.Is(q, '[') && r.Is(q+1, '['):
		return q, false, false
	}
	return q, false, true
}

// qualifies reports whether a name that only an implementation may use ("_Xconst") stands for
// qualifiers, an attribute or nothing.
func (r *reader) qualifies(name string) bool {
	if len(name) < 3 || name[0] != '_' || name[1] < 'A' || name[1] > 'Z' {
		return false
	}
	definition, ok := r.macro(name)
	if !ok {
		return false
	}
	if strings.HasPrefix(definition, "__attribute") || strings.HasPrefix(definition, "[[") {
		return true
	}
	for w := range strings.FieldsSeq(definition) {
		if w != "/**/" && !isQualifier(w) {
			return false
		}
	}
	return true
}

// startsAnew reports whether what follows a lone macro on its line is a declaration of its own:
// a comment says so.
func (r *reader) startsAnew(i int, s *specs) bool {
	return !s.extern && !s.typedef && len(s.words) == 0 && r.commented(i)
}

// settleType takes the last word of the run for the type, and the others for macros.
func (r *reader) settleType(s *specs) {
	if len(s.run) == 0 {
		return
	}
	last := len(s.run) - 1
	if s.typed { // then they all are macros
		r.dropRun(s)
		return
	}
	for n := last; n >= 0; n-- {
		if !s.run[n].macro {
			last = n
			break
		}
	}
	for n, w := range s.run {
		if n != last {
			r.macroWord(w.at, w.end, s)
		}
	}
	s.typed, s.typeFrom = true, s.run[last].at
	s.run = s.run[:0]
}

// qualified is the index behind a name with what qualifies it and its template arguments.
func (r *reader) qualified(i, end int) int {
	if r.IsMark(i, "::") {
		i++
	}
	for {
		if r.Word(i) == "template" && r.plus {
			i++
		}
		if r.Word(i) == "" || i >= end {
			return i
		}
		i++
		if !r.plus {
			return i
		}
		if r.Is(i, '<') && int(r.Tokens[i].Partner) > i {
			if stop := r.OverType(i); stop <= end {
				i = stop
			}
		}
		if !r.IsMark(i, "::") {
			return i
		}
		switch {
		case r.Is(i+1, '*'):
			return i
		case r.Word(i+1) == "operator" || r.Is(i+1, '~'):
			return i + 1
		case r.Word(i+1) == "":
			return i
		}
		i++
	}
}

// operatorAt reports whether an operator's name begins at an index.
func (r *reader) operatorAt(i int) bool { return r.Word(i) == "operator" }

// noTag stands where no such type does.
var noTag = tag{at: -1, name: -1, open: -1, close: -1, bases: -1}
