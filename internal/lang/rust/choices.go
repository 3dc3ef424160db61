package rust

import (
	"slices"
	"strings"

	"codrel/internal/lexing"
)

// This file reads macros that choose items by conditions, and knows what others may declare.

// alternatives reads items that a macro chooses one branch of: "if #[cfg(a)] { … } else if #[cfg(b)] { … }
// else { … }". Each stands under its condition and not under those before.
func (r *reader) alternatives(i, end int, own *owner) {
	when := len(r.when)
	defer func() { r.when = r.when[:when] }()
	var before []string
	for n := 0; i < end && n < mostMatchers; n++ {
		var conditions []string
		if r.Word(i) == "if" {
			a := attributes{}
			for i++; i+1 < end && r.Is(i, '#') && r.Is(i+1, '['); i = r.Over(i + 1) {
				r.attribute(i+2, r.Close(i+1, end), &a, 0)
			}
			conditions = a.conditions
		}
		if !r.Is(i, '{') {
			return
		}
		r.when = append(append(r.when[:when:when], before...), conditions...)
		stop := r.Close(i, end)
		r.items(i+1, stop, own)
		before = append(before, opposite(conditions)...)
		if i = stop + 1; r.Word(i) != "else" {
			return
		}
		i++
	}
}

// opposite is the condition that not all of some hold.
func opposite(conditions []string) []string {
	switch len(conditions) {
	case 0:
		return nil
	case 1:
		return []string{"not(" + conditions[0] + ")"}
	}
	return []string{"not(all(" + strings.Join(conditions, ", ") + "))"}
}

// mostMade is how many names of one macro call are noted, and how many of a file.
const mostMade, mostMadeInAll = 200, 4000

// maybeMade notes the names between two tokens, which a macro may declare.
func (r *reader) maybeMade(i, end int) {
	for n := 0; i < end && n < mostMade && len(r.Facts.Made) < mostMadeInAll; i++ {
		if w := r.Word(i); r.Tokens[i].Kind == lexing.Word && w != "" && !isReserved(w) && len(w) > 1 && (len(r.Facts.Made) == 0 || !slices.Contains(r.Facts.Made[max(0, len(r.Facts.Made)-8):], w)) {
			r.Facts.Made = append(r.Facts.Made, w)
			n++
		}
	}
}
