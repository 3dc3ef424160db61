// Package look owns what a maintainer may change of how the site looks: the
// accent, a logo, more CSS, HTML around the pages, and the words in other
// languages.
//
// What the settings name is checked before any page is drawn: what cannot be
// used is left out and is a finding at its line of the settings. The package
// knows neither templates nor how findings are shown.
package look

import (
	"errors"
	"fmt"
	"io/fs"
	"maps"
	"path"
	"slices"
	"strings"

	"codrel/internal/finding"
	"codrel/internal/nearest"
	"codrel/internal/settings"
)

// Look is what was found usable.
type Look struct {
	Locale      string
	Texts       Texts
	Light, Dark string // the accent in the two schemes, as CSS has it; "" for the usual one
	Logo        []byte
	LogoFile    string // its file name; "" for no logo
	Style       []byte // more CSS
	Head        string // HTML at the end of the head element
	Header      string // HTML above each page
	Footer      string // HTML below each page
}

// Plain is the look of a project that changes nothing.
func Plain() *Look { return &Look{Locale: "en", Texts: english} }

const (
	largestLogo = 512 << 10
	largestText = 64 << 10
)

// Read checks and reads what the settings name. file is the path of the settings
// for the findings.
func Read(fsys fs.FS, set settings.Look, file string) (*Look, []finding.Finding) {
	r := reader{fsys: fsys, file: file, look: Plain()}
	r.locale(set)
	r.accent(set.Accent)
	r.logo(set.Logo)
	r.style(set.Style)
	r.look.Head = r.html(set.Head, "head")
	r.look.Header = r.html(set.Header, "body")
	r.look.Footer = r.html(set.Footer, "body")
	return r.look, r.findings
}

type reader struct {
	fsys     fs.FS
	file     string
	look     *Look
	findings []finding.Finding
}

func (r *reader) report(rule, form string, at settings.Word, pairs ...string) {
	f := finding.Finding{Rule: rule, Form: form, Place: finding.Place{File: r.file, At: at.At}}
	f.Place.Span.Start, f.Place.Span.End = int32(at.At.Line), int32(at.At.Line) // keeps the order of the lines
	for i := 0; i+1 < len(pairs); i += 2 {
		f.Arguments = append(f.Arguments, finding.Argument{Name: pairs[i], Value: pairs[i+1]})
	}
	r.findings = append(r.findings, f)
}

func (r *reader) locale(set settings.Look) {
	if set.Locale.Text != "" {
		texts, ok := locales[set.Locale.Text]
		if !ok {
			r.report(finding.BrokenLook, "locale", set.Locale, "locale", set.Locale.Text, "all", strings.Join(Locales(), " and "))
		} else {
			r.look.Locale, r.look.Texts = set.Locale.Text, texts
		}
	}
	if len(set.Texts) == 0 {
		return
	}
	own := Texts{}
	for key, text := range r.look.Texts {
		own[key] = text
	}
	for _, t := range set.Texts {
		usual, ok := english[t.Key.Text]
		switch {
		case !ok:
			r.report(finding.BrokenLook, "text", t.Key, "key", t.Key.Text, "near", near(t.Key.Text))
		case strings.TrimSpace(t.Value.Text) == "":
			r.report(finding.BrokenLook, "empty", t.Key, "key", t.Key.Text, "usual", usual)
		case !slices.Equal(slots(usual), slots(t.Value.Text)):
			r.report(finding.BrokenLook, "slots", t.Key, "key", t.Key.Text, "usual", usual)
		default:
			own[t.Key.Text] = t.Value.Text
		}
	}
	r.look.Texts = own
}

func near(key string) string {
	keys := make([]string, 0, len(english))
	for k := range english {
		keys = append(keys, k)
	}
	slices.Sort(keys)
	if word := nearest.Word(key, keys); word != "" {
		return "; did you mean " + word + "?"
	}
	return ""
}

func (r *reader) accent(w settings.Word) {
	if w.Text == "" {
		return
	}
	c, ok := ParseColour(w.Text)
	if !ok {
		r.report(finding.BrokenLook, "colour", w, "value", w.Text)
		return
	}
	for _, scheme := range []struct {
		name     string
		surfaces []Colour
		to       *string
	}{{"light", lightSurfaces, &r.look.Light}, {"dark", darkSurfaces, &r.look.Dark}} {
		out, moved := legible(c, scheme.surfaces...)
		*scheme.to = out.String()
		if moved > farthest {
			r.report(finding.FaintAccent, "", w, "accent", c.String(), "scheme", scheme.name,
				"ratio", fmt.Sprintf("%.1f", Contrast(c, scheme.surfaces[0])), "used", out.String())
		}
	}
}

// read reads a file that the settings name; ok is false where there is none to use.
func (r *reader) read(w settings.Word, most int64) (data []byte, ok bool) {
	if w.Text == "" {
		return nil, false
	}
	info, err := fs.Stat(r.fsys, w.Text)
	switch {
	case errors.Is(err, fs.ErrNotExist):
		return nil, r.leaveOut(w, "there is no such file")
	case err != nil || !info.Mode().IsRegular():
		return nil, r.leaveOut(w, "it is no file that can be read")
	case info.Size() > most:
		return nil, r.leaveOut(w, fmt.Sprintf("it is larger than %d kB", most>>10))
	}
	if data, err = fs.ReadFile(r.fsys, w.Text); err != nil {
		return nil, r.leaveOut(w, "it cannot be read")
	}
	return data, true
}

func (r *reader) leaveOut(w settings.Word, problem string) bool {
	r.report(finding.BrokenLook, "", w, "file", w.Text, "problem", problem)
	return false
}

func (r *reader) logo(w settings.Word) {
	data, ok := r.read(w, largestLogo)
	if !ok {
		return
	}
	ext := strings.ToLower(path.Ext(w.Text))
	if !slices.Contains([]string{".svg", ".png", ".jpg", ".jpeg", ".gif", ".webp", ".avif"}, ext) {
		r.leaveOut(w, "a logo is an image: svg, png, jpg, gif, webp or avif")
		return
	}
	r.look.Logo, r.look.LogoFile = data, "logo"+ext
}

func (r *reader) style(w settings.Word) {
	data, ok := r.read(w, largestText)
	if !ok {
		return
	}
	if problem := wrongStyle(string(data)); problem != "" {
		r.leaveOut(w, problem)
		return
	}
	r.look.Style = data
}

func (r *reader) html(w settings.Word, where string) string {
	data, ok := r.read(w, largestText)
	if !ok {
		return ""
	}
	written, problem := markup(string(data), where)
	if problem != "" {
		r.leaveOut(w, problem)
	}
	return written
}

// Styled reports whether the look has CSS of its own.
func (l *Look) Styled() bool { return l.Light != "" || len(l.Style) > 0 }

// Translated reports whether any text differs from the usual one.
func (l *Look) Translated() bool { return !maps.Equal(l.Texts, english) }
