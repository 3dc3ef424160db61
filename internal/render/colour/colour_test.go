package colour_test

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/render/colour"
)

// said is a code with its pieces in brackets: {keyword}, (remark), <text>.
func said(word, code string) string {
	var b strings.Builder
	at := 0
	for _, p := range colour.Pieces(word, code) {
		marks := [...]string{colour.Keyword: "{}", colour.Remark: "()", colour.Text: "<>"}[p.Class]
		b.WriteString(code[at:p.From] + marks[:1] + code[p.From:p.To] + marks[1:])
		at = p.To
	}
	return b.String() + code[at:]
}

func TestPieces(t *testing.T) {
	assert.Equal(t, "{name}: Tidebook (# made up)\n", said("yml", "name: Tidebook # made up\n"))
	assert.Equal(t, `{{"name"}: <"Tidebook">, {"n"}: 1}`, said("json", `{"name": "Tidebook", "n": 1}`))
	assert.Contains(t, said("sh", "if true; then echo \"x\"; fi # end"), "{if} true; {then} echo <\"x\">; {fi} (# end)")
	assert.Contains(t, said("sql", "SELECT name FROM berths -- all"), "{SELECT} name {FROM} berths (-- all)")
	assert.Contains(t, said("rust", "fn moor() -> &str { \"x\" } // ties"), "<\"x\">")
	assert.False(t, colour.Knows("c"), "what a front end takes apart needs no definition")
	assert.Empty(t, colour.Pieces("klingon", "x"))
	assert.Empty(t, colour.Pieces("../colour", "x"))
	assert.False(t, colour.Knows(""))
	assert.True(t, colour.Knows("Dockerfile"))
}

// Each definition that is here takes code apart, whatever it is, without losing a byte of it.
func TestEveryDefinition(t *testing.T) {
	list, err := filepath.Glob("lexers/*.xml")
	require.NoError(t, err)
	require.Greater(t, len(list), 25)
	text, err := os.ReadFile("colour_test.go")
	require.NoError(t, err)
	for _, file := range list {
		word := strings.TrimSuffix(filepath.Base(file), ".xml")
		require.True(t, colour.Knows(word), word)
		for _, code := range []string{string(text), "", "\x00\xff\r\n\"'`${#", "<a b='c'>d</a>\r\n# x\n// y\n", strings.Repeat("(", 3000), strings.Repeat("x: 'y' # z\n", 9000)} {
			at := 0
			for _, p := range colour.Pieces(word, code) {
				require.LessOrEqual(t, at, p.From, "%s %.20q", word, code)
				require.Less(t, p.From, p.To)
				at = p.To
			}
			require.LessOrEqual(t, at, len(code))
		}
	}
}
