package cli

import (
	"fmt"
	"io"
	"slices"
	"strings"

	"github.com/spf13/cobra"

	"codrel/internal/model"
	"codrel/internal/nearest"
	"codrel/internal/render/modules"
)

// graphForms are the forms that the graph of modules can be printed in.
var graphForms = map[string]func(io.Writer, *modules.Graph) error{
	"text": modules.Text, "dot": modules.DOT, "svg": modules.SVG,
}

func (a *app) graphCommand() *cobra.Command {
	var form, library, around string
	var through bool
	c := &cobra.Command{
		Use:   "graph [DIR]",
		Short: "Print which modules import which",
		Long: `Prints the modules of the project and what they import of one another: as a
tree, in the DOT language for programs that draw graphs, or as a drawing in
layers (SVG). The tree expands a module once, where it stands first; import cycles
are listed at the end.`,
		Example: `  codrel graph
  codrel graph --library engine --form svg > modules.svg
  codrel graph --around tidebook.client

  tidebook.client
  ├── tidebook._wire
  │   └── tidebook.model
  └── tidebook.errors`,
		Args: upTo(1, "folder"),
		RunE: func(c *cobra.Command, args []string) error {
			write, ok := graphForms[form]
			if !ok {
				return usage("--form takes text, dot or svg, not %q", form)
			}
			dir := "."
			if len(args) > 0 {
				dir = args[0]
			}
			if through && around == "" {
				return usage("--through needs --around PATH: the module from which to go on")
			}
			s, err := a.linked(c.Context(), dir)
			if err != nil {
				return err
			}
			keep, err := wanted(s.Project, library, around)
			if err != nil {
				return err
			}
			return write(a.stdout, modules.New(s.Links, keep, around, through))
		},
	}
	c.Flags().StringVar(&form, "form", "text", "print as `FORM`: text, dot or svg")
	c.Flags().StringVar(&library, "library", "", "only the modules of the library `NAME`")
	c.Flags().StringVar(&around, "around", "", "only the module `PATH`, what it imports and what imports it")
	c.Flags().BoolVar(&through, "through", false, "with --around, also what is imported and imports through others")
	_ = c.RegisterFlagCompletionFunc("form", cobra.FixedCompletions([]string{"text", "dot", "svg"}, cobra.ShellCompDirectiveNoFileComp))
	return c
}

// wanted tells which modules are asked for, or that a name given is none.
func wanted(p *model.Project, library, around string) (func(*model.Module) bool, error) {
	var libraries, paths []string
	for _, lib := range p.Libraries {
		libraries = append(libraries, lib.Name)
		for _, m := range lib.Modules {
			paths = append(paths, m.Path)
		}
	}
	for _, given := range []struct {
		flag, name string
		known      []string
	}{{"--library", library, libraries}, {"--around", around, paths}} {
		if given.name == "" || slices.Contains(given.known, given.name) {
			continue
		}
		if near := nearest.Word(given.name, given.known); near != "" {
			return nil, usage("%s: there is no %q; did you mean %q?", given.flag, given.name, near)
		}
		few := given.known[:min(len(given.known), 8)]
		return nil, usage("%s: there is no %q; available: %s", given.flag, given.name, strings.Join(few, ", ")+more(len(given.known)-len(few)))
	}
	return func(m *model.Module) bool { return library == "" || m.Library.Name == library }, nil
}

func more(n int) string {
	if n <= 0 {
		return ""
	}
	return fmt.Sprintf(" and %d more", n)
}
