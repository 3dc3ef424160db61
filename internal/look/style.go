package look

import (
	"slices"
	"strings"
	"unicode/utf8"

	"github.com/tdewolff/parse/v2"
	"github.com/tdewolff/parse/v2/css"
)

const (
	openBracket = "a bracket is not closed, or not opened"
	asksNetwork = "it asks the network for something, which no page may"
)

// brackets are those that close others.
var brackets = map[css.TokenType]css.TokenType{
	css.RightBraceToken: css.LeftBraceToken, css.RightBracketToken: css.LeftBracketToken, css.RightParenthesisToken: css.LeftParenthesisToken,
}

// fetching are the functions of CSS whose texts are addresses that a browser loads.
var fetching = []string{"url(", "src(", "image(", "image-set(", "-webkit-image-set("}

// wrongStyle says what keeps CSS from being used, or "".
func wrongStyle(text string) string {
	if !utf8.ValidString(text) {
		return "it is no text"
	}
	type opened struct {
		bracket  css.TokenType
		function string
	}
	var open []opened
	lexer := css.NewLexer(parse.NewInputString(text))
	for {
		token, data := lexer.Next()
		switch token {
		case css.ErrorToken:
			if len(open) > 0 {
				return openBracket
			}
			return ""
		case css.BadStringToken:
			return "a text in quotes is not closed"
		case css.BadURLToken:
			return "an address is not closed"
		case css.AtKeywordToken:
			if name := strings.ToLower(string(data)); name == "@import" || strings.Contains(name, `\`) {
				return asksNetwork
			}
		case css.LeftBraceToken, css.LeftBracketToken, css.LeftParenthesisToken:
			open = append(open, opened{bracket: token})
		case css.FunctionToken:
			open = append(open, opened{css.LeftParenthesisToken, strings.ToLower(string(data))})
		case css.RightBraceToken, css.RightBracketToken, css.RightParenthesisToken:
			if len(open) == 0 || open[len(open)-1].bracket != brackets[token] {
				return openBracket
			}
			open = open[:len(open)-1]
		case css.URLToken:
			if isOutside(string(data[len("url(") : len(data)-1])) {
				return asksNetwork
			}
		case css.StringToken:
			if len(open) > 0 && (slices.Contains(fetching, open[len(open)-1].function) || strings.Contains(open[len(open)-1].function, `\`)) && isOutside(string(data)) {
				return asksNetwork
			}
		}
	}
}

// isOutside reports whether an address, maybe in quotes, may lead out of the site.
func isOutside(address string) bool {
	address = strings.Trim(strings.TrimSpace(address), "\"' \t")
	return strings.HasPrefix(address, "//") || strings.Contains(address, ":") && !strings.HasPrefix(strings.ToLower(address), "data:") || strings.Contains(address, `\`)
}
