package cli

import (
	"context"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"

	"github.com/spf13/cobra"
	"golang.org/x/term"

	"codrel/internal/build"
	"codrel/internal/model"
	"codrel/internal/render/plan"
	"codrel/internal/render/terminal"
	"codrel/internal/search"
)

func (a *app) showCommand() *cobra.Command {
	var dir string
	c := &cobra.Command{
		Use:   "show NAME",
		Short: "Read the reference in the terminal",
		Long: `Shows what a name is: its signature, text, parameters, members and relations; of a module
or a file what it declares. Names may be qualified (berth.Plan.Assign). No site is needed.
Several things of one name are listed with their places, which show one as well. On a terminal what is longer than
the screen goes through the pager that PAGER names. The exit code is 1 if nothing has the name.`,
		Example: `  codrel show Plan.Assign
  codrel show engine/berth/berth.go
  codrel show engine/berth/plan.go:38
  codrel show tidebook.example/engine/tide`,
		Args: one("name", []string{"of a declaration, a module or a file"}),
		RunE: func(c *cobra.Command, args []string) error {
			s, err := a.linked(c.Context(), dir)
			if err != nil {
				return err
			}
			return a.showName(c.Context(), s, dir, args[0])
		},
	}
	c.Flags().StringVar(&dir, "dir", ".", "read the project in `DIR`")
	return c
}

// widestText is how long a line of text may be to be read well.
const widestText = 100

func (a *app) showName(ctx context.Context, s *build.Snapshot, dir, name string) error {
	width := 0
	if isTerminal(a.stdout) {
		width = min(widestText, max(narrowest, terminalWidth(a.stdout)))
	}
	w := terminal.New(s.Links, terminal.Options{FrontEnds: s.FrontEnds, Width: width, Styled: bool(a.paint), Place: a.placed(dir)})
	declared, modules := named(s, name)
	file := fileNamed(s, dir, name)
	if place, line, ok := strings.Cut(name, ":"); ok && file == nil && len(declared) == 0 {
		if n, err := strconv.Atoi(line); err == nil {
			declared = declaredAt(s, fileNamed(s, dir, place), n)
		}
	}
	switch {
	case file != nil:
		w.File(file, declaredIn(s, file))
	case len(declared)+len(modules) == 0:
		return a.nothingNamed(s, name)
	case len(declared)+len(modules) > 1:
		a.candidates(declared, modules, dir, name)
		return nil
	case len(modules) == 1:
		w.Module(modules[0])
	default:
		w.Declaration(declared[0])
	}
	return a.page(ctx, w.String())
}

// placed is how the paths of files of the project in a folder are shown.
func (a *app) placed(dir string) func(file string) string {
	return func(file string) string { return a.shownPath(filepath.Join(dir, filepath.FromSlash(file))) }
}

// named are the declarations and modules in reach that a name may mean: of those that have it as
// a whole no others count, and capitals count where some have it so.
func named(s *build.Snapshot, name string) (declared []*model.Declaration, modules []*model.Module) {
	want := plainPath(name)
	best := 0
	rank := func(path, whole string) int {
		switch {
		case path == want || whole == want:
			return 4
		case strings.HasSuffix(whole, "."+want):
			return 3
		case strings.EqualFold(path, want) || strings.EqualFold(whole, want):
			return 2
		case len(whole) > len(want) && whole[len(whole)-len(want)-1] == '.' && strings.EqualFold(whole[len(whole)-len(want):], want):
			return 1
		}
		return 0
	}
	take := func(r int) bool {
		if r == 0 || r < best {
			return false
		}
		if r > best {
			best, declared, modules = r, nil, nil
		}
		return true
	}
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			if s.Links.ModuleInReach(m) && m.Role != model.RoleTest {
				if take(rank(plainPath(m.Last()), plainPath(m.Path))) {
					modules = append(modules, m)
				}
			}
			for d := range m.Declarations {
				if s.Links.InReach(d) && !d.Hidden {
					path := plainPath(d.Path())
					if take(rank(path, plainPath(s.Links.Home(d).Path)+"."+path)) {
						declared = append(declared, d)
					}
				}
			}
		}
	}
	return declared, modules
}

