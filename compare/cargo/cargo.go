// Package cargo builds the programs that comparisons ask, where their language has to be built first.
package cargo

import (
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
)

// manifest is that of a program of Rust with the parser that macros use.
const manifest = `[package]
name = "oracle"
version = "0.1.0"
edition = "2021"
[dependencies]
syn = { version = "1", features = ["full"] }
proc-macro2 = { version = "1", features = ["span-locations"] }
[profile.release]
debug = false
`

// Build builds a program of Rust of one file with the crates of a folder, "" for the one where Debian has
// them, and gives the path of what it made. Crates are built once for all that have the same name.
func Build(name, source, with string) (program string, err error) {
	if with == "" {
		with = "/usr/share/cargo/registry"
	}
	dir, err := os.MkdirTemp("", "codrel-oracle")
	if err != nil {
		return "", err
	}
	defer os.RemoveAll(dir)
	for file, text := range map[string]string{
		"src/main.rs": source, "Cargo.toml": manifest,
		".cargo/config.toml": "[source.crates-io]\nreplace-with = \"here\"\n[source.here]\ndirectory = \"" + with + "\"\n",
	} {
		file = filepath.Join(dir, file)
		if err := os.MkdirAll(filepath.Dir(file), 0o755); err != nil {
			return "", err
		}
		if err := os.WriteFile(file, []byte(text), 0o644); err != nil {
			return "", err
		}
	}
	made := filepath.Join(os.TempDir(), "codrel-oracle-"+name)
	build := exec.Command("cargo", "build", "--release", "--offline", "--quiet")
	build.Dir, build.Stderr, build.Env = dir, os.Stderr, append(os.Environ(), "CARGO_TARGET_DIR="+made)
	if err := build.Run(); err != nil {
		return "", fmt.Errorf("the oracle cannot be built (on Debian: cargo, librust-syn-dev): %w", err)
	}
	return filepath.Join(made, "release", "oracle"), nil
}
