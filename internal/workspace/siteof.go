package workspace

import "codrel/internal/render/sink"

// SiteOf is the folder of the site that the last build of the project in a folder wrote; ok is
// false where there is none.
func SiteOf(dir string, options Options) (site string, ok bool) {
	w, err := Open(dir, options)
	if err != nil {
		return "", false
	}
	defer w.Close()
	site = w.Path(w.Settings.Write.Site)
	return site, sink.IsSite(site)
}
