package rust

import "codrel/internal/lexing"

// longestHead is how many tokens the head of a function has whose body is told by its shape.
const longestHead = 300

// beginsBody reports whether "{" behind the tokens of a text is the body of a function for certain: the
// word for one stands before it, with a name, and nothing that ends an item in between.
func beginsBody(text string, tokens []lexing.Token) bool {
	for i, n := len(tokens)-1, 0; i >= 0 && n < longestHead; i, n = i-1, n+1 {
		t := &tokens[i]
		switch t.Sign {
		case ';', '{', '}', '$':
			return false
		case ')', ']':
			if t.Partner >= 0 {
				i = int(t.Partner)
			}
			continue
		}
		switch {
		case t.Kind == lexing.Mark && text[t.From:t.To] == "=>":
			return false
		case t.Kind == lexing.Word && text[t.From:t.To] == "fn":
			return i+1 < len(tokens) && tokens[i+1].Kind == lexing.Word
		}
	}
	return false
}
