package script

import (
	"slices"
	"strings"

	"codrel/internal/model"
	"codrel/internal/source"
)

// This file reads what scripts take from one another by require, and re-export by
// assignments to module.exports, by helpers of compilers and by properties that are
// defined (Node.js, "Modules: CommonJS modules").

// given is a name all of which a file exports.
type given struct {
	name string
	span source.Span
}

// required is what "require('path').member", bare or wrapped by the helper of a compiler,
// takes: the value from an offset to another one. The path is "" where the value is
// something else.
func (r *reader) required(at, stop int) (path, member string) {
	if end := r.dottedEnd(at); end > at && (r.text[at] == '_' || strings.HasPrefix(r.text[at:], "tslib")) && r.byteAt(r.after(end)) == '(' {
		if open := r.after(end); r.bracketed(open) == stop { // __importStar(require("path"))
			inner := r.after(open + 1)
			if call := r.requireEnd(inner); call > 0 {
				return r.required(inner, call)
			}
		}
		return "", ""
	}
	end := r.requireEnd(at)
	if end < 0 || end > stop {
		return "", ""
	}
	text := r.after(r.after(at+len("require")) + 1)
	path = r.text[text+1 : r.quoted(text)-1]
	if end == stop {
		return path, ""
	}
	if next := r.after(end); r.byteAt(next) == '.' {
		name := r.after(next + 1)
		if r.dottedEnd(name) == stop && stop > name {
			return path, r.dottedPath(name, stop)
		}
	}
	return "", ""
}

// requireEnd is the offset behind "require('path')", or -1.
func (r *reader) requireEnd(at int) int {
	if !r.wordAt(at, "require") {
		return -1
	}
	open := r.after(at + len("require"))
	if r.byteAt(open) != '(' {
		return -1
	}
	text := r.after(open + 1)
	if c := r.byteAt(text); c != '"' && c != '\'' {
		return -1
	}
	end := r.quoted(text)
	if closing := r.after(end); r.byteAt(closing) == ')' && end >= text+2 {
		return closing + 1
	}
	return -1
}

// dottedEnd is the offset behind "a.b.c", or the same where no name begins.
func (r *reader) dottedEnd(at int) int {
	end := r.nameEnd(at)
	for end > at && r.byteAt(end) == '.' && startsName(r.byteAt(end+1)) {
		end = r.nameEnd(end + 1)
	}
	return end
}

// dottedPath is a dotted path without blanks.
func (r *reader) dottedPath(at, end int) string {
	return strings.Join(strings.Fields(r.text[at:end]), "")
}

// noNames are words that are values and no names.
var noNames = map[string]bool{"true": true, "false": true, "null": true, "undefined": true, "this": true, "void": true, "NaN": true, "Infinity": true, "module": true, "exports": true}

// meantPath is the dotted path that is the whole of a value, or "".
func (r *reader) meantPath(at, stop int) string {
	if end := r.dottedEnd(at); end > at && end == stop && !noNames[r.text[at:r.nameEnd(at)]] {
		return r.text[at:end]
	}
	return ""
}

// bindValue keeps what a name stands for whose value is that of another module.
func (r *reader) bindValue(name source.Span, valueAt, stop int) {
	if path, member := r.required(valueAt, stop); path != "" {
		r.facts.Imports = append(r.facts.Imports, model.Import{Name: name.In(r.text), Path: path, Member: member, Whole: member == "", Span: name})
	}
}

// secondName keeps what a name that is exported stands for: something of another module,
// or of this one.
func (r *reader) secondName(name string, span source.Span, valueAt, stop int) {
	if path, member := r.required(valueAt, stop); path != "" {
		r.facts.Imports = append(r.facts.Imports, model.Import{Name: name, Assumed: name, Path: path, Member: member, Whole: member == "", Reexport: true, Span: span})
	} else if path := r.meantPath(valueAt, stop); path != "" && path != name {
		r.givesAs(name, span, path, nil)
	}
}

