package lexing_test

import (
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/lexing"
)

// Shapes of languages, as far as they put the toolkit to the test.
var (
	slashes = []lexing.CommentShape{{Open: "//"}, {Open: "/*", Close: "*/"}}
	quotes  = []lexing.StringShape{{Open: `"`, Escape: '\\'}, {Open: `'`, Escape: '\\', Character: true}}
	words   = func(w string) bool { return w == "if" || w == "struct" || w == "fn" }

	cpp = lexing.Shape{
		Names: lexing.NameBytes(""), Keyword: words, Comments: slashes, Directive: '#', Joined: true, DigitMark: '\'', Marks: []string{"::", "->", ">="},
		Strings: append([]lexing.StringShape{{Prefixes: []string{"R", "u8R", "LR"}, Open: `"`, Lines: true, Delimited: true}, {Prefixes: []string{"u8", "L", "u"}, Open: `"`, Escape: '\\'}}, quotes...),
	}
	rust = lexing.Shape{
		Names: lexing.NameBytes(""), Keyword: words, LeadingDigit: true, Comments: []lexing.CommentShape{{Open: "//"}, {Open: "/*", Close: "*/", Nested: true}},
		Strings: append([]lexing.StringShape{{Prefixes: []string{"br", "cr", "r"}, Open: `"`, Fence: '#', Lines: true}}, quotes...),
	}
	csharp = lexing.Shape{
		Names: lexing.NameBytes("@"), Keyword: words, Comments: slashes, Directive: '#',
		Strings: append([]lexing.StringShape{
			{Prefixes: []string{"$@", "@$"}, Open: `"`, Doubled: true, Lines: true, Hole: "{"}, {Prefixes: []string{"@"}, Open: `"`, Doubled: true, Lines: true},
			{Prefixes: []string{"$"}, Open: `"`, Escape: '\\', Hole: "{"}, {Open: `"""`, Lines: true},
		}, quotes...),
	}
	java = lexing.Shape{
		Names: lexing.NameBytes("$"), Comments: slashes,
		Strings: append([]lexing.StringShape{{Open: `"""`, Escape: '\\', Lines: true}}, quotes...),
	}
	perl = lexing.Shape{
		Names: lexing.NameBytes(""), Comments: []lexing.CommentShape{{Open: "#"}}, Heredocs: true,
		Strings: []lexing.StringShape{{Open: `"`, Escape: '\\', Lines: true}, {Open: "'", Escape: '\\', Lines: true}},
	}
)

// shown are the tokens of a text and its lines to a preprocessor, with the pieces that are no words behind a bar.
func shown(shape *lexing.Shape, text string) (tokens, pieces string, unclosed int) {
	var s lexing.Stream
	unclosed = shape.Lex(text, &s)
	var all, told []string
	lines := s.Lines
	for i := 0; i <= len(s.Tokens); i++ {
		for ; len(lines) > 0 && int(lines[0].Next) == i; lines = lines[1:] {
			all = append(all, text[lines[0].From:lines[0].To])
		}
		if i < len(s.Tokens) {
			all = append(all, text[s.Tokens[i].From:s.Tokens[i].To])
		}
	}
	for _, p := range s.Pieces {
		told = append(told, [...]string{"K", "N", "T", "C"}[p.Class-lexing.Keyword]+":"+p.Span.In(text))
	}
	return strings.Join(all, " | "), strings.Join(told, " | "), unclosed
}

