package model_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/model"
)

func TestModulesInOneAnother(t *testing.T) {
	nested := &model.Library{Habits: &model.Habits{PathMark: "/", Nested: true}}
	flat := &model.Library{Habits: &model.Habits{PathMark: "."}}
	tide := model.NewModule(nested, "engine/tide")
	assert.Equal(t, "tide", tide.Last())
	assert.Equal(t, "engine/", tide.Around())
	below, ok := tide.Below()
	assert.True(t, ok)
	assert.Equal(t, "engine/tide/", below)
	assert.Empty(t, model.NewModule(nested, "engine").Around())

	whole := model.NewModule(flat, "engine.tide")
	assert.Equal(t, "engine.tide", whole.Last(), "people call it by its path")
	assert.Empty(t, whole.Around())
	_, ok = whole.Below()
	assert.False(t, ok)
	assert.Equal(t, "tide", flat.Habits.Last("engine.tide"))

	nobody := model.NewModule(&model.Library{}, "a/b")
	assert.Equal(t, "a/b", nobody.Last(), "a language that nobody reads has no habits")
	assert.False(t, nobody.IsProgram())
}

func TestHabitsOfNames(t *testing.T) {
	h := &model.Habits{NameMarks: []string{"::", "'"}, Unused: "_", Spaces: map[model.Kind]string{model.KindMacro: "macro"}}
	for written, want := range map[string]string{"Port::Tides::Quay": "Port.Tides.Quay", "Port'Quay": "Port.Quay", "Port.Quay": "Port.Quay", "": ""} {
		assert.Equal(t, want, h.Dotted(written), written)
	}
	assert.True(t, h.IsUnused("_depth"))
	assert.False(t, h.IsUnused("depth"))
	assert.Equal(t, "macro", h.Space(model.KindMacro))
	assert.Empty(t, h.Space(model.KindFunction))

	var none *model.Habits
	assert.Equal(t, "a::b", none.Dotted("a::b"))
	assert.False(t, none.IsUnused("_"))
	assert.Empty(t, none.Space(model.KindMacro))
	assert.False(t, (&model.Habits{}).IsUnused("_"))

	script, other := &model.Habits{Language: "a", Family: "f"}, &model.Habits{Language: "b", Family: "f"}
	assert.True(t, script.SameFamily(other))
	assert.False(t, script.SameFamily(h))
	assert.True(t, none.SameFamily(nil))
	assert.False(t, none.SameFamily(h))
}
