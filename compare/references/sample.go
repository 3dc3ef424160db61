package main

import (
	"fmt"
	"io"
	"math/rand/v2"
	"strings"

	"codrel/internal/build"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/prose"
)

// seed makes two samples of one tree the same.
const seed = 12

// place is one link, as a reader judges it.
type place struct {
	sort, text, target, at, line string
}

// sample prints links of the texts and signatures of what has a page, drawn at random.
func sample(w io.Writer, s *build.Snapshot, size int) {
	all := append(ofTexts(s), ofSignatures(s)...)
	draw := rand.New(rand.NewPCG(seed, seed))
	draw.Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
	fmt.Fprintf(w, "%d links\n", len(all))
	for _, p := range all[:min(size, len(all))] {
		fmt.Fprintf(w, "%s\t%s\t-> %s\t%s\t%s\n", p.sort, p.text, p.target, p.at, p.line)
	}
}

func ofTexts(s *build.Snapshot) (out []place) {
	eachNode(s, func(n *prose.Node, from link.Scope) {
		sort, text := "reference", n.Target
		switch {
		case n.Kind == prose.Code && n.Typed:
			sort, text = "type", n.Text
		case n.Kind == prose.Code:
			sort, text = "code", n.Text
		case n.Kind != prose.Reference:
			return
		}
		if n.Kind == prose.Code && !link.ReadsLikeName(text) {
			return
		}
		if r := s.Links.Resolve(from, text, link.StrictnessOf(n)); r.Outcome == link.Found {
			out = append(out, placed(sort, text, r.Target, from.File, max(n.Span.Start, shownAt(n))))
		}
	})
	return out
}

func ofSignatures(s *build.Snapshot) (out []place) {
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			for d := range m.Declarations {
				if !s.Links.InReach(d) {
					continue
				}
				for _, o := range d.Occurrences {
					for t := range o.Tokens(o.Signature) {
						if t.Kind != model.TokenType {
							continue
						}
						if to := s.Links.TypeIn(d, o.File, t.Text); to.Declaration != nil || to.Module != nil {
							out = append(out, placed("signature", t.Text, to, o.File, o.NameSpan.Start))
						}
					}
				}
			}
		}
	}
	return out
}

func placed(sort, text string, to link.Target, f *model.Facts, at int32) place {
	p := place{sort: sort, text: text}
	if to.Declaration != nil {
		p.target = to.Declaration.Kind().String() + " " + to.Declaration.Module.Path + "." + to.Declaration.Path()
	} else if to.Module != nil {
		p.target = "module " + to.Module.Path
	}
	at = min(at, int32(len(f.Text)))
	start := strings.LastIndexByte(f.Text[:at], '\n') + 1
	line, _, _ := strings.Cut(f.Text[start:], "\n")
	p.at = fmt.Sprintf("%s:%d", f.Path, f.Lines.Position(at).Line)
	p.line = strings.TrimSpace(line)
	if len(p.line) > 160 {
		p.line = p.line[:160]
	}
	return p
}

// shownAt is where the text of a reference stands.
func shownAt(n *prose.Node) int32 {
	if len(n.Children) > 0 {
		return n.Children[0].Span.Start
	}
	return n.Span.Start
}
