package cli

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"github.com/spf13/cobra"

	"codrel/internal/model"
	"codrel/internal/nearest"
	"codrel/internal/proposal"
	"codrel/internal/settings"
	"codrel/internal/workspace"
)

// start is one run of init.
type start struct {
	*app
	dir      string
	name     string
	reach    string
	source   string
	site     string
	skip     []string
	add      []string
	yes      bool
	ignore   bool
	asked    func(flag string) bool // whether a flag is given
	stdin    io.Reader
	proposal *proposal.Proposal
	kept     bool // a git repository keeps the folder
}

func (a *app) initCommand() *cobra.Command {
	s := &start{app: a}
	c := &cobra.Command{
		Use:   "init [DIR]",
		Short: "Propose settings for a project and write codrel.yaml",
		Long: `Looks at the project in DIR (default: the current folder) and writes a codrel.yaml in
which each line has its reason beside it. On a terminal it asks for what it cannot know,
with a proposal for each answer; elsewhere, and with --yes, it takes its proposals. A file
that is there is never changed: the proposal is shown beside it.

Where it finds a build that may call Codrel it prints the lines for it; --add writes them.`,
		Example: `  codrel init
  codrel init --yes --name Tidebook --skip 'clients/old/**'
  codrel init --yes --add make,ci`,
		Args: upTo(1, "folder"),
		RunE: func(c *cobra.Command, args []string) error {
			s.dir, s.asked, s.stdin = ".", c.Flags().Changed, c.InOrStdin()
			if len(args) > 0 {
				s.dir = args[0]
			}
			return s.run(c.Context())
		},
	}
	flags := c.Flags()
	flags.StringVar(&s.name, "name", "", "the `NAME` of the project")
	flags.StringVar(&s.reach, "reach", "", "who its users are, `REACH`: public, protected, internal or private")
	flags.StringVar(&s.source, "source", "", "the `ADDRESS` of a source line, with {path}, {line} and {revision}; none for no links")
	flags.StringVar(&s.site, "site", "", "the `FOLDER` for the pages")
	flags.StringArrayVar(&s.skip, "skip", nil, "pass over files that match a `PATTERN`, besides what is proposed")
	flags.BoolVar(&s.ignore, "ignore-site", false, "add the site's folder to .gitignore")
	flags.StringSliceVar(&s.add, "add", nil, "write the lines for the build, `KINDS`: "+list(proposal.HookKinds))
	flags.BoolVarP(&s.yes, "yes", "y", false, "take all proposals, and ask nothing")
	_ = c.RegisterFlagCompletionFunc("reach", cobra.FixedCompletions(reaches, cobra.ShellCompDirectiveNoFileComp))
	_ = c.RegisterFlagCompletionFunc("add", cobra.FixedCompletions(proposal.HookKinds, cobra.ShellCompDirectiveNoFileComp))
	return c
}

var reaches = []string{model.ReachPublic.String(), model.ReachProtected.String(), model.ReachInternal.String(), model.ReachPrivate.String()}

func (s *start) run(ctx context.Context) error {
	if err := s.propose(ctx); err != nil {
		return err
	}
	file := filepath.Join(s.dir, settings.FileName)
	if was, err := os.ReadFile(file); err == nil {
		s.found()
		if err := s.beside(file, string(was)); err != nil {
			return err
		}
		return s.hang()
	} else if !errors.Is(err, fs.ErrNotExist) {
		return &exit{exitIO, err}
	}
	s.found()
	if !s.yes && isTerminal(s.stdout) && isTerminal(s.stdin) {
		if err := s.ask(ctx); err != nil {
			return err
		}
	}
	if err := s.write(file); err != nil {
		return err
	}
	if err := s.ignoreSite(); err != nil {
		return err
	}
	if err := s.hang(); err != nil {
		return err
	}
	s.say("\nNext: %s\n", s.command("build"))
	return nil
}

// say prints what a quiet run does not.
func (s *start) say(format string, args ...any) {
	if !s.quiet {
		fmt.Fprintf(s.stdout, format, args...)
	}
}

// command is how a command is called for the folder.
func (s *start) command(name string) string {
	if s.dir == "." {
		return "codrel " + name
	}
	return "codrel " + name + " " + s.shownPath(s.dir)
}

