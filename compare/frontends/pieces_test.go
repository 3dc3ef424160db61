package main

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lang"
	"codrel/internal/languages"
)

// A piece counts where both sides have it, of the same kind; what one side alone has is told apart.
func TestPiecesAreJudged(t *testing.T) {
	const text = "let é = \"a\"; // b\nlet x = y.0 + -12;\n"
	theirs := [][3]int{{1, 8, ofText}, {2, 10, ofNumber}, {2, 14, ofNumber}}
	for _, c := range []struct {
		says         string
		pieces       [][3]int
		right, wrong int
	}{
		{"all alike: no comments are told of", theirs, 3, 0},
		{"a sign is counted to the number", [][3]int{theirs[0], theirs[1], {2, 13, ofNumber}}, 3, 0},
		{"characters are counted, and not bytes", [][3]int{{1, 9, ofText}, theirs[1], theirs[2]}, 2, 1},
		{"another kind", [][3]int{{1, 8, ofNumber}, theirs[1], theirs[2]}, 2, 0},
		{"one more of ours", theirs[:2], 2, 1},
		{"one more of theirs", append([][3]int{{2, 4, ofNumber}}, theirs...), 3, 0},
		{"comments are told of", append([][3]int{{1, 12, ofComment}}, theirs...), 4, 0},
		{"lines that are not there", [][3]int{{9, 0, ofText}}, 0, 1},
	} {
		right, wrong := judgePieces(languages.ByName("rust").(lang.Scanner), text, pieced{Pieces: c.pieces}, 0)
		assert.Equal(t, [2]int{c.right, c.wrong}, [2]int{right, wrong}, c.says)
	}
}
