package site

import (
	"bytes"
	"encoding/xml"
	"strings"

	"codrel/internal/render/plan"
	"codrel/internal/render/sink"
)

// writeSitemap writes the list of all pages for search engines (sitemaps.org),
// where the site's address is known.
func (s *Site) writeSitemap(to sink.Sink) error {
	if s.options.Base == "" {
		return nil
	}
	var out bytes.Buffer
	out.WriteString(xml.Header + `<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">` + "\n")
	for _, page := range s.plan.Pages() {
		if page.Kind == plan.LostPage {
			continue
		}
		out.WriteString("<url><loc>")
		if err := xml.EscapeText(&out, []byte(s.options.Base+strings.TrimSuffix(page.Address, "index.html"))); err != nil {
			return err
		}
		out.WriteString("</loc></url>\n")
	}
	out.WriteString("</urlset>\n")
	return to.Put("sitemap.xml", out.Bytes())
}
