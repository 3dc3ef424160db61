package modules_test

import (
	"bytes"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/build"
	"codrel/internal/build/buildtest"
	"codrel/internal/model"
	"codrel/internal/render/modules"
)

func all(*model.Module) bool { return true }

// Headers include one another, themselves or through others; a namespace is none of them.
func TestIncludes(t *testing.T) {
	s := buildtest.Run(t, buildtest.Files(map[string]string{
		"top.hpp": "#include <middle.hpp>\n", "middle.hpp": "#include \"low.hpp\"\nnamespace tide { int x; }\n", "low.hpp": "int y;\n", "apart.hpp": "int z;\n",
	}), build.Options{})
	text := func(around string, through bool) string {
		var b bytes.Buffer
		require.NoError(t, modules.Text(&b, modules.New(s.Links, all, around, through)))
		return b.String()
	}
	assert.Equal(t, "apart.hpp\ntop.hpp\n└── middle.hpp\n    └── low.hpp\n", text("", false))
	assert.Equal(t, "middle.hpp\n└── low.hpp\n", text("low.hpp", false))
	assert.Equal(t, "top.hpp\n└── middle.hpp\n    └── low.hpp\n", text("low.hpp", true))
	assert.Equal(t, "apart.hpp\n", text("apart.hpp", true))
	var b bytes.Buffer
	require.NoError(t, modules.SVG(&b, modules.New(s.Links, all, "", false)))
	assert.Contains(t, b.String(), `<title id="t">Files and what they include</title>`)
	assert.Contains(t, b.String(), `4 files, 2 includes among them.`)
	assert.Contains(t, b.String(), `<title>top.hpp includes middle.hpp</title>`)
	assert.NotContains(t, b.String(), "left out")
}

// A large drawing leaves out what has no neighbour, and says so.
func TestFolded(t *testing.T) {
	files := map[string]string{"a.h": "#include \"b.h\"\n", "b.h": "int b;\n"}
	for i := range 40 {
		files[fmt.Sprintf("alone%02d.h", i)] = "int a;\n"
	}
	s := buildtest.Run(t, buildtest.Files(files), build.Options{})
	var b bytes.Buffer
	require.NoError(t, modules.SVG(&b, modules.New(s.Links, all, "", false)))
	assert.Contains(t, b.String(), "40 that nothing here leads to, and that lead to nothing here, are left out.")
	assert.NotContains(t, b.String(), "alone")
	assert.Contains(t, b.String(), `<title>a.h includes b.h</title>`)
}
