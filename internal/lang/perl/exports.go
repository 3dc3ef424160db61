package perl

import (
	"slices"
	"strings"

	"codrel/internal/model"
)

// This file reads what packages export (Exporter of the language's library): by default, on request, and
// by tags.

// How a name is exported, as a modifier of its declaration. Tags are modifiers as well: ":all".
const (
	exported  = "exported"
	onRequest = "exported on request"
)

// exports is what the packages of a file export.
type exports struct {
	how  map[string]string   // by package and name
	tags map[string][]string // the same
	list map[string][]string // names on the lists, by package and list
}

// key is what a name of a package is known by.
func (exports) key(pkg, name string) string { return pkg + "::" + strings.TrimPrefix(name, "&") }

// of is how a name of a package is exported.
func (e exports) of(pkg, name string) (out []string) {
	key := e.key(pkg, name)
	if how := e.how[key]; how != "" {
		out = append(out, how)
	}
	return append(out, e.tags[key]...)
}

// any reports whether a package lists what it exports.
func (e exports) any(pkg string) bool {
	return len(e.list[pkg+"::@EXPORT"])+len(e.list[pkg+"::@EXPORT_OK"]) > 0
}

// put notes how names are exported.
func (e *exports) put(pkg, list string, names []string) {
	if e.how == nil {
		e.how, e.tags, e.list = map[string]string{}, map[string][]string{}, map[string][]string{}
	}
	how := exported
	if list == "@EXPORT_OK" {
		how = onRequest
	}
	for _, name := range names {
		if key := e.key(pkg, name); e.how[key] != exported {
			e.how[key] = how
		}
	}
	e.list[pkg+"::"+list] = append(e.list[pkg+"::"+list], names...)
}

// listed reads the names on a list.
func (r *reader) listed(i int, list string) {
	pushed := i > 0 && (r.Word(i-1) == "push" || i > 1 && r.Is(i-1, '(') && r.Word(i-2) == "push")
	if r.Is(i+1, '=') || pushed && r.Is(i+1, ',') {
		r.exports.put(r.pkg, list, r.namesFrom(i+1, r.statementEnd(i)))
	}
}

// namesFrom are the names between two tokens, those on lists that are named there among them.
func (r *reader) namesFrom(i, end int) (out []string) {
	for ; i < min(end, len(r.Tokens)); i++ {
		if w := r.Word(i); w == "@EXPORT" || w == "@EXPORT_OK" {
			out = append(out, r.exports.list[r.pkg+"::"+w]...)
			continue
		}
		list := r.strings(i, i+1)
		switch w := r.Word(i); {
		case len(w) > 1 && w[0] == '@':
			list = r.valuesAt(i).list(i, i+1)
		case w == "map" && r.Is(i+1, '{') && i+6 <= end, (w == "keys" || w == "values") && strings.HasPrefix(r.Word(i+1), "%"):
			list = r.valuesAt(i).list(i, end)
		}
		for _, s := range list {
			out = append(out, s.text)
		}
	}
	return out
}

// tagged reads tags: "%EXPORT_TAGS = (all => [qw(a b)], more => \@EXPORT_OK)". Each stands for names that
// users may ask for as well.
func (r *reader) tagged(i int) {
	if !r.Is(i+1, '=') || !r.Is(i+2, '(') {
		return
	}
	stop := r.Close(i+2, len(r.Tokens))
	for at := i + 3; at < stop; {
		next := at
		for next < stop && !r.IsMark(next, "=>") && !r.Is(next, ',') {
			next = r.Over(next)
		}
		end := next + 1
		for end < stop && !r.Is(end, ',') {
			end = r.Over(end)
		}
		tag := r.Word(at)
		if list := r.strings(at, min(at+1, next)); tag == "" && len(list) == 1 {
			tag = list[0].text
		}
		if tag = ":" + strings.TrimPrefix(tag, ":"); tag != ":" && next < stop {
			for _, name := range r.namesFrom(next+1, min(end, stop)) {
				r.tag(name, tag)
			}
		}
		at = end + 1
	}
}

// tag notes that a name is one of those that a tag stands for.
func (r *reader) tag(name, tag string) {
	key := r.exports.key(r.pkg, name)
	if r.exports.how[key] == "" {
		r.exports.put(r.pkg, "@EXPORT_OK", []string{name})
	}
	if !slices.Contains(r.exports.tags[key], tag) {
		r.exports.tags[key] = append(r.exports.tags[key], tag)
	}
}

// keep takes from users what a package of functions does not export: what is neither on its lists nor
// described, where nothing in the package is a method.
func (r *reader) keep() {
	methods := map[string]bool{}
	for _, c := range r.facts.Classes {
		methods[c.In] = true
	}
	for i := range r.facts.Occurrences {
		o := &r.facts.Occurrences[i]
		methods[o.In()] = methods[o.In()] || o.Name == "new" || o.Kind == model.KindProperty || isMethod(o)
	}
	for i := range r.facts.Occurrences {
		o := &r.facts.Occurrences[i]
		pkg := o.In()
		if pkg == "" {
			pkg = r.main
		}
		if o.Kind != model.KindFunction && o.Kind != model.KindConstant || o.Doc != nil || methods[o.In()] || !r.exports.any(pkg) || len(r.exports.of(pkg, o.Name)) > 0 {
			continue
		}
		o.Export = model.NotExported
	}
}

// isMethod reports whether a sub takes what it is called on.
func isMethod(o *model.Occurrence) bool {
	if o.Callable == nil || len(o.Callable.Params) == 0 {
		return false
	}
	switch o.Callable.Params[0].Name {
	case "$self", "$class", "$this", "$proto":
		return true
	}
	return false
}
