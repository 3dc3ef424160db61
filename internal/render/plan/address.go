package plan

import (
	"fmt"
	"hash/fnv"
	"strconv"
	"strings"
	"unicode"

	"codrel/internal/model"
)

// Addresses are pure functions of what they lead to, and read as names do: nothing
// moves because a neighbour came or went. Names that some system reserves or hides
// carry a "~", and characters that file names had better not hold stand between two.

// Library is the address of a library's page.
func Library(lib *model.Library) string { return "reference/" + segment(lib.Name) + "/index.html" }

// Module is the address of a module's page.
func Module(m *model.Module) string { return moduleFolder(m) + "/index.html" }

func moduleFolder(m *model.Module) string {
	var b strings.Builder
	b.WriteString("reference/" + segment(m.Library.Name))
	for part := range strings.SplitSeq(m.Path, "/") {
		b.WriteString("/" + segment(part))
	}
	return shortFolder(b.String())
}

// PageOf is the address of the page that a declaration stands on: that of the type whose
// page it is on, see [Owner], else that of its module.
func PageOf(d *model.Declaration) string {
	return moduleFolder(outermost(d).Module) + "/" + pageFile(d)
}

// pageFile is the file of a declaration's page in its module's folder.
func pageFile(d *model.Declaration) string {
	owner := Owner(d)
	if owner == nil {
		return "index.html"
	}
	return shortened(ownFile(owner), longestFile) + ".html"
}

// ownFile is the file of a declaration that has a page, without its ending: the names of
// the namespaces around it, and its own.
func ownFile(d *model.Declaration) string {
	switch {
	case d.Parent != nil:
		return ownFile(d.Parent) + "." + labelFile(d)
	case d.Scope != "": // a comment puts it into what nothing declares
		return scopeFile(d.Scope) + "." + labelFile(d)
	}
	return labelFile(d)
}

// labelFile is the part of a file's name for a declaration: its name, and what else tells
// it from others of that name, which no name has.
func labelFile(d *model.Declaration) string {
	name := typeFile(d.Name)
	if arity := d.Arity(); arity > 0 {
		name += "-" + strconv.Itoa(int(arity))
	}
	if space := d.Space(); space != "" {
		name = space + "-" + name
	}
	return name
}

func scopeFile(scope string) string {
	parts := strings.Split(scope, ".")
	for i := range parts {
		parts[i] = typeFile(parts[i])
	}
	return strings.Join(parts, ".")
}

// Owner is the type whose page a declaration stands on, itself for one that has a page;
// nil for what stands on the page of its module. Types have pages at the top of a module
// and right in namespaces; what stands in another type stands on the page of that.
func Owner(d *model.Declaration) (owner *model.Declaration) {
	for at, depth := d, 0; at != nil && depth < deepest; at, depth = at.Parent, depth+1 {
		switch kind := at.Kind(); {
		case !kind.IsType():
			owner = nil
		case owner == nil || !holdsPages(at):
			owner = at
		}
	}
	return owner
}

// HasPage reports whether a declaration has a page of its own.
func HasPage(d *model.Declaration) bool { return d.Kind().IsType() && Owner(d) == d }

// holdsPages reports whether the types in a type have pages of their own.
func holdsPages(d *model.Declaration) bool {
	k := d.Kind()
	return k == model.KindNamespace || k == model.KindModule || k.IsType() && d.Module.Library.TypesApart()
}

// deepest bounds how far declarations are looked into.
const deepest = 1000

// outermost is the declaration at the top of the module that d stands in.
func outermost(d *model.Declaration) *model.Declaration {
	for depth := 0; d.Parent != nil && depth < deepest; depth++ {
		d = d.Parent
	}
	return d
}

// Label is [model.Declaration.Label] as an anchor can have it: the blanks of names such as
// "operator ==" are underscores there, or a sign that no one writes where a name has these, and
// "%" is its wide twin, since it begins an escape in addresses.
func Label(d *model.Declaration) string {
	label := strings.ReplaceAll(d.Label(), "%", "\uff05")
	if strings.IndexFunc(label, unicode.IsSpace) < 0 {
		return label
	}
	words := strings.FieldsFunc(label, unicode.IsSpace)
	if plain := strings.Join(words, "_"); d.Module.Lookup(plain) == nil {
		return plain
	}
	return strings.Join(words, "\u2423")
}

// Anchor is the part of a declaration's address behind "#", or "" where it has
// the page to itself.
func Anchor(d *model.Declaration) string {
	switch owner := Owner(d); owner {
	case nil:
		return Label(d)
	case d:
		return ""
	default:
		return strings.TrimPrefix(Label(d), Label(owner)+".")
	}
}

// Declaration is the whole address of a declaration.
func Declaration(d *model.Declaration) string {
	if anchor := Anchor(d); anchor != "" {
		return PageOf(d) + "#" + anchor
	}
	return PageOf(d)
}

