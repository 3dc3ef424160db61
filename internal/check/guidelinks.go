package check

import (
	"path"
	"slices"
	"strconv"
	"strings"

	"codrel/internal/finding"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/nearest"
	"codrel/internal/picture"
	"codrel/internal/prose"
	"codrel/internal/source"
)

// This file holds the rules on guides: what they lead to, and their place among the others.

var brokenGuideLink = Rule{
	Name: finding.BrokenGuideLink, Default: finding.Error, Language: "yaml",
	Summary: "a link or picture of a guide leads to a file or heading that is not there",
	Explanation: `Links of guides, of the README and of fragments that lead to a file of the project,
to another guide or to a heading must find it; so must pictures and films, which are
copied into the site. Paths begin at the folder of the file they stand in, with "/" at
the project's. Links to other sites are not tried: nothing asks the network.`,
	Wrong: tidePackage + `-- README.md --
# Tides

How heights are found is told in [the guide](docs/hieghts.md).
-- docs/heights.md --
# Heights
`,
	Right: tidePackage + `-- README.md --
# Tides

How heights are found is told in [the guide](docs/heights.md).
-- docs/heights.md --
# Heights
`,
	Messages: map[string]string{
		"":             `the link leads to {file}, which does not exist`,
		"near":         `the link leads to {file}, which does not exist; did you mean {near}?`,
		"heading":      `{file} has no heading that "#{anchor}" could mean`,
		"near heading": `{file} has no heading that "#{anchor}" could mean; did you mean #{near}?`,
		"picture":      `{file} is to be shown and does not exist`,
		"near picture": `{file} is to be shown and does not exist; did you mean {near}?`,
		"kind":         `{file} is to be shown, and is neither a picture nor a film that pages show`,
		"address":      `"{address}" is no address that a page may lead to: web addresses, mailto: and paths are`,
		"large":        `{file} has {size} MB and is not shown; a picture may have 8 MB, a film 128 MB`,
	},
}

var brokenGuide = Rule{
	Name: finding.BrokenGuide, Default: finding.Warning, Language: "yaml",
	Summary: "the place of a guide among the others is unclear, or its front matter cannot be read",
	Explanation: `Guides are read in the order that "guides: order:" in codrel.yaml gives; a guide whose
front matter says "after:" comes behind the one it names. Where there is an order, each
guide must be reached by it. Front matter is YAML between two lines of "---" at the top of
the file, with the keys title, part and after; other keys are passed over.`,
	Wrong: tidePackage + `-- docs/guides/heights.md --
---
after: first-tdie
---
# Heights
-- docs/guides/first-tide.md --
# A first tide
`,
	Right: tidePackage + `-- docs/guides/heights.md --
---
after: first-tide
---
# Heights
-- docs/guides/first-tide.md --
# A first tide
`,
	Messages: map[string]string{
		"front":         `the front matter cannot be read: {problem}`,
		"open":          `the front matter has no end; close it with a line of "---"`,
		"near key":      `the front matter has the key "{key}"; did you mean {near}?`,
		"after none":    `there is no guide "{name}" that this one could come after`,
		"after several": `"after: {name}" may mean {first} or {second}; give the path in the folder of guides`,
		"circle":        `this guide and "{name}", which it is to come after, come after each other`,
		"unreached":     `no order reaches this guide; name it in "guides: order:", or say "after:" in its front matter`,
		"order":         `there is no guide "{name}"`,
		"same name":     `this guide would have the same address as {other}; one of the two must be renamed`,
		"same title":    `this guide has the same title as {other}`,
	},
}