// propose makes the proposal, with what the flags say in it.
func (s *start) propose(ctx context.Context) error {
	p, kept, err := workspace.Propose(ctx, s.dir)
	if err != nil {
		return err
	}
	if len(p.Libraries) == 0 {
		return nothingIn(os.DirFS(s.dir), s.shownPath(s.dir))
	}
	s.kept = kept
	s.proposal = p
	for _, flag := range []struct {
		name string
		set  func(text string) error
		text string
	}{
		{"name", s.setName, s.name}, {"reach", s.setReach, s.reach}, {"source", s.setSource, s.source}, {"site", s.setSite, s.site},
	} {
		if s.asked(flag.name) {
			if err := flag.set(flag.text); err != nil {
				return usage("--%s: %v", flag.name, err)
			}
		}
	}
	for _, pattern := range s.skip {
		p.Skip = append(p.Skip, proposal.Value{Text: pattern, Reason: "as you said"})
	}
	for _, kind := range s.add {
		if !slices.Contains(proposal.HookKinds, kind) {
			if near := nearest.Word(kind, proposal.HookKinds); near != "" {
				return usage("--add: there is no %q; did you mean %q?", kind, near)
			}
			return usage("--add: there is no %q; available: %s", kind, strings.Join(proposal.HookKinds, ", "))
		}
		if !slices.ContainsFunc(p.Hooks, func(h proposal.Hook) bool { return h.Kind == kind }) {
			return usage("--add %s: nothing at the top of %s calls for it", kind, s.shownPath(s.dir))
		}
	}
	return nil
}

func (s *start) setName(text string) error {
	if strings.TrimSpace(text) == "" {
		return errors.New("a project needs a name")
	}
	s.proposal.Name = proposal.Value{Text: strings.TrimSpace(text), Reason: "as you said"}
	return nil
}

func (s *start) setReach(text string) error {
	if !slices.Contains(reaches, text) {
		return fmt.Errorf("it must be %s or %s, not %q", strings.Join(reaches[:3], ", "), reaches[3], text)
	}
	s.proposal.Reach.Text = text
	return nil
}

func (s *start) setSource(text string) error {
	if text == "none" {
		s.proposal.Source = proposal.Value{}
		return nil
	}
	if !strings.Contains(text, "://") || !strings.Contains(text, "{path}") {
		return errors.New("it must be an address with {path} in it, such as https://forge.example/name/blob/main/{path}#L{line}, or none")
	}
	s.proposal.Source = proposal.Value{Text: text, Reason: "as you said"}
	return nil
}

func (s *start) setSite(text string) error {
	clean := filepath.ToSlash(filepath.Clean(text))
	if text == "" || clean == "." || clean == ".." || strings.HasPrefix(clean, "../") || filepath.IsAbs(text) {
		return fmt.Errorf("it must be a folder of its own in the project, not %q", text)
	}
	s.proposal.Site.Text = clean
	return nil
}

// mostFound is how many libraries are printed.
const mostFound = 12

// found prints what there is to read, and what is passed over.
func (s *start) found() {
	p := s.proposal
	width, wide := 0, 0
	for _, lib := range p.Libraries[:min(len(p.Libraries), mostFound)] {
		width, wide = max(width, len(lib.Name)), max(wide, len(lib.Language))
	}
	s.say("Found %s:\n", libraries(len(p.Libraries)))
	for i, lib := range p.Libraries {
		if i == mostFound {
			s.say("  and %d more\n", len(p.Libraries)-i)
			break
		}
		s.say("  %-*s  %-*s  %s\n", width, lib.Name, wide, lib.Language, counted(lib.Files, "file"))
	}
	if len(p.Skip) > 0 {
		s.say("Passing over:\n")
		for _, v := range p.Skip {
			s.say("  %s  (%s)\n", v.Text, v.Reason)
		}
	}
	s.say("\n")
}

func libraries(n int) string {
	if n == 1 {
		return "1 library"
	}
	return fmt.Sprintf("%d libraries", n)
}

// write writes the settings where there are none.
func (s *start) write(file string) error {
	f, err := os.OpenFile(file, os.O_WRONLY|os.O_CREATE|os.O_EXCL, 0o644)
	if err != nil {
		return &exit{exitIO, err}
	}
	_, err = io.WriteString(f, s.proposal.Text())
	if err = errors.Join(err, f.Close()); err != nil {
		return &exit{exitIO, err}
	}
	s.say("Wrote %s.\n", s.shownPath(file))
	return nil
}

// beside shows the proposal beside the settings that are there.
func (s *start) beside(file, was string) error {
	shown := s.shownPath(file)
	if was == s.proposal.Text() {
		s.say("%s is there already, as it would be proposed.\n", shown)
		return nil
	}
	fmt.Fprintf(s.stdout, "%s is there already and stays as it is. The proposal beside it:\n\n", shown)
	return s.diff(was, s.proposal.Text(), shown, "proposal")
}