// plainPath is a path with dots between its parts, whatever a language writes there.
func plainPath(path string) string {
	return strings.Trim(separators.Replace(path), ".")
}

var separators = strings.NewReplacer("::", ".", "/", ".", "#", ".", "()", "")

// fileNamed is the file of the source that a path names, seen from the folder of the user or of
// the project.
func fileNamed(s *build.Snapshot, dir, name string) *model.Facts {
	want := filepath.ToSlash(filepath.Clean(name))
	if abs, err := filepath.Abs(name); err == nil {
		if root, err := filepath.Abs(dir); err == nil {
			if rel, err := filepath.Rel(root, abs); err == nil {
				for f := range s.Project.Files {
					if f.Path == filepath.ToSlash(rel) {
						return f
					}
				}
			}
		}
	}
	for f := range s.Project.Files {
		if f.Path == want {
			return f
		}
	}
	return nil
}

// declaredIn are the declarations at the top of a file's module that the file has, by lines.
func declaredIn(s *build.Snapshot, f *model.Facts) (out []*model.Declaration) {
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			if !slices.Contains(m.Files, f) {
				continue
			}
			for d := range m.Declarations {
				if d.Parent == nil && s.Links.InReach(d) && d.Speaks(model.Words).File == f {
					out = append(out, d)
				}
			}
		}
	}
	slices.SortStableFunc(out, func(x, y *model.Declaration) int {
		return int(x.Speaks(model.Words).Line) - int(y.Speaks(model.Words).Line)
	})
	return out
}

// declaredAt is the declaration at a line of a file, or the last before it.
func declaredAt(s *build.Snapshot, f *model.Facts, line int) (out []*model.Declaration) {
	best := 0
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			if f == nil || !slices.Contains(m.Files, f) {
				continue
			}
			for d := range m.Declarations {
				for _, o := range d.Occurrences {
					if at := int(o.Line); o.File == f && at <= line && at > best && s.Links.InReach(d) {
						best, out = at, []*model.Declaration{d}
					}
				}
			}
		}
	}
	return out
}

// candidates lists what has a name.
func (a *app) candidates(declared []*model.Declaration, modules []*model.Module, dir, name string) {
	fmt.Fprintf(a.stdout, "%s names several things; more of the name, or the place of one, tells which:\n", name)
	for _, m := range modules {
		fmt.Fprintf(a.stdout, "  %s  %s\n", a.paint.code("1", m.Path), a.paint.code("2", "module of "+m.Library.Name))
	}
	for _, d := range declared {
		at := d.Speaks(model.Words)
		fmt.Fprintf(a.stdout, "  %s  %s\n", a.paint.code("1", d.Module.Path+"."+d.Path()), a.paint.code("2", fmt.Sprintf("%s, %s:%d", d.Kind().Words(), a.placed(dir)(at.File.Path), at.Line)))
	}
}

func (a *app) nothingNamed(s *build.Snapshot, name string) error {
	entries := slices.Collect(plan.New(s.Links, plan.Options{Findings: -1}).SearchEntries())
	fmt.Fprintf(a.stderr, "codrel: nothing is called %q among %s", name, counted(len(entries), "name"))
	if near := search.Nearest(entries, name); len(near) > 0 {
		fmt.Fprintf(a.stderr, "; nearest: %s", list(near))
	}
	fmt.Fprintln(a.stderr, `; "codrel find" searches`)
	return &exit{code: exitFindings}
}

// page prints a text, through the pager of the environment where it is longer than the terminal.
func (a *app) page(ctx context.Context, text string) error {
	pager, named := os.LookupEnv("PAGER")
	if !named {
		pager = "less"
	}
	if f, ok := a.stdout.(*os.File); ok && pager != "" && term.IsTerminal(int(f.Fd())) {
		if _, height, err := term.GetSize(int(f.Fd())); err == nil && strings.Count(text, "\n") >= height {
			c := exec.CommandContext(ctx, "sh", "-c", pager)
			c.Stdin, c.Stdout, c.Stderr = strings.NewReader(text), f, a.stderr
			c.Env = append(os.Environ(), "LESS=FRX")
			if c.Run() == nil {
				return nil
			}
		}
	}
	_, err := io.WriteString(a.stdout, text)
	return err
}
