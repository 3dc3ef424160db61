package site

import (
	"encoding/json"
	"maps"
	"slices"

	"codrel/internal/render/sink"
)

// This file writes what the maintainer's look adds to the assets.

// Addresses of files that only a changed look has.
const (
	lookStyle   = "assets/look.css"
	scriptTexts = "assets/texts.js"
)

// scriptKeys are the texts that the script in the pages says.
var scriptKeys = []string{
	"find", "found", "slash", "scheme", "auto", "light", "dark", "deprecated", "in-module", "not-loaded", "not-found", "nearest",
	"name.one", "name.many", "copy", "copied", "copy-marked",
}

func (s *Site) writeLook(to sink.Sink) error {
	l := s.options.Look
	if l.LogoFile != "" {
		if err := to.Put("assets/"+l.LogoFile, l.Logo); err != nil {
			return err
		}
	}
	if l.Styled() {
		if err := to.Put(lookStyle, []byte(accentStyle(l.Light, l.Dark)+string(l.Style))); err != nil {
			return err
		}
	}
	if !l.Translated() {
		return nil
	}
	texts := map[string]string{}
	for _, key := range scriptKeys {
		texts[key] = l.Texts.Say(key)
	}
	data, err := json.Marshal(texts) // sorts the keys
	if err != nil {
		return err
	}
	return to.Put(scriptTexts, append(append([]byte("window.codrelTexts = "), data...), ";\n"...))
}

// accentStyle sets the accent of both schemes, by the reader's preference and by
// the switch.
func accentStyle(light, dark string) string {
	if light == "" {
		return ""
	}
	rules := map[string]string{
		`:root:not([data-scheme="dark"])`: light,
		`:root[data-scheme="dark"]`:       dark,
	}
	out := ""
	for _, selector := range slices.Sorted(maps.Keys(rules)) {
		out += selector + " { --accent: " + rules[selector] + "; }\n"
	}
	return out + `@media (prefers-color-scheme: dark) { :root:not([data-scheme="light"]) { --accent: ` + dark + "; } }\n" +
		"@media print { :root:root:root { --accent: #000; } }\n"
}
