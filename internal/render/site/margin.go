package site

import (
	"path"
	"slices"
	"strconv"

	"codrel/internal/render/plan"
)

// This file writes the notes in the margin: short sentences about a
// declaration, made of text and links.

// typeCrumbs are the steps to the page's type: the namespaces around it, and itself.
func (v view) typeCrumbs() []crumb {
	p := v.page
	if len(p.Twins) > 0 {
		return []crumb{{Text: p.Title, Name: true, Href: v.to(v.plan.PageOf(p.Type))}}
	}
	var out []crumb
	for d := p.Type; d != nil; d = d.Parent {
		out = append(out, crumb{Text: d.Name, Name: true, Href: v.to(v.plan.PageOf(d))})
	}
	slices.Reverse(out)
	return out
}

// crumb is one step of the way from the landing page to this one.
type crumb struct {
	Text string
	Href string // "" for the page itself
	Name bool
}

func (v view) crumbs() []crumb {
	p := v.page
	out := []crumb{{Text: v.project().Name, Href: v.to(plan.HomeAddress)}}
	if p.Library != nil {
		out = append(out, crumb{Text: p.Library.Name, Href: v.to(v.plan.Library(p.Library)), Name: true})
	}
	if p.Module != nil {
		out = append(out, crumb{Text: p.Module.Path, Href: v.to(v.plan.Module(p.Module)), Name: true})
	}
	switch p.Kind {
	case plan.GuidePage:
		out = append(out, v.guideCrumbs()...)
	case plan.TypePage:
		out = append(out, v.typeCrumbs()...)
	case plan.RelatedPage:
		out = append(append(out, v.typeCrumbs()...), crumb{Text: v.say("relations")})
	case plan.DetailsPage, plan.NamesPage:
		if p.Type != nil {
			out = append(out, v.typeCrumbs()...)
		}
		if p.Kind == plan.NamesPage {
			out = append(out, crumb{Text: v.count(len(p.Names), "name")})
		} else {
			out = append(out, crumb{Text: v.say("details", "n", strconv.Itoa(p.Part+1))})
		}
	case plan.SourcePage:
		out = append(out, crumb{Text: path.Base(p.File.Path), Name: true})
		if !v.plan.Links.ModuleInReach(p.Module) {
			out[len(out)-2].Href = ""
		}
	case plan.GuidesPage, plan.TreePage, plan.IndexPage, plan.LostPage, plan.GonePage, plan.UsersPage, plan.FindingsPage, plan.CoveragePage, plan.ToDosPage:
		out = append(out, crumb{Text: v.pageTitle()})
	}
	out[len(out)-1].Href = ""
	return out
}
