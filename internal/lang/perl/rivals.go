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
		most := 0
		for i, n := range list[:min(len(list), mostNamesakes)] {
			if score := r.speaksFor(paragraphs, subjects[n].first, texts[n], r.facts.Occurrences[at].Name); i == 0 || score > most {
				best[at], most = n, score
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
		if subjects[n].names = left; len(left) == 0 {
			for i := range paragraphs[subjects[n].first:] {
				p := &paragraphs[subjects[n].first+i]
				if p.of == n+1 {
					p.of, p.gone = 0, p.command == "cut" || p.command == "pod" || p.command == "encoding"
				} else if p.of > n+1 {
					break
				}
			}
		}
	}
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
func (r *reader) speaksFor(paragraphs []paragraph, first int, text [2]int, name string) (score int) {
	if text[1] == 0 {
		return -10 // there is none
	}
	level := paragraphs[first].level
	for i := first - 1; i >= 0 && i > first-farthest; i-- {
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
		break
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
