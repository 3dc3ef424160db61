package preview

import (
	"cmp"
	"html/template"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"time"

	"codrel/internal/search"
)

// This file shows all projects on one page, with one search. It works without scripts.

var zeroTime time.Time

// shown is a project on the front page.
type shown struct {
	Title, Summary, Href, State string
}

// hit is what the search found in a project.
type hit struct {
	Name, Kind, Place, Project, Summary, Href string
}

var frontText = template.Must(template.New("front").Parse(`<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>{{if .Query}}{{.Query}} · {{end}}Projects</title>
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'self'; img-src 'self'; base-uri 'none'; form-action 'self'">
<meta name="color-scheme" content="light dark">{{if .Waiting}}<meta http-equiv="refresh" content="1">{{end}}
<link rel="stylesheet" href="/_codrel/codrel.css"><link rel="stylesheet" href="/_codrel/panel.css"><link rel="icon" href="/_codrel/icon.svg" type="image/svg+xml"></head>
<body><main class="projects"><h1>Projects</h1>
<form role="search"><input type="search" name="q" value="{{.Query}}" aria-label="Search all projects" placeholder="Search all projects"><button>Search</button></form>
{{- if .Query}}
<p class="where">{{.Said}}</p>
<dl class="overview">{{range .Hits}}<dt><a href="{{.Href}}"><code translate="no">{{.Name}}</code></a> <span class="kind">{{.Kind}}{{if .Place}} in {{.Place}}{{end}} · {{.Project}}</span></dt><dd>{{.Summary}}</dd>{{end}}</dl>
{{- end}}
<dl class="overview">{{range .Projects}}<dt><a href="{{.Href}}">{{.Title}}</a> <span class="kind">{{.State}}</span></dt><dd>{{.Summary}}</dd>{{end}}</dl>
</main></body></html>
`))

// mostHits is how many hits the front page lists.
const mostHits = 60

func (s *Server) front(w http.ResponseWriter, r *http.Request) {
	page := struct {
		Query, Said string
		Waiting     bool
		Hits        []hit
		Projects    []shown
	}{Query: r.URL.Query().Get("q")}
	var hits []search.Hit
	of, titles := map[*search.Entry]*project{}, map[*project]string{}
	read := 0
	for _, p := range s.projects {
		one := shown{Title: p.name, Href: p.prefix() + "index.html", State: "not read yet"}
		if known := p.known(); known != nil {
			read++
			one.Title, one.State, one.Summary = cmp.Or(known.title, p.name), known.version, known.summary
			if known.trouble != nil {
				one.State = "cannot be read: " + known.trouble.Error()
			}
			if page.Query != "" {
				for _, h := range search.Find(known.entries, page.Query, "", mostHits) {
					hits = append(hits, h)
					of[h.Entry] = p
				}
			}
		}
		titles[p] = one.Title
		page.Projects = append(page.Projects, one)
	}
	slices.SortStableFunc(hits, func(a, b search.Hit) int {
		return cmp.Or(cmp.Compare(a.Class, b.Class), cmp.Compare(a.Slips, b.Slips), search.Compare(a.Entry, b.Entry))
	})
	for _, h := range hits[:min(len(hits), mostHits)] {
		p := of[h.Entry]
		name := h.Name
		if h.Scope != "" {
			name = h.Scope + "." + name
		}
		page.Hits = append(page.Hits, hit{name, strings.ReplaceAll(h.Kind, "-", " "), h.Place, titles[p], h.Summary, p.prefix() + h.Address})
	}
	page.Waiting = read < len(s.projects)
	page.Said = strconv.Itoa(len(page.Hits)) + " found"
	if len(page.Hits) == 0 {
		page.Said = "Nothing found for “" + page.Query + "”"
	}
	if page.Waiting {
		page.Said += " in the " + strconv.Itoa(read) + " of " + strconv.Itoa(len(s.projects)) + " projects that are read so far"
	}
	w.Header().Set("Content-Type", "text/html; charset=utf-8")
	w.Header().Set("Cache-Control", "no-store")
	_ = frontText.Execute(w, page)
}
