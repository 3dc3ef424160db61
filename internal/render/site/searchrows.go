package site

import (
	"encoding/json"
	"iter"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"codrel/internal/model"
	"codrel/internal/search"
)

// searchModule is what many rows share: a module's path, its library, and the folder of
// the pages. One that a module of that path has its page in is a module's own.
type searchModule [3]string

func moduleOfEntry(e *search.Entry) searchModule {
	return searchModule{e.Module, e.Library, e.Address[:strings.LastIndexByte(e.Address, '/')+1]}
}

// searchRows is what the search data says of all entries. Of half a million entries only
// what the rows, their order and the words need is kept, and that is packed.
type searchRows struct {
	modules []searchModule
	index   map[searchModule]int
	paths   map[string]int        // the place of a module that has the path, which is all that other places say
	own     map[searchModule]bool // modules that have their page in the folder

	orders  []search.Order
	names   []uint32 // the names, as numbers of words
	rows    []rowAt
	chunks  [][]byte
	pending []pendingRow
	words   words
	found   []keyed // sorted, each once
}

// rowAt is where the row of an entry stands in the chunks.
type rowAt struct{ chunk, start, end uint32 }

// pendingRow is an entry that names modules which may not have a place yet.
type pendingRow struct {
	of    int
	entry search.Entry
}

// chunkSize is how much the rows that share their memory weigh.
const chunkSize = 256 << 10

// readRows takes what the search data needs out of the entries.
func readRows(entries iter.Seq[search.Entry]) *searchRows {
	r := &searchRows{index: map[searchModule]int{}, paths: map[string]int{}, own: map[searchModule]bool{}, words: words{number: map[string]uint32{}}}
	for e := range entries {
		r.add(&e)
	}
	for i := range r.pending {
		for _, path := range r.pending[i].entry.Also {
			if _, ok := r.paths[path]; !ok {
				r.place(searchModule{path})
			}
		}
	}
	for i := range r.pending {
		r.write(r.pending[i].of, &r.pending[i].entry)
	}
	r.pending = nil
	r.sortWords()
	return r
}

func (r *searchRows) add(e *search.Entry) {
	module := moduleOfEntry(e)
	if r.place(module); e.Kind == model.KindModule.String() {
		r.own[module] = true
	}
	n := len(r.rows)
	r.rows, r.orders, r.names = append(r.rows, rowAt{}), append(r.orders, e.Order()), append(r.names, r.words.of(e.Name))
	if len(e.Also) > 0 {
		r.pending = append(r.pending, pendingRow{n, *e})
	} else {
		r.write(n, e)
	}
	find := func(words ...string) {
		for _, w := range words {
			if w != "" {
				r.found = append(r.found, keyed(r.words.of(w))<<32|keyed(n))
			}
		}
	}
	if e.Kind == search.GuideKind || e.Kind == search.SectionKind { // whose name is a title
		find(strings.Fields(e.Name)...)
	} else {
		find(e.Name, search.Initials(e.Name))
		find(search.InnerWords(e.Name)...)
	}
	find(e.Words...)
	find(e.Takes...)
	find(e.Gives...)
	find(search.SummaryWords(e.Summary)...)
}

// place gives a module its place in the list that rows share.
func (r *searchRows) place(m searchModule) {
	if _, ok := r.index[m]; !ok {
		r.index[m] = len(r.modules)
		r.modules = append(r.modules, m)
	}
	if _, ok := r.paths[m[0]]; !ok {
		r.paths[m[0]] = r.index[m]
	}
}

// row is the row of an entry as JSON.
func (r *searchRows) row(entry uint32) []byte {
	at := r.rows[entry]
	return r.chunks[at.chunk][at.start:at.end]
}

func (r *searchRows) size(entry uint32) int { return int(r.rows[entry].end - r.rows[entry].start) }

// write makes the row of an entry, a list; what is empty at the end is left out.
func (r *searchRows) write(n int, e *search.Entry) {
	last := len(r.chunks) - 1
	if last < 0 || len(r.chunks[last]) > chunkSize-rowRoom {
		r.chunks = append(r.chunks, make([]byte, 0, chunkSize))
		last++
	}
	out := r.chunks[last]
	start := len(out)
	out = appendText(append(out, '['), e.Name)
	out = appendText(append(out, ','), e.Scope)
	out = strconv.AppendInt(append(out, ','), int64(r.index[moduleOfEntry(e)]), 10)
	out = appendText(append(out, ','), e.Kind)
	out = appendText(append(out, ','), e.Address[strings.LastIndexByte(e.Address, '/')+1:])
	deprecated := "0"
	if e.Deprecated {
		deprecated = "1"
	}
	var also []string
	for _, path := range e.Also {
		also = append(also, strconv.Itoa(r.paths[path]))
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
	out = append(out, ']')
	r.chunks[last], r.rows[n] = out, rowAt{uint32(last), uint32(start), uint32(len(out))}
}

// rowRoom is how much a usual row takes at most; the chunk of one that takes more grows.
const rowRoom = 1 << 10

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

// words numbers words, in small letters.
type words struct {
	number map[string]uint32
	list   []string
}

func (w *words) of(word string) uint32 {
	low := strings.ToLower(word)
	n, ok := w.number[low]
	if !ok {
		n = uint32(len(w.list))
		low = strings.Clone(low) // it may be a part of a long text
		w.number[low] = n
		w.list = append(w.list, low)
	}
	return n
}

// sortWords numbers the words by the letter, and sorts what is found by them.
func (r *searchRows) sortWords() {
	order := make([]uint32, len(r.words.list))
	for i := range order {
		order[i] = uint32(i)
	}
	slices.SortFunc(order, func(a, b uint32) int { return strings.Compare(r.words.list[a], r.words.list[b]) })
	place, sorted := make([]uint32, len(order)), make([]string, len(order))
	for i, was := range order {
		place[was], sorted[i] = uint32(i), r.words.list[was]
	}
	r.words = words{list: sorted}
	for i, was := range r.names {
		r.names[i] = place[was]
	}
	for i, k := range r.found {
		r.found[i] = keyed(place[k.word()])<<32 | keyed(k.entry())
	}
	slices.Sort(r.found)
	r.found = slices.Compact(r.found)
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
func (r *searchRows) moduleRuns() []moduleRun {
	var runs []moduleRun
	before := ""
	for _, m := range r.modules {
		head, tail := folderOf(m[2])
		if n := len(runs) - 1; n < 0 || runs[n].Library != m[1] || runs[n].Folder != head {
			runs = append(runs, moduleRun{Library: m[1], Folder: head})
		}
		run := &runs[len(runs)-1]
		path := packedPath(before, m[0])
		before = m[0]
		switch {
		case !r.own[m]:
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