// leads judges where links and pictures of a page of the maintainer's lead.
func (p *Pass) leads(page *model.Page, nodes []prose.Node) {
	at := 0 // nodes made of HTML have no place: they stand behind those before them
	prose.Walk(nodes, func(n *prose.Node) bool {
		at = max(at, int(n.Span.Start))
		if n.Kind == prose.Refused {
			span := shownSpan(n)
			if span.Empty() {
				span = n.Span
			}
			p.report(nil, finding.Finding{Rule: finding.BrokenGuideLink, Form: "address", Place: page.Place(span), Arguments: []finding.Argument{argument("address", n.Target)}})
			return true
		}
		shows := n.Kind == prose.Image || n.Kind == prose.Film
		if !shows && n.Kind != prose.Link {
			return true
		}
		way := link.WayFrom(page, n.Target)
		if way.File == "" || strings.HasPrefix(n.Target, "/") && !p.Links.Exists(strings.SplitN(way.File, "/", 2)[0]) {
			return true // it leaves the project, or begins at the root of something larger
		}
		span := shownSpan(n)
		if span.Empty() {
			span = written(page, n.Target, at)
		}
		place := page.Place(span)
		if shows {
			p.shows(place, way.File)
		} else {
			p.leadsTo(place, page, way)
		}
		return true
	})
}

// written is where an address stands in a page from a place on.
func written(page *model.Page, target string, from int) source.Span {
	i := strings.Index(page.Text[min(from, len(page.Text)):], target)
	if i < 0 {
		return source.NewSpan(from, from)
	}
	return source.NewSpan(from+i, from+i+len(target))
}

func (p *Pass) leadsTo(place finding.Place, page *model.Page, way link.Way) {
	if g := p.Links.GuideAt(way.File); g != nil {
		if _, ok := g.Anchors().Find(way.Anchor); way.Anchor != "" && !ok {
			p.near(finding.Finding{
				Rule: finding.BrokenGuideLink, Form: "heading", Place: place,
				Arguments: []finding.Argument{argument("file", g.Page.Path), argument("anchor", way.Anchor)},
			}, nearest.Word(way.Anchor, g.Anchors().All()))
		}
		return
	}
	if way.File != page.Path && !p.Links.Exists(way.File) {
		p.noFile(place, "", way.File)
	}
}

// shows judges a picture or film.
func (p *Pass) shows(place finding.Place, file string) {
	kind := picture.Of(file)
	f := finding.Finding{Rule: finding.BrokenGuideLink, Place: place, Severity: finding.Warning, Arguments: []finding.Argument{argument("file", file)}}
	switch size := p.Links.FileSize(file); {
	case !p.Links.Exists(file):
		p.noFile(place, "picture", file)
	case kind == picture.None:
		f.Form = "kind"
		p.report(nil, f)
	case size > kind.Most():
		f.Form = "large"
		f.Arguments = append(f.Arguments, argument("size", strconv.FormatInt(size/1e6, 10)))
		p.report(nil, f)
	}
}

// noFile reports a file that does not exist, with the one beside it that may be meant.
func (p *Pass) noFile(place finding.Place, form, file string) {
	near := nearest.Word(path.Base(file), p.Links.Beside(file))
	if near != "" {
		near = path.Join(path.Dir(file), near)
	}
	p.near(finding.Finding{Rule: finding.BrokenGuideLink, Form: form, Place: place, Arguments: []finding.Argument{argument("file", file)}}, near)
}

// near reports a finding in the form that says what is near, where something is.
func (p *Pass) near(f finding.Finding, near string) {
	if near != "" {
		f.Form = strings.TrimSpace("near " + f.Form)
		f.Arguments = append(f.Arguments, argument("near", near))
	}
	p.report(nil, f)
}

// titles reports guides that readers cannot tell apart.
func (p *Pass) titles() {
	known := map[string]*link.Guide{}
	for _, g := range p.Links.Guides() {
		key := g.Part + "\x00" + strings.ToLower(g.Title)
		if first := known[key]; first != nil && g.Title != "" {
			p.report(nil, finding.Finding{
				Rule: finding.BrokenGuide, Form: "same title", Place: g.Page.Place(p.titleSpan(g)),
				Arguments: []finding.Argument{argument("other", first.Page.Path)},
			})
			continue
		}
		known[key] = g
	}
}

// titleSpan is where the title of a guide stands.
func (p *Pass) titleSpan(g *link.Guide) source.Span {
	i := slices.IndexFunc(g.Nodes, func(n prose.Node) bool { return n.Kind == prose.Heading })
	if i < 0 {
		return source.Span{}
	}
	return g.Nodes[i].Span
}
