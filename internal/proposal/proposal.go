// Package proposal works out which settings a project may want from what lies in its folder:
// its name, what to read and what to pass over, where its source lines are on the web, and how
// its build may call Codrel. Each proposal has its reason.
//
// It reads and writes nothing but its result, asks nobody, and does not know how its proposals
// reach the user.
package proposal

import (
	"cmp"
	"context"
	"fmt"
	"io/fs"
	"path"
	"slices"
	"strings"

	"codrel/internal/discover"
	"codrel/internal/lang"
	"codrel/internal/settings"
)

// Proposal is what the settings of a project may say.
type Proposal struct {
	Name      Value // of the project
	Version   Value // Text is what a language's own file says, or ""
	Home      Value // the file of the landing page, or ""
	Guides    Value // the folder of the guides, or ""
	Reach     Value
	Source    Value // address of a source line, or "" where no remote tells
	Site      Value // the folder of the pages
	Skip      []Value
	Libraries []Library
	Hooks     []Hook // how the project's build may call Codrel
}

// Value is a proposed value with the reason for it, both for people to read.
type Value struct{ Text, Reason string }

// Library is one library that is found.
type Library struct {
	Name, Language, Folder string
	Files                  int
}

// Folder is what is looked at.
type Folder struct {
	Files     fs.FS
	Name      string // of the folder, which an fs.FS does not know
	Remote    string // address of the repository that the folder was cloned from, or ""
	Below     string // the path of the folder in the repository, with "/" at its end, or ""
	FrontEnds []lang.FrontEnd
}

// Make looks at a folder. The error is the context's, or a [discover.PathError].
func Make(ctx context.Context, folder Folder) (*Proposal, error) {
	found, err := discover.Find(ctx, folder.Files, discover.Options{FrontEnds: folder.FrontEnds, Site: settings.DefaultSite, Folder: folder.Name})
	if err != nil {
		return nil, err
	}
	p := &Proposal{
		Reach: Value{settings.Default().Reach.String(), "who extends a type is a user of it; public, internal and private are the other choices"},
		Site:  Value{settings.DefaultSite, "made anew by each build: no place for files of your own"},
		Skip:  passedOver(found),
		Hooks: hooks(folder.Files),
	}
	p.libraries(found)
	p.name(folder)
	p.home(folder.Files)
	p.guides(folder.Files)
	p.source(folder.Remote, folder.Below)
	return p, nil
}

// libraries lists what is found, the libraries with most files first, and takes the version
// that the files of the one at the top say, or of the only one.
func (p *Proposal) libraries(found *discover.Found) {
	for _, lib := range found.Libraries {
		files := 0
		for _, f := range lib.Files {
			if !discover.IsTest(f) && !p.skips(f.Path) {
				files++
			}
		}
		if files == 0 {
			continue
		}
		of := lib.Model.Library
		p.Libraries = append(p.Libraries, Library{Name: of.Name, Language: lib.End.Habits().Name, Folder: of.Root, Files: files})
		if of.Version != "" && (of.Root == "." || len(found.Libraries) == 1) {
			p.Version = Value{of.Version, fmt.Sprintf("what the files of %s say; it follows them", of.Name)}
		}
	}
	slices.SortStableFunc(p.Libraries, func(a, b Library) int { return cmp.Compare(b.Files, a.Files) })
}

func (p *Proposal) skips(file string) bool {
	return slices.ContainsFunc(p.Skip, func(v Value) bool {
		return strings.HasPrefix(file, strings.TrimSuffix(v.Text, "**"))
	})
}

// name is that of the library at the top, else that of the repository, else of the folder.
func (p *Proposal) name(folder Folder) {
	for _, lib := range p.Libraries {
		if lib.Folder == "." && lib.Name != folder.Name && !strings.HasPrefix(lib.Name, folder.Name+"-") {
			p.Name = Value{lib.Name, "the name of the library at the top"}
			for _, suffix := range []string{"-parent", "-root", "-aggregator"} { // as builds call what is only around others
				p.Name.Text = strings.TrimSuffix(p.Name.Text, suffix)
			}
			return
		}
	}
	if name := strings.TrimSuffix(path.Base(strings.TrimSuffix(folder.Remote, "/")), ".git"); folder.Remote != "" && folder.Below == "" && name != "." && name != "/" {
		p.Name = Value{name[strings.LastIndexByte(name, ':')+1:], "the name of the repository"}
		return
	}
	p.Name = Value{folder.Name, "the name of the folder"}
}

func (p *Proposal) home(files fs.FS) {
	entries, err := fs.ReadDir(files, ".")
	if err != nil {
		return
	}
	for _, e := range entries {
		if name := strings.ToLower(e.Name()); !e.IsDir() && (name == "readme" || strings.HasPrefix(name, "readme.")) {
			p.Home = Value{e.Name(), "the landing page, found by its name"}
			return
		}
	}
}

// guideFolders are where maintainers keep guides, beside the folders that need no setting.
var guideFolders = append(slices.Clone(settings.GuideFolders), "docs", "doc", "documentation")

// guides is the first of the usual folders that has Markdown files which are no fragments.
func (p *Proposal) guides(files fs.FS) {
	for _, folder := range guideFolders {
		n := 0
		_ = fs.WalkDir(files, folder, func(file string, e fs.DirEntry, err error) error {
			switch {
			case err != nil:
				return fs.SkipDir
			case e.IsDir() && (slices.Contains(settings.FragmentFolders, file) || file != folder && strings.ContainsAny(e.Name()[:1], "._")):
				return fs.SkipDir
			case !e.IsDir() && strings.EqualFold(path.Ext(file), ".md"):
				n++
			}
			return nil
		})
		if n > 0 {
			what := "1 Markdown file makes a page of its own"
			if n > 1 {
				what = fmt.Sprintf("%d Markdown files make pages of their own", n)
			}
			p.Guides = Value{folder, what + " beside the reference; \"order:\" puts them in an order"}
			return
		}
	}
}
