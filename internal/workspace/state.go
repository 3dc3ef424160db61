package workspace

import (
	"bytes"
	"context"
	"slices"
	"sync"

	"codrel/internal/build"
	"codrel/internal/finding"
	"codrel/internal/model"
	"codrel/internal/render/plan"
	"codrel/internal/render/site"
	"codrel/internal/search"
	"codrel/internal/settings"
)

// State is what a live project is at one time.
type State struct {
	Snapshot *build.Snapshot // linked; [build.Check] adds what the rules find
	Plan     *plan.Plan
	Settings *settings.Settings
	site     *site.Site
	pages    func() []finding.Finding
	entries  func() []search.Entry
}

func newState(s *build.Snapshot, pages *plan.Plan, set *settings.Settings, site *site.Site) *State {
	return &State{
		Snapshot: s, Plan: pages, Settings: set, site: site,
		pages:   sync.OnceValue(func() []finding.Finding { return build.CheckPages(s) }),
		entries: sync.OnceValue(func() []search.Entry { return slices.Collect(pages.SearchEntries()) }),
	}
}

// Page renders the page with an address; ok is false where there is none. Of the plan no
// more is made than the page needs.
func (s *State) Page(ctx context.Context, address string) (data []byte, ok bool, err error) {
	page := s.Plan.PageAt(address)
	if page == nil {
		return nil, false, nil
	}
	var out bytes.Buffer
	err = s.site.Page(page).Render(ctx, &out)
	return out.Bytes(), true, err
}

// File is a file of the site that is no page; ok is false where there is none at the address.
func (s *State) File(address string) (data []byte, ok bool, err error) { return s.site.File(address) }

// Shows reports whether pages show a file of the project as a picture or film.
func (s *State) Shows(file string) bool { return s.site.Shows(file) }

// Entries are what can be found on the site; they are made when they are first asked for.
func (s *State) Entries() []search.Entry { return s.entries() }

// Findings are what the rules find on what a page shows, in the order of places: of a module or
// type what its page declares, of a guide what is in its text, of a source page what is in its
// file.
func (s *State) Findings(address string) []finding.Finding {
	page := s.Plan.PageAt(address)
	if page == nil {
		return nil
	}
	switch {
	case page.Guide != nil || page.Kind == plan.HomePage:
		return s.inGuide(page)
	case page.Module == nil:
		return nil
	}
	found := build.CheckModule(s.Snapshot, page.Module)
	if page.File != nil {
		return placedIn(found, page.File.Path)
	}
	if len(found) == 0 {
		return nil
	}
	at := map[string]string{}
	for d := range page.Module.Declarations {
		at[d.ID()] = s.Plan.PageOf(d)
	}
	whole := page.Kind == plan.WholePage
	own := s.Plan.Module(page.Module)
	return slices.DeleteFunc(found, func(f finding.Finding) bool {
		on, known := at[f.Subject]
		if !known {
			on = own // it is about the module, or about nothing that has a place
		}
		return !whole && on != page.Address
	})
}

// inGuide are the findings of the text on a page: of its guide and of the fragments in it; on
// the landing page those of what is no source and no other guide as well.
func (s *State) inGuide(page *plan.Page) (out []finding.Finding) {
	others := map[string]bool{}
	for _, g := range s.Snapshot.Project.Guides {
		others[g.Path] = page.Guide == nil || g != page.Guide.Page
	}
	for _, f := range s.pages() {
		switch elsewhere, guide := others[f.Place.File]; {
		case guide && !elsewhere, !guide && page.Kind == plan.HomePage, !guide && s.inserts(page, f.Place.File):
			out = append(out, f)
		}
	}
	return out
}

// inserts reports whether the text on a page has a fragment that a file is.
func (s *State) inserts(page *plan.Page, file string) bool {
	if page.Guide == nil {
		return false
	}
	is := func(f model.Fragment) bool { return f.Path == file }
	i := slices.IndexFunc(s.Snapshot.Project.Fragments, is)
	return i >= 0 && slices.Contains(s.Snapshot.Links.InsertedIn(page.Guide.Nodes), s.Snapshot.Project.Fragments[i].Name)
}

func placedIn(list []finding.Finding, file string) []finding.Finding {
	return slices.DeleteFunc(list, func(f finding.Finding) bool { return f.Place.File != file })
}
