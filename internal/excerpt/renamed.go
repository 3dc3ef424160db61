package excerpt

import (
	"cmp"
	"slices"
	"strings"

	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
)

// This file finds what a declaration may be called now that an excerpt asks for and that is
// gone: the one whose text is most like the copy in the guide.

const (
	mostSought = 12  // lines of the copy that files are searched for
	mostFiles  = 6   // files in which declarations are compared
	likeEnough = 0.6 // of 1: how like the copy a declaration must be
	likeHead   = 0.2 // what the same first line adds
	likePlace  = 0.1 // what the same enclosing names add
)

// Renamed is the name of the declaration that a copy is most likely one of, since that of the
// ask is gone; "" where none is like it.
func Renamed(links *link.Index, ask Ask, copy string) string {
	name := prose.ParseName(ask.Name)
	if len(name.Path) == 0 || strings.TrimSpace(copy) == "" {
		return ""
	}
	own := name.Path[len(name.Path)-1]
	scope := strings.Join(name.Path[:len(name.Path)-1], ".")
	wanted := linesWithout(copy, own)
	var best *model.Declaration
	most, twice := 0.0, false
	for _, f := range likelyFiles(links, copy, own) {
		inside := insideOf(links, f.facts)
		for i := range f.facts.Occurrences {
			o := &f.facts.Occurrences[i]
			d := f.module.OfAny(f.facts, o)
			if d == nil || d.Name == own && d.Scope == scope {
				continue
			}
			whole, body := wholeOf(model.At{Occurrence: o, File: f.facts}, inside)
			switch {
			case ask.Part == Head && !body.Empty():
				whole.End = body.Start
			case ask.Part == Body && !body.Empty():
				whole = body
			}
			like := likeness(wanted, linesWithout(whole.In(f.facts.Text), d.Name))
			if like < likeEnough {
				continue
			}
			if lastOf(d.Scope) == lastOf(scope) {
				like += likePlace
			}
			if like > most {
				best, most, twice = d, like, false
			} else if like == most && d != best {
				twice = true
			}
		}
	}
	if best == nil || twice {
		return ""
	}
	return askable(links, best, len(name.Path))
}

func lastOf(scope string) string { return scope[strings.LastIndexByte(scope, '.')+1:] }

// askable is the shortest name by which a guide finds a declaration, with its module where the
// name that is gone had so many parts.
func askable(links *link.Index, d *model.Declaration, parts int) string {
	names := []string{d.Path(), d.Module.Name + "." + d.Path(), d.Module.Last() + "." + d.Path()}
	if strings.Count(d.Path(), ".")+1 < parts {
		names = append(names[1:], names[0])
	}
	for _, name := range names {
		if r := links.Resolve(link.Scope{}, name, link.Explicit); r.Outcome == link.Found && r.Target.Declaration == d {
			return name
		}
	}
	return d.Module.Path + "." + d.Path()
}

// ownMark stands for a declaration's own name where two are compared.
const ownMark = "\x00"

// linesWithout are the lines of a text that say something, with a mark in the place of a name.
func linesWithout(text, name string) (out []string) {
	for l := range strings.Lines(text) {
		if l = strings.TrimSpace(l); l != "" && l != "…" {
			out = append(out, withoutWord(l, name))
		}
	}
	return out
}

// withoutWord puts the mark in the place of a word.
func withoutWord(text, word string) string {
	var b strings.Builder
	for word != "" {
		i := strings.Index(text, word)
		if i < 0 {
			break
		}
		end := i + len(word)
		b.WriteString(text[:i])
		if i > 0 && isWord(text[i-1]) || end < len(text) && isWord(text[end]) {
			b.WriteString(word)
		} else {
			b.WriteString(ownMark)
		}
		text = text[end:]
	}
	return b.String() + text
}

func isWord(c byte) bool {
	return c == '_' || c >= 0x80 || 'a' <= c && c <= 'z' || 'A' <= c && c <= 'Z' || '0' <= c && c <= '9'
}

// likeness is how much of two texts is the same, from 0 to 1 and a little more where they begin
// in the same way.
func likeness(a, b []string) float64 {
	if len(a) == 0 || len(b) == 0 {
		return 0
	}
	counts := map[string]int{}
	for _, l := range a {
		counts[l]++
	}
	same := 0
	for _, l := range b {
		if counts[l] > 0 {
			counts[l]--
			same++
		}
	}
	like := 2 * float64(same) / float64(len(a)+len(b))
	if a[0] == b[0] {
		like += likeHead
	}
	return like
}

// likely is a file with lines of the copy in it.
type likely struct {
	module *model.Module
	facts  *model.Facts
	lines  int
}

// likelyFiles are the files that have most of the copy's longest lines.
func likelyFiles(links *link.Index, copy, own string) (out []likely) {
	var sought []string
	for l := range strings.Lines(copy) {
		for part := range strings.SplitSeq(strings.TrimSpace(l), own) {
			if part = strings.TrimSpace(part); len(part) >= 3 {
				sought = append(sought, part)
			}
		}
	}
	slices.SortStableFunc(sought, func(a, b string) int { return cmp.Compare(len(b), len(a)) })
	sought = slices.Compact(sought)
	sought = sought[:min(len(sought), mostSought)]
	for _, lib := range links.Project.Libraries {
		for _, m := range lib.Modules {
			for _, f := range m.Files {
				n := 0
				for _, part := range sought {
					if strings.Contains(f.Text, part) {
						n++
					}
				}
				if n > 0 {
					out = append(out, likely{m, f, n})
				}
			}
		}
	}
	slices.SortStableFunc(out, func(a, b likely) int { return cmp.Compare(b.lines, a.lines) })
	return out[:min(len(out), mostFiles)]
}
