package cli

import (
	"bytes"

	"codrel/internal/finding"
	"codrel/internal/settings"
	"codrel/internal/workspace"
)

// Wrap opens wrap to the tests.
var Wrap = wrap

// Size opens size to the tests.
var Size = size

// List opens list to the tests.
var List = list

// Columns prints findings as a terminal of this width shows them.
func Columns(findings []finding.Finding, width int, colours bool) string {
	var out bytes.Buffer
	a := &app{stdout: &out, paint: painter(colours)}
	a.columns(&out, &project{Workspace: &workspace.Workspace{Settings: settings.Default()}}, findings, width)
	return out.String()
}

// AllowMemory opens allowMemory to the tests.
var AllowMemory = allowMemory
