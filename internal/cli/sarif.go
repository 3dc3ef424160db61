package cli

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"net/url"
	"strings"

	"codrel/internal/check"
	"codrel/internal/finding"
)

// This file writes findings as SARIF 2.1.0 (OASIS Static Analysis Results Interchange
// Format): the parts of it that say something here.

const (
	sarifSchema  = "https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json"
	sarifVersion = "2.1.0"
	// sarifRoot stands for the project's folder: addresses are from there (3.14.14).
	sarifRoot = "%SRCROOT%"
	// sarifPrint names how a finding is known again, whatever its line (3.27.17).
	sarifPrint = "codrel/v1"
)

type sarifLog struct {
	Schema  string     `json:"$schema"`
	Version string     `json:"version"`
	Runs    []sarifRun `json:"runs"`
}

type sarifRun struct {
	Tool       sarifTool            `json:"tool"`
	ColumnKind string               `json:"columnKind"`
	Bases      map[string]sarifBase `json:"originalUriBaseIds"`
	Results    []sarifResult        `json:"results"`
}

type sarifBase struct {
	Description sarifText `json:"description"`
}

type sarifTool struct {
	Driver sarifDriver `json:"driver"`
}

type sarifDriver struct {
	Name    string      `json:"name"`
	Version string      `json:"version"`
	Rules   []sarifRule `json:"rules"`
}

type sarifRule struct {
	ID            string       `json:"id"`
	Short         sarifText    `json:"shortDescription"`
	Full          sarifText    `json:"fullDescription"`
	Configuration sarifDefault `json:"defaultConfiguration"`
}

type sarifDefault struct {
	Level string `json:"level"`
}

type sarifText struct {
	Text string `json:"text"`
}

type sarifResult struct {
	Rule    string            `json:"ruleId"`
	Index   int               `json:"ruleIndex"`
	Level   string            `json:"level"`
	Message sarifText         `json:"message"`
	Places  []sarifLocation   `json:"locations"`
	Related []sarifLocation   `json:"relatedLocations,omitempty"`
	Prints  map[string]string `json:"partialFingerprints"`
	Fixes   []sarifFix        `json:"fixes,omitempty"`
}

type sarifLocation struct {
	ID       int           `json:"id,omitempty"`
	Physical sarifPhysical `json:"physicalLocation"`
	Message  *sarifText    `json:"message,omitempty"`
}

type sarifPhysical struct {
	Artifact sarifArtifact `json:"artifactLocation"`
	Region   *sarifRegion  `json:"region,omitempty"`
}

type sarifArtifact struct {
	URI  string `json:"uri"`
	Base string `json:"uriBaseId"`
}

type sarifRegion struct {
	StartLine   int `json:"startLine"`
	StartColumn int `json:"startColumn,omitempty"`
	EndLine     int `json:"endLine,omitempty"`
	EndColumn   int `json:"endColumn,omitempty"`
}

type sarifFix struct {
	Description sarifText     `json:"description"`
	Changes     []sarifChange `json:"artifactChanges"`
}

type sarifChange struct {
	Artifact     sarifArtifact      `json:"artifactLocation"`
	Replacements []sarifReplacement `json:"replacements"`
}

type sarifReplacement struct {
	Deleted  sarifRegion `json:"deletedRegion"`
	Inserted sarifText   `json:"insertedContent"`
}

func (a *app) sarif(list []finding.Finding) error {
	run := sarifRun{
		Tool:       sarifTool{sarifDriver{Name: "Codrel", Version: Version}},
		ColumnKind: "unicodeCodePoints",
		Bases:      map[string]sarifBase{sarifRoot: {sarifText{"The folder of the project."}}},
		Results:    []sarifResult{},
	}
	rules := map[string]int{}
	for i, r := range check.Rules {
		rules[r.Name] = i
		run.Tool.Driver.Rules = append(run.Tool.Driver.Rules, sarifRule{
			ID: r.Name, Short: sarifText{r.Summary}, Full: sarifText{r.Explanation}, Configuration: sarifDefault{r.Default.String()},
		})
	}
	seen := map[string]int{}
	for i := range list {
		run.Results = append(run.Results, sarifResultOf(&list[i], rules, seen))
	}
	out := json.NewEncoder(a.stdout)
	out.SetEscapeHTML(false)
	out.SetIndent("", "  ")
	return out.Encode(sarifLog{Schema: sarifSchema, Version: sarifVersion, Runs: []sarifRun{run}})
}

func sarifResultOf(f *finding.Finding, rules, seen map[string]int) sarifResult {
	r := sarifResult{
		Rule: f.Rule, Index: rules[f.Rule], Level: f.Severity.String(), Message: sarifText{check.Text(f)},
		Places: []sarifLocation{sarifLocationOf(f.Place)}, Prints: map[string]string{sarifPrint: fingerprint(f, seen)},
	}
	for _, o := range f.Others { // the cause is gone only when all of them are put right (3.27.12)
		r.Places = append(r.Places, sarifLocationOf(o))
	}
	for i, related := range f.Related {
		at := sarifLocationOf(related.Place)
		at.ID = i + 1
		if related.Label != "" {
			at.Message = &sarifText{related.Label}
		}
		r.Related = append(r.Related, at)
	}
	for _, e := range f.Edits {
		r.Fixes = append(r.Fixes, sarifFix{
			Description: sarifText{fmt.Sprintf("Write %q instead.", e.Text)},
			Changes: []sarifChange{{
				Artifact:     sarifArtifactOf(e.Place.File),
				Replacements: []sarifReplacement{{*sarifRegionOf(e.Place), sarifText{e.Text}}},
			}},
		})
	}
	return r
}

func sarifLocationOf(at finding.Place) sarifLocation {
	return sarifLocation{Physical: sarifPhysical{Artifact: sarifArtifactOf(at.File), Region: sarifRegionOf(at)}}
}

// sarifArtifactOf is a file by its address from the project's folder.
func sarifArtifactOf(file string) sarifArtifact {
	parts := strings.Split(file, "/")
	for i, part := range parts {
		parts[i] = url.PathEscape(part)
	}
	return sarifArtifact{URI: strings.Join(parts, "/"), Base: sarifRoot}
}

// sarifRegionOf is where a place begins and ends; nil where only its file is known.
func sarifRegionOf(at finding.Place) *sarifRegion {
	if at.At.Line < 1 {
		return nil
	}
	r := &sarifRegion{StartLine: at.At.Line, StartColumn: at.At.Column}
	if at.End.Line >= at.At.Line {
		r.EndLine, r.EndColumn = at.End.Line, at.End.Column
	}
	return r
}

// fingerprint tells a finding from others by what it says of what, and not by its line.
// Several that say the same are counted.
func fingerprint(f *finding.Finding, seen map[string]int) string {
	of := f.Subject
	if of == "" {
		of = f.Place.File
	}
	said := []string{f.Rule, f.Form, of}
	for _, a := range f.Arguments {
		said = append(said, a.Name, a.Value)
	}
	key := strings.Join(said, "\x00")
	seen[key]++
	sum := sha256.Sum256(fmt.Appendf(nil, "%s\x00%d", key, seen[key]))
	return hex.EncodeToString(sum[:16])
}
