package site

import (
	"bytes"
	"cmp"
	"encoding/json"
	"fmt"
	"iter"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"codrel/internal/model"
	"codrel/internal/render/sink"
	"codrel/internal/search"
)

// The search data is cut into shards that the page's script loads when a key
// stroke asks for them, as classic scripts: a page on disk may load nothing
// else. The shards are the nodes of a trie over all words that entries are found
// by. A leaf holds every entry below it; an inner node holds those of its small
// children and the best few of the others, for queries that are too short to
// lead further.

const (
	largestShard = 26 << 10 // bytes of a leaf, about
	bestOfNode   = 60       // entries of an inner node
	smallChild   = 2 << 10  // bytes of a child that has no shard of its own
	largestExact = 64 << 10 // bytes of a shard of entries that have one name
	deepestNode  = 24       // letters
)

// shards builds the trie. rows are the entries as JSON, made once.
type shards struct {
	entries []search.Entry
	rows    [][]byte
	names   []string // of the entries, in small letters
	ranks   []int    // of the entries among all, the likeliest first
	ranked  []int    // the entries in that order
	nodes   []string // names of all nodes
	put     func(name string, rows [][]byte) error
}

// keyed is an entry under one of the words it is found by.
type keyed struct {
	key   string
	entry int
}

func (s *Site) writeSearch(to sink.Sink) error {
	entries := s.plan.SearchEntries()
	modules, index := searchModules(entries)
	b := shards{entries: entries, rows: make([][]byte, len(entries))}
	for i := range entries {
		b.rows[i] = searchRow(&entries[i], index)
	}
	b.put = func(name string, rows [][]byte) error {
		var out bytes.Buffer
		fmt.Fprintf(&out, "codrelShard(%q,[\n", name)
		out.Write(bytes.Join(rows, []byte(",\n")))
		out.WriteString("\n])\n")
		return to.Put("search/"+shardFile(name)+".js", out.Bytes())
	}
	b.rank()
	if err := b.node("", b.keys()); err != nil {
		return err
	}
	manifest, err := json.Marshal(map[string]any{"runs": moduleRuns(modules, entries), "nodes": strings.Join(b.nodes, " "), "names": len(entries)})
	if err != nil {
		return err
	}
	return to.Put("search/index.js", append(append([]byte("codrelIndex("), manifest...), ")\n"...))
}

// searchModule is what many rows share: a module's path, its library, and the folder of
// the pages. One that a module of that path has its page in is a module's own.
type searchModule [3]string

func moduleOfEntry(e *search.Entry) searchModule {
	return searchModule{e.Module, e.Library, e.Address[:strings.LastIndexByte(e.Address, '/')+1]}
}

// moduleRun is a run of modules of one library as the manifest has them.
type moduleRun struct {
	Library string `json:"library"`
	Folder  string `json:"folder"`  // that the pages of all of them are in
	Modules []any  `json:"modules"` // each a path; or path, folder and what is said of it
}

// moduleRuns packs modules, since all of them are read before the first key stroke. A path
// begins with a letter or digit that says how much of the path before it goes on. The
// folder is left out where it is the path. "-" says that the
// modules of that path have no page there.
func moduleRuns(modules []searchModule, entries []search.Entry) []moduleRun {
	own := map[searchModule]bool{}
	for i := range entries {
		if entries[i].Kind == model.KindModule.String() {
			own[moduleOfEntry(&entries[i])] = true
		}
	}
	var runs []moduleRun
	before := ""
	for _, m := range modules {
		head, tail := folderOf(m[2])
		if n := len(runs) - 1; n < 0 || runs[n].Library != m[1] || runs[n].Folder != head {
			runs = append(runs, moduleRun{Library: m[1], Folder: head})
		}
		run := &runs[len(runs)-1]
		path := packedPath(before, m[0])
		before = m[0]
		switch {
		case !own[m]:
			run.Modules = append(run.Modules, []string{path, tail, "-"})
		case tail != m[0]+"/":
			run.Modules = append(run.Modules, []string{path, tail})
		default:
			run.Modules = append(run.Modules, path)
		}
	}
	return runs
}

// folderOf takes a module's folder apart behind that of its library.
func folderOf(folder string) (head, tail string) {
	at := strings.IndexByte(folder, '/') + 1
	at += strings.IndexByte(folder[at:], '/') + 1
	return folder[:at], folder[at:]
}

