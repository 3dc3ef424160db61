package plan

import (
	"cmp"
	"slices"
	"strconv"
	"strings"
	"sync"

	"codrel/internal/model"
)

// Source tells how much of the source a site shows.
type Source uint8

// How much is shown.
const (
	NoSource Source = iota
	Signatures
	FullSource
)

// ParseSource reads the word of the settings for it.
func ParseSource(word string) (s Source, ok bool) {
	i := slices.Index([]string{"none", "signatures", "full"}, word)
	return Source(max(i, 0)), i >= 0
}

const (
	mostLines = 5000    // of a source page
	mostBytes = 400_000 // of the source on it, so that no page is too large for a reader's machine
	mostUses  = 13_000  // names on it that may be links, which take more room than the text
)

// sources are the pages that show the source itself.
type sources struct {
	plan   *Plan
	files  func() map[*model.Facts]*sourceFile
	byPath func() map[string]*sourceFile
}

// sourceFile is where a file of the source is shown.
type sourceFile struct {
	library *model.Library
	module  *model.Module
	file    *model.Facts
	address string         // of its first page, without ".html"
	first   func() []int32 // the first line of each page
}

func (p *Plan) newSources() *sources {
	s := &sources{plan: p}
	s.files = sync.OnceValue(s.list)
	s.byPath = sync.OnceValue(func() map[string]*sourceFile {
		out := map[string]*sourceFile{}
		for _, f := range s.files() {
			out[f.file.Path] = f
		}
		return out
	})
	return s
}

// list finds the files that are shown.
func (s *sources) list() map[*model.Facts]*sourceFile {
	out := map[*model.Facts]*sourceFile{}
	if s.plan.Source == NoSource {
		return out
	}
	for _, lib := range s.plan.Links.Project.Libraries {
		for _, m := range lib.Modules {
			for _, f := range m.Files {
				out[f] = &sourceFile{
					library: lib.Library, module: m, file: f, address: sourceAddress(f.Path),
					first: sync.OnceValue(func() []int32 { return sourceParts(f) }),
				}
			}
		}
	}
	return out
}

// pages are those of all files.
func (s *sources) pages() (pages []*Page) {
	if s.plan.Source == NoSource {
		return nil
	}
	files := s.files()
	for _, lib := range s.plan.Links.Project.Libraries {
		for _, m := range lib.Modules {
			for _, f := range m.Files {
				pages = append(pages, files[f].pages()...)
			}
		}
	}
	return pages
}

// pageAt is the page with an address, or nil.
func (s *sources) pageAt(address string) *Page {
	for _, f := range s.files() {
		if !strings.HasPrefix(address, f.address) {
			continue
		}
		for _, page := range f.pages() {
			if page.Address == address {
				return page
			}
		}
	}
	return nil
}

// pages are those that show a file.
func (s *sourceFile) pages() (pages []*Page) {
	for i := range s.first() {
		pages = append(pages, &Page{Kind: SourcePage, Address: s.page(i), Title: s.file.Path, Library: s.library, Module: s.module, File: s.file, Part: i})
	}
	return pages
}

func sourceAddress(file string) string {
	var b strings.Builder
	b.WriteString("source")
	for part := range strings.SplitSeq(file, "/") {
		b.WriteString("/" + segment(part))
	}
	return shortFolder(b.String())
}

// sourceParts cuts a file into pages and gives the first line of each.
func sourceParts(f *model.Facts) []int32 {
	first := []int32{1}
	start, linked := int32(0), int32(0)
	uses := usesByLine(f)
	for line := 2; line <= f.Lines.Count(); line++ {
		from := first[len(first)-1]
		linked += uses(line)
		if int32(line)-from < mostLines && f.Lines.Start(line+1)-start <= mostBytes && linked <= mostUses {
			continue
		}
		if int(f.Lines.Start(line)) == len(f.Text) {
			break // what follows the last line break is no line
		}
		first = append(first, int32(line))
		start, linked = f.Lines.Start(line), uses(line)
	}
	return first
}

// usesByLine counts the names on each line that may be links.
func usesByLine(f *model.Facts) func(line int) int32 {
	if f.Inside == nil || f.Inside.Uses.Len() <= mostUses {
		return func(int) int32 { return 0 }
	}
	counts := make([]int32, f.Lines.Count()+2)
	for use := range f.Inside.Uses.All() {
		if line := f.Position(use.Span.Start).Line; int(line) < len(counts) {
			counts[line]++
		}
	}
	return func(line int) int32 { return counts[line] }
}

func (s *sourceFile) page(part int) string {
	if part == 0 {
		return s.address + ".html"
	}
	return s.address + "~" + strconv.Itoa(part+1) + ".html" // no file has a bare "~" in its address
}

// SourceLine is the address of a line of the source, or "" where it is not shown.
func (p *Plan) SourceLine(f *model.Facts, line int) string {
	s := p.sources.files()[f]
	if s == nil {
		return ""
	}
	i, exact := slices.BinarySearchFunc(s.first(), line, func(first int32, line int) int { return cmp.Compare(int(first), line) })
	if !exact {
		i = max(0, i-1)
	}
	return s.page(i) + "#L" + strconv.Itoa(line)
}

// SourceFile is the address of a line of the file with this path, or "" where
// no page shows it.
func (p *Plan) SourceFile(path string, line int) string {
	s := p.sources.byPath()[path]
	if s == nil {
		return ""
	}
	return p.SourceLine(s.file, max(1, min(line, s.file.Lines.Count()-1)))
}

// SourceParts are the first lines of the pages that show a file.
func (p *Plan) SourceParts(f *model.Facts) []int32 { return p.sources.files()[f].first() }

// SourcePart is the address of one of the pages that show a file.
func (p *Plan) SourcePart(f *model.Facts, part int) string { return p.sources.files()[f].page(part) }
