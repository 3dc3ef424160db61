package cli

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

// memory is what is remembered of a build.
type memory struct {
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

// lastBuild is the memory of the build before this one, of the same project,
// settings, program and target.
type lastBuild struct {
	store recall.Store
	key   string // "" where nothing is remembered
	made  *recall.Recorder
}

// remember finds the place of a build's memory and begins to note what is read.
func (a *app) remember(p *project, target, forge string) lastBuild {
	store, ok := recall.OpenStore("codrel")
	self, err := programSum()
	if !ok || err != nil {
		return lastBuild{}
	}
	l := lastBuild{store: store, made: recall.Record(p.files)}
	l.key = recall.Key(Version, self, p.dir, target, p.settingsText, forge)
	p.files = l.made
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

// unchanged is the memory of the last build if nothing that it read and wrote
// has changed since.
func (l lastBuild) unchanged(ctx context.Context, p *project, target string, workers int) (memory, bool) {
	var m memory
	if l.key == "" || !l.store.Load(l.key, &m) {
		return m, false
	}
	site, err := sink.Sum(target)
	return m, err == nil && site == m.Site && same(m.Outside) && recall.Same(ctx, p.root.FS(), m.Answers, workers)
}

// keep remembers a build. A memory that cannot be written is no error of the
// build: the next one only has more to do.
func (l lastBuild) keep(s *build.Snapshot, w written, target string, outside map[string]recall.Sum) {
	if l.key == "" {
		return
	}
	site, err := sink.Sum(target)
	if err != nil {
		return
	}
	_ = l.store.Save(l.key, memory{
		Answers: l.made.Answers(), Site: site, Findings: s.Findings, Coverage: s.Coverage, Stats: s.Stats,
		Pages: w.pages, Files: w.files, NoForge: w.noForge, Outside: outside,
	})
}
