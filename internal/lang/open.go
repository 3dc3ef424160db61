package lang

import (
	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// Open begins to read a file of a language with a shape: its role, what it says by its bytes, and a
// sheet of its tokens. What it gives back is called when nothing looks at the tokens any more.
func Open(end FrontEnd, file File, shape *lexing.Shape) (sheet lexing.Sheet, back func()) {
	habits := end.Habits()
	facts := file.Facts(habits.Language)
	if namer, ok := end.(TestNamer); ok && namer.IsTest(file.Path) {
		facts.Role = model.RoleTest
	}
	if file.Text.Encoding == source.Latin1 {
		facts.ReadAsLatin(file.Text.Foreign, habits.Name)
	}
	return lexing.OpenSheet(facts, shape, habits.Name, file.Deep)
}
