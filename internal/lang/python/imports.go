package python

import (
	"cmp"
	"slices"
	"strings"

	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads imports and the list of what a module exports.

// importing reads "import a.b as c" and "from a import b as c".
func (r *reader) importing(word string, at, stop int) {
	if r.inner().kind != model.KindModule {
		return
	}
	if slices.ContainsFunc(r.blocks, func(b block) bool { return b.apart }) {
		defer func(from int) {
			for i := range r.facts.Imports[from:] {
				r.facts.Imports[from+i].NotLoaded = true
			}
		}(len(r.facts.Imports))
	}
	at = r.blanks(at+len(word), false)
	if word == "import" {
		r.eachImported(at, stop, func(from, to int, local string) {
			r.facts.Imports = append(r.facts.Imports, model.Import{
				Name: local, Assumed: r.text[from:to], Path: r.text[from:to], Span: source.NewSpan(from, to), ReexportsOwn: local != "" && !strings.HasPrefix(local, "_"),
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
		r.facts.Imports = append(r.facts.Imports, model.Import{Path: module, Member: "*", Span: source.NewSpan(start, at+1), ReexportsOwn: true})
		return
	}
	r.eachImported(at, stop, func(from, to int, local string) {
		member := r.text[from:to]
		r.facts.Imports = append(r.facts.Imports, model.Import{
			Name: local, Assumed: member, Path: module, Member: member, Span: source.NewSpan(from, to), Reexport: local == member,
			ReexportsOwn: !strings.HasPrefix(cmp.Or(local, member), "_"),
		})
	})
}

// eachImported yields the names of a list, with the local name where "as" gives one.
func (r *reader) eachImported(at, stop int, yield func(from, to int, local string)) {
	for at < stop {
		if r.text[at] == '#' {
			at = r.endOfLine(at)
			continue
		}
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

// list reads names in quotes into what the module exports, and the lists of other
// modules. Anything else makes it incomplete.
func (r *reader) list(at, stop int) {
	if r.listed == nil {
		r.listed = map[string]bool{}
	}
	removes := false
	for at < stop {
		c := r.text[at]
		switch {
		case c == '#':
			at = r.endOfLine(at)
		case c == '\'' || c == '"':
			end, _ := r.plainString(at)
			if name := r.text[at+1 : max(at+1, end-1)]; removes {
				delete(r.listed, name)
			} else if name != "" {
				r.listed[name] = true
				r.facts.ExportList = append(r.facts.ExportList, model.ExportedName{Name: name, Span: source.NewSpan(at+1, end-1)})
			}
			at = end
		case startsName(c):
			end := r.dottedEnd(at)
			switch name := r.text[at:end]; name {
			case "extend", "append", "u", "r", "b", "list", "tuple", "sorted", "set":
			case "remove":
				removes = true
			default:
				of, ends := strings.CutSuffix(name, ".__all__")
				if r.unlisted = r.unlisted || !ends; ends {
					r.lists = append(r.lists, listOf{of, source.NewSpan(at, end)})
				}
			}
			at = end
		default:
			at++
		}
	}
}

// listOf is the list of another module that is a part of a module's own.
type listOf struct {
	name string // of the module, as the file knows it
	span source.Span
}

// takeLists re-exports all that the modules export whose lists are a part of the own one.
func (r *reader) takeLists() {
	for _, l := range r.lists {
		known := false
		for _, in := range r.facts.Imports {
			if cmp.Or(in.Name, in.Assumed) != l.name || in.Member == "*" {
				continue
			}
			known = true
			module := in.Path
			if in.Member != "" {
				module = strings.TrimSuffix(module, ".") + "." + in.Member
				if strings.Trim(in.Path, ".") == "" {
					module = in.Path + in.Member
				}
			}
			r.facts.Imports = append(r.facts.Imports, model.Import{Path: module, Member: "*", Reexport: true, Span: l.span})
			break
		}
		r.unlisted = r.unlisted || !known
	}
}

// exports marks what the module's list names. Without a list, what is taken from other
// modules may be re-exported: that hangs on which modules these are.
func (r *reader) exports() {
	r.takeLists()
	for i := range r.facts.Imports {
		in := &r.facts.Imports[i]
		local := cmp.Or(in.Name, in.Assumed)
		switch {
		case r.gone[local]:
			in.ReexportsOwn, in.Reexport = false, false
		case r.listed != nil && in.Member != "*":
			in.Reexport = r.listed[local]
			in.ReexportsOwn = r.unlisted && in.ReexportsOwn
		case r.listed != nil:
			in.ReexportsOwn = r.unlisted
		case r.facts.Stub || in.NotLoaded:
			in.ReexportsOwn = false
		}
	}
	if r.listed == nil {
		return
	}
	r.facts.HasExportList = !r.unlisted
	r.facts.ExportList = slices.DeleteFunc(r.facts.ExportList, func(l model.ExportedName) bool { return !r.listed[l.Name] })
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
