package cli

import (
	"fmt"
	"strings"

	"github.com/spf13/cobra"

	"codrel/internal/render/plan"
	"codrel/internal/search"
)

func (a *app) findCommand() *cobra.Command {
	var dir string
	var most int
	c := &cobra.Command{
		Use:   "find QUERY...",
		Short: "Look a name up in the terminal, as the pages' search does",
		Long: `Finds modules and declarations of the project by name: exact, by its beginning,
by its humps (bA finds berthAssign), by a word inside it, by words of its first
sentence, and past a slip of the finger. A name may be written with those around
it (plan.assign). Filters narrow it: kind:method, in:berth, takes:Vessel,
gives:error. The exit code is 1 where nothing is found.`,
		Example: `  codrel find assign
  codrel find plan.assign
  codrel find kind:function gives:Curve

  Plan.Assign  method in tidebook.example/engine/berth
      Assign finds a vessel a berth from a moment on.`,
		Args: cobra.MinimumNArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			if most < 1 {
				return usage("--most takes a number of hits from 1, not %d", most)
			}
			s, err := a.linked(c.Context(), dir)
			if err != nil {
				return err
			}
			pages := plan.New(s.Links, plan.Options{Findings: -1})
			return a.find(pages, strings.Join(args, " "), most)
		},
	}
	c.Flags().StringVar(&dir, "dir", ".", "look in the project in `DIR`")
	c.Flags().IntVar(&most, "most", 10, "print at most `N` hits")
	return c
}

func (a *app) find(pages *plan.Plan, query string, most int) error {
	entries := pages.SearchEntries()
	hits := search.Find(entries, query, "", most)
	if len(hits) == 0 {
		fmt.Fprintf(a.stderr, "codrel: nothing is found for %q among %s", query, counted(len(entries), "name"))
		if near := search.Nearest(entries, query); len(near) > 0 {
			fmt.Fprintf(a.stderr, "; nearest: %s", list(near))
		}
		fmt.Fprintln(a.stderr)
		return &exit{code: exitFindings}
	}
	for _, h := range hits {
		name := h.Name
		if h.Scope != "" {
			name = h.Scope + "." + name
		}
		kind := h.Kind
		if h.Deprecated {
			kind += ", deprecated,"
		}
		place := kind + " in " + h.Place
		if h.Kind == "module" {
			place = kind + " " + h.Module
		}
		fmt.Fprintf(a.stdout, "%s  %s\n", a.paint.code("1", name), a.paint.code("2", place))
		if h.Summary != "" {
			fmt.Fprintf(a.stdout, "    %s\n", oneLine(h.Summary))
		}
	}
	return nil
}
