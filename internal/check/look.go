package check

import "codrel/internal/finding"

// This file holds the rules on the site's look.

var faintAccent = Rule{
	Name: finding.FaintAccent, Default: finding.Warning, Language: "yaml",
	Summary: "the accent colour has too little contrast",
	Explanation: `Links are drawn in the accent colour, which must have a contrast of at least 4.5:1
with the background (WCAG 2.2, level AA), light and dark. Each scheme uses a lighter
or darker shade of it; where the shade no longer looks like the same colour, this
rule says which one is used.`,
	Wrong: tidePackage + `-- codrel.yaml --
look: {accent: "#ffe14d"}
`,
	Right: tidePackage + `-- codrel.yaml --
look: {accent: "#0b6e6e"}
`,
	Messages: map[string]string{
		"": "the accent {accent} has too little contrast in the {scheme} scheme ({ratio}:1; 4.5:1 is needed); {used} is used there",
	},
}

var brokenLook = Rule{
	Name: finding.BrokenLook, Default: finding.Warning, Language: "yaml",
	Summary: "something in the \"look:\" settings cannot be used",
	Explanation: `A logo, style, HTML file or text that cannot be used is left out, so that no page
breaks: a file that is missing or too large, HTML with an unclosed element, anything
that would load from the network or run a script, an unknown key or locale.`,
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
		"colour": "{value} is not a colour; write it as #rrggbb",
		"locale": "there are no texts for the locale {locale}; available: {all}",
		"text":   "there is no text with the key {key}{near}",
		"empty":  "the text {key} is empty; \"{usual}\" is used",
		"slots":  "the text {key} must have the same placeholders as \"{usual}\"",
	},
}

// tidePackage is a package that no rule has anything to say of.
const tidePackage = `// Package tide predicts water levels.
package tide
`
