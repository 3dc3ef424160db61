package cli

import (
	"fmt"
	"slices"
	"strings"

	"github.com/spf13/cobra"

	"codrel/internal/finding"
	"codrel/internal/model"
	"codrel/internal/nearest"
	"codrel/internal/render/plan"
	"codrel/internal/search"
)

func (a *app) findCommand() *cobra.Command {
	var dir string
	var most int
	c := &cobra.Command{
		Use:   "find QUERY...",
		Short: "Search for names in the terminal",
		Long: `Finds modules and declarations by exact name, prefix, initials (bA finds
berthAssign), a word inside the name, or words of the first sentence; one typing
error is forgiven. Names may be qualified (plan.assign). Filters: kind:method,
in:berth, takes:Vessel, gives:error. The exit code is 1 if nothing is found.`,
		Example: `  codrel find assign
  codrel find plan.assign
  codrel find kind:function gives:Curve

  Plan.Assign  method in tidebook.example/engine/berth
      Assign finds a vessel a berth from a moment on.`,
		Args: some("a name to search for", "codrel find plan.assign"),
		RunE: func(c *cobra.Command, args []string) error {
			if most < 1 {
				return usage("--most must be 1 or more, not %d", most)
			}
			if err := knownKind(strings.Join(args, " ")); err != nil {
				return err
			}
			s, err := a.linked(c.Context(), dir)
			if err != nil {
				return err
			}
			pages := plan.New(s.Links, plan.Options{Findings: -1})
			return a.find(pages, strings.Join(args, " "), most)
		},
	}
	c.Flags().StringVar(&dir, "dir", ".", "search the project in `DIR`")
	c.Flags().IntVar(&most, "most", 10, "print at most `N` results")
	return c
}

// knownKind is the error of a query that asks for a kind that there is not.
func knownKind(query string) error {
	kind := search.Parse(query).Kind
	words := append(model.KindWords(), search.GuideKind)
	if kind == "" || slices.ContainsFunc(words, func(word string) bool { return strings.HasPrefix(word, kind) }) {
		return nil
	}
	if near := nearest.Word(kind, words); near != "" {
		return usage("there is no kind %q; did you mean %q?", kind, near)
	}
	return usage("there is no kind %q; the kinds are %s", kind, list(words))
}

func (a *app) find(pages *plan.Plan, query string, most int) error {
	entries := slices.Collect(pages.SearchEntries())
	hits := search.Find(entries, query, "", most)
	if len(hits) == 0 {
		fmt.Fprintf(a.stderr, "codrel: nothing found for %q among %s", query, counted(len(entries), "name"))
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
		kind := strings.ReplaceAll(h.Kind, "-", " ")
		if h.Deprecated {
			kind += ", deprecated,"
		}
		place := kind
		switch {
		case h.Kind == "module":
			place += " " + h.Module
		case h.Place != "":
			place += " in " + h.Place
		}
		fmt.Fprintf(a.stdout, "%s  %s\n", a.paint.code("1", name), a.paint.code("2", place))
		if h.Summary != "" {
			fmt.Fprintf(a.stdout, "    %s\n", finding.OneLine(h.Summary))
		}
	}
	return nil
}