// FormAnchor is the anchor of one form of a declaration that has several: its own
// with the types of the parameters behind it.
func FormAnchor(d *model.Declaration, form model.At) string {
	types := strings.Join(form.ParamTypes(), ",")
	if len(types) > longestTypes { // types can be whole programs
		sum := fnv.New32a()
		sum.Write([]byte(types))
		types = strings.ToValidUTF8(types[:longestTypes], "") + "~" + strconv.FormatUint(uint64(sum.Sum32()), 16)
	}
	return Anchor(d) + "(" + types + ")"
}

// longestTypes is how many bytes of types an anchor spells out.
const longestTypes = 120

// Relative is the way from one page to an address, both from the site's root.
// Pages are full of links to their neighbours, so those are cut, not built.
func Relative(from, to string) string {
	if IsAddress(to) {
		return to
	}
	folder := from[:strings.LastIndexByte(from, '/')+1]
	page := to
	if anchor := strings.IndexByte(to, '#'); anchor >= 0 {
		page = to[:anchor]
		if page == from {
			return to[anchor:]
		}
	}
	same := 0
	for i := 0; i < len(folder) && i < len(page) && folder[i] == page[i]; i++ {
		if folder[i] == '/' {
			same = i + 1
		}
	}
	up := strings.Count(folder[same:], "/")
	if up == 0 {
		return to[same:]
	}
	return strings.Repeat("../", up) + to[same:]
}

// IsAddress reports whether a way to a page is a whole address, of another site.
func IsAddress(to string) bool {
	return strings.HasPrefix(to, "https://") || strings.HasPrefix(to, "http://")
}

// Root is the way from a page to the site's root: "" or "../" repeated.
func Root(from string) string { return strings.Repeat("../", strings.Count(from, "/")) }

// segment makes a folder name of one part of a module path: the part as it is
// written. Characters that a file name had better not hold are escaped.
func segment(part string) string {
	var b strings.Builder
	for _, r := range part {
		if isPlain(r) || r == '.' || r == '-' || r == '@' {
			b.WriteRune(r)
		} else {
			writeEscaped(&b, r)
		}
	}
	if name := b.String(); name == indexName { // a folder is not in the way of the page
		return name
	}
	return shortened(guard(b.String()), longestFile)
}

// File systems bound the name of a file (255 bytes on most) and the way to it (4 kB, with
// what is before the site). Names of files have endings of up to thirty bytes behind these.
const (
	longestFile   = 160
	longestFolder = 800
)

// shortened is a name, or the beginning of one that is too long with a sum of all of it:
// it hangs on the spelling alone, and no name has such an end.
func shortened(name string, longest int) string {
	if len(name) <= longest {
		return name
	}
	sum := fnv.New64a()
	sum.Write([]byte(name))
	return fmt.Sprintf("%s~%016x", strings.TrimRight(name[:longest-40], "~./"), sum.Sum64())
}

// shortFolder does the same with the way to a folder.
func shortFolder(folder string) string {
	if len(folder) <= longestFolder {
		return folder
	}
	cut := strings.LastIndexByte(folder[:longestFolder-200], '/')
	return folder[:cut+1] + shortened(strings.ReplaceAll(folder[cut+1:], "/", "."), longestFile)
}

// indexName is the name of the page that each folder has.
const indexName = "index"

// typeFile makes a file name of a type's name, without its ending: the name as it is
// written. Types whose names differ by case alone share a page, see [Page.Twins].
func typeFile(name string) string {
	var b strings.Builder
	for _, r := range name {
		if isPlain(r) {
			b.WriteRune(r)
		} else {
			writeEscaped(&b, r)
		}
	}
	return guard(b.String())
}

func isPlain(r rune) bool {
	return 'a' <= r && r <= 'z' || 'A' <= r && r <= 'Z' || '0' <= r && r <= '9' || r == '_' || r == '$'
}

// writeEscaped writes a character that a file name had better not hold. Letters
// of other scripts are among them: file systems normalise and fold them differently.
func writeEscaped(b *strings.Builder, r rune) { fmt.Fprintf(b, "~%x~", r) }

// guard marks names that some system reserves, and names that hosts hide.
func guard(name string) string {
	if name == "" {
		return "~"
	}
	if strings.HasSuffix(name, ".") || strings.HasSuffix(strings.ToLower(name), ".html") {
		name += "~"
	}
	base, _, _ := strings.Cut(strings.ToLower(name), ".") // a reserved name stays so with any ending
	if name[0] == '_' || name[0] == '.' || reserved[base] {
		name = "~" + name
	}
	return name
}

// reserved are device names of one system, and the page that each folder has.
var reserved = func() map[string]bool {
	set := map[string]bool{indexName: true, "con": true, "prn": true, "aux": true, "nul": true}
	for i := '1'; i <= '9'; i++ {
		set["com"+string(i)], set["lpt"+string(i)] = true, true
	}
	return set
}()
