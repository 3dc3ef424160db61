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

// userLists plans the pages that say where declarations are used. They need
// pages of the whole source to lead to.
func (p *Plan) userLists() {
	if p.Source != FullSource {
		return
	}
	p.users = map[*model.Declaration]string{}
	for _, lib := range p.Links.Project.Libraries {
		for _, m := range p.Modules(lib.Library) {
			p.userList(lib.Library, m)
		}
	}
}

func (p *Plan) userList(lib *model.Library, m *model.Module) {
	var page *Page
	parts, room := 0, 0
	for d := range p.Links.OnPagesOf(m) {
		u := p.Links.Users(d)
		if u == nil || u.Lines <= FewUsers || !p.Links.InReach(d) {
			continue
		}
		if page == nil || room <= 0 {
			address := p.modules[m].folder + "/~users"
			if parts > 0 {
				address += "-" + strconv.Itoa(parts+1)
			}
			page = p.add(&Page{Kind: UsersPage, Address: address + ".html", Title: "Uses of " + m.Last(), Library: lib, Module: m, Part: parts})
			parts++
			room = longUsers
		}
		page.Names = append(page.Names, d)
		p.users[d] = page.Address + "#" + d.Label()
		for _, f := range u.Files {
			room -= len(f.Lines)
		}
	}
	if parts > 0 {
		p.modules[m].users = p.modules[m].folder + "/~users.html"
	}
}

// Users tells where a declaration is used, and the address of the list where it
// is longer than a note; nil where it is used nowhere, or no source is shown.
func (p *Plan) Users(d *model.Declaration) (u *link.UsersOf, list string) {
	if p.Source != FullSource {
		return nil, ""
	}
	return p.Links.Users(d), p.users[d]
}

// UsersOfModule is the address of the first page that says where the
// declarations of a module are used, or "".
func (p *Plan) UsersOfModule(m *model.Module) string {
	if v := p.modules[m]; v != nil {
		return v.users
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
