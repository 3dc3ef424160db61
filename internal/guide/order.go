package guide

import (
	"cmp"
	"path"
	"slices"
	"strings"

	"codrel/internal/finding"
	"codrel/internal/model"
	"codrel/internal/settings"
	"codrel/internal/source"
)

// Draft is a guide that has no place yet.
type Draft struct {
	*model.Page
	Front
}

// New makes a draft of a file in the folder of guides. What names it keeps its case and loses
// its ending; the README of a folder is its index.
func New(folder, file string, text source.Text) Draft {
	name := strings.TrimSuffix(file, path.Ext(file))
	if folder != "." {
		name = strings.TrimPrefix(name, folder+"/")
	}
	if strings.EqualFold(path.Base(name), "readme") {
		name = path.Join(path.Dir(name), indexName)
	}
	front := ReadFront(text.String)
	return Draft{
		Page: &model.Page{
			Path: file, Text: text.String, Lines: text.Lines, Encoding: text.Encoding,
			Name: name, Title: front.Title, Part: front.Part, Begin: int32(front.End),
		},
		Front: front,
	}
}

// indexName is the name of the guide that speaks for its folder.
const indexName = "index"

// IsIndex reports whether a guide speaks for its folder.
func IsIndex(page *model.Page) bool { return page.Name != "" && path.Base(page.Name) == indexName }

// arranging puts guides in order.
type arranging struct {
	drafts []*Draft
	placed map[*Draft]bool
	order  []*Draft
	behind map[*Draft][]*Draft // those that say to be read after one
	found  []finding.Finding
}

// Arrange puts guides in the order in which they are read: as the settings say, each followed
// by those that are to be read after it; where the settings say nothing, by their paths, the
// index of a folder first. Found is what is unclear about it. Settings are the file of the
// settings, as findings show it.
func Arrange(drafts []Draft, order []settings.Step, settingsFile string) (pages []*model.Page, found []finding.Finding) {
	a := arranging{placed: map[*Draft]bool{}, behind: map[*Draft][]*Draft{}}
	for i := range drafts {
		a.drafts = append(a.drafts, &drafts[i])
	}
	slices.SortFunc(a.drafts, func(x, y *Draft) int { return comparePaths(x.Page, y.Page) })
	for _, d := range a.drafts {
		a.found = append(a.found, d.Findings()...)
	}
	a.names()
	for _, d := range a.drafts {
		if after := a.after(d); after != nil {
			a.behind[after] = append(a.behind[after], d)
		}
	}
	listed := map[*Draft]bool{}
	if len(a.drafts) > 0 && a.drafts[0].Name == indexName { // it speaks for all
		a.put(a.drafts[0], listed)
	}
	for i := range order {
		a.step(&order[i], settingsFile, listed)
	}
	a.rest(len(order) > 0)
	for _, d := range a.order {
		pages = append(pages, d.Page)
	}
	return pages, a.found
}

// comparePaths compares folder by folder, the index of each first.
func comparePaths(x, y *model.Page) int {
	a, b := strings.Split(x.Name, "/"), strings.Split(y.Name, "/")
	return slices.CompareFunc(a, b, func(m, n string) int {
		return cmp.Or(-compareBool(m == indexName, n == indexName), strings.Compare(strings.ToLower(m), strings.ToLower(n)), strings.Compare(m, n))
	})
}

func compareBool(a, b bool) int {
	switch {
	case a == b:
		return 0
	case a:
		return 1
	}
	return -1
}

func (a *arranging) report(place finding.Place, form string, values ...finding.Argument) {
	a.found = append(a.found, broken(place, form, values...))
}

func broken(place finding.Place, form string, values ...finding.Argument) finding.Finding {
	return finding.Finding{Rule: finding.BrokenGuide, Form: form, Place: place, Arguments: values}
}

func value(name, text string) finding.Argument { return finding.Argument{Name: name, Value: text} }