// wholeIs keeps what "module.exports" is set to. It is false where that is no name.
func (r *reader) wholeIs(span source.Span, valueAt, stop int) bool {
	if path, member := r.required(valueAt, stop); path != "" {
		r.facts.DefaultIsModule = true
		r.facts.Imports = append(r.facts.Imports, model.Import{Name: "default", Assumed: "default", Path: path, Member: member, Whole: member == "", Reexport: true, Span: span})
		if member == "" {
			r.facts.Imports = append(r.facts.Imports, model.Import{Path: path, Member: "*", Reexport: true, Span: span})
		}
		return true
	}
	if path := r.meantPath(valueAt, stop); path != "" {
		r.facts.DefaultIsModule = true
		r.givesAs("default", span, path, nil)
		return true
	}
	return false
}

// spread exports all that a module, or an object, holds.
func (r *reader) spread(span source.Span, valueAt, stop int) {
	if path, member := r.required(valueAt, stop); path != "" && member == "" {
		r.facts.Imports = append(r.facts.Imports, model.Import{Path: path, Member: "*", Reexport: true, Span: span})
	} else if path := r.meantPath(valueAt, stop); path != "" {
		r.spreads = append(r.spreads, given{path, span})
	}
}

// spreadNames follows names all of which is exported to the modules they stand for.
func (r *reader) spreadNames() {
	for _, s := range r.spreads {
		for _, in := range r.facts.Imports {
			if in.Name == s.name && in.Path != "" && (in.Member == "" || in.Member == "default") {
				r.facts.Imports = append(r.facts.Imports, model.Import{Path: in.Path, Member: "*", Reexport: true, Span: s.span})
				break
			}
		}
	}
	last := func(in model.Import) int {
		if strings.Contains(in.Path, "production") || strings.Contains(in.Path, ".min") {
			return 1 // its twin has the comments
		}
		return 0
	}
	if slices.ContainsFunc(r.facts.Imports, func(in model.Import) bool { return last(in) > 0 }) {
		slices.SortStableFunc(r.facts.Imports, func(a, b model.Import) int { return last(a) - last(b) })
	}
}

// ownExports reports whether a value is "exports" or "module.exports".
func (r *reader) ownExports(at, stop int) bool {
	switch strings.Join(strings.Fields(r.text[at:stop]), "") {
	case "exports", "module.exports":
		return true
	}
	return false
}

// arguments are the spans of what stands between the brackets of a call.
func (r *reader) arguments(open int) (out []source.Span, end int) {
	end = r.bracketed(open)
	for at := open + 1; at < end-1 && len(out) < mostArguments; {
		from := r.after(at)
		to := r.argument(from)
		if to > end-1 || to <= from {
			break
		}
		out = append(out, source.NewSpan(from, r.back(to)))
		at = to + 1
	}
	return out, end
}

// mostArguments bounds how many arguments of a call are looked at.
const mostArguments = 200

// callExports reads a statement that is a call which gives something away. It is false
// for every other statement.
func (r *reader) callExports(at int) bool {
	if strings.HasPrefix(r.text[at:], "0 && (module.exports = {") { // says to tools what a bundle gives
		open := at + strings.IndexByte(r.text[at:], '{')
		r.common = true
		r.object(open, -1)
		r.finish(r.back(r.whole(at)))
		return true
	}
	end := r.dottedEnd(at)
	if end == at {
		return false
	}
	open := r.after(end)
	if r.byteAt(open) != '(' {
		return false
	}
	callee := r.text[at:end]
	switch callee[strings.LastIndexByte(callee, '.')+1:] {
	case "__exportStar", "__export", "__reExport", "_exportStar", "_export_star":
		args, _ := r.arguments(open)
		for i, a := range args {
			if path, member := r.required(int(a.Start), int(a.End)); path != "" && member == "" {
				r.common = true
				r.facts.Imports = append(r.facts.Imports, model.Import{Path: path, Member: "*", Reexport: true, Span: a})
			} else if i > 0 && r.text[a.Start] == '{' {
				r.getters(a)
			}
		}
	case "assign":
		args, _ := r.arguments(open)
		if callee != "Object.assign" || len(args) == 0 || !r.ownExports(int(args[0].Start), int(args[0].End)) {
			return false
		}
		r.common = true
		for _, a := range args[1:] {
			if r.text[a.Start] == '{' {
				r.object(int(a.Start), -1)
			} else {
				r.spread(a, int(a.Start), int(a.End))
			}
		}
	case "defineProperty":
		args, _ := r.arguments(open)
		if len(args) < 3 || !r.ownExports(int(args[0].Start), int(args[0].End)) {
			return false
		}
		r.defined(args[1], args[2])
	case "forEach":
		return false
	case "keys":
		return r.allKeys(at, open)
	default:
		return false
	}
	r.finish(r.back(r.whole(at)))
	return true
}

