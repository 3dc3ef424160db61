// Package perl is the front end of Perl, to the class syntax of version 5.42.
//
// It lexes as the language does as far as that can be told without running anything: quotes of any
// delimiter, regular expressions against division, heredocs, formats, and POD wherever a statement may
// begin. Of the tokens it reads packages and what these declare; of POD it finds what speaks of which
// declaration.
//
// The package knows nothing of other files but how they make modules.
package perl

import (
	"path"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// FrontEnd reads the language.
type FrontEnd struct{}

var habits = model.Habits{
	Language: "perl", Name: "Perl", Dialect: "pod", Fences: []string{"perl", "pl"},
	PathMark: "::", ByPath: true, NameMarks: []string{"::", "->"}, Directive: "# codrel: ", Fails: "dies", Nothing: []string{""},
	Dynamic: true, MayMake: []string{"AUTOLOAD", "*{", "no strict 'refs'", "no strict \"refs\"", "no strict"}, Circles: true, Whole: true, AnyMember: "AUTOLOAD",
	Spaces: map[model.Kind]string{model.KindProperty: "attribute"},
}

// Habits are those of Perl.
func (FrontEnd) Habits() *model.Habits { return &habits }

// Extensions are the endings of modules, programs, tests and documentation.
func (FrontEnd) Extensions() []string { return []string{".pm", ".pl", ".pod", ".t", ".PL", ".psgi"} }

// Interpreters run files without an ending.
func (FrontEnd) Interpreters() []string { return []string{"perl"} }

// SkipFolders are those that builds write.
func (FrontEnd) SkipFolders() []string {
	return []string{"blib", "local", ".build", "cover_db", "node_modules", "vendor", "site-packages"}
}

// IsTest reports whether a path is that of a test.
func (FrontEnd) IsTest(file string) bool {
	if path.Ext(file) == ".t" {
		return true
	}
	for part := range strings.SplitSeq(path.Dir(file), "/") {
		if part == "t" || part == "xt" || part == "inc" {
			return true
		}
	}
	base := path.Base(file)
	return base == "Makefile.PL" || base == "Build.PL"
}

// Scan finds keywords, numbers, strings and comments.
func (FrontEnd) Scan(text string, into []lexing.Piece) []lexing.Piece {
	s := lexing.Stream{Pieces: into}
	l := lexer{Stream: &s, text: text}
	l.run()
	return s.Pieces
}

// Read extracts what the file declares.
func (e FrontEnd) Read(file lang.File) *model.Facts {
	text := file.Text.String
	facts := file.Facts("perl")
	if e.IsTest(file.Path) {
		facts.Role = model.RoleTest
	}
	stream, back := lexing.Borrow()
	defer back()
	l := lexer{Stream: stream, text: text, unclosed: -1}
	l.run()
	r := reader{Cursor: stream.Look(text), facts: facts, arena: lexing.NewArena(text), pods: l.pods, encoded: l.encoded}
	if file.Text.Encoding == source.Latin1 && !l.encoded {
		facts.ReadAsLatin(file.Text.Foreign, "Perl")
	}
	r.name = packageOf(file.Path)
	lexing.Gather(facts, func() {
		r.unit()
		r.document()
		r.keep()
	})
	r.arena.Close()
	facts.Package = r.main
	facts.Generated = generated(text, r.Comments)
	switch {
	case l.unclosed >= 0:
		facts.Unreadable(source.NewSpan(l.unclosed, l.unclosed), "", "what begins here never ends", "Perl")
	case !stream.Sound():
		at := r.Odd()
		facts.Unreadable(source.NewSpan(at, at), "", "what opens or closes here has no counterpart", "Perl")
	}
	if file.Deep {
		facts.Inside = &model.Inside{}
		for _, p := range stream.Pieces {
			facts.Inside.Pieces.Add(p)
		}
		facts.Inside.Uses = r.uses()
	}
	return facts
}

// generated reports whether a comment near the top says that a program wrote the file.
func generated(text string, comments []source.Span) bool {
	for _, c := range comments {
		if c.Start > 2000 {
			return false
		}
		said := strings.ToLower(c.In(text))
		if strings.Contains(said, "generated") && (strings.Contains(said, "do not edit") || strings.Contains(said, "don't edit") || strings.Contains(said, "do not modify")) {
			return true
		}
	}
	return false
}

// packageOf is what a file is called as a module, by its path from where its folder of modules begins.
func packageOf(file string) string {
	ext := path.Ext(file)
	stem := strings.TrimSuffix(file, ext)
	if ext != ".pm" && ext != ".pod" {
		return path.Base(stem)
	}
	parts := strings.Split(stem, "/")
	for i := len(parts) - 2; i >= 0; i-- {
		switch parts[i] {
		case "lib", "perl5", "perl", "vendor_perl", "site_perl":
			parts = parts[i+1:]
			return strings.Join(parts, "::")
		}
	}
	return parts[len(parts)-1]
}
