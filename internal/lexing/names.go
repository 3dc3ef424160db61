package lexing

import (
	"slices"
	"strings"

	"codrel/internal/model"
	"codrel/internal/source"
)

// Names finds out which names in the code of a file mean something beyond the
// functions they stand in. A front end tells it in one pass of the scopes, what
// each declares and what is named in it, in any order; since a scope's names are
// all known only at its end, [Names.Uses] decides when all was told.
type Names struct {
	text     string
	scopes   []scope
	current  int32
	bound    map[scopeName]binding
	mentions []mention
	ownType  string // the word for the type at hand, before "::"; "" for none
}

// ScopeKind tells who sees the names of a scope.
type ScopeKind uint8

// The kinds of scopes.
const (
	BlockScope    ScopeKind = iota // seen by all that stands in it
	FunctionScope                  // so too; names that belong to a whole function belong to it
	ClassScope                     // seen by what stands right in it, not by functions in it
)

type scope struct {
	kind  ScopeKind
	outer int32
	depth int32
	home  source.Span // the name of the type whose members stand right in it, or empty
}

type scopeName struct {
	scope int32
	name  string
}

// binding is a name that a scope declares.
type binding struct {
	typ      source.Span // of its type's name, where that is written
	declared bool        // the type is said by the declaration, not by a value
	times    int
	outside  bool // the scope says that the name is the module's
	local    bool // it is no member, though its scope is a type's
}

type mention struct {
	span  source.Span // of a name with what it is followed by, joined by dots
	scope int32
}

// Outermost is the scope of the file, whose own declarations are not bound: they
// are what names are looked up in.
const Outermost = 0

// NewNames begins the names of a file.
func NewNames(text string) *Names {
	return &Names{text: text, scopes: []scope{{kind: BlockScope, outer: -1}}, bound: map[scopeName]binding{}}
}

// deepestScope bounds how deep scopes are kept apart.
const deepestScope = 100

// Open begins a scope in the current one and returns the one before, for [Names.Return].
func (n *Names) Open(kind ScopeKind) (before int32) {
	before = n.current
	depth := n.scopes[before].depth + 1
	if depth > deepestScope {
		return before
	}
	n.scopes = append(n.scopes, scope{kind: kind, outer: before, depth: depth})
	n.current = int32(len(n.scopes) - 1)
	return before
}

// Return goes back to a scope.
func (n *Names) Return(to int32) { n.current = to }

// Current is the scope that names are told of.
func (n *Names) Current() int32 { return n.current }

// Around is the innermost scope, from the current one outwards, that is of one of
// the kinds, or [Outermost].
func (n *Names) Around(kinds ...ScopeKind) int32 {
	at := n.current
	for at > Outermost && !slices.Contains(kinds, n.scopes[at].kind) {
		at = n.scopes[at].outer
	}
	return at
}

// Kind is the kind of a scope.
func (n *Names) Kind(scope int32) ScopeKind { return n.scopes[scope].kind }

// Bind declares a name in a scope. typ is where its type is named, or empty;
// declared tells that whatever the name is given has that type.
func (n *Names) Bind(scope int32, name string, typ source.Span, declared bool) {
	key := scopeName{scope, name}
	b := n.bound[key]
	b.times++
	if declared && !b.declared || b.times == 1 {
		b.typ, b.declared = typ, declared
	}
	n.bound[key] = b
}

// BindLocal declares a name in the current scope that is no member of a type whose scope that
// may be.
func (n *Names) BindLocal(name string, typ source.Span, declared bool) {
	n.Bind(n.current, name, typ, declared)
	key := scopeName{n.current, name}
	b := n.bound[key]
	b.local = true
	n.bound[key] = b
}

// Home says that the current scope is the body of a type, whose name stands at a place: what
// it declares are members, and names that nothing declares may be those of others.
func (n *Names) Home(name source.Span) { n.scopes[n.current].home = name }