// defined reads the name and the descriptor of a property that is defined on what the
// module exports.
func (r *reader) defined(name, descriptor source.Span) {
	as := strings.Trim(name.In(r.text), "\"'`")
	if as == "__esModule" || as == "" || as == name.In(r.text) {
		return
	}
	r.common = true
	text := descriptor.In(r.text)
	for _, before := range []string{"return ", "=>", "value:"} {
		if i := strings.Index(text, before); i >= 0 {
			at := r.after(int(descriptor.Start) + i + len(before))
			if end := r.dottedEnd(at); end > at && end <= int(descriptor.End) && !noNames[r.text[at:r.nameEnd(at)]] {
				r.givesAs(as, name, r.text[at:end], nil)
				return
			}
			if end := r.requireEnd(at); end > 0 {
				r.secondName(as, name, at, end)
				return
			}
		}
	}
}

// getters reads "{ name: () => value, ... }", by which bundles say what they export.
func (r *reader) getters(object source.Span) {
	list, _ := r.arguments(int(object.Start))
	for _, p := range list {
		name := r.nameEnd(int(p.Start))
		colon := r.after(name)
		if c := r.text[p.Start]; c == '"' || c == '\'' {
			name = r.quoted(int(p.Start))
			colon = r.after(name)
		}
		if name == int(p.Start) || r.byteAt(colon) != ':' {
			continue
		}
		if i := strings.Index(r.text[colon:p.End], "=>"); i >= 0 {
			at := r.after(colon + i + 2)
			if path := r.meantPath(at, int(p.End)); path != "" {
				r.common = true
				r.givesAs(strings.Trim(r.text[p.Start:name], `"'`), source.NewSpan(int(p.Start), name), path, nil)
			}
		}
	}
}

// allKeys reads "Object.keys(name).forEach(... exports ...)", by which a compiler gives
// on all that a module holds.
func (r *reader) allKeys(at, open int) bool {
	args, end := r.arguments(open)
	stop := r.whole(at)
	if len(args) != 1 || !strings.HasPrefix(r.text[r.after(end):], ".forEach") || !strings.Contains(r.text[end:stop], "exports") {
		return false
	}
	r.common = true
	r.spread(args[0], int(args[0].Start), int(args[0].End))
	r.finish(r.back(stop))
	return true
}

// exportsWithin reads what a block exports whose declarations are its own. Of these,
// what is exported is kept.
func (r *reader) exportsWithin(from, to int) {
	if r.scope != "" || r.deep > mostBlocks || !strings.Contains(r.text[from:to], "exports") && r.inner == 0 {
		return
	}
	r.localBlock(from, to)
}

// localBlock reads the statements between two offsets, whose declarations are local.
func (r *reader) localBlock(from, to int) {
	pending := len(r.pending)
	r.local(r.aside(func() {
		r.deep++
		r.at = from
		for r.next(); r.at < to-1; r.next() {
			r.progress(r.statement)
		}
		r.deep--
	}))
	for i := min(pending, len(r.pending)); i < len(r.pending); i++ {
		r.pending[i].occurrence.Local = true
	}
}

// mostBlocks bounds how deep blocks in blocks are looked into.
const mostBlocks = 6