// Findings are what is wrong with the front matter of a guide.
func (d *Draft) Findings() (out []finding.Finding) {
	for _, p := range d.Problems {
		out = append(out, broken(d.Page.Place(p.Span), p.Form, p.Values...))
	}
	return out
}

// names gives guides whose addresses would be the same, by case alone or by their ending, each
// one of its own.
func (a *arranging) names() {
	known := map[string]*Draft{}
	for _, d := range a.drafts {
		key := strings.ToLower(d.Name)
		if first := known[key]; first != nil {
			a.report(d.Place(source.NewSpan(0, 0)), "same name", value("other", first.Path))
			for known[key] != nil {
				d.Name += "~"
				key += "~"
			}
		}
		known[key] = d
	}
}

// after is the guide that one says to be read after, or nil.
func (a *arranging) after(d *Draft) *Draft {
	if d.After == "" {
		return nil
	}
	wanted := strings.TrimSuffix(d.After, path.Ext(d.After))
	if !strings.EqualFold(path.Ext(d.After), ".md") {
		wanted = d.After
	}
	var named []*Draft
	for _, other := range a.drafts {
		switch {
		case other.Name == path.Join(path.Dir(d.Name), wanted):
			return other
		case other.Name == wanted, path.Base(other.Name) == wanted:
			named = append(named, other)
		}
	}
	if len(named) == 1 {
		return named[0]
	}
	if len(named) > 1 {
		a.report(d.Place(d.AfterSpan), "after several", value("name", d.After), value("first", named[0].Path), value("second", named[1].Path))
		return nil
	}
	a.report(d.Place(d.AfterSpan), "after none", value("name", d.After))
	return nil
}

// put places a guide, and those that are read after it.
func (a *arranging) put(d *Draft, listed map[*Draft]bool) {
	if a.placed[d] {
		return
	}
	a.placed[d] = true
	a.order = append(a.order, d)
	for _, next := range a.behind[d] {
		if !listed[next] {
			if next.Page.Part == "" {
				next.Page.Part = d.Page.Part
			}
			a.put(next, listed)
		}
	}
}

// step places what one entry of the order names.
func (a *arranging) step(s *settings.Step, file string, listed map[*Draft]bool) {
	name := strings.TrimSuffix(s.Text, path.Ext(s.Text))
	if strings.EqualFold(path.Base(name), "readme") {
		name = path.Join(path.Dir(name), indexName)
	}
	some := false
	for _, d := range a.drafts {
		named := d.Path == s.Text || d.Name == name || d.Name == s.Text
		if !named && s.Text != "." && !strings.HasPrefix(d.Name, s.Text+"/") {
			continue
		}
		some = true
		if a.placed[d] || !named && a.follows(d) { // of those in a folder some come behind others
			continue
		}
		if d.Page.Part == "" {
			d.Page.Part = s.Part
		}
		listed[d] = true
		a.put(d, listed)
	}
	if !some {
		a.report(finding.Place{File: file, At: s.At}, "order", value("name", s.Text))
	}
}

// rest places the guides that nothing has placed: all of those that follow no other, where
// there is no order, else it is said of each.
func (a *arranging) rest(ordered bool) {
	none := map[*Draft]bool{}
	for _, d := range a.drafts {
		if !a.placed[d] && !ordered && !a.follows(d) {
			a.put(d, none)
		}
	}
	for _, d := range a.drafts {
		if a.placed[d] {
			continue
		}
		if a.follows(d) && !ordered {
			a.report(d.Place(d.AfterSpan), "circle", value("name", d.After))
		} else {
			a.report(d.Place(source.NewSpan(0, 0)), "unreached")
		}
		a.put(d, none)
	}
}

// follows reports whether a guide is to be read after another.
func (a *arranging) follows(d *Draft) bool {
	for _, list := range a.behind {
		if slices.Contains(list, d) {
			return true
		}
	}
	return false
}
