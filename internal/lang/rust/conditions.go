package rust

import (
	"strings"

	"codrel/internal/lang"
	"codrel/internal/lexing"
)

// This file takes the conditions of "cfg" apart ("Conditional compilation" in Rust's reference).

var _ lang.ConditionReader = FrontEnd{}

// Condition takes a condition apart. Pages are documentation: "doc" and what services that build it
// set always hold.
func (FrontEnd) Condition(text string) lang.Condition {
	var s lexing.Stream
	shape.Lex(text, &s)
	return predicate(s.Look(text), 0, len(s.Tokens), 0)
}

// Settles knows that systems exclude one another, but for families, which some are of, and so do processors and
// values of options that have one.
func (FrontEnd) Settles(holds, other lang.Condition) (value, known bool) {
	switch {
	case holds.Kind != other.Kind:
		return false, false
	case holds.Name == other.Name:
		return true, true
	}
	switch holds.Kind {
	case "system":
		if families[other.Name] {
			return unix[holds.Name] && other.Name == "Unix", unix[holds.Name] || holds.Name == "Windows"
		}
		return false, !families[holds.Name] || other.Name == "Windows"
	case "machine", "pointers":
		return false, true
	case "equal":
		name, _, _ := strings.Cut(holds.Name, " = ")
		return false, single[name] && strings.HasPrefix(other.Name, name+" = ")
	}
	return false, false
}

var (
	families = lexing.WordSet("Unix WebAssembly") // of systems
	single   = lexing.WordSet("target_env target_endian target_vendor target_abi panic")
	// unix are the systems of that family, as pages call them.
	unix = map[string]bool{
		"Linux": true, "macOS": true, "iOS": true, "Android": true, "FreeBSD": true, "NetBSD": true, "OpenBSD": true, "DragonFly BSD": true, "Solaris": true, "illumos": true, "Haiku": true, "Redox": true, "AIX": true,
		"emscripten": true, "vxworks": true, "hurd": true, "nto": true, "l4re": true, "tvos": true, "watchos": true, "visionos": true,
	}
)

// predicate reads the condition between two tokens.
func predicate(c lexing.Cursor, i, end, depth int) lang.Condition {
	word := c.Word(i)
	switch {
	case i >= end || depth > deepest:
		return lang.Condition{}
	case word == "not" && c.Is(i+1, '('):
		stop := c.Close(i+1, end)
		out := predicate(c, i+2, stop, depth+1)
		if out.Kind == "" && len(out.Of) == 0 { // never where documentation is made
			return lang.Condition{Kind: "set", Name: c.Span(i+2, stop).In(c.Text), Not: true}
		}
		out.Not = !out.Not
		return out
	case (word == "all" || word == "any") && c.Is(i+1, '('):
		out := lang.Condition{Any: word == "any"}
		stop := c.Close(i+1, end)
		for at := i + 2; at < stop; {
			next := at
			for next < stop && !c.Is(next, ',') {
				next = c.Over(next)
			}
			out.Of = append(out.Of, predicate(c, at, next, depth+1))
			at = next + 1
		}
		return out
	case c.Is(i+1, '=') && i+2 < end:
		return option(word, strings.Trim(c.Span(i+2, i+3).In(c.Text), `"`))
	case word == "unix":
		return lang.Condition{Kind: "system", Name: "Unix"}
	case word == "windows":
		return lang.Condition{Kind: "system", Name: "Windows"}
	case strings.HasPrefix(word, "doc"), word == "true":
		return lang.Condition{}
	}
	return lang.Condition{Kind: "set", Name: c.Span(i, end).In(c.Text)}
}

// systems are those whose names people write otherwise.
var systems = map[string]string{
	"linux": "Linux", "macos": "macOS", "windows": "Windows", "unix": "Unix", "ios": "iOS", "android": "Android", "freebsd": "FreeBSD", "netbsd": "NetBSD", "openbsd": "OpenBSD",
	"dragonfly": "DragonFly BSD", "solaris": "Solaris", "illumos": "illumos", "fuchsia": "Fuchsia", "haiku": "Haiku", "wasi": "WASI", "wasm": "WebAssembly", "redox": "Redox", "aix": "AIX",
}

// option is a condition that asks for a value.
func option(name, value string) lang.Condition {
	switch name {
	case "feature":
		return lang.Condition{Kind: "feature", Name: value}
	case "target_os", "target_family":
		if system := systems[value]; system != "" {
			value = system
		}
		return lang.Condition{Kind: "system", Name: value}
	case "target_arch":
		return lang.Condition{Kind: "machine", Name: value}
	case "target_feature":
		return lang.Condition{Kind: "ability", Name: value}
	case "target_pointer_width":
		return lang.Condition{Kind: "pointers", Name: value}
	}
	return lang.Condition{Kind: "equal", Name: name + " = " + value}
}
