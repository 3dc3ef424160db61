package main

import (
	"regexp"
	"strings"
)

// This file cuts off markup that other dialects would take for something else: elements, tags.

// plain is the text of a comment without such markup of its dialect.
func plain(text, dialect string) string {
	switch dialect {
	case "pod":
		return withoutCodes(text)
	case "crossmarks":
		return withoutExamples(text)
	}
	return text
}

var (
	wide     = regexp.MustCompile(`(?s)\b([A-Z])<<+\s(.*?)\s>>+`)
	inner    = regexp.MustCompile(`\b([A-Z])<([^<>]*)>`)
	command  = regexp.MustCompile(`(?m)^=\w+[ \t]*`)
	regions  = regexp.MustCompile(`(?ms)^=begin (\w+).*?^=end .*?$|^=for \w+ [^\n]*(\n[^\n]+)*`)
	shielded = strings.NewReplacer("<", "\x01", ">", "\x02")
)

// withoutCodes takes the codes of POD off (perlpod): what a link shows stays, and what is for an index
// or for another kind of page goes. Angle brackets that are left are no elements.
func withoutCodes(text string) string {
	text = regions.ReplaceAllString(text, "")
	text = command.ReplaceAllString(text, "")
	shown := func(letter, held string) string {
		switch letter {
		case "L":
			if before, _, labelled := strings.Cut(held, "|"); labelled {
				return before
			}
			if name, section, ok := strings.Cut(held, "/"); ok {
				return strings.Trim(section, `"`) + " " + name
			}
		case "X", "Z":
			return ""
		case "E":
			return " "
		}
		return held
	}
	for range 4 {
		text = inner.ReplaceAllStringFunc(text, func(code string) string { return shown(code[:1], code[2:len(code)-1]) })
		text = wide.ReplaceAllStringFunc(text, func(code string) string {
			found := wide.FindStringSubmatch(code)
			return shown(found[1], shielded.Replace(found[2]))
		})
	}
	return strings.NewReplacer("<", " ", ">", " ", "\x01", " ", "\x02", " ").Replace(text)
}

var definition = regexp.MustCompile(`^\s*\[[^\]]+\]:`)

// withoutExamples takes off what Rust's comments have for compilers alone: lines of examples that begin
// with "#", and where names lead to. Angle brackets in examples are no elements.
func withoutExamples(text string) string {
	var out []string
	code := false
	for line := range strings.SplitSeq(text, "\n") {
		trimmed := strings.TrimSpace(line)
		switch {
		case strings.HasPrefix(trimmed, "```") || strings.HasPrefix(trimmed, "~~~"):
			code = !code
			continue
		case code && (trimmed == "#" || strings.HasPrefix(trimmed, "# ")), definition.MatchString(line):
			continue
		case code || strings.HasPrefix(line, "    "):
			line = strings.NewReplacer("<", " ", ">", " ").Replace(line)
		}
		out = append(out, line)
	}
	return strings.Join(out, "\n")
}
