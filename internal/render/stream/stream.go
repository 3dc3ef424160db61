// Package stream writes the symbol stream: one occurrence a line, as JSON Lines.
//
// The schema of a line is published beside it (symbol.schema.json). The package
// knows the joined model and, where asked for, its relations; no check and no page.
package stream

import (
	"bufio"
	_ "embed"
	"encoding/json"
	"io"
	"slices"

	"codrel/internal/link"
	"codrel/internal/model"
)

// Schema is the JSON Schema (2020-12) of one line.
//
//go:embed symbol.schema.json
var Schema []byte

// Symbol is one line of the stream.
type Symbol struct {
	File       string   `json:"file"`
	Line       int32    `json:"line"`
	Language   string   `json:"language"`
	Module     string   `json:"module"`
	Kind       string   `json:"kind"`
	Name       string   `json:"name"`
	Scope      string   `json:"scope"`
	Visibility string   `json:"visibility"`
	Exported   *bool    `json:"exported"`
	Params     []string `json:"params"`
	Documented bool     `json:"documented"`
	ID         string   `json:"id"`
	Library    string   `json:"library"`
	Role       string   `json:"role"`
	Effective  string   `json:"effective"`
	Signature  string   `json:"signature"`
	Span       [2]int32 `json:"span"`
	NameSpan   [2]int32 `json:"nameSpan"`
	Comment    string   `json:"comment,omitempty"`
	CommentAt  []int32  `json:"commentLines,omitempty"`
	Conditions []string `json:"conditions,omitempty"`
	TypeParams []string `json:"typeParams,omitempty"`
	Results    []string `json:"results,omitempty"`
	Bases      []string `json:"bases,omitempty"`
	BasesAre   []string `json:"basesAre,omitempty"`
	Modifiers  []string `json:"modifiers,omitempty"`
	Section    string   `json:"section,omitempty"`
	Defaults   []string `json:"defaults,omitempty"`
	Receiver   string   `json:"receiver,omitempty"`
	Deprecated bool     `json:"deprecated,omitempty"`
	Variadic   bool     `json:"variadic,omitempty"`
	Embedded   bool     `json:"embedded,omitempty"`
	Generated  bool     `json:"generated,omitempty"`

	Relations *Relations `json:"relations,omitempty"`
}

// Want narrows the stream.
type Want struct {
	Language string      // only this language; "" for all
	Reach    model.Reach // only what is at least this visible
	Links    *link.Index // where set, lines tell relations as well
}

// Write writes the occurrences of the project, in the order of libraries, files and lines.
func Write(w io.Writer, p *model.Project, want Want) error {
	buffered := bufio.NewWriterSize(w, 1<<16)
	out := json.NewEncoder(buffered)
	out.SetEscapeHTML(false)
	for _, lib := range p.Libraries {
		declared := declarations(lib)
		for _, f := range lib.Files {
			if want.Language != "" && want.Language != f.Language {
				continue
			}
			for i := range f.Occurrences {
				o := &f.Occurrences[i]
				d := declared[o]
				if d == nil || o.FromComment || o.Local || !want.Reach.Includes(effective(d)) {
					continue
				}
				line := symbol(lib.Library, d, model.At{Occurrence: o, File: f})
				if want.Links != nil && speaks(d).Occurrence == o {
					line.Relations = relations(want.Links, d)
				}
				if err := out.Encode(line); err != nil {
					return err
				}
			}
		}
	}
	return buffered.Flush()
}

func declarations(lib *model.Contents) map[*model.Occurrence]*model.Declaration {
	of := map[*model.Occurrence]*model.Declaration{}
	for _, list := range [][]*model.Module{lib.Modules, lib.Tests} {
		for _, m := range list {
			for d := range m.Declarations {
				for _, o := range d.AsWritten() {
					of[o.Occurrence] = d
				}
			}
		}
	}
	return of
}

// speaks is the declaration's own occurrence that speaks for it, whoever's words it has.
func speaks(d *model.Declaration) model.At {
	if d.IsSecond() {
		return d.AsWritten()[0]
	}
	return d.Speaks(model.Words)
}

func symbol(lib *model.Library, d *model.Declaration, o model.At) *Symbol {
	s := &Symbol{
		File: o.File.Path, Line: o.Line, Language: o.File.Language, Module: d.Module.Path, Kind: o.Kind.String(),
		Name: o.Name, Scope: o.Scope, Visibility: o.Visibility.String(), Documented: o.Attached(), ID: d.ID(),
		Library: lib.Name, Role: o.File.Role.String(), Effective: effective(d).String(),
		Signature: o.Signature.Text(o.File.Text), Span: [2]int32{o.Span.Start, o.Span.End}, NameSpan: [2]int32{o.NameSpan.Start, o.NameSpan.End},
		Modifiers: o.Modifiers(), Section: o.Section(), Conditions: o.File.Conditions, TypeParams: names(o.TypeParams()),
		Deprecated: o.Deprecated, Variadic: o.Variadic, Embedded: o.Embedded, Generated: o.File.Generated,
	}
	if len(o.Conditions()) > 0 {
		s.Conditions = append(slices.Clone(s.Conditions), o.Conditions()...)
	}
	if lib.Habits.Lists {
		given := exported(o)
		s.Exported = &given
	} else if d.Module.Internal && o.Visibility == model.Public {
		s.Visibility = model.Internal.String()
	}
	if o.Callable != nil {
		s.Receiver = o.Callable.Receiver.Text(o.File.Text)
		s.Params = make([]string, 0, len(o.Callable.Params))
		for _, p := range o.Callable.Params {
			s.Params = append(s.Params, p.Name)
		}
		s.Defaults = defaults(o.File, o.Callable.Params)
		for _, r := range o.Callable.Results {
			s.Results = append(s.Results, r.Type.Text(o.File.Text))
		}
	}
	for _, b := range o.Bases() {
		s.Bases, s.BasesAre = append(s.Bases, b.Type.Text(o.File.Text)), append(s.BasesAre, b.How.String())
	}
	if o.Doc != nil {
		s.Comment = o.Doc.Text
		for _, l := range o.Doc.Lines {
			s.CommentAt = append(s.CommentAt, l.Start, l.End)
		}
	}
	return s
}

// defaults are what parameters are where they are left out, one for each; nil where none
// says so.
func defaults(f *model.Facts, params []model.Param) []string {
	out := make([]string, len(params))
	any := false
	for i := range params {
		out[i] = params[i].Default.In(f.Text)
		any = any || out[i] != ""
	}
	if !any {
		return nil
	}
	return out
}

// exported reports whether the file exports the declaration, or the one at the
// top that it stands in.
func exported(o model.At) bool {
	at := o.Occurrence
	for depth := 0; at.Parent >= 0 && depth < 1000; depth++ {
		if at.Export == model.NotExported {
			return false
		}
		at = &o.File.Occurrences[at.Parent]
	}
	return at.Export != model.NotExported
}

func names(params []model.Param) []string {
	var out []string
	for _, p := range params {
		out = append(out, p.Name)
	}
	return out
}

// effective is the least of the visibilities of a declaration and of what encloses it. What
// is exported under another name alone is visible as what it is.
func effective(d *model.Declaration) model.Visibility {
	if d.Visibility != model.Internal || d.Module.Internal {
		return d.Visibility
	}
	v := model.Public
	for at := d; at != nil; at = at.Parent {
		own := at.Speaks(model.Words)
		if v = max(v, own.Visibility); at.Parent == nil && own.Export != model.Renamed {
			return d.Visibility
		}
	}
	return v
}
