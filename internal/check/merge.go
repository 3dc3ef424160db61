package check

import (
	"strconv"
	"strings"

	"codrel/internal/finding"
)

// merged makes one finding of those that have one cause, at the first of their
// places: a word that nobody knows, a name that is gone, a type that many
// signatures show, one mistake in all overloads. The list is in order and stays so.
func merged(list []finding.Finding) []finding.Finding {
	first := make(map[string]int, len(list))
	kept := list[:0]
	for _, f := range list {
		key := cause(&f)
		if key == "" {
			kept = append(kept, f)
			continue
		}
		if i, ok := first[key]; ok {
			kept[i].Others = append(kept[i].Others, f.Place)
			continue
		}
		first[key] = len(kept)
		kept = append(kept, f)
	}
	return kept
}

// cause tells findings with one cause from others, or is "" where each has its own.
func cause(f *finding.Finding) string {
	parts := []string{f.Rule, f.Severity.String(), f.Form}
	switch f.Rule {
	case finding.UnknownTag, finding.BrokenReference, finding.AmbiguousReference, finding.BrokenGuideLink:
	case finding.LeakedType: // whichever signatures show it
		if len(f.Related) == 0 {
			return ""
		}
		return strings.Join(append(parts, f.Related[0].Place.File, strconv.Itoa(f.Related[0].Place.At.Line)), "\x00")
	default:
		if f.Subject == "" {
			return ""
		}
		parts = append(parts, f.Subject)
	}
	for _, a := range f.Arguments {
		parts = append(parts, a.Name, a.Value)
	}
	return strings.Join(parts, "\x00")
}

// AlsoAt says, behind a finding's text, where else its cause shows: at most as many
// places as most with its own, and how many more there are. shown is how a file is written.
func AlsoAt(f *finding.Finding, most int, shown func(file string) string) string {
	if len(f.Others) == 0 {
		return ""
	}
	var places []string
	for _, at := range f.Others[:min(len(f.Others), most-1)] {
		line := strconv.Itoa(at.At.Line)
		if at.File == f.Place.File {
			places = append(places, "line "+line)
		} else {
			places = append(places, shown(at.File)+":"+line)
		}
	}
	text := " (also at " + strings.Join(places, ", ")
	if more := len(f.Others) - len(places); more > 0 {
		text += " and " + strconv.Itoa(more) + " more"
	}
	return text + ")"
}
