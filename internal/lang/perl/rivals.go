package perl

import (
	"strings"

	"codrel/internal/lexing"
)

// This file decides which of several headings or entries of one name has the text of a declaration: an event may be
// called as the method that leads to it. What the others say stays in the text of the package.

// settle leaves each declaration to one of the subjects that name it.
func (r *reader) settle(paragraphs []paragraph, subjects []subject) {
	of := map[int][]int{} // the subjects of an occurrence
	rivals := false
	for n := range subjects {
		for _, at := range subjects[n].names {
			of[at] = append(of[at], n)
			rivals = rivals || len(of[at]) > 1
		}
	}
	if !rivals {
		return
	}
	best := map[int]int{}
	texts := textsOf(paragraphs, len(subjects))
	for at, list := range of {
		best[at] = list[0]
		if len(list) < 2 {
			continue
		}
		most, name := 0, r.facts.Occurrences[at].Name
		list = list[:min(len(list), mostNamesakes)]
		for i, n := range list {
			if score := r.speaksFor(paragraphs, &subjects[n], texts[n], name); i == 0 || score > most {
				best[at], most = n, score
			}
		}
		for _, n := range list {
			if n != best[at] && most >= 0 && r.goesOn(paragraphs, &subjects[best[at]], &subjects[n]) {
				subjects[n].into = best[at] + 1
			}
		}
	}
	for n := range subjects {
		left := subjects[n].names[:0]
		for _, at := range subjects[n].names {
			if best[at] == n {
				left = append(left, at)
			}
		}
		s := &subjects[n]
		if s.names = left; len(left) > 0 {
			continue
		}
		for i := s.first; i < len(paragraphs) && paragraphs[i].of <= n+1; i++ {
			p := &paragraphs[i]
			if p.of != n+1 {
				continue
			}
			if p.of, p.gone = s.into, p.command == "cut" || p.command == "pod" || p.command == "encoding"; i == s.first && s.into > 0 {
				p.gone = isPlain(p.rest) && isName(p.rest) // else it says what it is called with
			}
		}
	}
}

// goesOn reports whether one of two subjects of a name says more where the other one does: they are entries of one
// list, or headings of one section, of the ways to call it.
func (r *reader) goesOn(paragraphs []paragraph, best, other *subject) bool {
	return len(other.names) == 1 && paragraphs[best.first].level == paragraphs[other.first].level && best.under == other.under
}

// textsOf are the paragraphs of subjects, by index: those at which their texts begin and end.
func textsOf(paragraphs []paragraph, n int) [][2]int {
	out := make([][2]int, n)
	for i := range paragraphs {
		if of := paragraphs[i].of; of > 0 && !paragraphs[i].gone {
			if out[of-1][1] == 0 {
				out[of-1][0] = i
			}
			out[of-1][1] = i + 1
		}
	}
	return out
}

// sections say by their titles whether what stands in them is declared.
var (
	declaredThere = lexing.WordSet("METHODS METHOD FUNCTIONS FUNCTION SUBROUTINES SUBS ATTRIBUTES ACCESSORS CONSTRUCTOR CONSTRUCTORS CONSTANTS VARIABLES API INTERFACE")
	saidThere     = lexing.WordSet("EVENTS EVENT HOOKS HOOK CALLBACKS SIGNALS OPTIONS ARGUMENTS PARAMETERS SETTINGS KEYS ENVIRONMENT SYNOPSIS CHANGES HISTORY EXAMPLES")
)

// speaksFor is how much a heading or an entry at a paragraph is about what has its name, by the section that it
// stands in and by the calls in its text.
func (r *reader) speaksFor(paragraphs []paragraph, s *subject, text [2]int, name string) (score int) {
	level := paragraphs[s.first].level
	for i := s.first - 1; i >= 0 && i > s.first-farthest; i-- {
		p := &paragraphs[i]
		if p.level == 0 || level > 0 && p.level >= level {
			continue
		}
		for word := range strings.FieldsSeq(strings.ToUpper(withoutCodes(p.rest))) {
			switch {
			case declaredThere[word]:
				score += 2
			case saidThere[word]:
				score -= 4
			}
		}
		s.under = i + 1
		break
	}
	if text[1] == 0 {
		return -10 // there is no text
	}
	if level > 0 {
		score++ // an entry may be one of a list of all
	}
	for i := text[0]; i < min(text[1], text[0]+2); i++ {
		said := paragraphs[i].span().In(r.Text)
		if strings.Contains(said, "->"+name) || strings.Contains(said, name+"(") {
			return score + 1
		}
	}
	return score
}

// farthest is how many paragraphs are looked through for the heading above one.
const farthest = 2000
