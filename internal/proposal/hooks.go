package proposal

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"regexp"
	"strings"
)

// This file hangs Codrel into the builds that projects have.

// Hook is a way in which a project's build may call Codrel.
type Hook struct {
	Kind  string // "make", "cmake", "npm" or "ci"
	File  string // that it goes into
	Lines string // to be added
	Usage string // how it is called then
	There bool   // the file has it, or something of its name
	whole bool   // the file is a new one
}

// HookKinds are the kinds of hooks.
var HookKinds = []string{"make", "cmake", "npm", "ci"}

// target is what the targets and scripts are called.
const target = "reference"

// ciScript is the file of the steps for CI.
const ciScript = "codrel-ci.sh"

const makeLines = `
# Reference pages, checked on the way.
.PHONY: reference
reference:
	codrel build
`

const cmakeLines = `
# Reference pages, checked on the way.
add_custom_target(reference COMMAND codrel build "${CMAKE_CURRENT_SOURCE_DIR}" VERBATIM)
`

const ciLines = `#!/bin/sh
# The step of a CI job: fails on findings of the severity that the settings name, and leaves
# the site for the job to keep as an artefact.
set -e
codrel check
codrel build --quiet
echo "The pages are in codrel-site: keep this folder as an artefact of the job."
`

// hooks are those for what lies at the top of a folder.
func hooks(files fs.FS) (out []Hook) {
	entries, err := fs.ReadDir(files, ".")
	if err != nil {
		return nil
	}
	names := map[string]bool{}
	for _, e := range entries {
		names[e.Name()] = true
	}
	read := func(file string) []byte {
		data, err := fs.ReadFile(files, file)
		if err != nil {
			return nil
		}
		return data
	}
	for _, file := range []string{"GNUmakefile", "makefile", "Makefile"} {
		if names[file] {
			out = append(out, Hook{Kind: "make", File: file, Lines: makeLines, Usage: "make " + target, There: makeTarget.Match(read(file))})
			break
		}
	}
	if names["CMakeLists.txt"] {
		out = append(out, Hook{Kind: "cmake", File: "CMakeLists.txt", Lines: cmakeLines, Usage: "cmake --build BUILD_FOLDER --target " + target, There: cmakeTarget.Match(read("CMakeLists.txt"))})
	}
	if names["package.json"] {
		if data := read("package.json"); data != nil {
			out = append(out, Hook{Kind: "npm", File: "package.json", Lines: `"` + target + `": "codrel build"`, Usage: "npm run " + target, There: scriptOf(data) != ""})
		}
	}
	for _, sign := range []string{".github/workflows", ".gitlab-ci.yml", "Jenkinsfile", ".circleci", "azure-pipelines.yml", ".woodpecker.yml", ".woodpecker", ".drone.yml", ".travis.yml", "bitbucket-pipelines.yml", ".build.yml", ".ci"} {
		if _, err := fs.Stat(files, sign); err == nil {
			out = append(out, Hook{Kind: "ci", File: ciScript, Lines: ciLines, Usage: "sh " + ciScript, There: names[ciScript], whole: true})
			break
		}
	}
	return out
}

var (
	makeTarget  = regexp.MustCompile(`(?m)^` + target + `\s*:`)
	cmakeTarget = regexp.MustCompile(`add_custom_target\(\s*` + target + `\b`)
)

// scriptOf is what the script for reference pages runs, or "".
func scriptOf(data []byte) string {
	var manifest struct {
		Scripts map[string]string `json:"scripts"`
	}
	if json.Unmarshal(data, &manifest) != nil {
		return ""
	}
	return manifest.Scripts[target]
}

// Into is a file with the lines of a hook in it. What stands in the file stays as it is, byte
// for byte.
func (h *Hook) Into(data []byte) ([]byte, error) {
	switch {
	case h.There:
		return data, nil
	case h.whole:
		return []byte(h.Lines), nil
	case h.Kind == "npm":
		return withScript(data, h.Lines)
	}
	lines := h.Lines
	if bytes.Contains(data, []byte("\r\n")) {
		lines = strings.ReplaceAll(lines, "\n", "\r\n")
	}
	out := bytes.Clone(data)
	if len(out) > 0 && out[len(out)-1] != '\n' {
		out = append(out, lines[:strings.IndexByte(lines, '\n')+1]...)
	}
	return append(out, lines...), nil
}

// scripts is the object of scripts, and what stands before its first entry.
var scripts = regexp.MustCompile(`"scripts"\s*:\s*\{(\s*)`)

// top is the beginning of the manifest, and what stands before its first entry.
var top = regexp.MustCompile(`^\s*\{(\s*)`)

// withScript is a manifest of npm with one more script, before the others.
func withScript(data []byte, entry string) ([]byte, error) {
	var out []byte
	if at := scripts.FindSubmatchIndex(data); at != nil {
		between := ","
		if rest := bytes.TrimLeft(data[at[1]:], " \t\r\n"); len(rest) > 0 && rest[0] == '}' {
			between = ""
		}
		blank := string(data[at[2]:at[3]])
		if between == "" {
			out = fmt.Appendf(out, "%s%s%s", data[:at[2]], entry, data[at[2]:])
		} else {
			out = fmt.Appendf(out, "%s%s%s%s%s", data[:at[3]], entry, between, blank, data[at[3]:])
		}
	} else if at := top.FindSubmatchIndex(data); at != nil {
		blank := string(data[at[2]:at[3]])
		between := ","
		if rest := bytes.TrimSpace(data[at[1]:]); len(rest) > 0 && rest[0] == '}' {
			between = ""
		}
		out = fmt.Appendf(out, "%s\"scripts\": {%s}%s%s%s", data[:at[3]], entry, between, blank, data[at[3]:])
	}
	if !json.Valid(out) || scriptOf(out) == "" {
		return nil, errors.New("package.json cannot be changed: it is not as npm writes it")
	}
	return out, nil
}
