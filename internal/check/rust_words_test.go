package check_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
)

// What a crate's authors let go without comments holds for the files below, and so for all that these name.
func TestUnwordedModules(t *testing.T) {
	files := map[string]string{
		"Cargo.toml":      "[package]\nname = \"quay\"\n",
		"src/lib.rs":      "//! Quays.\n#[allow(missing_docs)]\npub mod raw;\npub mod told;\nmod kept { #![allow(missing_docs)] pub struct K; }\npub use kept::K;\n",
		"src/raw.rs":      "pub fn a() {}\npub mod deep;\npub mod within { pub fn b() {} }\n",
		"src/raw/deep.rs": "pub struct C { pub d: u8 }\n",
		"src/told.rs":     "//! Told.\npub fn e() {}\n",
	}
	asked := func() (out []string) {
		for _, f := range buildtest.Run(t, buildtest.Files(files), build.Options{}).Findings {
			out = append(out, f.Rule+" "+f.Subject)
		}
		return out
	}
	assert.Equal(t, []string{"undocumented quay/quay::told#e"}, asked())
	files["src/lib.rs"] = "//! Quays.\n#![allow(missing_docs)]\npub mod raw;\npub mod told;\n"
	assert.Empty(t, asked())
}
