package rust

import (
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// This file says which of the automatic traits a type has ("Special types and traits" in Rust's
// reference), as far as its fields tell: where anything in them is not known here, nothing is said.

var _ lang.Follower = FrontEnd{}

// traits are those that a type has: bits of Send and Sync.
type traits uint8

const (
	send traits = 1 << iota
	sync
	unknown // something in it is not known here
)

// sharing says of types of the standard library what they take from what they hold, or from all.
var sharing = map[string]traits{
	"Rc": send | sync, "Weak": unknown, "RefCell": sync, "Cell": sync, "UnsafeCell": sync, "OnceCell": sync, "LazyCell": sync, "MutexGuard": send, "RwLockReadGuard": send, "RwLockWriteGuard": send,
	"Receiver": sync, "NonNull": send | sync, "Mutex": unknown, "RwLock": unknown, "Arc": unknown,
}

// plain are types of the standard library that are as what they hold.
var plain = map[string]bool{
	"String": true, "Vec": true, "Option": true, "Result": true, "Box": true, "HashMap": true, "HashSet": true, "BTreeMap": true, "BTreeSet": true, "VecDeque": true, "BinaryHeap": true, "Cow": true, "PathBuf": true, "Path": true, "OsString": true, "OsStr": true,
	"Duration": true, "Instant": true, "SystemTime": true, "PhantomData": true, "Range": true, "Ordering": true, "NonZeroU8": true, "NonZeroU16": true, "NonZeroU32": true, "NonZeroU64": true, "NonZeroUsize": true, "Wrapping": true, "Reverse": true,
	"AtomicBool": true, "AtomicUsize": true, "AtomicU64": true, "AtomicU32": true, "AtomicU8": true, "AtomicI64": true, "AtomicI32": true, "IpAddr": true, "SocketAddr": true, "Infallible": true,
}

// Follows is what the automatic traits are of a type: the key of a text, or "".
func (FrontEnd) Follows(d *model.Declaration, typeOf func(model.At, model.Token) *model.Declaration) string {
	switch d.Kind() {
	case model.KindStruct, model.KindEnum, model.KindUnion:
	default:
		return ""
	}
	lost := missing(d, typeOf, map[*model.Declaration]bool{})
	switch {
	case lost&unknown != 0:
		return ""
	case lost == send|sync:
		return "neither-send-nor-sync"
	case lost == send:
		return "sync-not-send"
	case lost == sync:
		return "send-not-sync"
	}
	return "send-and-sync"
}

// missing are the traits that a type does not have.
func missing(d *model.Declaration, typeOf func(model.At, model.Token) *model.Declaration, seen map[*model.Declaration]bool) (lost traits) {
	if seen[d] {
		return 0 // in a circle the others tell
	}
	seen[d] = true
	for _, at := range d.Occurrences {
		if len(at.TypeParams()) > 0 || at.Extra != nil && at.Extra.Made {
			return unknown // it hangs on what they are, or on what the macro makes
		}
		for _, b := range at.Bases() { // its author says so
			if name := lastOf(b.Type.Text(at.File.Text)); name == "Send" || name == "Sync" {
				return unknown
			}
		}
		if len(d.Members) == 0 || d.Kind() != model.KindEnumMember { // else its signature has the fields, whose own say more
			lost |= ofTokens(at, at.Signature, typeOf, seen)
		}
	}
	for _, member := range d.Members {
		switch member.Kind() {
		case model.KindEnumMember:
			lost |= missing(member, typeOf, seen)
		case model.KindField:
			for _, at := range member.Occurrences {
				lost |= ofTokens(at, at.Signature, typeOf, seen)
			}
		}
	}
	return lost
}

// ofTokens are those that what a signature names takes away.
func ofTokens(at model.At, tokens model.Tokens, typeOf func(model.At, model.Token) *model.Declaration, seen map[*model.Declaration]bool) (lost traits) {
	before := ""
	for t := range at.Tokens(tokens) {
		text := strings.TrimSpace(t.Text)
		switch {
		case t.Kind == model.TokenKeyword && (text == "const" || text == "mut") && strings.HasSuffix(before, "*"):
			lost |= send | sync
		case t.Kind == model.TokenKeyword && (text == "dyn" || text == "impl" || text == "Self"):
			lost |= unknown
		case t.Kind == model.TokenType:
			name := text[strings.LastIndexAny(text, ":.")+1:]
			if typ := typeOf(at, t); typ != nil {
				if k := typ.Kind(); k != model.KindStruct && k != model.KindEnum && k != model.KindUnion && k != model.KindType {
					return unknown
				}
				lost |= missing(typ, typeOf, seen)
			} else if sharing[name] != 0 {
				lost |= sharing[name]
			} else if !plain[name] {
				lost |= unknown
			}
		}
		if text != "" {
			before = text
		}
	}
	return lost
}

// lastOf is the last part of a path: people write traits of the standard library with more or less of it.
func lastOf(path string) string { return path[strings.LastIndexByte(path, ':')+1:] }

// Dereferences is the token that names what a type leads to by dereferencing (the trait Deref), where that
// is plainly a type.
func (FrontEnd) Dereferences(d *model.Declaration) (at model.At, to model.Token, ok bool) {
	for _, member := range d.Members {
		o := member.Speaks(model.Signature)
		if member.Name != "Target" || member.Kind() != model.KindType || lastOf(o.Section()) != "Deref" {
			continue
		}
		behind := false
		for t := range o.Tokens(o.Signature) {
			switch {
			case strings.TrimSpace(t.Text) == "=":
				behind = true
			case behind && t.Kind == model.TokenType:
				return o, t, true
			case behind && strings.TrimSpace(t.Text) != "":
				return model.At{}, model.Token{}, false // a list, a reference, a parameter
			}
		}
	}
	return model.At{}, model.Token{}, false
}
