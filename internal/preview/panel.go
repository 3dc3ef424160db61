package preview

import (
	"bytes"
	"embed"
	"html/template"
	"net/http"
	"net/url"
	"path"
	"path/filepath"
	"strconv"
	"strings"

	"codrel/internal/check"
	"codrel/internal/finding"
	"codrel/internal/render/site"
	"codrel/internal/workspace"
)

// This file adds to a page what the preview has to say: what the rules find on it, and what is
// wrong with the settings.

//go:embed assets
var assets embed.FS

// panel is what stands beside a page.
type panel struct {
	Findings []told
	Trouble  []string // lines on what is wrong with the settings or the folder
	Kept     bool     // what was shown before goes on to be shown
	Reading  bool     // the project is not read yet
}

// told is a finding in words.
type told struct {
	Severity, Rule, Text string
	Place                string // file:line:column from the project's root
	Copy                 string // file:line, from the machine's root
	Editor               template.URL
}

// told are the findings of a page in words.
func (p *project) told(state *workspace.State, address string) (out []told) {
	list := state.Findings(address)
	for i := range list {
		f := &list[i]
		at := f.Place.At
		file := filepath.Join(p.dir, filepath.FromSlash(f.Place.File))
		out = append(out, told{
			Severity: f.Severity.String(), Rule: f.Rule,
			Text:   finding.OneLine(check.Text(f)) + check.AlsoAt(f, 3, func(file string) string { return file }),
			Place:  f.Place.File + ":" + strconv.Itoa(at.Line) + ":" + strconv.Itoa(at.Column),
			Copy:   file + ":" + strconv.Itoa(at.Line),
			Editor: editorAddress(state.Settings.Editor, file, at.Line, at.Column),
		})
	}
	return out
}

// editorAddress is where the maintainer's editor opens a place, by the pattern of the settings.
func editorAddress(pattern, file string, line, column int) template.URL {
	if pattern == "" {
		return ""
	}
	escaped := (&url.URL{Path: file}).EscapedPath()
	return template.URL(strings.NewReplacer("{path}", escaped, "{line}", strconv.Itoa(line), "{column}", strconv.Itoa(column)).Replace(pattern))
}

var panelText = template.Must(template.New("panel").Parse(`
<aside class="preview" aria-label="Preview">
{{- range .Trouble}}<p class="trouble">{{.}}</p>{{end}}
{{- if and .Trouble .Kept}}<p class="trouble">The pages are still those of before.</p>{{end}}
{{- if .Reading}}<p>Reading the project; this is its last build.</p>{{end}}
{{- if .Findings}}
<details open><summary>{{len .Findings}} {{if eq (len .Findings) 1}}finding{{else}}findings{{end}} on this page</summary><ul>
{{- range .Findings}}
<li><span class="severity {{.Severity}}">{{.Severity}}</span> {{if .Editor}}<a href="{{.Editor}}" title="Open in the editor">{{.Place}}</a>{{else}}<code>{{.Place}}</code>{{end}} <button type="button" data-copy="{{.Copy}}" hidden>Copy place</button> <span class="message">{{.Text}} <span class="kind">{{.Rule}}</span></span></li>
{{- end}}
</ul></details>
{{- else if .Kept}}<p class="clean">No findings on this page.</p>{{end}}
</aside>
<script src="/_codrel/live.js" data-events="{{.Events}}"></script>
`))

// into adds the panel to a page, and the script that shows the page anew when it changes.
func (s panel) into(page []byte, prefix, address, sum string) []byte {
	var out bytes.Buffer
	events := prefix + "_codrel/events?page=" + url.QueryEscape(address) + "&seen=" + sum
	if err := panelText.Execute(&out, struct {
		panel
		Events string
	}{s, events}); err != nil {
		return page
	}
	page = bytes.Replace(page, []byte("default-src 'none';"), []byte("default-src 'none'; connect-src 'self';"), 1)
	page = bytes.Replace(page, []byte("</head>"), []byte(`<link rel="stylesheet" href="/_codrel/panel.css"></head>`), 1)
	end := bytes.LastIndex(page, []byte("</body>"))
	if end < 0 {
		return page
	}
	return append(append(bytes.Clone(page[:end]), out.Bytes()...), page[end:]...)
}

// ownFile answers for the scripts and styles of the preview.
func (s *Server) ownFile(w http.ResponseWriter, r *http.Request) {
	name := r.PathValue("file")
	data, err := assets.ReadFile("assets/" + name)
	if err != nil {
		data = site.Asset("assets/" + name)
	}
	if data == nil || path.Base(name) != name {
		http.NotFound(w, r)
		return
	}
	w.Header().Set("Content-Type", kindOf(name))
	w.Header().Set("Cache-Control", "no-cache")
	w.Header().Set("ETag", `"`+sumOf(data)+`"`)
	http.ServeContent(w, r, "", zeroTime, bytes.NewReader(data))
}