// packedPath is a path without what it has in common with the one before.
func packedPath(before, path string) string {
	const digits = "0123456789abcdefghijklmnopqrstuvwxyz"
	same := 0
	for same < min(len(before), len(path), len(digits)-1) && before[same] == path[same] && path[same] < utf8.RuneSelf {
		same++
	}
	return digits[same:same+1] + path[same:]
}

// moduleIndex tells where modules stand in the list that rows share.
type moduleIndex struct {
	whole map[searchModule]int
	paths map[string]int // of one that has the path, which is all that other places say
}

// searchModules lists what rows share, each once.
func searchModules(entries []search.Entry) (modules []searchModule, index moduleIndex) {
	index = moduleIndex{map[searchModule]int{}, map[string]int{}}
	add := func(m searchModule) {
		if _, ok := index.whole[m]; !ok {
			index.whole[m] = len(modules)
			modules = append(modules, m)
		}
		if _, ok := index.paths[m[0]]; !ok {
			index.paths[m[0]] = index.whole[m]
		}
	}
	for i := range entries {
		add(moduleOfEntry(&entries[i]))
	}
	for i := range entries {
		for _, path := range entries[i].Also {
			if _, ok := index.paths[path]; !ok {
				add(searchModule{path})
			}
		}
	}
	return modules, index
}

// searchRow writes an entry as a list; what is empty at the end is left out.
func searchRow(e *search.Entry, index moduleIndex) []byte {
	deprecated := "0"
	if e.Deprecated {
		deprecated = "1"
	}
	out := append(make([]byte, 0, 96+len(e.Summary)), '[')
	out = appendText(out, e.Name)
	out = appendText(append(out, ','), e.Scope)
	out = strconv.AppendInt(append(out, ','), int64(index.whole[moduleOfEntry(e)]), 10)
	out = appendText(append(out, ','), e.Kind)
	out = appendText(append(out, ','), e.Address[strings.LastIndexByte(e.Address, '/')+1:])
	var also []string
	for _, path := range e.Also {
		also = append(also, strconv.Itoa(index.paths[path]))
	}
	rest := []string{e.Summary, deprecated, strings.Join(e.Takes, " "), strings.Join(e.Gives, " "), strings.Join(e.Words, " "), strings.Join(also, " ")}
	for len(rest) > 0 && (rest[len(rest)-1] == "" || rest[len(rest)-1] == "0" && len(rest) == 2) {
		rest = rest[:len(rest)-1]
	}
	for i, text := range rest {
		out = append(out, ',')
		if i == 1 {
			out = append(out, text...)
		} else {
			out = appendText(out, text)
		}
	}
	return append(out, ']')
}

// appendText appends a text as JSON has it.
func appendText(to []byte, text string) []byte {
	for i := 0; i < len(text); i++ {
		if c := text[i]; c < ' ' || c >= 0x7F || c == '"' || c == '\\' || c == '<' || c == '>' || c == '&' {
			data, _ := json.Marshal(text) // a string has no error; "<" is escaped, so that no shard can end its script
			return append(to, data...)
		}
	}
	to = append(to, '"')
	to = append(to, text...)
	return append(to, '"')
}

// rank orders all entries as if each matched equally well.
func (b *shards) rank() {
	order := make([]int, len(b.entries))
	b.ranks, b.names = make([]int, len(order)), make([]string, len(order))
	for i := range order {
		order[i] = i
		b.names[i] = strings.ToLower(b.entries[i].Name)
	}
	slices.SortFunc(order, func(x, y int) int { return cmp.Or(search.Compare(&b.entries[x], &b.entries[y]), cmp.Compare(x, y)) })
	for rank, i := range order {
		b.ranks[i] = rank
	}
	b.ranked = order
}

// keys lists every word that an entry is found by.
func (b *shards) keys() []keyed {
	var out []keyed
	for i := range b.entries {
		e := &b.entries[i]
		add := func(words ...string) {
			for _, w := range words {
				if w != "" {
					out = append(out, keyed{strings.ToLower(w), i})
				}
			}
		}
		add(e.Name, search.Initials(e.Name))
		add(search.InnerWords(e.Name)...)
		add(e.Words...)
		add(e.Takes...)
		add(e.Gives...)
		add(search.SummaryWords(e.Summary)...)
	}
	slices.SortFunc(out, func(a, b keyed) int { return cmp.Or(strings.Compare(a.key, b.key), cmp.Compare(a.entry, b.entry)) })
	return out
}