func TestShapes(t *testing.T) {
	for _, c := range []struct {
		shape        *lexing.Shape
		text         string
		tokens       string
		pieces       string
		neverClosed  string // what is not closed, from where it begins
		describes    string
		bracketsMiss bool
	}{
		{describes: "comments", shape: &java, text: "a // b /* c\nd /* e\nf */ g", tokens: "a | d | g", pieces: "C:// b /* c | C:/* e\nf */"},
		{describes: "a comment that another one does not open again", shape: &java, text: "/* a /* b */ c */", tokens: "c | * | /", pieces: "C:/* a /* b */"},
		{describes: "nested comments", shape: &rust, text: "/* a /* b */ c */ d", tokens: "d", pieces: "C:/* a /* b */ c */"},
		{describes: "an open comment", shape: &rust, text: "a /* /* */", tokens: "a", pieces: "C:/* /* */", neverClosed: "/* /* */"},
		{describes: "a line comment goes on behind a backslash", shape: &cpp, text: "a // b \\\nc\nd", tokens: "a | d", pieces: "C:// b \\\nc"},
		{describes: "and does not where lines are not joined", shape: &java, text: "a // b \\\nc", tokens: "a | c", pieces: `C:// b \`},
		{describes: "strings and characters", shape: &java, text: `"a\"b" '"' '\'' x`, tokens: `"a\"b" | '"' | '\'' | x`, pieces: `T:"a\"b" | T:'"' | T:'\''`},
		{describes: "a string ends with its line", shape: &java, text: "\"a\nb", tokens: "\"a | b", pieces: `T:"a`, neverClosed: "\"a\nb"},
		{describes: "a text block", shape: &java, text: "\"\"\"\n a \"b\" \\\"\"\" // c\n\"\"\" d", tokens: "\"\"\"\n a \"b\" \\\"\"\" // c\n\"\"\" | d", pieces: "T:\"\"\"\n a \"b\" \\\"\"\" // c\n\"\"\""},
		{describes: "raw strings of C++", shape: &cpp, text: "R\"x(a)\"b)x\" c R\"(\n\\)\" u8\"d\"", tokens: "R\"x(a)\"b)x\" | c | R\"(\n\\)\" | u8\"d\"", pieces: "T:R\"x(a)\"b)x\" | T:R\"(\n\\)\" | T:u8\"d\""},
		{describes: "what looks like one", shape: &cpp, text: `R"a b(c)" FOR"d"`, tokens: `R | "a b(c)" | FOR | "d"`, pieces: `T:"a b(c)" | T:"d"`},
		{describes: "raw strings of Rust", shape: &rust, text: `r##"a"#b"## c r"\" br#"d"#`, tokens: `r##"a"#b"## | c | r"\" | br#"d"#`, pieces: `T:r##"a"#b"## | T:r"\" | T:br#"d"#`},
		{describes: "lifetimes are no characters", shape: &rust, text: "fn f<'a>(x: &'a str, c: 'b', d: '\\n', e: 'é')", tokens: "fn | f | < | ' | a | > | ( | x | : | & | ' | a | str | , | c | : | 'b' | , | d | : | '\\n' | , | e | : | 'é' | )", pieces: "K:fn | T:'b' | T:'\\n' | T:'é'"},
		{describes: "raw names are no strings", shape: &rust, text: `r#type + 1..9 + 0x1f_u8`, tokens: "r | # | type | + | 1 | . | . | 9 | + | 0x1f_u8", pieces: "N:1 | N:9 | N:0x1f_u8"},
		{describes: "a number in a place is behind its point", shape: &rust, text: "a.0 + b.1.2", tokens: "a | . | 0 | + | b | . | 1.2", pieces: "N:0 | N:1.2"},
		{describes: "and part of the number elsewhere", shape: &java, text: "a + .5", tokens: "a | + | .5", pieces: "N:.5"},
		{describes: "quotes that are written twice", shape: &csharp, text: `@"a\""b" @if c`, tokens: `@"a\""b" | @if | c`, pieces: `T:@"a\""b"`},
		{describes: "code in strings", shape: &csharp, text: `$"a {b + "c}" + f(d)} {{e}} {g}" h`, tokens: `$"a  | { | b | + | "c}" | + | f | ( | d | ) | } |  {{e}}  | { | g | } | " | h`, pieces: `T:$"a  | T:"c}" | T: {{e}}  | T:"`},
		{describes: "strings in code in strings", shape: &csharp, text: `$"{$"{a}"}" b`, tokens: `$" | { | $" | { | a | } | " | } | " | b`, pieces: `T:$" | T:$" | T:" | T:"`},
		{describes: "code in a string that its line ends", shape: &csharp, text: "$\"a {b\nc }", tokens: `$"a  | { | b | c | }`, pieces: `T:$"a `, neverClosed: "$\"a {b\nc }"},
		{describes: "a bracket that is left open in one", shape: &csharp, text: `$"{(a}" b`, tokens: `$" | { | ( | a | } | " | b`, pieces: `T:$" | T:"`, bracketsMiss: true},
		{describes: "lines to the preprocessor", shape: &cpp, text: "a\n  # define B(x) { /* c */ \"d}\" \\\n  e // f\n} # g", tokens: "a | # define B(x) { /* c */ \"d}\" \\\n  e // f | } | # | g", pieces: "K:# define | C:/* c */ | T:\"d}\" | C:// f", bracketsMiss: true},
		{describes: "a comment in one that takes another line", shape: &cpp, text: "#if a /* b\nc */ + d\ne", tokens: "#if a /* b\nc */ + d | e", pieces: "K:#if | C:/* b\nc */"},
		{describes: "a string in one is not looked for beyond it", shape: &cpp, text: "#define A R\"(b\nc)\"", tokens: "#define A R\"(b | c | ) | \"", pieces: "K:#define | T:R\"(b | T:\"", neverClosed: "\"", bracketsMiss: true},
		{describes: "numbers", shape: &cpp, text: "1'000'000.5e-3f 'a' 0x1'f", tokens: "1'000'000.5e-3f | 'a' | 0x1'f", pieces: "N:1'000'000.5e-3f | T:'a' | N:0x1'f"},
		{describes: "marks", shape: &cpp, text: "a::b->c>=d>e", tokens: "a | :: | b | -> | c | >= | d | > | e"},
		{describes: "heredocs", shape: &perl, text: "f(<<A, <<~'B c') # d\n{ \" \nA\n  (\n  B c\ne", tokens: "f | ( | <<A | , | <<~'B c' | ) | e", pieces: "T:<<A | T:<<~'B c' | C:# d | T:{ \" \nA\n | T:  (\n  B c\n"},
		{describes: "shifts are none", shape: &perl, text: "1 <<2; a << b", tokens: "1 | < | < | 2 | ; | a | < | < | b", pieces: "N:1 | N:2"},
		{describes: "a heredoc without an end", shape: &perl, text: "<<A;\nb\n", tokens: "<<A | ;", pieces: "T:<<A | T:b\n", neverClosed: "<<A;\nb\n"},
		{describes: "one whose line is the last", shape: &perl, text: "<<A", tokens: "<<A", pieces: "T:<<A", neverClosed: "<<A"},
	} {
		t.Run(c.describes, func(t *testing.T) {
			tokens, pieces, unclosed := shown(c.shape, c.text)
			assert.Equal(t, c.tokens, tokens)
			assert.Equal(t, c.pieces, pieces)
			never := ""
			if unclosed >= 0 {
				never = c.text[unclosed:]
			}
			assert.Equal(t, c.neverClosed, never, "what is never closed")
			var s lexing.Stream
			c.shape.Lex(c.text, &s)
			assert.Equal(t, c.bracketsMiss, !s.Sound(), "brackets without a partner")
		})
	}
}

