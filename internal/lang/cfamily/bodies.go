package cfamily

import "codrel/internal/lexing"

// This file tells the bodies of functions from what else stands in braces, before anything is
// known of the file but its tokens so far.

// longestHead is how many tokens a head has whose body is told by its shape.
const longestHead = 64

// behindParameters are the words that may stand between the parameters and the body.
var behindParameters = map[string]bool{"const": true, "volatile": true, "noexcept": true, "override": true, "final": true}

// noCalls are words with parentheses behind them that are no name of a function.
var noCalls = map[string]bool{
	"__attribute__": true, "__attribute": true, "__declspec": true, "alignas": true, "_Alignas": true, "requires": true, "noexcept": true,
	"decltype": true, "typeof": true, "explicit": true, "throw": true, "operator": true, "asm": true, "__asm__": true,
}

// opensRecord are the words behind which braces hold declarations.
var opensRecord = map[string]bool{"struct": true, "union": true, "enum": true, "class": true, "namespace": true}

// beginsBody reports whether "{" behind the tokens of a text is the body of a function for certain: a
// name with parameters stands before it, something else before that, and nothing that says that
// a type or a namespace is at hand. Macros that open one look like functions without a result.
func beginsBody(text string, tokens []lexing.Token) bool {
	i := len(tokens) - 1
	for i > 0 && tokens[i].Kind == lexing.Word && behindParameters[text[tokens[i].From:tokens[i].To]] {
		i--
	}
	if i < 3 || tokens[i].Sign != ')' {
		return false
	}
	name := int(tokens[i].Partner) - 1
	if name < 1 || tokens[name].Kind != lexing.Word || noCalls[text[tokens[name].From:tokens[name].To]] {
		return false
	}
	switch before := &tokens[name-1]; {
	case before.Kind == lexing.Word, before.Sign == '*', before.Sign == '&', before.Sign == '~', before.Sign == '>':
	case before.Kind == lexing.Mark && text[before.From:before.To] == "::":
	default:
		return false
	}
	return !afterRecord(text, tokens[:name])
}

// afterRecord reports whether the head that ends with the tokens may be that of a type or of a
// namespace.
func afterRecord(text string, tokens []lexing.Token) bool {
	for i, n := len(tokens)-1, 0; i >= 0; i, n = i-1, n+1 {
		t := &tokens[i]
		switch t.Sign {
		case ';', '{', '}':
			return false
		case ')', ']':
			if t.Partner >= 0 {
				i = int(t.Partner)
			}
			continue
		}
		if n > longestHead {
			return true
		}
		if t.Kind != lexing.Word || !opensRecord[text[t.From:t.To]] {
			continue
		}
		ofTemplate := i > 0 && (tokens[i-1].Sign == '<' || tokens[i-1].Sign == ',')
		pointed := i+2 < len(tokens) && tokens[i+1].Kind == lexing.Word && (tokens[i+2].Sign == '*' || tokens[i+2].Sign == '&')
		if !ofTemplate && !pointed {
			return true
		}
	}
	return false
}
