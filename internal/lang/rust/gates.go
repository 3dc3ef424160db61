package rust

import (
	"slices"
	"strings"

	"codrel/internal/model"
)

// This file knows macros that do nothing but put conditions on items: crates with many features write these
// once, and the items into the macro.

// gate notes the conditions that a macro puts before the items that it is given, of the definition
// between two indices.
func (r *reader) gate(name string, i, end int) {
	for n := 0; i < end && n < mostMatchers; n++ {
		matcher := i
		for i < end && !r.IsMark(i, "=>") {
			i = r.Over(i)
		}
		if i+1 >= end || int(r.Tokens[i+1].Partner) < i {
			return
		}
		given := r.Span(matcher, i).In(r.Text)
		if when := r.before(i+2, int(r.Tokens[i+1].Partner), given); len(when) > 0 {
			r.Facts.Gates = append(r.Facts.Gates, model.Gate{Name: name, Conditions: when})
			return
		}
		for i < end && !r.Is(i, ';') {
			i = r.Over(i)
		}
		i++
	}
}

// before are the conditions right before an item that a macro is given.
func (r *reader) before(i, end int, given string) []string {
	for ; i < end; i++ {
		next, attrs := i, attributes{}
		for next+1 < end && r.Is(next, '#') && r.Is(next+1, '[') {
			r.attribute(next+2, r.Close(next+1, end), &attrs, 0)
			next = r.Over(next + 1)
		}
		if next == i {
			continue
		}
		if r.Is(next, '$') && strings.Contains(given, "$"+r.Word(next+1)+":item") {
			return slices.DeleteFunc(attrs.conditions, func(when string) bool { return strings.Contains(when, "$") })
		}
		i = max(i, next-1)
	}
	return nil
}

// gates are the conditions of macros of a library, by their names.
type gates map[string][]string

func gatesOf(files []*model.Facts) gates {
	out := gates{}
	for _, f := range files {
		for _, g := range f.Gates {
			if _, two := out[g.Name]; !two {
				out[g.Name] = g.Conditions
			}
		}
	}
	return out
}

// of are the conditions that macros put on what stands in them.
func (g gates) of(within []string) (out []string) {
	for _, name := range within {
		for _, when := range g[name] {
			if !slices.Contains(out, when) {
				out = append(out, when)
			}
		}
	}
	return out
}
