package cfamily_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/model"
)

func TestInstalledHeaders(t *testing.T) {
	for name, c := range map[string]struct {
		file, text string
		want       []string
	}{
		"cmake, files":       {"CMakeLists.txt", "project(tide)\ninstall(FILES tide.h ${CMAKE_CURRENT_SOURCE_DIR}/berth.h DESTINATION include)\ninstall(FILES readme.txt DESTINATION doc)\n", []string{"tide.h", "berth.h"}},
		"cmake, a list":      {"src/CMakeLists.txt", "set(PUBLIC_HEADERS\n  tide.h # both\n  berth.hpp)\ninstall(FILES ${PUBLIC_HEADERS} DESTINATION include/tide)\n", []string{"src/tide.h", "src/berth.hpp"}},
		"cmake, folders":     {"CMakeLists.txt", "install(DIRECTORY include/ DESTINATION include)\ninstall(DIRECTORY doc DESTINATION share)\n", []string{"include/**"}},
		"cmake, a property":  {"CMakeLists.txt", "set_target_properties(tide PROPERTIES PUBLIC_HEADER \"tide.h;berth.h\" VERSION 2)\n", []string{"tide.h", "berth.h"}},
		"cmake, a file set":  {"CMakeLists.txt", "target_sources(tide PUBLIC FILE_SET HEADERS BASE_DIRS lib FILES lib/tide.h lib/berth.h)\n", []string{"lib/tide.h", "lib/berth.h"}},
		"cmake, not known":   {"CMakeLists.txt", "install(FILES tide.h ${OTHER_HEADERS} DESTINATION include)\n", []string{"partly", "tide.h"}},
		"cmake, made":        {"CMakeLists.txt", "set(H src/tide.h ${CMAKE_CURRENT_BINARY_DIR}/config.h)\ninstall(FILES ${H} DESTINATION include)\n", []string{"src/tide.h"}},
		"cmake, a remark":    {"CMakeLists.txt", "# install(FILES tide.h DESTINATION include)\nreinstall(FILES berth.h)\n", nil},
		"meson":              {"meson.build", "project('tide', 'c')\nheaders = files('tide.h',\n  'berth.h')\ninstall_headers(headers, 'own.h', subdir: 'tide')\n", []string{"tide.h", "berth.h", "own.h"}},
		"meson, not known":   {"meson.build", "install_headers(gen.process('a.in'))\n", nil},
		"automake":           {"src/Makefile.am", "EXTRA = more.h\npkginclude_HEADERS = tide.h \\\n  berth.h $(EXTRA)\nnoinst_HEADERS = own.h\ninclude_HEADERS += last.h\n", []string{"src/tide.h", "src/berth.h", "src/more.h", "src/last.h"}},
		"automake, unknown":  {"Makefile.am", "include_HEADERS = $(GENERATED) a.h\n", []string{"partly", "a.h"}},
		"something else":     {"configure.ac", "AC_INIT([tide], [2.0])\n", nil},
		"brackets not shut":  {"CMakeLists.txt", "install(FILES tide.h\n", nil},
		"nothing of headers": {"Makefile.am", "bin_PROGRAMS = tide\n", nil},
	} {
		t.Run(name, func(t *testing.T) {
			root, _ := plus.Root(c.file, []byte(c.text))
			var got []string
			for _, said := range root.Sayings {
				if said.Key == model.InstallsPartly {
					got = append(got, "partly")
				} else {
					assert.Equal(t, model.Installs, said.Key)
				}
				got = append(got, said.Names...)
			}
			assert.Equal(t, c.want, got)
		})
	}
}
