package growth

import "strings"

// Markup are forms of texts in the markup that comments and guides are written in: what
// opens and may never close, what is defined and named, lists and quotes in one another.
var Markup = []Form{
	{"lists by indentation", func(n int) string { return deeper(n, "- a\n") }},
	{"numbered lists by indentation", func(n int) string { return deeper(n, "1. a\n") }},
	{"list marks on one line", func(n int) string { return repeat("- ", n) + "a\n" }},
	{"numbered list marks on one line", func(n int) string { return repeat("1. ", n) + "a\n" }},
	{"quotes in quotes", func(n int) string { return repeat("> ", n) + "a\n" }},
	{"quotes in quotes on many lines", func(n int) string { return square(n, "> ", "a\n") }},
	{"quotes and lists", func(n int) string { return repeat("> - ", n) + "a\n" }},
	{"emphasis that is open", func(n int) string { return repeat("*a ", n) }},
	{"emphasis of two kinds", func(n int) string { return repeat("*a _b ", n) }},
	{"emphasis that closes", func(n int) string { return repeat("a* ", n) }},
	{"strong and plain emphasis", func(n int) string { return repeat("**a *b ", n) }},
	{"stars", func(n int) string { return repeat("*", n) }},
	{"stars in words", func(n int) string { return repeat("a**b", n) }},
	{"backquotes of many lengths", func(n int) string {
		var b strings.Builder
		for i := 1; b.Len() < n; i++ {
			b.WriteString(strings.Repeat("`", i) + "a ")
		}
		return b.String()
	}},
	{"brackets", func(n int) string { return repeat("[", n) + "a" + repeat("]", n) }},
	{"links in links", func(n int) string { return repeat("[a](", n) }},
	{"open links", func(n int) string { return repeat("[a](<b", n) }},
	{"pictures in links", func(n int) string { return repeat("[![a](b) ", n) }},
	{"short addresses", func(n int) string { return repeat("<ref:X> ", n) }},
	{"fragments", func(n int) string { return repeat("<insert:x>\n\n", n) }},
	{"plain addresses", func(n int) string { return repeat("https://tidebook.example/a ", n) }},
	{"one long address", func(n int) string { return "<ref:" + repeat("a", n) + ">" }},
	{"one long address that is open", func(n int) string { return "<https://" + repeat("a", n) }},
	{"one long plain address", func(n int) string { return "https://" + repeat("a.", n) + "example" }},
	{"mail addresses", func(n int) string { return repeat("a@", n) }},
	{"one long link", func(n int) string { return "[a](ref:" + repeat("a", n) + ")" }},
	{"one long link that is open", func(n int) string { return "[a](ref:" + repeat("a(", n) }},
	{"definitions of links", counted("[a]: https://tidebook.example/").Make},
	{"definitions of one link", func(n int) string { return repeat("[a]: b\n", n) }},
	{"uses of definitions", func(n int) string {
		return counted("[a]: https://tidebook.example/").Make(n) + "\n" + counted("[a] is").Make(n)
	}},
	{"definitions of links in reStructuredText", counted(".. _a: https://tidebook.example/").Make},
	{"footnotes", func(n int) string { return counted("a[^1]").Make(n) + "\n" + counted("[^1]: b").Make(n) }},
	{"a table of short rows", func(n int) string { return "|a|b|\n|-|-|\n" + repeat("|a\n", n) }},
	{"a table of long rows", func(n int) string { return "|a|b|\n|-|-|\n|" + repeat("a|", n) + "\n" }},
	{"a table of many columns", func(n int) string { return repeat("|a", n) + "|\n" + repeat("|-", n) + "|\n" + repeat("|b", n) + "|\n" }},
	{"a table of empty rows", func(n int) string { return "a|b\n-|-\n" + repeat("|\n", n) }},
	{"elements", func(n int) string { return repeat("<b>", n) + "a" + repeat("</b>", n) }},
	{"open elements", func(n int) string { return repeat("<a href=\"", n) }},
	{"comments", func(n int) string { return repeat("<!-- ", n) }},
	{"instructions", func(n int) string { return repeat("<? ", n) }},
	{"sections of data", func(n int) string { return repeat("<![CDATA[ ", n) }},
	{"entities", func(n int) string { return repeat("&amp;&#x41;&nothing;", n) }},
	{"backslashes", func(n int) string { return repeat("\\", n) }},
	{"headings", func(n int) string { return repeat("# a\n", n) }},
	{"underlined headings", func(n int) string { return repeat("a\n=\n", n) }},
	{"a paragraph of many lines", func(n int) string { return repeat("a\n", n) }},
	{"fences", func(n int) string { return repeat("```\n", n) }},
	{"fences of many lengths", func(n int) string { return repeat("````\n```\n", n) }},
	{"formulas", func(n int) string { return repeat("$a ", n) + repeat("$$", n) }},
	{"braces of tags", func(n int) string { return repeat("{@link ", n) }},
	{"types of tags", func(n int) string { return repeat("@param {", n) }},
	{"empty lines", func(n int) string { return repeat("\n", n) }},
	{"blanks", func(n int) string { return repeat(" ", n) + "a" }},
	{"tabs", func(n int) string { return repeat("\t", n) + "a" }},
	{"one word", func(n int) string { return repeat("a", n) }},
	{"dots", func(n int) string { return repeat(".", n) }},
	{"colons", func(n int) string { return repeat("::", n) + "\n" }},
	{"bars", func(n int) string { return repeat("| a\n", n) }},
	{"roles", func(n int) string { return repeat(":class:`", n) }},
	{"rules", func(n int) string { return repeat("---\n", n) }},
}

// deeper are lines of which each stands deeper than the one before, in a text of n bytes.
func deeper(n int, line string) string {
	var b strings.Builder
	for i := 0; b.Len() < n; i++ {
		b.WriteString(strings.Repeat("  ", i) + line)
	}
	return b.String()
}

// square are lines of which each begins with as many marks as there are lines.
func square(n int, mark, line string) string {
	side := 1
	for side*(side*len(mark)+len(line)) < n {
		side++
	}
	return repeat(repeat(mark, side)+line, side)
}