// ignoreSite adds the folder of the site to .gitignore, if that is wanted and not there.
func (s *start) ignoreSite() error {
	if !s.ignore {
		return nil
	}
	file := filepath.Join(s.dir, ".gitignore")
	data, err := os.ReadFile(file)
	if err != nil && !errors.Is(err, fs.ErrNotExist) {
		return &exit{exitIO, err}
	}
	line := "/" + s.proposal.Site.Text + "/"
	for has := range strings.Lines(string(data)) {
		if has = strings.TrimSpace(has); strings.Trim(has, "/") == s.proposal.Site.Text {
			return nil
		}
	}
	end := "\n"
	if strings.Contains(string(data), "\r\n") {
		end = "\r\n"
	}
	if len(data) > 0 && data[len(data)-1] != '\n' {
		line = end + line
	}
	if err := appendTo(file, line+end); err != nil {
		return &exit{exitIO, err}
	}
	s.say("Added %s to %s.\n", strings.TrimSpace(line), s.shownPath(file))
	return nil
}

func appendTo(file, text string) error {
	f, err := os.OpenFile(file, os.O_WRONLY|os.O_CREATE|os.O_APPEND, 0o644)
	if err != nil {
		return err
	}
	_, err = io.WriteString(f, text)
	return errors.Join(err, f.Close())
}

// hang prints, or with --add writes, the lines by which the project's build calls Codrel.
func (s *start) hang() error {
	var open []proposal.Hook
	for _, h := range s.proposal.Hooks {
		file := filepath.Join(s.dir, h.File)
		switch {
		case h.There && slices.Contains(s.add, h.Kind):
			s.say("%s has it already: %s.\n", s.shownPath(file), h.Usage)
		case h.There:
		case !slices.Contains(s.add, h.Kind):
			open = append(open, h)
		default:
			if err := s.hook(&h, file); err != nil {
				return err
			}
			s.say("Added to %s: %s.\n", s.shownPath(file), h.Usage)
		}
	}
	if len(open) == 0 {
		return nil
	}
	var kinds []string
	for _, h := range open {
		kinds = append(kinds, h.Kind)
	}
	s.say("\nThe project's own build can call Codrel. Lines for it, which --add %s writes:\n", strings.Join(kinds, ","))
	for _, h := range open {
		s.say("\n%s (%s)\n", s.paint.code("1", h.File), h.Usage)
		for line := range strings.Lines(strings.Trim(h.Lines, "\n") + "\n") {
			s.say("    %s", line)
		}
	}
	return nil
}

func (s *start) hook(h *proposal.Hook, file string) error {
	data, err := os.ReadFile(file)
	if err != nil && !errors.Is(err, fs.ErrNotExist) {
		return &exit{exitIO, err}
	}
	mode := fs.FileMode(0o644)
	if info, err := os.Stat(file); err == nil {
		mode = info.Mode().Perm()
	}
	out, err := h.Into(data)
	if err != nil {
		return usage("--add %s: %v", h.Kind, err)
	}
	if err := os.WriteFile(file, out, mode); err != nil {
		return &exit{exitIO, err}
	}
	return nil
}

// ask asks for what nobody can know from the files, each with its proposal.
func (s *start) ask(ctx context.Context) error {
	answers := readLines(s.stdin)
	p := s.proposal
	source := p.Source.Text
	if source == "" {
		source = "none"
	}
	for _, q := range []struct {
		flag, text, proposed string
		set                  func(string) error
	}{
		{"name", "Name of the project", p.Name.Text, s.setName},
		{"reach", "Pages show what is public, protected, internal or private", p.Reach.Text, s.setReach},
		{"source", "Address of a source line, or none", source, s.setSource},
		{"site", "Folder of the site", p.Site.Text, s.setSite},
		{"ignore-site", "Keep that folder out of git, yes or no", "yes", s.setIgnore},
	} {
		if s.asked(q.flag) || q.flag == "ignore-site" && !s.kept {
			continue
		}
		for {
			fmt.Fprintf(s.stdout, "%s [%s]: ", q.text, s.paint.code("1", q.proposed))
			var answer string
			select {
			case <-ctx.Done():
				fmt.Fprintln(s.stdout)
				return ctx.Err()
			case line, more := <-answers:
				if !more {
					fmt.Fprintln(s.stdout)
					return usage("the answers ended; \"codrel init --yes\" takes the proposals")
				}
				answer = strings.TrimSpace(line)
			}
			if answer == "" {
				if q.flag == "ignore-site" {
					s.ignore = true
				}
				break
			}
			err := q.set(answer)
			if err == nil {
				break
			}
			fmt.Fprintf(s.stdout, "  %v\n", err)
		}
	}
	fmt.Fprintln(s.stdout)
	return nil
}

func (s *start) setIgnore(text string) error {
	switch strings.ToLower(text) {
	case "y", "yes":
		s.ignore = true
	case "n", "no":
		s.ignore = false
	default:
		return errors.New("yes or no")
	}
	return nil
}

// readLines hands lines over as they come, so that whoever waits for one can be stopped.
func readLines(r io.Reader) <-chan string {
	out := make(chan string)
	go func() {
		defer close(out)
		for lines := bufio.NewScanner(r); lines.Scan(); {
			out <- lines.Text()
		}
	}()
	return out
}
