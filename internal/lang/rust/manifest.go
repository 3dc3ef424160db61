package rust

import (
	"errors"
	"fmt"
	"maps"
	"path"
	"slices"
	"strings"

	"github.com/pelletier/go-toml/v2"

	"codrel/internal/lang"
	"codrel/internal/model"
)

// This file reads Cargo's manifests ("The Manifest Format" in Cargo's own book).

// MarkerNames are the manifests of packages.
func (FrontEnd) MarkerNames() []string { return []string{"Cargo.toml"} }

// manifest is what of one is told or followed. What a workspace gives to its members is a table there.
type manifest struct {
	Package *struct {
		Name    string `toml:"name"`
		Version any    `toml:"version"`
		Edition any    `toml:"edition"`
	} `toml:"package"`
	Lib      target              `toml:"lib"`
	Bin      []target            `toml:"bin"`
	Features map[string][]string `toml:"features"`
}

type target struct {
	Name string `toml:"name"`
	Path string `toml:"path"`
}

// Root reads a manifest. One that only names the members of a workspace marks no library.
func (FrontEnd) Root(file string, data []byte) (lang.Root, bool) {
	root := lang.Root{Folder: path.Dir(file)}
	var m manifest
	if err := toml.Unmarshal(data, &m); err != nil || m.Package == nil || m.Package.Name == "" {
		return root, false
	}
	root.Name = m.Package.Name
	root.Version, _ = m.Package.Version.(string)
	root.Package = strings.ReplaceAll(root.Name, "-", "_")
	if m.Lib.Name != "" {
		root.Package = m.Lib.Name
	}
	if m.Lib.Path != "" && path.Clean(m.Lib.Path) != "src/lib.rs" {
		root.Begins = append(root.Begins, model.Begin{File: path.Clean(m.Lib.Path), Module: root.Package})
	}
	for _, b := range m.Bin {
		if file := path.Clean(b.Path); b.Path != "" && b.Name != "" && file != "src/main.rs" && !strings.HasPrefix(file, "src/bin/") {
			root.Begins = append(root.Begins, model.Begin{File: file, Module: b.Name})
		}
	}
	root.Sayings = m.sayings(root.Package)
	return root, true
}

// MarkerProblem is what keeps a manifest from being read, with its line.
func (FrontEnd) MarkerProblem(data []byte) error {
	var m manifest
	err := toml.Unmarshal(data, &m)
	var at *toml.DecodeError
	if errors.As(err, &at) {
		line, _ := at.Position()
		return fmt.Errorf("line %d: %s", line, strings.TrimPrefix(at.Error(), "toml: "))
	}
	return err
}

// sayings are what the page of a crate tells of its manifest. Features whose names begin with an underscore
// are for the crate alone.
func (m *manifest) sayings(crate string) (out []model.Saying) {
	say := func(key string, names []string) {
		if len(names) > 0 {
			out = append(out, model.Saying{Key: key, Module: crate, Names: names})
		}
	}
	if edition, ok := m.Package.Edition.(string); ok {
		say(model.Edition, []string{edition})
	}
	isOwn := func(name string) bool { return name == "default" || strings.HasPrefix(name, "_") }
	say(model.Features, slices.DeleteFunc(slices.Sorted(maps.Keys(m.Features)), isOwn))
	say(model.ByDefault, m.Features["default"])
	return out
}
