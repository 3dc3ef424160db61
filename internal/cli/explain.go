package cli

import (
	"fmt"
	"strings"

	"github.com/spf13/cobra"

	"codrel/internal/check"
	"codrel/internal/languages"
	"codrel/internal/render/stream"
	"codrel/internal/settings"
	"codrel/internal/symbols"
)

func (a *app) explainCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "explain [RULE]",
		Short: "List the rules, or explain one with examples",
		Long: `Without a rule, lists all rules with their default severities. With a rule, explains
why it matters, and shows source that causes a finding and the corrected source.`,
		Example: `  codrel explain
  codrel explain broken-reference`,
		Args:              upTo(1, "rule"),
		ValidArgsFunction: cobra.FixedCompletions(check.Names(), cobra.ShellCompDirectiveNoFileComp),
		RunE: func(_ *cobra.Command, args []string) error {
			if len(args) == 0 {
				a.listRules()
				return nil
			}
			rule := check.ByName(args[0])
			if rule == nil {
				return unknownRule(args[0])
			}
			a.explain(rule)
			return nil
		},
	}
}

func (a *app) listRules() {
	width := 0
	for _, name := range check.Names() {
		width = max(width, len(name))
	}
	indent := width + len("  warning  ")
	for _, r := range check.Rules {
		summary := r.Summary
		if isTerminal(a.stdout) {
			summary = strings.Join(wrap(summary, max(narrowest, terminalWidth(a.stdout)-indent)), "\n"+strings.Repeat(" ", indent))
		}
		fmt.Fprintf(a.stdout, "%s  %s  %s\n", a.paint.code("1", pad(r.Name, width)), a.paint.severity(r.Default, pad(r.Default.String(), len("warning"))), summary)
	}
	fmt.Fprintf(a.stdout, "\nTo change a severity, write in codrel.yaml, for example:\n\n  checks: {rules: {%s: off}}\n", check.Rules[0].Name)
}

func (a *app) explain(r *check.Rule) {
	fmt.Fprintf(a.stdout, "%s (%s): %s\n\n%s\n", a.paint.code("1", r.Name), a.paint.severity(r.Default, r.Default.String()), r.Summary, r.Explanation)
	fmt.Fprintf(a.stdout, "\nThis causes a finding:\n\n%s\nThis does not:\n\n%s", indent(r.Wrong), indent(r.Right))
	if r.OfPages() {
		fmt.Fprintf(a.stdout, "\nTo change its severity in some files, write in codrel.yaml, for example:\n\n    checks: {folders: [{path: \"docs/old/**\", rules: {%s: warning}}]}\n", r.Name)
		return
	}
	fmt.Fprintf(a.stdout, "\nTo let it pass for one declaration, write beside it, with your reason:\n\n%s", excuses(r.Name))
}

// excuses is the line that lets a rule pass, in the comment syntax of each language.
func excuses(rule string) string {
	var forms []string
	by := map[string][]string{}
	for _, end := range languages.All {
		form := end.Habits().Directive + "let " + rule + " pass, REASON"
		if by[form] == nil {
			forms = append(forms, form)
		}
		by[form] = append(by[form], end.Habits().Name)
	}
	width := 0
	for _, form := range forms {
		width = max(width, len(form))
	}
	var b strings.Builder
	for _, form := range forms {
		fmt.Fprintf(&b, "    %s   in %s\n", pad(form, width), list(by[form]))
	}
	return b.String()
}

func indent(text string) string {
	var b strings.Builder
	for line := range strings.Lines(text) {
		if strings.TrimSpace(line) != "" {
			b.WriteString("    ")
		}
		b.WriteString(line)
	}
	return b.String()
}

func (a *app) schemaCommand() *cobra.Command {
	schemas := map[string][]byte{"settings": settings.Schema, "stream": stream.Schema, "symbols": symbols.Schema}
	return &cobra.Command{
		Use:   "schema settings|stream|symbols",
		Short: "Print the JSON Schema of a file that Codrel reads or writes",
		Long: `Prints the JSON Schema (2020-12) of the settings file (settings), of a line of
"codrel extract" (stream), or of the symbols.json that each site has for the links of
other projects (symbols).`,
		Example: `  codrel schema settings > codrel.schema.json
  codrel schema symbols`,
		Args:      one("name", []string{"settings", "stream", "symbols"}),
		ValidArgs: []string{"settings", "stream", "symbols"},
		RunE: func(_ *cobra.Command, args []string) error {
			data, ok := schemas[args[0]]
			if !ok {
				return usage("there is no schema %q; available: settings, stream, symbols", args[0])
			}
			_, err := fmt.Fprintf(a.stdout, "%s\n", data)
			return err
		},
	}
}