// keepGiven leaves out what is local and not exported.
func (r *reader) keepGiven() {
	local := false
	for i := range r.facts.Occurrences {
		local = local || r.facts.Occurrences[i].Local
	}
	if !local {
		return
	}
	moved := make([]int32, len(r.facts.Occurrences))
	kept := r.facts.Occurrences[:0]
	for i := range moved {
		o := r.facts.Occurrences[i]
		given := o.Export == model.Exported || o.Export == model.Renamed || r.exported[o.Name] || r.renamed[o.Name]
		if o.Parent >= 0 {
			given = moved[o.Parent] >= 0
		}
		if moved[i] = -1; o.Local && !given {
			continue
		}
		if o.Parent >= 0 {
			o.Parent = moved[o.Parent]
		}
		moved[i] = int32(len(kept))
		kept = append(kept, o)
	}
	clear(r.facts.Occurrences[len(kept):])
	r.facts.Occurrences = kept
	r.tops, r.looked = nil, 0
}

// givenValue reads "= module.exports = value", by which what a name is bound to is exported.
func (r *reader) givenValue(name source.Span, valueAt int) {
	names, _, sign := r.path(valueAt)
	if sign < 0 || names[0] != "exports" && names[0] != "module" {
		return
	}
	r.common = true
	if names[0] == "exports" && len(names) == 2 || len(names) == 3 {
		r.givesAs(names[len(names)-1], name, name.In(r.text), nil)
	} else {
		r.facts.DefaultIsModule = true
		r.givesByDefault(name.In(r.text), name)
	}
	for range mostBlocks {
		at := r.after(sign + 1)
		if r.byteAt(at) == '{' && r.scope == "" {
			r.local(r.aside(func() { r.object(at, -1) }))
			return
		}
		if _, _, sign = r.path(at); sign < 0 {
			return
		}
	}
}

// calledAtOnce reads a statement that calls a function where it is written, as scripts did
// before there were modules: what that exports is the file's. It is false for every
// other statement.
func (r *reader) calledAtOnce(at int) bool {
	start := at
	for strings.IndexByte("!+-~;", r.byteAt(at)) >= 0 && r.byteAt(at) != 0 {
		at = r.after(at + 1)
	}
	if r.wordAt(at, "void") {
		at = r.after(at + len("void"))
	}
	opened := r.byteAt(at) == '('
	for r.byteAt(at) == '(' && !r.arrowNext(at) {
		at = r.after(at + 1)
	}
	f, ok := r.wrapper(at)
	if !ok || !opened && at == start {
		return false
	}
	stop := r.whole(start)
	if text := r.text[start:stop]; !strings.Contains(text, "exports") {
		return false
	}
	bodies := []source.Span{f.body}
	open := r.after(f.end)
	for r.byteAt(open) == ')' {
		open = r.after(open + 1)
	}
	if r.byteAt(open) == '(' {
		args, _ := r.arguments(open)
		for _, a := range args {
			inner := int(a.Start)
			for r.byteAt(inner) == '(' && !r.arrowNext(inner) {
				inner = r.after(inner + 1)
			}
			if f, ok := r.wrapper(inner); ok {
				bodies = append(bodies, f.body)
			}
		}
	}
	if r.inner < mostBlocks {
		for _, b := range bodies {
			r.inner++
			r.localBlock(int(b.Start)+1, int(b.End))
			r.inner--
		}
	}
	r.finish(r.back(stop))
	return true
}

// wrapper is the function that is written at an offset, with a body in braces.
func (r *reader) wrapper(at int) (function, bool) {
	f := function{}
	if r.wordAt(at, "async") {
		at = r.after(at + len("async"))
	}
	if r.wordAt(at, "function") {
		at = r.after(at + len("function"))
		at = r.after(r.nameEnd(at))
		return f, r.callable(&f, at) && !f.body.Empty()
	}
	if r.byteAt(at) == '(' {
		return f, r.arrow(&f, at) && !f.body.Empty()
	}
	return f, false
}

// arrowNext reports whether the brackets at an offset are the parameters of an arrow function.
func (r *reader) arrowNext(at int) bool {
	return strings.HasPrefix(r.text[r.after(r.bracketed(at)):], "=>")
}

// returned reads what a function gives back that makes a module.
func (r *reader) returned(h *heads, valueAt int) {
	stop := r.whole(valueAt)
	if r.byteAt(valueAt) == '{' {
		r.common = true
		r.object(valueAt, -1)
	} else if r.wholeIs(source.NewSpan(valueAt, valueAt+1), valueAt, r.back(stop)) {
		r.common = true
	}
	r.finish(r.back(stop))
}
