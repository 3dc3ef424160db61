package site

import (
	"bytes"
	"cmp"
	"encoding/json"
	"fmt"
	"iter"
	"slices"
	"strings"
	"unicode/utf8"

	"codrel/internal/render/sink"
)

// The search data is cut into shards that the page's script loads when a key
// stroke asks for them, as classic scripts: a page on disk may load nothing
// else. The shards are the nodes of a trie over all words that entries are found
// by. A leaf holds every entry below it; an inner node holds those of its small
// children and the best few of the others, for queries that are too short to
// lead further.

const (
	largestShard = 26 << 10 // bytes of a leaf, about
	largestWhole = 64 << 10 // bytes of all entries, where one shard holds them: a small project answers every query in full
	bestOfNode   = 60       // entries of an inner node
	smallChild   = 2 << 10  // bytes of a child that has no shard of its own
	largestExact = 64 << 10 // bytes of a shard of entries that have one name
	deepestNode  = 24       // letters
)

// shards builds the trie.
type shards struct {
	*searchRows
	ranks  []uint32 // of the entries among all, the likeliest first
	ranked []uint32 // the entries in that order
	nodes  []string // names of all nodes
	to     sink.Sink
	buffer bytes.Buffer
}

// keyed is an entry under one of the words it is found by: the word's number, then the entry's.
type keyed uint64

func (k keyed) word() uint32  { return uint32(k >> 32) }
func (k keyed) entry() uint32 { return uint32(k) }

func (s *Site) writeSearch(to sink.Sink) error {
	b := shards{searchRows: readRows(s.plan.SearchEntries()), to: to}
	b.rank()
	if err := b.node("", b.found); err != nil {
		return err
	}
	manifest, err := json.Marshal(map[string]any{"runs": b.moduleRuns(), "nodes": strings.Join(b.nodes, " "), "names": len(b.rows)})
	if err != nil {
		return err
	}
	return to.Put("search/index.js", append(append([]byte("codrelIndex("), manifest...), ")\n"...))
}

// key is the word of an entry that is found by it.
func (b *shards) key(k keyed) string { return b.words.list[k.word()] }

// rank orders all entries as if each matched equally well.
func (b *shards) rank() {
	b.ranks, b.ranked = make([]uint32, len(b.rows)), make([]uint32, len(b.rows))
	for i := range b.ranked {
		b.ranked[i] = uint32(i)
	}
	slices.SortFunc(b.ranked, func(x, y uint32) int { return cmp.Or(b.orders[x].Compare(&b.orders[y]), cmp.Compare(x, y)) })
	for rank, i := range b.ranked {
		b.ranks[i] = uint32(rank)
	}
	b.orders = nil
}

// node writes the shard of one node, and those below it where it is too large.
// The keys are sorted and begin with the node's name. Children that are small
// have no shard of their own: they stand in their parent's.
func (b *shards) node(name string, keys []keyed) error {
	entries, size := b.distinct(keys)
	if size <= largestShard || name == "" && size <= largestWhole || utf8.RuneCountInString(name) >= deepestNode {
		b.nodes = append(b.nodes, name)
		return b.write(name, entries)
	}
	own := b.best(name, keys)
	room := largestShard
	var large [][]keyed
	for child := range b.children(name, keys) {
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
			own = append(own, k.entry())
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
		first := b.key(child[0])
		_, width := utf8.DecodeRuneInString(first[len(name):])
		if err := b.node(first[:len(name)+width], child); err != nil {
			return err
		}
	}
	return nil
}

// called are the keys of entries whose name is the node's: no letter leads from it to them.
func (b *shards) called(name string, keys []keyed) (out []keyed) {
	for _, k := range keys {
		if b.key(k) != name {
			break // the keys are sorted
		}
		if b.names[k.entry()] == k.word() {
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
	slices.SortFunc(keys, func(x, y keyed) int { return cmp.Compare(b.ranks[x.entry()], b.ranks[y.entry()]) })
	for len(keys) > 0 {
		name += endOfName
		n, size := 0, 0
		for n < len(keys) && size < largestExact {
			size += b.size(keys[n].entry())
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
func (b *shards) children(name string, keys []keyed) iter.Seq[[]keyed] {
	return func(yield func([]keyed) bool) {
		for start := 0; start < len(keys); {
			first := b.key(keys[start])
			if first == name {
				start++
				continue
			}
			_, width := utf8.DecodeRuneInString(first[len(name):])
			child := first[:len(name)+width]
			end := start
			for end < len(keys) && strings.HasPrefix(b.key(keys[end]), child) {
				end++
			}
			if !yield(keys[start:end]) {
				return
			}
			start = end
		}
	}
}

func (b *shards) distinct(keys []keyed) (entries []uint32, size int) {
	entries = make([]uint32, len(keys))
	for i, k := range keys {
		entries[i] = k.entry()
	}
	slices.Sort(entries)
	entries = slices.Compact(entries)
	for _, i := range entries {
		size += b.size(i)
	}
	return entries, size
}

// best picks the entries that a query as short as the node's name most likely
// means: those whose name begins so, then all others, each by their rank.
func (b *shards) best(name string, keys []keyed) []uint32 {
	// The order is one number: those found by their name first, then the rank.
	order, all := make([]uint64, len(keys)), uint64(len(b.rows))
	for i, k := range keys {
		order[i] = uint64(b.ranks[k.entry()])
		if !strings.HasPrefix(b.words.list[b.names[k.entry()]], name) {
			order[i] += all
		}
	}
	slices.Sort(order)
	order = slices.Compact(order)
	order = order[:min(len(order), bestOfNode)]
	out := make([]uint32, len(order))
	for i, place := range order {
		out[i] = b.ranked[place%all]
	}
	return out
}

func (b *shards) write(name string, entries []uint32) error {
	b.buffer.Reset()
	fmt.Fprintf(&b.buffer, "codrelShard(%q,[\n", name)
	for i, e := range entries {
		if i > 0 {
			b.buffer.WriteString(",\n")
		}
		b.buffer.Write(b.row(e))
	}
	b.buffer.WriteString("\n])\n")
	return b.to.Put("search/"+shardFile(name)+".js", b.buffer.Bytes())
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
