package page_test

import (
	"fmt"
	"strings"

	"codrel/internal/build"
	"codrel/internal/model"
	"codrel/internal/render/page"
	"codrel/internal/render/plan"
)

// related is what the notes beside each module and declaration say, and what types are to
// each other; where something is defined is left out.
func related(s *build.Snapshot, m *page.Maker) string {
	var b strings.Builder
	p := plan.New(s.Links, plan.Options{Source: plan.FullSource})
	say := func(list []page.Sentence) {
		for _, one := range list {
			if text := sentence(one); !strings.HasPrefix(text, "Defined in") {
				fmt.Fprintf(&b, "  %s\n", text)
			}
		}
	}
	for _, lib := range p.Libraries() {
		for _, module := range p.Modules(lib) {
			notes := &page.Notes{Maker: m, Plan: p, Here: module}
			fmt.Fprintf(&b, "== %s\n", page.ModuleName(module))
			say(notes.Module(module))
			for d := range module.Declarations {
				if s.Links.InReach(d) && !d.Blank() {
					fmt.Fprintf(&b, "%s\n", d.Path())
					say(notes.Declaration(d))
					relations(&b, notes, d, say)
				}
			}
		}
	}
	return b.String()
}

func relations(b *strings.Builder, notes *page.Notes, d *model.Declaration, say func([]page.Sentence)) {
	if !d.Kind().IsType() {
		return
	}
	say(notes.Relations(d))
	for _, maker := range notes.Plan.Makers(d) {
		fmt.Fprintf(b, "  made by %s\n", maker.Path())
	}
	for _, constant := range notes.Plan.ConstantsOf(d) {
		fmt.Fprintf(b, "  constant %s\n", constant.Path())
	}
}
