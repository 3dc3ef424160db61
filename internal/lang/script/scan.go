package script

import "codrel/internal/lexing"

// Scan finds keywords, numbers, strings and comments. Code within templates is
// told apart from their text.
func (e FrontEnd) Scan(text string, into []lexing.Piece) []lexing.Piece {
	return newTokenizer(text, e.Typed, !e.Typed, into).Pieces
}

func isKeyword(word string, typed bool) bool {
	switch word {
	case "async", "await", "break", "case", "catch", "class", "const", "continue", "debugger", "default", "delete", "do", "else", "export",
		"extends", "false", "finally", "for", "function", "if", "import", "in", "instanceof", "let", "new", "null", "return", "static", "super",
		"switch", "this", "throw", "true", "try", "typeof", "var", "void", "while", "with", "yield":
		return true
	case "abstract", "as", "declare", "enum", "implements", "interface", "keyof", "namespace", "private", "protected", "public", "readonly",
		"satisfies", "type":
		return typed
	}
	return false
}
