package cli

import (
	"fmt"
	"strings"

	"github.com/spf13/cobra"

	"codrel/internal/build"
	"codrel/internal/languages"
	"codrel/internal/model"
	"codrel/internal/nearest"
	"codrel/internal/render/editors"
	"codrel/internal/settings"
	"codrel/internal/xmldoc"
)

// xmlFile is what "codrel extract" is told about a documentation file.
type xmlFile struct {
	asked   bool
	library string
}

func (x *xmlFile) flags(c *cobra.Command) {
	c.Flags().BoolVar(&x.asked, "xml", false, "print the documentation file of a library of C#, for editors")
	c.Flags().StringVar(&x.library, "library", "", "with --xml, the `LIBRARY` where there are several")
}

func (x *xmlFile) check(c *cobra.Command, other bool) error {
	switch {
	case !x.asked && c.Flags().Changed("library"):
		return usage("--library goes with --xml")
	case x.asked && (other || c.Flags().Changed("language") || c.Flags().Changed("reach")):
		return usage("--xml prints one library by the reach of the settings: it does not go with --whole, --relations, --language or --reach")
	}
	return nil
}

// extractXML prints the documentation file of a library.
func (a *app) extractXML(c *cobra.Command, dir, library string, from []string) error {
	p, err := a.open(dir)
	if err != nil {
		return err
	}
	defer p.Close()
	options := p.Read()
	if len(from) > 0 {
		if options.Parts, err = p.ReadParts(c.Context(), from); err != nil {
			return err
		}
	}
	s, err := build.Link(c.Context(), p.Files, options)
	p.bar.end()
	if err != nil {
		return err
	}
	if err := a.nothingRead(p, s); err != nil {
		return err
	}
	lib, err := libraryOf(s.Project, "csharp", library)
	if err != nil {
		return err
	}
	made := editors.Make(s.Links, lib)
	if err := xmldoc.Write(a.stdout, &made.File); err != nil {
		return &exit{exitIO, err}
	}
	for _, b := range made.Broken {
		fmt.Fprintf(a.stderr, "%s:%d:%d: warning: the comment of %s is left out: it is not well-formed XML\n", a.shownFile(p, b.Place.File), b.Place.At.Line, b.Place.At.Column, b.ID)
	}
	if len(made.Unnamed) > 0 {
		fmt.Fprintf(a.stderr, "warning: the namespace of some types is unknown, so editors may not find members whose signatures name them: %s; name the documentation files of their libraries under \"elsewhere\" in %s\n", strings.Join(made.Unnamed, ", "), settings.FileName)
	}
	return nil
}

// libraryOf is the library of a language that has a name, or the only one.
func libraryOf(project *model.Project, language, name string) (*model.Contents, error) {
	var found []*model.Contents
	var names []string
	for _, lib := range project.Libraries {
		if lib.Language == language {
			if lib.Name == name {
				return lib, nil
			}
			found, names = append(found, lib), append(names, lib.Name)
		}
	}
	shown := languages.ByName(language).Habits().Name
	switch {
	case len(found) == 0:
		return nil, usage("the project has no library of %s", shown)
	case name != "":
		if near := nearest.Word(name, names); near != "" {
			return nil, usage("there is no library %q of %s; did you mean %q?", name, shown, near)
		}
		return nil, usage("there is no library %q of %s; available: %s", name, shown, strings.Join(names, ", "))
	case len(found) > 1:
		return nil, usage("there are several libraries of %s; say which one with --library: %s", shown, strings.Join(names, ", "))
	}
	return found[0], nil
}
