package plan

import (
	"strconv"

	"codrel/internal/link"
	"codrel/internal/model"
)

// FewUsers is how many lines of users a note beside the declaration holds.
const FewUsers = 3

// longUsers is how many lines a page of users holds, about.
const longUsers = 4000

// userLists are the pages that say where the declarations of a module are used.
type userLists struct {
	pages []*Page
	lists map[*model.Declaration]string // address of the list of users, where it is longer than a note
}

// listUsers plans the lists of users of a module. They need pages of the whole source to
// lead to.
func (p *Plan) listUsers(v *modulePlan) *userLists {
	out := &userLists{lists: map[*model.Declaration]string{}}
	if p.Source != FullSource {
		return out
	}
	room := 0
	for d := range p.Links.OnPagesOf(v.module) {
		u := p.Links.Users(d)
		if u == nil || u.Lines <= FewUsers || !p.Links.InReach(d) {
			continue
		}
		if len(out.pages) == 0 || room <= 0 {
			address := v.folder + "/~users"
			if parts := len(out.pages); parts > 0 {
				address += "-" + strconv.Itoa(parts+1)
			}
			out.pages = append(out.pages, &Page{
				Kind: UsersPage, Address: address + ".html", Title: "Uses of " + v.module.Last(), Library: v.module.Library, Module: v.module, Part: len(out.pages),
			})
			room = longUsers
		}
		page := out.pages[len(out.pages)-1]
		page.Names = append(page.Names, d)
		out.lists[d] = page.Address + "#" + Label(d)
		for _, f := range u.Files {
			room -= len(f.Lines)
		}
	}
	return out
}

// Users tells where a declaration is used, and the address of the list where it
// is longer than a note; nil where it is used nowhere, or no source is shown.
func (p *Plan) Users(d *model.Declaration) (u *link.UsersOf, list string) {
	if p.Source != FullSource {
		return nil, ""
	}
	if v := p.modules[p.Links.Home(d)]; v != nil {
		list = v.users().lists[d]
	}
	return p.Links.Users(d), list
}

// UsersOfModule is the address of the first page that says where the
// declarations of a module are used, or "".
func (p *Plan) UsersOfModule(m *model.Module) string {
	if v := p.modules[m]; v != nil && len(v.users().pages) > 0 {
		return v.users().pages[0].Address
	}
	return ""
}

// Whole is the address of the page that holds all of a module, or "".
func (p *Plan) Whole(m *model.Module) string {
	if v := p.modules[m]; v != nil {
		return v.whole
	}
	return ""
}
