package workspace

import (
	"context"
	"crypto/sha256"
	"fmt"
	"os"

	"codrel/internal/build"
	"codrel/internal/check"
	"codrel/internal/finding"
	"codrel/internal/recall"
	"codrel/internal/render/sink"
)

// record is what is kept of a build.
type record struct {
	Answers  []recall.Answered // what it read
	Site     [sha256.Size]byte // the state it left the site in
	Findings []finding.Finding
	Coverage check.Coverage
	Stats    build.Stats
	Pages    int
	Files    int
	NoForge  string
	Outside  map[string]recall.Sum // files outside the project that were read
}

// lastBuild is the record of the build before this one, of the same project,
// settings, program and target.
type lastBuild struct {
	store recall.Store
	site  string // the site's folder, from the project's
	key   string // "" where nothing is kept
	made  *recall.Recorder
}

// remember finds the place of a build's record and begins to note what is read.
func (w *Workspace) remember(target, forge string) lastBuild {
	store, ok := recall.OpenStore("codrel")
	self, err := programSum()
	if !ok || err != nil {
		return lastBuild{}
	}
	l := lastBuild{store: store, site: w.Settings.Write.Site, made: recall.Record(w.Files, w.Settings.Write.Site)}
	l.key = recall.Key(w.options.Version, self, w.Dir, target, w.settingsText, forge)
	w.Files = l.made
	return l
}

// programSum tells one build of this program from another of the same version.
func programSum() (string, error) {
	name, err := os.Executable()
	if err != nil {
		return "", err
	}
	info, err := os.Stat(name)
	if err != nil {
		return "", err
	}
	return fmt.Sprint(name, info.Size(), info.ModTime().UnixNano()), nil
}

// unchanged is the record of the last build if nothing that it read and wrote
// has changed since.
func (l lastBuild) unchanged(ctx context.Context, w *Workspace, target string) (record, bool) {
	var r record
	if l.key == "" || !l.store.Load(l.key, &r) {
		return r, false
	}
	site, err := sink.Sum(target)
	return r, err == nil && site == r.Site && same(r.Outside) && recall.Same(ctx, w.root.FS(), l.site, r.Answers, w.workers())
}

// keep keeps the record of a build. One that cannot be written is no error of the
// build: the next one only has more to do.
func (l lastBuild) keep(b *Built, outside map[string]recall.Sum) {
	if l.key == "" {
		return
	}
	site, err := sink.Sum(b.Target)
	if err != nil {
		return
	}
	s := b.Snapshot
	_ = l.store.Save(l.key, record{
		Answers: l.made.Answers(), Site: site, Findings: s.Findings, Coverage: s.Coverage, Stats: s.Stats,
		Pages: b.Pages, Files: b.Files, NoForge: b.NoForge, Outside: outside,
	})
}