// Outside says that a name in a scope is the module's, whatever is set there.
func (n *Names) Outside(scope int32, name string) {
	key := scopeName{scope, name}
	b := n.bound[key]
	b.outside = true
	n.bound[key] = b
}

// Mention tells of a name in the current scope, with the members named behind it.
func (n *Names) Mention(from, to int) {
	n.mentions = append(n.mentions, mention{source.NewSpan(from, to), n.current})
}

// Known reports whether a scope around declares a name.
func (n *Names) Known(name string) bool {
	_, at := n.find(n.current, name)
	return at >= 0
}

// MentionOutside tells of a name that no function or block can declare otherwise.
func (n *Names) MentionOutside(from, to int) {
	n.mentions = append(n.mentions, mention{source.NewSpan(from, to), Outermost})
}

// Uses are the mentions, in order, that mean something beyond their functions: a
// name that no scope around declares, and a member of what has a written type.
func (n *Names) Uses() model.Uses {
	var uses model.Uses
	slices.SortStableFunc(n.mentions, func(a, b mention) int { return int(a.span.Start - b.span.Start) })
	for _, m := range n.mentions {
		text := m.span.In(n.text)
		first, rest, dotted := cutMember(text)
		b, at := n.find(m.scope, first)
		if path, ok := strings.CutPrefix(text, n.ownType+"::"); ok && n.ownType != "" {
			if of, in := n.find(m.scope, n.ownType); in >= 0 {
				b, at, first, rest, dotted = of, in, n.ownType, path, true
			}
		}
		local := at >= 0
		home := n.homeOf(max(at, m.scope))
		if local {
			if home = n.scopes[at].home; b.local {
				home = source.Span{}
			}
		}
		if !home.Empty() && (local || !dotted) {
			uses.Add(model.Use{Form: model.UseKey, Span: source.NewSpan(int(m.span.Start), int(m.span.Start)+len(first)), Type: home})
		}
		switch {
		case local:
			if !dotted || b.typ.Empty() || b.times > 1 && !b.declared {
				continue
			}
			member, _, _ := cutMember(rest)
			member, _, _ = strings.Cut(member, "::")
			from := int(m.span.Start) + len(text) - len(rest)
			uses.Add(model.Use{Form: model.UseMember, Span: source.NewSpan(from, from+len(member)), Type: b.typ})
		case !home.Empty() && !dotted:
		case dotted:
			uses.Add(model.Use{Form: model.UseQualified, Span: m.span})
		default:
			uses.Add(model.Use{Form: model.UseBare, Span: m.span})
		}
	}
	return uses
}

// cutMember cuts a name before its first member, behind "." or "->".
func cutMember(text string) (first, rest string, cut bool) {
	i := strings.IndexByte(text, '.')
	if arrow := strings.Index(text, "->"); arrow >= 0 && (i < 0 || arrow < i) {
		return text[:arrow], text[arrow+2:], true
	}
	if i < 0 {
		return text, "", false
	}
	return text[:i], text[i+1:], true
}

// homeOf is the name of the type around a scope, or empty.
func (n *Names) homeOf(at int32) source.Span {
	for ; at >= Outermost; at = n.scopes[at].outer {
		if !n.scopes[at].home.Empty() {
			return n.scopes[at].home
		}
	}
	return source.Span{}
}

// find looks a name up in the scopes around, and gives the one that declares it, or -1.
func (n *Names) find(at int32, name string) (b binding, in int32) {
	for from := at; at >= Outermost; at = n.scopes[at].outer {
		if n.scopes[at].kind == ClassScope && !n.sees(from, at) {
			continue
		}
		if b, ok := n.bound[scopeName{at, name}]; ok {
			if b.outside {
				return b, -1
			}
			return b, at
		}
	}
	return binding{}, -1
}

// sees reports whether no function stands between a scope and a class around it.
func (n *Names) sees(from, class int32) bool {
	for ; from != class; from = n.scopes[from].outer {
		if n.scopes[from].kind != BlockScope {
			return false
		}
	}
	return true
}
