package lexing_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lexing"
)

// settledBy are the tokens of a text as they are read, with what is assumed of its conditions.
func settledBy(text string, shape lexing.Shape) (words string, branches lexing.Branches) {
	shape.Names, shape.Directive = lexing.NameBytes(""), '#'
	s, back := lexing.Borrow()
	defer back()
	shape.Lex(text, s)
	branches = s.Settle(text, &shape)
	var out []string
	for _, t := range s.Tokens {
		out = append(out, text[t.From:t.To])
	}
	return strings.Join(out, " "), branches
}

func TestBranchesByShape(t *testing.T) {
	words, branches := settledBy("#ifdef OTHER\nvoid f() {\n#else\nvoid g() {\n#endif\n}\n", lexing.Shape{Assume: map[string]bool{"OTHER": false}})
	assert.Equal(t, "void g ( ) { }", words)
	assert.True(t, branches.Off(15))
	assert.False(t, branches.Off(40))

	words, _ = settledBy("#if 0\ndon't ( {\n#if A\n#endif\n#else\na ;\n#endif\nb ;", lexing.Shape{Off: map[string]bool{"0": true}})
	assert.Equal(t, "a ; b ;", words, "what no compiler reads is not looked at")

	words, _ = settledBy("#if 0\nnever closed (", lexing.Shape{Off: map[string]bool{"0": true}})
	assert.Empty(t, words)

	words, _ = settledBy("f(a,\n#if A\nb,\n#else\nc,\n#endif\nd);", lexing.Shape{})
	assert.Equal(t, "f ( a , b , d ) ;", words, "a list has one of the branches")

	ends := lexing.Shape{Ends: func(word string) bool { return word == "BEGIN" }}
	words, _ = settledBy("BEGIN\n#if A\na ;\n#else\nb ;\n#endif", ends)
	assert.Equal(t, "BEGIN a ; b ;", words, "a word may end a declaration")
	words, _ = settledBy("begin\n#if A\na ;\n#else\nb ;\n#endif", ends)
	assert.Equal(t, "begin a ;", words)

	words, branches = settledBy("x\n#if A\n#define B\n#else\n#define C\n#endif\ny ;", lexing.Shape{})
	assert.Equal(t, "x y ;", words)
	assert.Equal(t, []string{"A"}, branches.At(9), "lines alone are all read")
	assert.False(t, branches.Off(25))
}
