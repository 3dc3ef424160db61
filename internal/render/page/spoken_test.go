package page_test

import (
	"fmt"
	"strings"

	"codrel/internal/build"
	"codrel/internal/model"
	"codrel/internal/render/page"
	"codrel/internal/render/plan"
)

// spoken is all that the pages of a project's reference say of each declaration that has a
// comment, with what every name leads to.
func spoken(s *build.Snapshot, m *page.Maker) string {
	var b strings.Builder
	p := plan.New(s.Links, plan.Options{})
	for _, lib := range p.Libraries() {
		for _, module := range p.Modules(lib) {
			for _, words := range m.ModuleWords(module) {
				fmt.Fprintf(&b, "== %s\n", page.ModuleName(module))
				saysAll(&b, words)
			}
			for d := range module.Declarations {
				if s.Links.InReach(d) {
					saysOf(&b, m, d)
				}
			}
		}
	}
	return b.String()
}

func saysOf(b *strings.Builder, m *page.Maker, d *model.Declaration) {
	words := m.Words(d)
	if words == nil {
		return
	}
	fmt.Fprintf(b, "= %s\n", d.Path())
	if typ := line(words.Type); typ != "" {
		fmt.Fprintf(b, "type: %s\n", typ)
	}
	if g := m.Deprecation(d); g != nil {
		fmt.Fprintf(b, "deprecated: %s\n", gone(g))
	}
	saysAll(b, words)
	for _, form := range words.Forms {
		fmt.Fprintf(b, "form %d%s\n%s", form.N, form.Title, text(form.Body))
	}
	for _, example := range m.Examples(d.Module, d) {
		fmt.Fprintf(b, "example %s%q\n", example.Variant, example.Code)
	}
}

func saysAll(b *strings.Builder, words *page.Words) {
	if words.Gone != nil {
		fmt.Fprintf(b, "deprecated: %s\n", gone(words.Gone))
	}
	b.WriteString(text(words.Body))
	for _, part := range words.Parts {
		fmt.Fprintf(b, "part %v %s\n", part.Kind, part.Title)
		for _, item := range part.Items {
			form := ""
			if item.Form > 0 {
				form = fmt.Sprintf("of form %d ", item.Form)
			}
			if e := item.Entry; e != nil {
				typ := ""
				if t := line(e.Type); t != "" {
					typ = " (" + t + ")"
				}
				fmt.Fprintf(b, "  %s%s%s%s: %s\n", form, e.Name, to(e.To), typ, strings.TrimSuffix(line(e.Line)+text(e.Text), "\n"))
			} else {
				fmt.Fprintf(b, "  %s%s\n", form, strings.TrimSuffix(text(item.Blocks), "\n"))
			}
		}
	}
}

func gone(g *page.Gone) string {
	var lines []string
	for _, l := range g.Lines {
		lines = append(lines, line(l))
	}
	return strings.Join(lines, " / ") + strings.TrimSuffix(text(g.Rest), "\n")
}
