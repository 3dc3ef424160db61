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
or a file what it declares; of a guide, by its title or its file, the text with the excerpts
as the source has them, and by a heading what stands under it. Names may be qualified
(berth.Plan.Assign). No site is needed.
Names of other projects that the settings know are found where this one has none.
Several things of one name are listed with their places, which show one as well. On a
terminal what is longer than the screen goes through the pager that PAGER names. The exit
code is 1 if nothing has the name.`,
		Example: `  codrel show Plan.Assign
  codrel show engine/berth/berth.go
  codrel show engine/berth/plan.go:38
  codrel show tidebook.example/engine/tide
  codrel show "a first berth"`,
		Args: one("name", []string{"of a declaration, a module, a file or a guide"}),
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
	if file == nil && len(declared)+len(modules) == 0 {
		if g := s.Links.GuideCalled(name, pathsNamed(dir, name)); g != nil {
			w.Guide(g)
			return a.page(ctx, w.String())
		}
		declared, modules = namedOutside(s, name)
	}
	switch {
	case file != nil:
		w.File(file, declaredIn(s, file))
	case len(declared)+len(modules) == 0:
		return a.nothingNamed(s, name)
	case len(declared)+len(modules) > 1:
		a.candidates(declared, modules, dir, name)
		return nil
	case len(modules) == 1 && modules[0].Library.Elsewhere != nil:
		w.OutsideModule(modules[0])
	case len(modules) == 1:
		w.Module(modules[0])
	case declared[0].Module.Library.Elsewhere != nil:
		w.Outside(declared[0])
	default:
		w.Declaration(declared[0])
	}
	return a.page(ctx, w.String())
}

// placed is how the paths of files of the project in a folder are shown.
func (a *app) placed(dir string) func(file string) string {
	return func(file string) string { return a.shownPath(filepath.Join(dir, filepath.FromSlash(file))) }
}

// called gathers what a name may mean: of what has it as a whole no others count, and capitals
// count where some have it so.
type called struct {
	want     string
	best     int
	declared []*model.Declaration
	modules  []*model.Module
}

// takes reports whether what has a path, which is a whole path with all that it stands in, is
// one of those that the name may mean; all that have less of it are dropped.
func (c *called) takes(path, whole string) bool {
	rank := 0
	switch end := len(whole) - len(c.want); {
	case path == c.want || whole == c.want:
		rank = 4
	case strings.HasSuffix(whole, "."+c.want):
		rank = 3
	case strings.EqualFold(path, c.want) || strings.EqualFold(whole, c.want):
		rank = 2
	case end > 0 && whole[end-1] == '.' && strings.EqualFold(whole[end:], c.want):
		rank = 1
	}
	if rank == 0 || rank < c.best {
		return false
	}
	if rank > c.best {
		c.best, c.declared, c.modules = rank, nil, nil
	}
	return true
}

func (c *called) module(m *model.Module) {
	if c.takes(plainPath(m.Last()), plainPath(m.Path)) {
		c.modules = append(c.modules, m)
	}
}

// declaration takes one that is explained on the pages of a module.
func (c *called) declaration(home *model.Module, d *model.Declaration) {
	path := plainPath(d.Path())
	if c.takes(path, plainPath(home.Path)+"."+path) {
		c.declared = append(c.declared, d)
	}
}

// named are the declarations and modules in reach that a name may mean.
func named(s *build.Snapshot, name string) ([]*model.Declaration, []*model.Module) {
	c := called{want: plainPath(name)}
	for _, lib := range s.Project.Libraries {
		for _, m := range lib.Modules {
			if s.Links.ModuleInReach(m) && m.Role != model.RoleTest {
				c.module(m)
			}
			for d := range m.Declarations {
				if s.Links.InReach(d) && !d.Hidden {
					c.declaration(s.Links.Home(d), d)
				}
			}
		}
	}
	return c.declared, c.modules
}

// namedOutside are the declarations and modules of other projects that a name may mean.
func namedOutside(s *build.Snapshot, name string) ([]*model.Declaration, []*model.Module) {
	c := called{want: plainPath(name)}
	for m := range s.Links.OutsideModules {
		c.module(m)
		for d := range m.Declarations {
			c.declaration(m, d)
		}
	}
	return c.declared, c.modules
}

// plainPath is a path with dots between its parts, whatever a language writes there.
func plainPath(path string) string {
	return strings.Trim(separators.Replace(path), ".")
}

var separators = strings.NewReplacer("::", ".", "/", ".", "#", ".", "()", "")

// fileNamed is the file of the source that a path names.
func fileNamed(s *build.Snapshot, dir, name string) *model.Facts {
	for _, path := range pathsNamed(dir, name) {
		for f := range s.Project.Files {
			if f.Path == path {
				return f
			}
		}
	}
	return nil
}

// pathsNamed are the paths of the project that one may mean: seen from the folder of the user,
// and from that of the project.
func pathsNamed(dir, name string) (paths []string) {
	if abs, err := filepath.Abs(name); err == nil {
		if root, err := filepath.Abs(dir); err == nil {
			if rel, err := filepath.Rel(root, abs); err == nil {
				paths = append(paths, filepath.ToSlash(rel))
			}
		}
	}
	return append(paths, filepath.ToSlash(filepath.Clean(name)))
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
		of := m.Library.Name
		if at := m.Library.Elsewhere; at != nil {
			of += " (" + at.Project + ")"
		}
		fmt.Fprintf(a.stdout, "  %s  %s\n", a.paint.code("1", m.Path), a.paint.code("2", "module of "+of))
	}
	for _, d := range declared {
		at := d.Speaks(model.Words)
		if outside := d.Module.Library.Elsewhere; outside != nil {
			fmt.Fprintf(a.stdout, "  %s  %s\n", a.paint.code("1", d.Module.Path+"."+d.Path()), a.paint.code("2", d.Kind().Words()+" of "+outside.Project))
			continue
		}
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
