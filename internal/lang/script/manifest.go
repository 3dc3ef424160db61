package script

import (
	"encoding/json"
	"maps"
	"path"
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// This file reads package.json: the name that users import, and the files that the
// package gives them (Node.js, "Packages").

// MarkerNames are the files that make a folder a library.
func (FrontEnd) MarkerNames() []string { return []string{"package.json"} }

// manifest is what a package.json says.
type manifest struct {
	Name       string          `json:"name"`
	Version    string          `json:"version"`
	Private    bool            `json:"private"`
	Main       json.RawMessage `json:"main"`
	Module     json.RawMessage `json:"module"`
	Source     json.RawMessage `json:"source"`
	Types      json.RawMessage `json:"types"`
	Typings    json.RawMessage `json:"typings"`
	Exports    json.RawMessage `json:"exports"`
	Imports    json.RawMessage `json:"imports"`
	Workspaces json.RawMessage `json:"workspaces"`
}

func readManifest(data []byte) (m manifest, ok bool) {
	return m, json.Unmarshal(data, &m) == nil
}

// importName is what users import the package by: declarations that are published apart
// from their code are imported by the name of the code.
func (m *manifest) importName() string {
	name, apart := strings.CutPrefix(m.Name, "@types/")
	if scope, rest, scoped := strings.Cut(name, "__"); apart && scoped {
		return "@" + scope + "/" + rest
	}
	return name
}

// offer is one thing that a package gives to users: what they import it by, and the files
// that it may mean, the best first. One "*" in them stands for any text.
type offer struct {
	as     string
	types  []string // files of declarations
	files  []string
	closed bool // what would be imported by such a name is kept all the same
}

// Root reads name, version and entries of a package.json. Its entries are as written;
// what they mean is said by [FrontEnd.Choose], which sees the files.
func (FrontEnd) Root(file string, data []byte) (lang.Root, bool) {
	m, ok := readManifest(data)
	if !ok {
		return lang.Root{}, false
	}
	root := lang.Root{Folder: path.Dir(file), Part: m.Name == "", Name: m.Name, Version: m.Version, Package: m.importName()}
	if i := strings.LastIndexByte(root.Name, '/'); i >= 0 {
		root.Name = root.Name[i+1:]
	}
	for _, o := range m.offers(m.importName()) {
		for _, file := range append(slices.Clone(o.types), o.files...) {
			root.Entries = append(root.Entries, model.Entry{Path: path.Clean(file), As: o.as})
		}
	}
	return root, true
}

// PartOf reports whether a package in the folder of another is a part of that one: users
// import it by what the outer package says, whatever name it carries itself.
func (FrontEnd) PartOf(outer, inner lang.Root) bool {
	below := inner.Folder
	if outer.Folder != "." {
		below = strings.TrimPrefix(below, outer.Folder+"/")
	}
	if inner.Name != "" && inner.Package == outer.Package+"/"+below {
		return true
	}
	return slices.ContainsFunc(outer.Entries, func(e model.Entry) bool {
		return strings.HasPrefix(e.Path, below+"/") && e.As == outer.Package+"/"+below
	})
}

// offers are those of "exports", else of "types" and "main", imported by a name.
func (m *manifest) offers(name string) []offer {
	if out := exported(m.Exports, name); len(out) > 0 {
		for i := range out {
			if out[i].as == name && !out[i].closed {
				out[i].types = append(out[i].types, texts(m.Types, m.Typings)...)
			}
		}
		return out
	}
	return []offer{{as: name, types: texts(m.Types, m.Typings), files: append(texts(m.Source, m.Module, m.Main), "index.js")}}
}

// texts are those of some fields that are texts and not empty.
func texts(fields ...json.RawMessage) (out []string) {
	for _, raw := range fields {
		var text string
		if json.Unmarshal(raw, &text) == nil && text != "" {
			out = append(out, text)
		}
	}
	return out
}

// exported are the files that "exports" of a package.json names, and what users import
// them by (Node.js, "Packages": "Subpath exports", "Subpath patterns"). Folders that are
// called internal stay closed though a pattern opens them: it only keeps old paths alive.
func exported(raw json.RawMessage, name string) []offer {
	var fields map[string]json.RawMessage
	if json.Unmarshal(raw, &fields) != nil || !slices.ContainsFunc(slices.Collect(maps.Keys(fields)), func(k string) bool { return strings.HasPrefix(k, ".") }) {
		if o := offered(raw, name); len(o.types)+len(o.files) > 0 {
			return []offer{o}
		}
		return nil
	}
	var out []offer
	for _, key := range slices.Sorted(maps.Keys(fields)) {
		as := strings.TrimSuffix(name+strings.TrimPrefix(key, "."), "/")
		if !strings.HasPrefix(key, ".") || strings.HasSuffix(key, ".json") || strings.HasSuffix(key, ".css") {
			continue
		}
		if string(fields[key]) == "null" || strings.HasSuffix(as, "/internal/*") {
			out = append(out, offer{as: as, closed: true})
			continue
		}
		if strings.HasSuffix(key, "/") && key != "./" { // a folder, as it was written before patterns
			as += "/*"
			o := offered(fields[key], as)
			for i := range o.files {
				o.files[i] = strings.TrimSuffix(o.files[i], "/") + "/*"
			}
			out = append(out, o)
			continue
		}
		if o := offered(fields[key], as); len(o.types)+len(o.files) > 0 {
			out = append(out, o)
		}
	}
	return out
}

// offered is what one key of "exports" gives.
func offered(raw json.RawMessage, as string) offer {
	o := offer{as: as}
	type ranked struct {
		file string
		rank int
	}
	var list []ranked
	targets(raw, 0, 0, func(file string, rank int) {
		if strings.Count(as, "*") <= 1 && (strings.Contains(as, "*") || !strings.Contains(file, "*")) && !strings.HasSuffix(file, ".json") && !strings.HasSuffix(file, ".css") {
			list = append(list, ranked{file, rank})
		}
	})
	slices.SortStableFunc(list, func(a, b ranked) int { return a.rank - b.rank })
	for _, t := range list {
		switch {
		case t.rank >= typesRank/2 || declares(t.file):
			o.types = append(o.types, t.file)
		case !slices.Contains(o.files, t.file):
			o.files = append(o.files, t.file)
		}
	}
	return o
}

// typesRank sets targets for types apart; ranks order conditions: modules before scripts,
// and what is for everybody before what is for one host.
const typesRank = 1000

var conditionRanks = map[string]int{
	"source": 0, "import": 2, "module": 2, "module-sync": 2, "default": 6, "node": 6, "browser": 8, "require": 10, "worker": 12, "development": 3, "production": 14,
}

// otherRank is that of conditions which few know, as those of one tool.
const otherRank = 16

// targets yields all files that an entry of "exports" names, whatever the conditions.
func targets(raw json.RawMessage, rank, depth int, yield func(file string, rank int)) {
	if len(raw) == 0 || depth > 20 {
		return
	}
	switch raw[0] {
	case '"':
		for _, text := range texts(raw) {
			yield(text, rank)
		}
	case '[':
		var list []json.RawMessage
		_ = json.Unmarshal(raw, &list) // what is no list has no targets
		for _, r := range list {
			targets(r, rank, depth+1, yield)
		}
	case '{':
		var fields map[string]json.RawMessage
		_ = json.Unmarshal(raw, &fields)
		for _, key := range slices.Sorted(maps.Keys(fields)) {
			more, ok := conditionRanks[key]
			if !ok {
				more = otherRank
			}
			if depth > 0 {
				more /= 4 // what stands around says more
			}
			if strings.HasPrefix(key, "types") {
				more = typesRank
			}
			targets(fields[key], rank+more, depth+1, yield)
		}
	}
}

// declares reports whether a file holds declarations without bodies.
func declares(file string) bool {
	return strings.HasSuffix(file, ".d.ts") || strings.HasSuffix(file, ".d.mts") || strings.HasSuffix(file, ".d.cts")
}
