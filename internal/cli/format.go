package cli

import (
	"encoding/json"
	"slices"

	"github.com/spf13/cobra"

	"codrel/internal/check"
	"codrel/internal/finding"
	"codrel/internal/nearest"
)

// This file writes findings for programs as JSON Lines; sarif.go writes them as SARIF.

var formats = []string{"text", "jsonl", "sarif"}

func addFormat(c *cobra.Command, to *string) {
	c.Flags().StringVar(to, "format", "text", "print findings as `FORMAT`: text, jsonl or sarif")
	_ = c.RegisterFlagCompletionFunc("format", cobra.FixedCompletions(formats, cobra.ShellCompDirectiveNoFileComp))
}

// setFormat checks the word; the formats for programs come without any other text.
func (a *app) setFormat(format string) error {
	if !slices.Contains(formats, format) {
		if near := nearest.Word(format, formats); near != "" {
			return usage("there is no format %q; did you mean %q?", format, near)
		}
		return usage("--format must be text, jsonl or sarif, not %q", format)
	}
	a.format = format
	a.quiet = a.quiet || format != "text"
	return nil
}

// line is one finding in JSON Lines.
type line struct {
	File     string  `json:"file"`
	Line     int     `json:"line"`
	Column   int     `json:"column"`
	Severity string  `json:"severity"`
	Rule     string  `json:"rule"`
	Message  string  `json:"message"`
	Subject  string  `json:"subject,omitempty"`
	Related  []place `json:"related,omitempty"`
	Others   []place `json:"others,omitempty"` // further places of the same cause
}

type place struct {
	File   string `json:"file"`
	Line   int    `json:"line"`
	Column int    `json:"column"`
	Label  string `json:"label,omitempty"`
}

func (a *app) jsonLines(p *project, list []finding.Finding) error {
	out := json.NewEncoder(a.stdout)
	out.SetEscapeHTML(false)
	for i := range list {
		f := &list[i]
		l := line{
			File: a.shownFile(p, f.Place.File), Line: f.Place.At.Line, Column: f.Place.At.Column,
			Severity: f.Severity.String(), Rule: f.Rule, Message: check.Text(f), Subject: f.Subject,
		}
		for _, r := range f.Related {
			l.Related = append(l.Related, place{a.shownFile(p, r.Place.File), r.Place.At.Line, r.Place.At.Column, r.Label})
		}
		for _, o := range f.Others {
			l.Others = append(l.Others, place{a.shownFile(p, o.File), o.At.Line, o.At.Column, ""})
		}
		if err := out.Encode(l); err != nil {
			return err
		}
	}
	return nil
}
