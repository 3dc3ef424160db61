package lexing_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// told mentions every word of a text that begins with a capital, in order, while
// do opens scopes and binds; it gives the uses as they are written.
type told struct {
	*lexing.Names
	text string
	at   int
}

func tell(text string, do func(*told)) []string {
	n := &told{Names: lexing.NewNames(text), text: text}
	do(n)
	uses := n.Uses()
	var out []string
	for use := range uses.All() {
		s := use.Span.In(text)
		if use.Form >= model.UseMember {
			s = use.Type.In(text) + ">" + s
		}
		out = append(out, s)
	}
	return out
}

// say mentions the next place of a chain of names.
func (n *told) say(chain string) {
	from := n.at + strings.Index(n.text[n.at:], chain)
	n.at = from + len(chain)
	n.Mention(from, n.at)
}

func (n *told) typ(name string) source.Span {
	at := strings.Index(n.text, name)
	return source.NewSpan(at, at+len(name))
}

func TestNamesOfScopes(t *testing.T) {
	none := source.Span{}
	assert.Equal(t, []string{"a", "c.d"}, tell("a b c.d", func(n *told) {
		outer := n.Open(lexing.FunctionScope)
		n.say("a")
		n.say("b")
		n.Bind(n.Current(), "b", none, false) // bound behind, and local all the same
		n.Return(outer)
		n.say("c.d")
	}))
	assert.Equal(t, []string{"a"}, tell("a a", func(n *told) {
		n.Open(lexing.FunctionScope)
		n.Bind(n.Current(), "a", none, false)
		n.say("a")
		n.Return(lexing.Outermost)
		n.say("a")
	}), "what is bound in a function ends with it")
	assert.Equal(t, []string{"a"}, tell("a a a", func(n *told) {
		n.Open(lexing.ClassScope)
		n.Bind(n.Current(), "a", none, false)
		n.say("a")
		block := n.Open(lexing.BlockScope)
		n.say("a")
		n.Return(block)
		n.Open(lexing.FunctionScope)
		n.say("a")
	}), "a function in a class does not see the names of the class")
	assert.Equal(t, []string{"a"}, tell("a", func(n *told) {
		n.Open(lexing.FunctionScope)
		n.Bind(n.Current(), "a", none, false)
		n.Open(lexing.FunctionScope)
		n.Bind(n.Current(), "a", none, false)
		n.Outside(n.Current(), "a")
		n.say("a")
	}), "a scope may say that a name is the module's")
}

func TestNamesWithTypes(t *testing.T) {
	none := source.Span{}
	bound := func(bind func(n *told, scope int32)) []string {
		return tell("Tide a.x.y", func(n *told) {
			n.Open(lexing.FunctionScope)
			bind(n, n.Current())
			n.say("a.x.y")
		})
	}
	assert.Equal(t, []string{"Tide>x"}, bound(func(n *told, s int32) { n.Bind(s, "a", n.typ("Tide"), false) }), "only the first member is known")
	assert.Empty(t, bound(func(n *told, s int32) {
		n.Bind(s, "a", n.typ("Tide"), false)
		n.Bind(s, "a", none, false)
	}), "it was given something else")
	assert.Equal(t, []string{"Tide>x"}, bound(func(n *told, s int32) {
		n.Bind(s, "a", none, false)
		n.Bind(s, "a", n.typ("Tide"), true)
		n.Bind(s, "a", none, false)
	}), "a declared type holds whatever it is given")
	assert.Empty(t, bound(func(n *told, s int32) { n.Bind(s, "a", none, false) }))
}

// Mentions may be told in any order, and scopes may be nested without end.
func TestNamesInOrder(t *testing.T) {
	n := lexing.NewNames("a b")
	n.Mention(2, 3)
	n.Mention(0, 1)
	for range 100_000 {
		n.Open(lexing.FunctionScope)
	}
	n.Bind(n.Current(), "b", source.Span{}, false)
	n.Mention(2, 3)
	uses := n.Uses()
	assert.Equal(t, 2, uses.Len())
	assert.Equal(t, int32(lexing.Outermost), func() int32 { n.Return(lexing.Outermost); return n.Around(lexing.FunctionScope) }())
}
