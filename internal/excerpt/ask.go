// Package excerpt owns pieces of real source in the texts of guides: which piece a fence asks
// for, what the source says there now, whether the copy in the fence agrees with it, and what a
// thing that is gone may be called now.
//
// It reads linked projects, and writes nothing.
package excerpt

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"codrel/internal/nearest"
	"codrel/internal/prose"
)

// Ask is what a fence asks for.
type Ask struct {
	Name     string // of a declaration; "" where it is a file
	File     string // from the project's root
	Part     Part
	From, To string  // what the first and the last line have in them; "" for the ends of the piece
	Lines    []Lines // which lines of the piece; none for all
	Without  []Lines // which of these are left out
	Language string  // that the fence names
}

// Part tells which part of a declaration is shown.
type Part string

// The parts of a declaration. The zero value is the declaration without its comment.
const (
	Whole     Part = ""
	Head      Part = "head"
	Body      Part = "body"
	Commented Part = "commented" // with its comment
)

// Lines is a run of lines, both ends included, counted from 1.
type Lines struct{ First, Last int }

// fileMark stands before the path of a file.
const fileMark = "file:"

// keys are the words that a fence with an excerpt may have.
var keys = []string{prose.ExcerptKey, "part", "from", "to", "lines", "without"}

// Read reads the words of a fence; ok is false where it asks for no excerpt. The error says what
// is wrong with its words.
func Read(info string) (ask Ask, ok bool, err error) {
	if !prose.MayBeExcerpt(info) {
		return ask, false, nil
	}
	fence, err := prose.ReadFence(info)
	of, ok := fence.Values[prose.ExcerptKey]
	if !ok {
		return ask, false, nil
	}
	ask = Ask{Name: of, Part: Part(fence.Values["part"]), From: fence.Values["from"], To: fence.Values["to"], Language: fence.Language}
	if file, is := strings.CutPrefix(of, fileMark); is {
		ask.Name, ask.File = "", file
	}
	if err != nil {
		return ask, true, err
	}
	if ask.Name == "" && ask.File == "" {
		return ask, true, fmt.Errorf("%s= needs the name of a declaration, or file: with the path of a file", prose.ExcerptKey)
	}
	for _, key := range fence.Keys {
		if near := nearest.Word(key, keys); !slices.Contains(keys, key) && near != "" {
			return ask, true, fmt.Errorf("%q is unknown; did you mean %s?", key, near)
		}
	}
	switch ask.Part {
	case Whole, Head, Body, Commented:
	default:
		return ask, true, fmt.Errorf("part=%s is unknown; there are head, body and commented", ask.Part)
	}
	if ask.File != "" && ask.Part != Whole {
		return ask, true, fmt.Errorf("part=%s asks for a part of a declaration, and this is a file", ask.Part)
	}
	if ask.Lines, err = readLines("lines", fence.Values["lines"]); err != nil {
		return ask, true, err
	}
	ask.Without, err = readLines("without", fence.Values["without"])
	return ask, true, err
}

// readLines reads runs of lines, such as "3-9,12".
func readLines(key, text string) (out []Lines, err error) {
	if text == "" {
		return nil, nil
	}
	for part := range strings.SplitSeq(text, ",") {
		first, last, run := strings.Cut(strings.TrimSpace(part), "-")
		if !run {
			last = first
		}
		a, errA := strconv.Atoi(first)
		b, errB := strconv.Atoi(last)
		if errA != nil || errB != nil || a < 1 || b < a {
			return nil, fmt.Errorf("%s=%s is no list of lines such as 3-9,12", key, text)
		}
		out = append(out, Lines{a, b})
	}
	return out, nil
}

// In reports whether a line is in one of the runs.
func in(runs []Lines, line int) bool {
	return slices.ContainsFunc(runs, func(r Lines) bool { return r.First <= line && line <= r.Last })
}
