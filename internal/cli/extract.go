package cli

import (
	"fmt"
	"slices"

	"github.com/spf13/cobra"

	"codrel/internal/build"
	"codrel/internal/check"
	"codrel/internal/finding"
	"codrel/internal/languages"
	"codrel/internal/model"
	"codrel/internal/nearest"
	"codrel/internal/render/stream"
)

func (a *app) extractCommand() *cobra.Command {
	var language, reach string
	var relations bool
	var documentation xmlFile
	var whole facts
	c := &cobra.Command{
		Use:   "extract [DIR]",
		Short: "Print every declaration as JSON Lines",
		Long: `Prints the symbol stream: one line of JSON for each declaration, in the order of
files and lines, tests included. "codrel schema stream" prints the JSON Schema of a
line. Unreadable files are reported on standard error.

With --whole, the stream has all that Codrel knows of each file, its text included: a
part from which "codrel build --from" builds the same site as from the source. With
--below, several machines can write a part each. With --from, the symbol stream is
printed from such parts.

With --xml, a library of C# is printed as the documentation file that editors read
beside it: every comment that users may see, under its compiler's identifiers.

With --relations, the main line of a declaration also has the IDs of what it extends,
implements, embeds and overrides, of what takes, returns and raises it, and of the
tests and pages that name it.`,
		Example: `  codrel extract engine --reach public
  codrel extract --whole --below engine > parts/engine.jsonl
  codrel extract --xml --library Tide > Tide.xml

  {"file":"berth/berth.go","line":41,"language":"go","module":"tidebook.example/engine/berth",
   "kind":"method","name":"Assign","scope":"Berth","params":["vessel"],"documented":true,...}`,
		Args: upTo(1, "folder"),
		RunE: func(c *cobra.Command, args []string) error {
			want := stream.Want{Language: language, Reach: model.ReachPrivate}
			if language != "" && !slices.Contains(languages.Names(), language) {
				if near := nearest.Word(language, languages.Names()); near != "" {
					return usage("there is no language %q; did you mean %q?", language, near)
				}
				return usage("there is no language %q; Codrel reads %s", language, list(languages.Names()))
			}
			if reach != "" {
				var ok bool
				if want.Reach, ok = model.ParseReach(reach); !ok {
					return usage("--reach must be public, protected, internal or private, not %q", reach)
				}
			}
			dir := "."
			if len(args) > 0 {
				dir = args[0]
			}
			if err := whole.check(c); err != nil {
				return err
			}
			if err := documentation.check(c, whole.written || relations); err != nil {
				return err
			}
			if documentation.asked {
				return a.extractXML(c, dir, documentation.library, whole.from)
			}
			if whole.written {
				return a.extractFacts(c.Context(), dir, whole.below)
			}
			return a.extract(c, dir, want, relations, whole.from)
		},
	}
	c.Flags().StringVar(&language, "language", "", "only this `LANGUAGE`")
	c.Flags().StringVar(&reach, "reach", "", "only declarations at least as visible as `REACH`: public, protected, internal, private (default private)")
	c.Flags().BoolVar(&relations, "relations", false, "add how each declaration relates to others")
	whole.flags(c)
	documentation.flags(c)
	_ = c.RegisterFlagCompletionFunc("language", cobra.FixedCompletions(languages.Names(), cobra.ShellCompDirectiveNoFileComp))
	_ = c.RegisterFlagCompletionFunc("reach", cobra.FixedCompletions([]string{"public", "protected", "internal", "private"}, cobra.ShellCompDirectiveNoFileComp))
	return c
}

func (a *app) extract(c *cobra.Command, dir string, want stream.Want, relations bool, from []string) error {
	p, err := a.open(dir)
	if err != nil {
		return err
	}
	defer p.Close()
	options := p.Read()
	options.Tests, options.Everything = true, true
	if len(from) > 0 {
		if options.Parts, err = p.ReadParts(c.Context(), from); err != nil {
			return err
		}
	}
	read := build.Read
	if relations {
		p.Settings.Reach = want.Reach
		options.Inside, read = true, build.Link
	}
	s, err := read(c.Context(), p.Files, options)
	p.bar.end()
	if err != nil {
		return err
	}
	if err := a.nothingRead(p, s); err != nil {
		return err
	}
	a.unreadable(p, s.Findings)
	want.Links = s.Links
	if err := stream.Write(a.stdout, s.Project, want); err != nil {
		return &exit{exitIO, err}
	}
	a.stages(s.Stats.Stages)
	if len(s.Findings) > 0 {
		return &exit{code: exitFindings}
	}
	return nil
}

// unreadable prints what could not be read.
func (a *app) unreadable(p *project, list []finding.Finding) {
	for i := range list {
		f := &list[i]
		fmt.Fprintf(a.stderr, "%s:%d:%d: error: %s [%s]\n", a.shownFile(p, f.Place.File), f.Place.At.Line, f.Place.At.Column, finding.OneLine(check.Text(f)), f.Rule)
	}
}