// node writes the shard of one node, and those below it where it is too large.
// The keys are sorted and begin with the node's name. Children that are small
// have no shard of their own: they stand in their parent's.
func (b *shards) node(name string, keys []keyed) error {
	entries, size := b.distinct(keys)
	if size <= largestShard || utf8.RuneCountInString(name) >= deepestNode {
		b.nodes = append(b.nodes, name)
		return b.write(name, entries)
	}
	own := b.best(name, keys)
	room := largestShard
	var large [][]keyed
	for child := range children(name, keys) {
		inside, size := b.distinct(child)
		if size <= smallChild && size <= room {
			own = append(own, inside...)
			room -= size
			continue
		}
		large = append(large, child)
	}
	whole := b.called(name, keys)
	if _, size := b.distinct(whole); size <= room {
		for _, k := range whole {
			own = append(own, k.entry)
		}
		whole = nil
	}
	slices.Sort(own)
	b.nodes = append(b.nodes, name)
	if err := b.write(name, slices.Compact(own)); err != nil {
		return err
	}
	if err := b.exact(name, whole); err != nil {
		return err
	}
	for _, child := range large {
		_, width := utf8.DecodeRuneInString(child[0].key[len(name):])
		if err := b.node(child[0].key[:len(name)+width], child); err != nil {
			return err
		}
	}
	return nil
}

// called are the keys of entries whose name is the node's: no letter leads from it to them.
func (b *shards) called(name string, keys []keyed) (out []keyed) {
	for _, k := range keys {
		if k.key != name {
			break // the keys are sorted
		}
		if b.names[k.entry] == name {
			out = append(out, k)
		}
	}
	return out
}

// endOfName stands behind a node's name for the entries that are called so, once for each
// shard of them.
const endOfName = "\x01"

// exact writes the shards of entries that are called as a node is, the likeliest first,
// where they have no room in the node's own.
func (b *shards) exact(name string, keys []keyed) error {
	slices.SortStableFunc(keys, func(x, y keyed) int { return cmp.Compare(b.ranks[x.entry], b.ranks[y.entry]) })
	for len(keys) > 0 {
		name += endOfName
		n, size := 0, 0
		for n < len(keys) && size < largestExact {
			size += len(b.rows[keys[n].entry])
			n++
		}
		entries, _ := b.distinct(keys[:n])
		b.nodes = append(b.nodes, name)
		if err := b.write(name, entries); err != nil {
			return err
		}
		keys = keys[n:]
	}
	return nil
}

// children cuts sorted keys where the letter behind the node's name changes;
// keys that end with the name have no child.
func children(name string, keys []keyed) iter.Seq[[]keyed] {
	return func(yield func([]keyed) bool) {
		for start := 0; start < len(keys); {
			if keys[start].key == name {
				start++
				continue
			}
			_, width := utf8.DecodeRuneInString(keys[start].key[len(name):])
			child := keys[start].key[:len(name)+width]
			end := start
			for end < len(keys) && strings.HasPrefix(keys[end].key, child) {
				end++
			}
			if !yield(keys[start:end]) {
				return
			}
			start = end
		}
	}
}

func (b *shards) distinct(keys []keyed) (entries []int, size int) {
	entries = make([]int, len(keys))
	for i, k := range keys {
		entries[i] = k.entry
	}
	slices.Sort(entries)
	entries = slices.Compact(entries)
	for _, i := range entries {
		size += len(b.rows[i])
	}
	return entries, size
}

// best picks the entries that a query as short as the node's name most likely
// means: those whose name begins so, then all others, each by their rank.
func (b *shards) best(name string, keys []keyed) []int {
	// The order is one number: those found by their name first, then the rank.
	order := make([]int, len(keys))
	for i, k := range keys {
		order[i] = b.ranks[k.entry]
		if !strings.HasPrefix(b.names[k.entry], name) {
			order[i] += len(b.entries)
		}
	}
	slices.Sort(order)
	order = slices.Compact(order)
	out := order[:min(len(order), bestOfNode)]
	for i, place := range out {
		out[i] = b.ranked[place%len(b.entries)]
	}
	return out
}

func (b *shards) write(name string, entries []int) error {
	rows := make([][]byte, len(entries))
	for i, e := range entries {
		rows[i] = b.rows[e]
	}
	return b.put(name, rows)
}

// shardFile is the file of a node: "k-" keeps device names away, and what is no
// small letter or digit stands as its number.
func shardFile(name string) string {
	var out strings.Builder
	out.WriteString("k-")
	for _, r := range name {
		if 'a' <= r && r <= 'z' || '0' <= r && r <= '9' {
			out.WriteRune(r)
		} else {
			fmt.Fprintf(&out, "~%x~", r)
		}
	}
	return out.String()
}