// TestShapesOnDamage cuts text out of a heap of everything: tokens and pieces stand in
// order, lie within the text and do not overlap, partners lead to one another.
func TestShapesOnDamage(t *testing.T) {
	heap := []string{"/*", "*/", "//", "#if", "\"", "'", "R\"x(", ")x\"", "r#\"", "\"#", "$\"", "{", "}", "(", ")", "[", "]", "\\", "\n", "\r\n", "<<A", "A", "\"\"\"", "1'0", "1..2", "é", "\xff", " ", "name"}
	random := rand.New(rand.NewPCG(1, 2))
	for range 20000 {
		var b strings.Builder
		for range random.IntN(30) {
			b.WriteString(heap[random.IntN(len(heap))])
		}
		text := b.String()
		for _, shape := range []*lexing.Shape{&cpp, &rust, &csharp, &java, &perl} {
			var s lexing.Stream
			shape.Lex(text, &s)
			last := int32(0)
			for i, token := range s.Tokens {
				require.True(t, last <= token.From && token.From <= token.To && int(token.To) <= len(text), "token %d of %q", i, text)
				last = token.To
				if p := token.Partner; p >= 0 {
					require.Equal(t, int32(i), s.Tokens[p].Partner, "partner of %d in %q", i, text)
				}
			}
			last = 0
			for i, piece := range s.Pieces {
				require.True(t, last <= piece.Span.Start && piece.Span.Start < piece.Span.End && int(piece.Span.End) <= len(text), "piece %d of %q", i, text)
				last = piece.Span.End
			}
		}
	}
}

func BenchmarkShapes(b *testing.B) {
	text := strings.Repeat("#include <tide.h>\n// Height of the tide.\nstruct Berth { int depth = 0x1f; char *name = \"north \\\"pier\\\"\"; };\n", 2000)
	b.SetBytes(int64(len(text)))
	for b.Loop() {
		var s lexing.Stream
		cpp.Lex(text, &s)
	}
}
