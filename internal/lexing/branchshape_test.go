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

// Each line to the preprocessor says which token is the first behind it, also when other branches
// left tokens out.
func TestLinesKnowWhatFollows(t *testing.T) {
	for text, want := range map[string]string{
		"#a\nb c\n#d\ne\n#f":                              "#a>b #d>e #f>",
		"x (\n#if A\nb ,\n#else\nc ,\n#endif\nd )\n#z\ny": "#if A>b #else>d #endif>d #z>y",
		"#ifdef OTHER\nf {\n#else\ng {\n#endif\n}\n#z":    "#ifdef OTHER>g #else>g #endif>} #z>",
		"a\n#if A\n#define B(\n#endif\nb":                 "#if A>b #define B(>b #endif>b",
		"#define A \\\n  b\nc":                            "#define A \\\n  b>c",
		"":                                                "",
		"a b":                                             "",
	} {
		shape := lexing.Shape{Names: lexing.NameBytes(""), Directive: '#', Assume: map[string]bool{"OTHER": false}}
		s, back := lexing.Borrow()
		shape.Lex(text, s)
		s.Settle(text, &shape)
		var out []string
		for _, l := range s.Lines {
			said := text[l.From:l.To] + ">"
			if int(l.Next) < len(s.Tokens) {
				said += text[s.Tokens[l.Next].From:s.Tokens[l.Next].To]
			}
			out = append(out, said)
		}
		back()
		assert.Equal(t, want, strings.Join(out, " "), text)
	}
}

// Marks of one byte are known by it, and no other token is.
func TestSigns(t *testing.T) {
	shape := lexing.Shape{Names: lexing.NameBytes(""), Marks: []string{"->", "::"}, Strings: []lexing.StringShape{{Open: "'"}}}
	s, back := lexing.Borrow()
	defer back()
	text := "a(b)->c::d-e:'f'1"
	shape.Lex(text, s)
	var signs []string
	for _, token := range s.Tokens {
		sign := "."
		if token.Sign != 0 {
			sign = string(token.Sign)
		}
		signs = append(signs, sign)
	}
	assert.Equal(t, ". ( . ) . . . . - . : . .", strings.Join(signs, " "))
	assert.Equal(t, int32(3), s.Tokens[1].Partner)
}

// Words are told from others by their length, their first letter, and then as a whole.
func TestOneOf(t *testing.T) {
	is := lexing.OneOf(lexing.WordSet("if in while wield _ über"), map[string]bool{"no": false, "yes": true})
	for word, want := range map[string]bool{
		"if": true, "in": true, "is": false, "while": true, "wield": true, "where": false, "yes": true, "no": false, "": false, "_": true, "über": true,
		"If": false, "nf": false, strings.Repeat("a", 40): false, "I": false,
	} {
		assert.Equal(t, want, is(word), word)
	}
	assert.False(t, lexing.OneOf()("a"))
	assert.False(t, lexing.OneOf(map[string]bool{strings.Repeat("a", 40): true})(strings.Repeat("b", 40)))
}
