package rust

import "codrel/internal/lexing"

// This file reads what a macro is given that is more than items: types, functions and statics for all, each
// written as the language has it, among words that mean something to the macro alone.

// openItems reads the items for all between two tokens that are whole, and passes over the rest.
func (r *reader) openItems(i, stop int, own *owner) {
	was := r.opened
	r.opened = true
	defer func() { r.opened = was }()
	begins := true // an item may begin here
	for i < stop {
		next, attributed := r.attributesOnly(i, stop)
		if (begins || attributed) && r.Word(next) == "pub" && r.isWhole(next, stop) {
			i = max(r.item(i, stop, own), next+1)
			begins = true
			continue
		}
		i = next
		if i < stop {
			begins = r.Is(i, ';') || r.Is(i, '{')
			i = r.Over(i)
		}
	}
}

// isWhole reports whether the item at an index is one to its end, as far as its head tells.
func (r *reader) isWhole(i, stop int) bool {
	at := r.visibility(&item{}, i, stop, &owner{at: -1})
	for r.qualifies(at) {
		at++
		if r.Word(at-1) == "extern" && at < stop && r.Tokens[at].Kind == lexing.Value {
			at++
		}
	}
	word, name := r.Word(at), at+1
	if word == "static" && (r.Word(name) == "ref" || r.Word(name) == "mut") { // "static ref" is how values are declared that are made when they are asked for
		name++
	}
	if at >= stop || r.Word(name) == "" || isKeyword(r.Word(name)) {
		return false
	}
	end := name + 1
	if r.Is(end, '<') {
		end = r.OverType(end)
	}
	switch word {
	case "static", "const":
		return r.Is(end, ':') && r.closes(end, stop, ';', ';')
	case "type":
		return r.Is(end, '=') && r.closes(end, stop, ';', ';')
	case "struct", "union":
		return (r.Is(end, ';') || r.Is(end, '{') || r.Is(end, '(') || r.Word(end) == "where") && r.closes(end, stop, ';', '{')
	case "enum", "trait":
		return r.closes(end, stop, '{', '{')
	case "fn":
		return r.Is(end, '(') && r.plainParameters(end, stop) && r.closes(end, stop, ';', '{')
	}
	return false
}

// closes reports whether one of two marks is the first of those that may end an item, with nothing before it that
// only a macro reads.
func (r *reader) closes(at, stop int, one, other byte) bool {
	for at < stop {
		switch {
		case r.Is(at, '{'):
			return r.Over(at) <= stop && r.isPlainBody(at+1, r.Close(at, stop))
		case r.Is(at, one) || r.Is(at, other):
			return true
		case r.Is(at, ';') && one != ';', r.Is(at, '$'), r.IsMark(at, "=>") && one != ';':
			return false
		}
		at = r.Over(at)
	}
	return false
}

// isPlainBody reports whether nothing stands between two tokens that no body of an item has.
func (r *reader) isPlainBody(i, stop int) bool {
	for ; i < stop; i = r.Over(i) {
		if r.Is(i, '@') || r.Is(i, '$') || r.IsMark(i, "=>") {
			return false
		}
	}
	return true
}
