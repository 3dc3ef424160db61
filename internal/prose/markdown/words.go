package markdown

import (
	"html"
	"strings"

	"codrel/internal/prose"
)

// unescaped is text as it reads: without the backslashes before marks, and with
// what entities stand for ("Entity and numeric character references" in CommonMark).
func unescaped(s string) string {
	if !strings.ContainsAny(s, `\&`) {
		return s
	}
	var b strings.Builder
	for i := 0; i < len(s); i++ {
		switch c := s[i]; {
		case c == '\\' && i+1 < len(s) && isMark(s[i+1]):
			i++
			b.WriteByte(s[i])
		case c == '&':
			end := strings.IndexByte(s[i:min(len(s), i+40)], ';')
			if end < 0 {
				b.WriteByte(c)
				continue
			}
			b.WriteString(html.UnescapeString(s[i : i+end+1]))
			i += end
		default:
			b.WriteByte(c)
		}
	}
	return b.String()
}

func isMark(c byte) bool {
	return c > ' ' && c < 0x7f && (c < '0' || c > '9') && (c|0x20 < 'a' || c|0x20 > 'z')
}

// alerts are the words that quotes are marked with, as several forges show them.
var alerts = map[string]string{"[!NOTE]": "Note", "[!TIP]": "Tip", "[!IMPORTANT]": "Important", "[!WARNING]": "Warning", "[!CAUTION]": "Caution"}

// alert gives a quote that begins with "[!NOTE]" its word.
func alert(blocks []prose.Node) []prose.Node {
	if len(blocks) == 0 || blocks[0].Kind != prose.Paragraph {
		return blocks
	}
	first := blocks[0].Children
	line, end := "", 0
	for end < len(first) && first[end].Kind == prose.Text {
		line += first[end].Text
		end++
		if strings.HasSuffix(line, "\n") || len(line) > 20 {
			break
		}
	}
	word, ok := alerts[strings.ToUpper(strings.TrimSpace(line))]
	if !ok {
		return blocks
	}
	span := blocks[0].Span
	label := prose.Node{Kind: prose.Paragraph, Span: span, Children: []prose.Node{
		prose.Label(strings.ToLower(word), word, "", span),
	}}
	rest := blocks[1:]
	if end < len(first) {
		text := blocks[0]
		text.Children = first[end:]
		rest = append([]prose.Node{text}, rest...)
	}
	return append([]prose.Node{label}, rest...)
}
