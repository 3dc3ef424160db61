package python

import (
	"path"
	"slices"
	"strings"

	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads imports and the list of what a module gives away.

// importing reads "import a.b as c" and "from a import b as c".
func (r *reader) importing(word string, at, stop int) {
	if r.inner().kind != model.KindModule {
		return
	}
	if slices.ContainsFunc(r.blocks, func(b block) bool { return b.apart }) {
		defer func(from int) {
			for i := range r.facts.Imports[from:] {
				r.facts.Imports[from+i].Apart = true
			}
		}(len(r.facts.Imports))
	}
	at = r.blanks(at+len(word), false)
	if word == "import" {
		r.eachImported(at, stop, func(from, to int, local string) {
			r.facts.Imports = append(r.facts.Imports, model.Import{
				Name: local, Assumed: r.text[from:to], Path: r.text[from:to], Span: source.NewSpan(from, to),
			})
		})
		return
	}
	start := at
	for at < stop && (r.text[at] == '.' || inNames[r.text[at]]) {
		at++
	}
	module := r.text[start:at]
	at = r.blanks(at, false)
	if !r.wordAt(at, "import") || module == "" {
		return
	}
	at = r.blanks(at+len("import"), false)
	if at < stop && r.text[at] == '*' {
		r.facts.Imports = append(r.facts.Imports, model.Import{Path: module, Member: "*", Span: source.NewSpan(start, at+1)})
		return
	}
	r.eachImported(at, stop, func(from, to int, local string) {
		member := r.text[from:to]
		r.facts.Imports = append(r.facts.Imports, model.Import{
			Name: local, Assumed: member, Path: module, Member: member, Span: source.NewSpan(from, to), Public: local == member,
		})
	})
}

// eachImported yields the names of a list, with the local name where "as" gives one.
func (r *reader) eachImported(at, stop int, yield func(from, to int, local string)) {
	for at < stop {
		end := r.dottedEnd(at)
		if end == at {
			at++
			continue
		}
		end = min(end, stop)
		local := ""
		after := r.blanks(end, true)
		if after < stop && r.wordAt(after, "as") {
			name := r.blanks(after+len("as"), true)
			after = r.nameEnd(name)
			local = r.text[name:after]
		}
		yield(at, end, local)
		at = max(after, end)
	}
}

// list reads names in quotes into what the module gives away. Anything else, as
// another module's list, makes it incomplete.
func (r *reader) list(at, stop int) {
	if r.listed == nil {
		r.listed = map[string]bool{}
	}
	for at < stop {
		c := r.text[at]
		switch {
		case c == '#':
			at = r.endOfLine(at)
		case c == '\'' || c == '"':
			end, _ := r.plainString(at)
			if at+1 < end {
				r.listed[r.text[at+1:end-1]] = true
			}
			at = end
		case startsName(c):
			end := r.dottedEnd(at)
			switch r.text[at:end] {
			case "extend", "append", "u", "r", "b":
			default:
				r.unlisted = true
			}
			at = end
		default:
			at++
		}
	}
}

// exports marks what the module's list names. Without a list, a package gives on
// what it takes from its own modules.
func (r *reader) exports() {
	for i := range r.facts.Imports {
		imported := &r.facts.Imports[i]
		local := imported.Name
		if local == "" {
			local = imported.Assumed
		}
		switch {
		case r.listed != nil && imported.Member != "*":
			imported.Public = r.listed[local]
		case !imported.Public && isPackageFile(r.facts.Path) && !r.facts.Stub:
			imported.Public = imported.Member != "" && r.ownModule(imported.Path) && !strings.HasPrefix(local, "_")
		}
		imported.Public = imported.Public || imported.Member == "*" && isPackageFile(r.facts.Path) && r.ownModule(imported.Path)
	}
	if r.listed == nil {
		return
	}
	r.facts.Listed = !r.unlisted
	for i := range r.facts.Occurrences {
		o := &r.facts.Occurrences[i]
		switch {
		case o.Parent >= 0:
		case r.listed[o.Name]:
			o.Export = model.Exported
		case !r.unlisted:
			o.Export = model.NotExported
		}
	}
}

// ownModule reports whether a path of an import lies in the package of the file.
func (r *reader) ownModule(imported string) bool {
	own := path.Base(path.Dir(r.facts.Path))
	return strings.HasPrefix(imported, ".") || imported == own || strings.HasPrefix(imported, own+".")
}
