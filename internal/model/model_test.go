package model_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/model"
	"codrel/internal/source"
)

func TestReach(t *testing.T) {
	all := []model.Visibility{model.Public, model.Protected, model.Internal, model.PackageWide, model.Private}
	for word, included := range map[string]int{"public": 1, "protected": 2, "internal": 4, "private": 5} {
		reach, ok := model.ParseReach(word)
		require.True(t, ok)
		assert.Equal(t, word, reach.String())
		for i, v := range all {
			assert.Equal(t, i < included, reach.Includes(v), "%s includes %s", word, v)
		}
	}
	_, ok := model.ParseReach("package")
	assert.False(t, ok, "package-wide is no reach of its own")
}

func TestKinds(t *testing.T) {
	seen := map[string]bool{}
	for _, word := range model.KindWords() {
		assert.False(t, seen[word], word)
		seen[word] = true
	}
	assert.Equal(t, "module", model.KindModule.String())
	assert.Equal(t, "operation", model.KindOperation.String())
	assert.True(t, model.KindStruct.IsType())
	assert.False(t, model.KindFunction.IsType())
	assert.True(t, model.KindConstructor.IsCallable())
	assert.False(t, model.KindField.IsCallable())
	assert.Len(t, model.VisibilityWords(), 5)
	assert.Equal(t, "test", model.RoleTest.String())
	assert.Equal(t, "code", model.RoleCode.String())
}

func TestDeclare(t *testing.T) {
	lib := &model.Library{Name: "engine"}
	m := model.NewModule(lib, "tidebook.example/engine")
	berth := m.Declare(nil, "", model.Name{Text: "Berth"})
	assign := m.Declare(berth, "Berth", model.Name{Text: "Assign"})
	assert.Same(t, berth, m.Declare(nil, "", model.Name{Text: "Berth"}), "the same name is the same declaration")
	assert.Same(t, assign, m.Lookup("Berth.Assign"))
	assert.Same(t, assign, berth.Member("Assign"))
	assert.Nil(t, m.Lookup("Assign"))
	assert.Nil(t, m.Lookup(""))
	assert.Equal(t, "Berth.Assign", assign.Path())
	assert.Equal(t, "engine/tidebook.example/engine#Berth.Assign", assign.ID())
	assert.Equal(t, "engine/tidebook.example/engine", m.ID())
	m.Declare(nil, "", model.Name{Text: "Third"})
	assert.Equal(t, 3, m.Count())
	var all []*model.Declaration
	for i := range 2000 {
		all = append(all, m.Declare(nil, "Many", model.Name{Text: fmt.Sprint(i)}))
	}
	for i, d := range all {
		assert.Same(t, d, m.Lookup(fmt.Sprint("Many.", i)), "addresses of declarations never move")
	}
	n := 0
	for d := range m.Declarations {
		n++
		if d == assign {
			break
		}
	}
	assert.Equal(t, 2, n, "in the order they were met")
	assert.Equal(t, 2003, m.Count())
}

func TestOccurrencesSpeakForTheirDeclaration(t *testing.T) {
	m := model.NewModule(&model.Library{}, "x")
	class := &model.Occurrence{Kind: model.KindClass}
	said := &model.Occurrence{Kind: model.KindFunction, Callable: &model.Callable{}, Doc: &model.Doc{Text: "x"}, Deprecated: true}
	hand, machine := &model.Facts{Path: "a.go"}, &model.Facts{Path: "b.go", Generated: true}
	d := m.Declare(nil, "", model.Name{Text: "Berth"})
	d.Occurrences = []model.At{{Occurrence: class, File: machine}, {Occurrence: said, File: hand}}
	d.Settle()
	assert.Same(t, said, d.Speaks(model.Words).Occurrence)
	assert.Equal(t, model.KindFunction, d.Kind())
	d.Members = []*model.Declaration{m.Declare(d, "Berth", model.Name{Text: "Assign"})}
	d.Settle()
	assert.Same(t, said, d.Speaks(model.Words).Occurrence)
	assert.Equal(t, model.KindClass, d.Kind(), "one occurrence has the words while another says what it is")
	assert.True(t, d.Documented())
	assert.True(t, d.Deprecated())
	assert.False(t, d.Generated(), "one occurrence is written by a person")
	doc, file := d.Doc()
	assert.Equal(t, "x", doc.Text)
	assert.Same(t, hand, file)
	machine.Stub = true
	assert.Same(t, class, d.Speaks(model.Signature).Occurrence, "callers see the stub")
	machine.Stub = false
	said.Implementation = true
	assert.Same(t, class, d.Speaks(model.Signature).Occurrence, "what only gives a body is not what callers see")
	d.Occurrences = d.Occurrences[:1]
	d.Settle()
	assert.True(t, d.Generated())
	assert.False(t, d.Documented())
	d.Occurrences[0].GroupDoc = &model.Doc{Text: "group"}
	assert.True(t, d.Documented(), "a group's comment speaks for all of it")
}

func TestPlace(t *testing.T) {
	text := "ä b"
	f := &model.Facts{Path: "a.go", Text: text, Lines: source.NewLines(text)}
	p := f.Place(source.NewSpan(3, 4))
	assert.Equal(t, "a.go", p.File)
	assert.Equal(t, source.Position{Line: 1, Column: 3}, p.At)
	assert.Equal(t, p.At, f.Position(3))
}

// What a constant holds makes it an object; a class with members is none.
func TestObjects(t *testing.T) {
	m := model.NewModule(&model.Library{Name: "port"}, "Port")
	f := &model.Facts{Path: "a", Stub: true}
	declare := func(parent *model.Declaration, name string, kind model.Kind) *model.Declaration {
		d := m.Declare(parent, "", model.Name{Text: name})
		d.Occurrences = append(d.Occurrences, model.At{Occurrence: &model.Occurrence{Kind: kind, Name: name}, File: f})
		if parent != nil {
			parent.Members = append(parent.Members, d)
		}
		d.Settle()
		return d
	}
	options, empty, class := declare(nil, "options", model.KindConstant), declare(nil, "empty", model.KindVariable), declare(nil, "Berth", model.KindClass)
	declare(options, "hours", model.KindField)
	declare(class, "depth", model.KindField)
	assert.True(t, options.IsObject())
	assert.Equal(t, model.KindNamespace, options.Kind())
	assert.False(t, empty.IsObject())
	assert.Equal(t, model.KindVariable, empty.Kind())
	assert.False(t, class.IsObject())
	assert.True(t, class.InStub())
	f.Stub = false
	assert.False(t, class.InStub())
}
