package main

import (
	"fmt"
	"math/rand/v2"
	"os"
	"time"

	"codrel/internal/finding"
	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/source"
)

// slowest is how many times as long as the whole file a damaged one may take,
// beside a fixed time that noise needs.
const (
	slowest = 20
	noise   = 50 * time.Millisecond
)

// damage cuts and changes every file of the trees and compares what is still read.
func damage(end lang.FrontEnd, dirs []string, times int) error {
	random := rand.New(rand.NewPCG(1, 2))
	cuts, lost, flips, said := 0, 0, 0, 0
	for _, dir := range dirs {
		list, err := files(end, dir)
		if err != nil {
			return err
		}
		for _, f := range list {
			data, err := os.ReadFile(f)
			if err != nil || len(data) == 0 {
				continue
			}
			parse := func(data []byte) (*model.Facts, time.Duration) {
				begin := time.Now()
				facts := end.Read(lang.File{Path: f, Text: source.Decode(append([]byte(nil), data...))})
				return facts, time.Since(begin)
			}
			whole, usual := parse(data)
			for range times {
				at := random.IntN(len(data))
				cut, spent := parse(data[:at])
				if spent > slowest*usual+noise {
					return fmt.Errorf("%s cut at %d took %v, whole %v", f, at, spent, usual)
				}
				cuts++
				if n := missingBefore(whole, cut, int32(at)); n > 0 && whole.Text[:min(at, len(whole.Text))] == cut.Text[:min(at, len(cut.Text))] {
					lost++
					fmt.Printf("  lost %d declarations that stand whole before the cut: %s at %d\n", n, f, at)
				}
				flipped := append([]byte(nil), data...)
				for range 1 + random.IntN(4) {
					flipped[random.IntN(len(flipped))] = byte(random.IntN(256))
				}
				facts, spent := parse(flipped)
				if spent > slowest*usual+noise {
					return fmt.Errorf("%s with bytes changed took %v, whole %v", f, spent, usual)
				}
				flips++
				unread := 0
				for i := range facts.Problems { // mistakes in markup are each of its own
					if facts.Problems[i].Rule == finding.UnreadableSource {
						unread++
					}
				}
				if unread > 2 {
					return fmt.Errorf("%s with bytes changed: %d problems", f, unread)
				}
				said += min(1, unread)
			}
		}
	}
	fmt.Printf("%d cuts, %d of them lost a declaration before the cut; %d changes, %d of them said to be unreadable; nothing panicked or took long\n", cuts, lost, flips, said)
	if lost*1000 > cuts {
		return fmt.Errorf("more than one cut of a thousand lost what stands before it")
	}
	return nil
}

// missingBefore counts the declarations of the whole file that end before the
// line of a cut and are not among those of the cut one.
func missingBefore(whole, cut *model.Facts, at int32) int {
	last := int32(0)
	for i := at - 1; i >= 0; i-- {
		if int(i) < len(whole.Text) && whole.Text[i] == '\n' {
			last = i
			break
		}
	}
	have := map[string]bool{}
	for i := range cut.Occurrences {
		o := &cut.Occurrences[i]
		have[fmt.Sprint(o.Line, o.Scope, o.Name)] = true
	}
	n := 0
	for i := range whole.Occurrences {
		o := &whole.Occurrences[i]
		if o.Span.End < last && !have[fmt.Sprint(o.Line, o.Scope, o.Name)] {
			n++
		}
	}
	return n
}
