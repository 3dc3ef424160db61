package page_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/render/page"
	"codrel/internal/render/plan"
)

// arrival is some source, and all that users read of it.
type arrival struct{ name, files, want string }

// outline is what the pages of a project's reference show: each module, each declaration with
// its plate in one line and the text beside it, members below what has them, and what is
// re-exported.
func outline(s *build.Snapshot, m *page.Maker) string {
	o := outliner{maker: m, plan: plan.New(s.Links, plan.Options{})}
	for _, lib := range o.plan.Libraries() {
		for _, module := range o.plan.Modules(lib) {
			o.notes = page.Notes{Maker: m, Plan: o.plan, Here: module}
			fmt.Fprintf(&o.out, "%s%s\n", page.ModuleName(module), said(m.ModuleSummary(module)))
			for _, g := range o.notes.Reexports(module) {
				fmt.Fprintf(&o.out, "  re-exports %s%s%s\n", g.Name, target(g.Target), said(m.ExportSummary(module, g)))
			}
			for _, group := range o.plan.GroupsOf(module) {
				o.list(group.All(), "  ")
			}
		}
	}
	return o.out.String()
}

type outliner struct {
	maker *page.Maker
	plan  *plan.Plan
	notes page.Notes
	out   strings.Builder
}

func (o *outliner) list(list []*model.Declaration, indent string) {
	for _, d := range list {
		at := d.Speaks(model.Signature)
		plate := strings.Join(strings.Fields(written(o.maker.Signature(d, at))), " ")
		fmt.Fprintf(&o.out, "%s%s %s: %s%s\n", indent, o.notes.KindWords(d), d.Name, plate, said(o.maker.Summary(o.notes.Here, d)))
		for _, form := range o.maker.Links.FormsInReach(d) {
			if head := form.Head(); len(o.maker.Links.FormsInReach(d)) > 1 && head != at {
				fmt.Fprintf(&o.out, "%s  or %s\n", indent, strings.Join(strings.Fields(written(o.maker.Signature(d, head))), " "))
			}
		}
		if d.Parent == nil || plan.HasPage(d) { // what has no page has its members on that of what it is in
			for _, group := range o.plan.MembersOf(d) {
				o.list(group.All(), indent+"  ")
			}
		}
		for _, from := range o.plan.Inherited(d) {
			var names []string
			for _, member := range from.Members {
				names = append(names, member.Name)
			}
			fmt.Fprintf(&o.out, "%s  from %s: %s\n", indent, from.Base.Name, strings.Join(names, ", "))
		}
	}
}

func said(list []page.Inline) string {
	if text := line(list); text != "" {
		return " -- " + text
	}
	return ""
}

func target(t link.Target) string {
	switch {
	case t.Declaration != nil:
		return " of " + t.Declaration.Module.Path
	case t.Module != nil:
		return " (module " + t.Module.Path + ")"
	}
	return ""
}

// shows builds each case in a project of its own and compares what is shown of it.
func shows(t *testing.T, show func(*build.Snapshot, *page.Maker) string, cases []arrival) {
	t.Helper()
	for _, c := range cases {
		t.Run(c.name, func(t *testing.T) {
			s, m := made(t, buildtest.Texts(c.files))
			assert.Equal(t, strings.TrimPrefix(c.want, "\n"), show(s, m))
		})
	}
}
