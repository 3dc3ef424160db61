package lexing_test

import (
	"fmt"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lexing"
	"codrel/internal/model"
)

// Runs stay what they were while the arena grows, moves, and is handed on.
func TestArena(t *testing.T) {
	var wait sync.WaitGroup
	for worker := range 4 {
		wait.Go(func() {
			for round := range 20 {
				file := fmt.Sprintf("file %d %d ", worker, round) + strings.Repeat("word ", 50)
				arena := lexing.NewArena(file)
				var whole, inner []model.Tokens
				for i := range 300 {
					begin := arena.Begin()
					arena.Put(model.TokenName, file[:4])
					mark := arena.Mark()
					arena.Put(model.TokenType, fmt.Sprint("own", i))
					inner = append(inner, arena.Since(mark))
					for range i % 40 {
						arena.Put(model.TokenLiteral, file[5:9])
					}
					whole = append(whole, arena.Since(begin))
				}
				arena.Close()
				for i := range whole {
					assert.Equal(t, "file"+fmt.Sprint("own", i)+strings.Repeat(file[5:9], i%40), whole[i].Text(file))
					assert.Equal(t, fmt.Sprint("own", i), inner[i].Text(file))
				}
			}
		})
	}
	wait.Wait()
}
