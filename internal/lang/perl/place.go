package perl

import (
	"cmp"
	"path"
	"slices"

	"codrel/internal/lang"
	"codrel/internal/lexing"
	"codrel/internal/model"
)

// This file knows what of a file belongs to other packages than its own, and what documentation in a
// file of its own is about.

// Place puts what stands in other packages of a file into these, and gives what files of
// documentation say of subs to these.
func (FrontEnd) Place(_ *model.Library, files []*model.Facts, _ []string) []lang.Placement {
	out := make([]lang.Placement, len(files))
	declared, shown := declaredIn(files), shownIn(files)
	for i, f := range files {
		if path.Ext(f.Path) == ".pod" && f.ModuleDoc != nil && len(f.Occurrences) == 0 {
			out[i] = documents(f, declared[f.Package])
		}
		for n := range f.Occurrences {
			if o := &f.Occurrences[n]; o.Parent < 0 && o.In() != "" {
				if out[i].Others == nil {
					out[i].Others = map[int32]string{}
				}
				out[i].Others[int32(n)] = o.In()
			}
		}
		for _, m := range f.Modules {
			if name := cmp.Or(m.Name, f.Package); m.Kept && !shown[name] {
				if out[i].Kept == nil {
					out[i].Kept = map[string]bool{}
				}
				out[i].Kept[name] = true
			}
		}
		for _, c := range f.Classes { // a class may have nothing of its own
			if c.In != "" && c.In != "main" && !slices.Contains(out[i].More, c.In) {
				out[i].More = append(out[i].More, c.In)
			}
		}
	}
	return out
}

// shownIn are the packages that some file does not hide, or describes.
func shownIn(files []*model.Facts) map[string]bool {
	out := map[string]bool{}
	for _, f := range files {
		own := f.Package != ""
		for _, m := range f.Modules {
			if m.Name == "" {
				own = f.ModuleDoc != nil
			} else if !m.Kept {
				out[m.Name] = true
			}
		}
		if own {
			out[f.Package] = true
		}
	}
	return out
}

// declaredIn are the declarations without documentation of their own, by their packages.
func declaredIn(files []*model.Facts) map[string][]model.Occurrence {
	out := map[string][]model.Occurrence{}
	if !slices.ContainsFunc(files, func(f *model.Facts) bool { return path.Ext(f.Path) == ".pod" }) {
		return out
	}
	for _, f := range files {
		if f.Role != model.RoleCode {
			continue
		}
		for i := range f.Occurrences {
			o := &f.Occurrences[i]
			pkg := o.In()
			if pkg == "" {
				pkg = f.Package
			}
			if o.Doc == nil {
				out[pkg] = append(out[pkg], model.Occurrence{Kind: o.Kind, Name: o.Name, Parent: -1})
			}
		}
	}
	return out
}

// documents finds what a file of documentation says of declarations of its package, as if they stood in it.
func documents(f *model.Facts, declared []model.Occurrence) lang.Placement {
	if len(declared) == 0 {
		return lang.Placement{}
	}
	stream, back := lexing.Borrow()
	defer back()
	l := lexer{Stream: stream, text: f.Text, unclosed: -1}
	l.run()
	facts := &model.Facts{Path: f.Path, Text: f.Text, Lines: f.Lines, Occurrences: slices.Clone(declared)}
	r := reader{Cursor: stream.Look(f.Text), facts: facts, pods: l.pods, encoded: true, main: f.Package}
	r.document()
	out := lang.Placement{Docs: map[string]*model.Doc{f.Package: facts.ModuleDoc}, Groups: facts.Groups}
	for i := range facts.Occurrences {
		o := &facts.Occurrences[i]
		if o.Doc == nil {
			continue
		}
		about := model.About{Path: f.Package + "::" + o.Name, Span: o.Doc.Span, Doc: o.Doc, Old: o.Deprecated}
		for _, d := range o.Directives() {
			about.Part = d.Object
		}
		out.About = append(out.About, about)
	}
	if len(out.About) == 0 {
		return lang.Placement{}
	}
	return out
}
