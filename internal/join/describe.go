package join

import (
	"slices"
	"strings"

	"codrel/internal/model"
)

// describe gives comments that stand elsewhere to what they describe: an occurrence that
// has the words for the declaration, and says nothing else of it.
func describe(lib *model.Contents, placed placement) {
	lib.HasAbout = slices.ContainsFunc(lib.Files, func(f *model.Facts) bool { return len(f.About)+len(placed[f].About) > 0 })
	if !lib.HasAbout {
		return
	}
	type told struct {
		about *model.About
		file  *model.Facts
	}
	common := map[string]told{} // texts that declarations name
	for _, f := range lib.Files {
		list := slices.Concat(f.About, placed[f].About)
		for i := range list {
			about := &list[i]
			if about.Doc == nil {
				continue
			}
			if d := described(lib, about.Path); d == nil {
				common[about.Path] = told{about, f}
			} else if !d.Documented() {
				describeWith(d, about, f)
			}
		}
	}
	if len(common) == 0 {
		return
	}
	for _, m := range lib.Modules {
		for d := range m.Declarations {
			if text, ok := common[textNamed(d)]; ok && !d.Documented() {
				describeWith(d, text.about, text.file)
			}
		}
	}
}

// textNamed is what a declaration says that it has its text by, or "".
func textNamed(d *model.Declaration) string {
	for _, o := range d.Occurrences {
		if o.Extra != nil && o.Extra.TextOf != "" {
			return o.Extra.TextOf
		}
	}
	return ""
}

// describeWith adds the occurrence that a comment in a file is for a declaration.
func describeWith(d *model.Declaration, about *model.About, f *model.Facts) {
	is := d.Speaks(model.Nature)
	o := &model.Occurrence{
		Kind: is.Kind, Name: is.Name, Scope: is.Scope, Parent: -1, Visibility: is.Visibility, Doc: about.Doc, Implementation: true, FromComment: true,
		Line: int32(f.Position(about.Span.Start).Line), NameSpan: about.Span, Span: about.Span,
	}
	o.Deprecated = about.Old
	if about.Part != "" {
		o.Extra = &model.Extra{Directives: []model.Directive{{Verb: "part", Object: about.Part, Span: about.Span}}}
	}
	if is.Callable != nil {
		o.Callable = &model.Callable{}
		for _, p := range is.Callable.Params {
			o.Callable.Params = append(o.Callable.Params, model.Param{Name: p.Name, Optional: p.Optional, Implied: p.Implied})
		}
	}
	d.Describe(model.At{Occurrence: o, File: f})
}

// described is the declaration that a path with its module names, or nil.
func described(lib *model.Contents, path string) *model.Declaration {
	for _, m := range lib.Modules {
		if rest, ok := strings.CutPrefix(path, m.Path+lib.Habits.PathMark); ok {
			if d := m.Lookup(rest); d != nil {
				return d
			}
		}
	}
	return nil
}
