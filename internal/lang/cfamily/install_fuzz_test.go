package cfamily_test

import (
	"path"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
)

// FuzzInstalls reads build files, whole and damaged: each name that comes out is one of the
// project's, or stands for those that nobody knows.
func FuzzInstalls(f *testing.F) {
	for _, text := range []string{
		"project(tide)\nset(H a.h b.h)\ninstall(FILES ${H} DESTINATION include)\ninstall(DIRECTORY include/ DESTINATION include)\n",
		"install_headers('a.h', files('b.h'), subdir : 'x')\nh = ['c.h',\n 'd.h']\ninstall_headers(h)\n",
		"include_HEADERS = a.h \\\n  $(MORE)\nMORE = b.h\npkginclude_HEADERS += c.h # one\n",
		"install(FILES ((a.h) \"b c.h\" ;d.h", "set(\nset()\ninstall()\ninstall(FILES)\n", "= = =\n\\\n",
	} {
		f.Add(text)
	}
	f.Fuzz(func(t *testing.T, text string) {
		for _, file := range []string{"CMakeLists.txt", "lib/meson.build", "src/Makefile.am", "configure.ac"} {
			root, _ := plus.Root(file, []byte(text))
			assert.Equal(t, path.Dir(file), root.Folder)
			for _, said := range root.Sayings {
				assert.NotEmpty(t, said.Names)
				for _, name := range said.Names {
					assert.False(t, name == "" || strings.ContainsAny(name, "${}"), "%q", name)
				}
			}
		}
	})
}
