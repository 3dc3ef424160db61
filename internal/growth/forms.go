package growth

import (
	"regexp"
	"strconv"
	"strings"
)

var (
	words  = regexp.MustCompile(`[\pL_][\pL_0-9]*`)
	digits = regexp.MustCompile(`[0-9]+`)
	marks  = regexp.MustCompile(`[^\pL\pN_\s]{1,3}`)
)

// Forms are the forms that follow from texts which show what a language has: every line of
// them and every mark, and the keywords, over and over, on lines of their own and on one
// line, with one name and with many; and everything that opens something, nested. Lines of
// one shape are tried once.
func Forms(texts, keywords []string) []Form {
	m := maker{seen: map[string]bool{}}
	for _, text := range texts {
		for line := range strings.Lines(text) {
			m.line(strings.TrimRight(line, "\r\n"))
		}
		for _, mark := range marks.FindAllString(text, -1) {
			m.token(mark)
		}
	}
	for _, keyword := range keywords {
		m.token(keyword)
	}
	for _, pair := range []string{"()", "[]", "{}", "<>"} {
		for _, before := range []string{"", "a", "a,", "a:", "=", "=>", "...", "*", "a=a", "\n"} {
			open, closing := before+pair[:1], pair[1:]
			m.once(open+closing, Around(open+"…"+closing, open, "a", closing))
		}
	}
	return m.forms
}

type maker struct {
	forms []Form
	seen  map[string]bool
}

func (m *maker) once(shape string, form Form) {
	if !m.seen[shape] {
		m.seen[shape] = true
		m.forms = append(m.forms, form)
	}
}

func (m *maker) line(line string) {
	inner := strings.TrimSpace(line)
	if inner == "" {
		return
	}
	shape := digits.ReplaceAllString(words.ReplaceAllString(inner, "a"), "0")
	m.once("lines of "+shape, Repeat(line+`\n`, line+"\n"))
	m.once("line of "+shape, Repeat(inner, inner+" "))
	m.once("names of "+shape, counted(line))
	if first, rest, ok := strings.Cut(inner, " "); ok {
		m.once("list of "+shape, Around(first+" ("+rest+" …", "", first+" "+rest, ", "+rest))
	}
	if strings.HasSuffix(inner, ":") || strings.HasSuffix(inner, "{") {
		m.once("nested "+shape, nested(inner))
	}
}

func (m *maker) token(token string) {
	for _, form := range []string{token, token + " ", token + "\n", "a " + token + " ", "a" + token + "a ", "a " + token + "\n"} {
		m.once(form, Repeat(strings.ReplaceAll(form, "\n", `\n`), form))
	}
}

// counted are lines in which the second name is another one in each.
func counted(line string) Form {
	return Form{Name: line + " with many names", Make: func(n int) string {
		at := words.FindAllStringIndex(line, -1)
		if len(at) == 0 {
			return repeat(line+"\n", n)
		}
		end := at[min(1, len(at)-1)][1]
		var b strings.Builder
		for i := range n {
			b.WriteString(line[:end])
			b.WriteString(strconv.Itoa(i))
			b.WriteString(line[end:])
			b.WriteByte('\n')
		}
		return b.String()
	}}
}

// nested are blocks in blocks by indentation, and as many lines behind them that stand as
// deep as the innermost.
func nested(opens string) Form {
	return Form{Name: opens + " nested", Make: func(n int) string {
		deep := 1
		for deep*deep < n {
			deep++
		}
		var b strings.Builder
		for i := range deep {
			b.WriteString(strings.Repeat(" ", i) + opens + "\n")
		}
		for range deep {
			b.WriteString(strings.Repeat(" ", deep) + opens + " pass\n")
		}
		return b.String()
	}}
}
