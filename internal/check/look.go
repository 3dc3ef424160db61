package check

import "codrel/internal/finding"

// This file holds the rules on the site's look.

var faintAccent = Rule{
	Name: finding.FaintAccent, Default: finding.Warning, Language: "yaml",
	Summary: "the accent colour can hardly be read on one of the papers",
	Explanation: `Links are drawn in the accent, so it must stand out from the paper with a ratio
of 4.5 to 1 (WCAG 2.2, level AA), on the light paper and on the dark one. Each
scheme gets a lighter or darker shade of it; where that shade is so far off that
nobody would call it the same colour, this rule says which is used instead.`,
	Wrong: tidePackage + `-- codrel.yaml --
look: {accent: "#ffe14d"}
`,
	Right: tidePackage + `-- codrel.yaml --
look: {accent: "#0b6e6e"}
`,
	Messages: map[string]string{
		"": "the accent {accent} is too faint on the {scheme} paper ({ratio}:1, and 4.5:1 is needed); {used} is used there",
	},
}

var brokenLook = Rule{
	Name: finding.BrokenLook, Default: finding.Warning, Language: "yaml",
	Summary: "something that \"look:\" names cannot be used",
	Explanation: `A logo, CSS, HTML or a text of the pages that cannot be used is left out, so that
no page breaks: a file that is missing or too large, HTML with an element that is
not closed, anything that would ask the network or run foreign code, a key or a
language that there is not.`,
	Wrong: tidePackage + `-- codrel.yaml --
look: {style: docs/sea.css}
`,
	Right: tidePackage + `-- codrel.yaml --
look: {style: docs/sea.css}
-- docs/sea.css --
.prose { hyphens: auto; }
`,
	Messages: map[string]string{
		"":       "{file} is left out: {problem}",
		"colour": "{value} is no colour; write it as #rrggbb",
		"locale": "the pages have no words in {locale}; there are {all}",
		"text":   "the pages have no text with the key {key}{near}",
		"empty":  "the text {key} is empty; it stays \"{usual}\"",
		"slots":  "the text {key} must fill in the same as \"{usual}\"",
	},
}

// tidePackage is a package that no rule has anything to say of.
const tidePackage = `// Package tide predicts water levels.
package tide
`
