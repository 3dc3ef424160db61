package join_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/join"
	"codrel/internal/lang"
	"codrel/internal/lang/cfamily"
	"codrel/internal/lang/langtest"
	"codrel/internal/model"
)

// headers reads files of C and C++, given as path and text in turn, and joins them.
func headers(t *testing.T, files ...string) *model.Contents {
	t.Helper()
	plus := cfamily.FrontEnd{Plus: true}
	lib := &model.Contents{Library: &model.Library{Name: "gauge", Language: "cpp", Root: ".", Habits: plus.Habits()}}
	for i := 0; i < len(files); i += 2 {
		var end lang.FrontEnd = plus
		if lang.Reads(cfamily.FrontEnd{}, files[i]) {
			end = cfamily.FrontEnd{}
		}
		lib.Files = append(lib.Files, langtest.Read(end, files[i], []byte(files[i+1])))
	}
	join.Library(lib, plus)
	return lib
}

func module(t *testing.T, lib *model.Contents, path string) *model.Module {
	t.Helper()
	for _, m := range lib.Modules {
		if m.Path == path {
			return m
		}
	}
	require.Fail(t, "no module "+path)
	return nil
}

func TestDefinitionsJoinTheirPrototypes(t *testing.T) {
	lib := headers(t,
		"include/gauge.h", "struct gauge;\nint read_gauge(struct gauge *g);\nextern int count;\n",
		"src/gauge.c", "struct gauge { int fd; };\n/** Reads. */\nint read_gauge(struct gauge *g) { return 0; }\nint count = 0;\nint alone(void) { return 1; }\n")
	header := module(t, lib, "gauge.h")
	read := header.Lookup("read_gauge")
	require.Len(t, read.Occurrences, 2)
	assert.Equal(t, "Reads.", read.Speaks(model.Words).Doc.Text, "one text serves both")
	assert.Equal(t, "include/gauge.h", read.Speaks(model.Signature).File.Path, "callers see the prototype")
	assert.Equal(t, model.Public, read.Visibility)
	assert.Equal(t, model.Public, header.Lookup("count").Visibility)
	source := module(t, lib, "src/gauge.c")
	assert.True(t, source.Internal)
	assert.Equal(t, model.Internal, source.Lookup("alone").Visibility, "no header declares it")
}

func TestNamespacesOfSeveralFiles(t *testing.T) {
	lib := headers(t,
		"include/a.hpp", "namespace tide {\nclass Model { class Inner; void hidden(); public: void shown(); };\nnamespace detail { int x; }\n}\n",
		"include/b.hpp", "namespace tide { class Model; inline namespace v1 { void run(Model &m); } }\n",
		"src/a.cpp", "namespace tide {\nclass Model::Inner { int deep; void go(); };\nvoid Model::hidden() {}\nvoid Model::shown() {}\nvoid Model::Inner::go() {}\nvoid run(Model &m) {}\nstruct Own {};\n}\n")
	tide := module(t, lib, "tide")
	of := func(path string) model.Visibility {
		d := tide.Lookup(path)
		require.NotNil(t, d, path)
		return d.Visibility
	}
	assert.Len(t, tide.Lookup("Model").Occurrences, 2, "a class that is only named elsewhere is the same")
	assert.Equal(t, model.Private, of("Model.hidden"), "its definition shows it to nobody else")
	assert.Equal(t, model.Public, of("Model.shown"))
	assert.Len(t, tide.Lookup("Model.shown").Occurrences, 2)
	assert.Equal(t, model.Public, of("run"))
	assert.Equal(t, model.Internal, of("Own"), "a source file alone has it")
	assert.NotNil(t, tide.Lookup("Model.Inner.deep"), "what stands in a type that is defined elsewhere goes along")
	assert.Len(t, tide.Lookup("Model.Inner.go").Occurrences, 2)
	assert.True(t, module(t, lib, "tide::detail").Internal)
}

// Where some headers lie in a folder for them, the others are for the library itself; where
// none do, all are for users.
func TestWhichHeadersAreForUsers(t *testing.T) {
	for _, c := range []struct {
		files    []string
		internal map[string]bool
	}{
		{[]string{"include/a.h", "int a;", "src/b.h", "int b;", "include/impl/c.h", "int c;"}, map[string]bool{"a.h": false, "src/b.h": true, "impl/c.h": true}},
		{[]string{"a.h", "int a;", "detail/b.h", "int b;", "main.c", "int main(void) { return 0; }"}, map[string]bool{"a.h": false, "detail/b.h": true, "main.c": true}},
		{[]string{"tide/a.h", "int a;", "tide/internal/zones/include/zones/b.h", "int b;"}, map[string]bool{"tide/a.h": false, "zones/b.h": true}},
	} {
		lib := headers(t, c.files...)
		got := map[string]bool{}
		for _, m := range lib.Modules {
			got[m.Path] = m.Internal
		}
		assert.Equal(t, c.internal, got)
	}
	installed := headers(t, "src/a.h", "int a;", "src/b.h", "int b;", "include/c.h", "int c;")
	installed.Sayings = []model.Saying{{Key: model.Installs, Names: []string{"src/a.h", "include/**"}}}
	join.Library(installed, cfamily.FrontEnd{Plus: true})
	assert.False(t, module(t, installed, "src/a.h").Internal, "build files install it")
	assert.True(t, module(t, installed, "src/b.h").Internal)
	assert.False(t, module(t, installed, "c.h").Internal)
	installed.Sayings[0].Key = model.InstallsPartly
	join.Library(installed, cfamily.FrontEnd{Plus: true})
	assert.True(t, module(t, installed, "src/a.h").Internal, "where not all are known, folders tell")

	program := headers(t, "main.c", "int main(void) { return 0; }\nstatic int own(void) { return 1; }\n")
	assert.Equal(t, model.Public, program.Modules[0].Lookup("main").Visibility, "a program without headers is shown as it is")
	assert.Equal(t, model.Private, program.Modules[0].Lookup("own").Visibility)
}
