package check

import (
	"slices"
	"strings"

	"codrel/internal/finding"
	"codrel/internal/model"
	"codrel/internal/prose"
)

var undescribedUnsafety = Rule{
	Name: finding.UndescribedUnsafety, Default: finding.Note, Language: "rust",
	Summary: "a comment does not say what callers of something unsafe must make sure of",
	Explanation: `What is unsafe may be used only where its users make sure of something that the compiler
cannot check. Say of what, under a heading "Safety": without it nobody can tell whether a use
is right. The rule asks of functions and traits with a comment.`,
	Wrong: `//! Reads gauges.

/// Reads the gauge at an address.
pub unsafe fn gauge_at(address: usize) -> u32 { unsafe { *(address as *const u32) } }
`,
	Right: `//! Reads gauges.

/// Reads the gauge at an address.
///
/// # Safety
///
/// The address must be that of a gauge that is switched on.
pub unsafe fn gauge_at(address: usize) -> u32 { unsafe { *(address as *const u32) } }
`,
	Messages: map[string]string{"": "{kind} {name} is {mark}, but its comment has no section \"{heading}\" on what users must make sure of"},
	module: func(p *Pass) {
		h := p.Module.Library.Habits
		if h == nil || h.Peril == "" {
			return
		}
		for d := range p.shown {
			at := d.Speaks(model.Words)
			if at.Doc == nil || d.Aside() || !slices.Contains(at.Modifiers(), h.Peril) {
				continue
			}
			if sections, _ := p.Links.Sections(d); p.saysOfPeril(sections.Body, h) {
				continue
			}
			p.report(d, finding.Finding{
				Rule: finding.UndescribedUnsafety, Place: at.File.Place(at.NameSpan),
				Arguments: []finding.Argument{argument("kind", p.kindOf(d)), argument("name", d.Path()), argument("mark", h.Peril), argument("heading", h.PerilHeading)},
			})
		}
	},
}

// saysOfPeril reports whether a text has a heading for it, or a paragraph that begins with the word.
func (p *Pass) saysOfPeril(body []prose.Node, h *model.Habits) bool {
	found := false
	prose.Walk(body, func(n *prose.Node) bool {
		if n.Kind == prose.Heading || n.Kind == prose.Paragraph || n.Kind == prose.Strong {
			first, _, _ := strings.Cut(strings.TrimLeft(prose.Plain(n.Children), "#* "), " ")
			found = found || strings.EqualFold(strings.Trim(first, ":.*"), h.PerilHeading)
		}
		return !found
	})
	return found
}
