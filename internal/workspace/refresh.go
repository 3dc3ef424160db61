package workspace

import (
	"bytes"
	"cmp"
	"context"
	"fmt"
	"os"
	"path/filepath"
	"slices"

	"codrel/internal/build"
	"codrel/internal/finding"
	"codrel/internal/model"
	"codrel/internal/prose"
	"codrel/internal/source"
)

// Refreshed is what became of the excerpts of a project's guides.
type Refreshed struct {
	Snapshot *build.Snapshot
	Excerpts int               // in all guides and fragments
	Files    []RefreshedFile   // whose copies were out of date, in the order of the guides
	Broken   []finding.Finding // of excerpts that show nothing
}

// RefreshedFile is a guide whose copies were out of date.
type RefreshedFile struct {
	Path     string // from the project's root
	Excerpts int    // that were written anew
	Was, Now string
	Left     string // why the file was left as it is, or ""
}

// Refresh writes the excerpts of all guides and fragments anew that differ from the source, or,
// where dry, only tells what it would write. Files that are not UTF-8, or that change meanwhile,
// are left as they are.
func (w *Workspace) Refresh(ctx context.Context, dry bool) (*Refreshed, error) {
	s, err := w.Run(ctx, func(o *build.Options) { o.Only = []string{finding.StaleExcerpt, finding.BrokenExcerpt} })
	if err != nil {
		return nil, err
	}
	out := &Refreshed{Snapshot: s}
	edits := map[string][]finding.Edit{}
	for _, f := range s.Findings {
		if f.Rule == finding.BrokenExcerpt {
			out.Broken = append(out.Broken, f)
		} else {
			edits[f.Place.File] = append(edits[f.Place.File], f.Edits...)
		}
	}
	for _, page := range pagesOf(s) {
		out.Excerpts += excerptsIn(s, page)
		if len(edits[page.Path]) == 0 {
			continue
		}
		f := RefreshedFile{Path: page.Path, Excerpts: len(edits[page.Path]), Was: page.Text, Now: edited(page.Text, edits[page.Path])}
		switch {
		case page.Encoding != source.UTF8 && page.Encoding != source.UTF8Mark:
			f.Left = fmt.Sprintf("it is %s, and only UTF-8 is written", page.Encoding)
		case !dry:
			f.Left, err = w.rewrite(page, f.Now)
		}
		if err != nil {
			return nil, err
		}
		out.Files = append(out.Files, f)
	}
	return out, nil
}

// pagesOf are the texts by the maintainer: the guides, then the fragments.
func pagesOf(s *build.Snapshot) []*model.Page {
	pages := slices.Clone(s.Project.Guides)
	for _, f := range s.Project.Fragments {
		pages = append(pages, f.Page)
	}
	return pages
}

// excerptsIn is how many excerpts a page has.
func excerptsIn(s *build.Snapshot, page *model.Page) (n int) {
	var nodes []prose.Node
	if g := s.Links.GuideOf(page); g != nil {
		nodes = g.Nodes
	} else {
		for _, f := range s.Links.Fragments() {
			if f.Page == page {
				nodes = f.Nodes
			}
		}
	}
	prose.Walk(nodes, func(b *prose.Node) bool {
		if b.Kind == prose.CodeBlock && prose.MayBeExcerpt(b.Info) {
			n++
		}
		return true
	})
	return n
}

// edited is a text with other text in some places, which do not overlap.
func edited(text string, edits []finding.Edit) string {
	edits = slices.Clone(edits)
	slices.SortFunc(edits, func(a, b finding.Edit) int { return cmp.Compare(b.Place.Span.Start, a.Place.Span.Start) })
	for _, e := range edits {
		text = text[:e.Place.Span.Start] + e.Text + text[e.Place.Span.End:]
	}
	return text
}

// rewrite puts another text into a file, all at once. Left is why the file was left as it is.
func (w *Workspace) rewrite(page *model.Page, text string) (left string, err error) {
	file := w.Path(page.Path)
	info, err := os.Lstat(file)
	switch {
	case err != nil:
		return "it is gone", nil
	case info.Mode()&os.ModeSymlink != 0:
		return "it is a symbolic link", nil
	case info.Mode().Perm()&0o200 == 0:
		return "it may not be written", nil
	}
	changed := func() bool {
		data, err := os.ReadFile(file)
		return err != nil || source.Decode(data).String != page.Text
	}
	if changed() {
		return "it changed meanwhile; run it again", nil
	}
	var data bytes.Buffer
	if page.Encoding == source.UTF8Mark {
		data.WriteString("\xef\xbb\xbf")
	}
	data.WriteString(text)
	temporary, err := os.CreateTemp(filepath.Dir(file), ".codrel-*")
	if err != nil {
		return "", diskError(err)
	}
	defer os.Remove(temporary.Name())
	_, err = temporary.Write(data.Bytes())
	err = cmp.Or(err, temporary.Chmod(info.Mode().Perm()), temporary.Sync(), temporary.Close())
	if err != nil {
		return "", diskError(err)
	}
	if changed() {
		return "it changed meanwhile; run it again", nil
	}
	if err := os.Rename(temporary.Name(), file); err != nil {
		return "", diskError(err)
	}
	return "", nil
}
