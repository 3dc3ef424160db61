package model_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/model"
	"codrel/internal/source"
)

// formText is a file of overloads: a line each, "name(types)".
const formText = "moor(int)\nmoor(text)\nmoor(int)\n"

// moors makes a declaration of the lines of formText; change may alter each occurrence.
func moors(t *testing.T, overloads bool, lines int, change func(i int, o *model.Occurrence)) *model.Declaration {
	t.Helper()
	f := &model.Facts{Path: "a", Text: formText, Lines: source.Decode([]byte(formText)).Lines}
	m := model.NewModule(&model.Library{Habits: &model.Habits{Overloads: overloads}}, "port")
	d := m.Declare(nil, "", model.Name{Text: "moor"})
	for i, typ := range []string{"int", "text", "int"}[:lines] {
		at := []int{0, 10, 21}[i]
		token := model.Tokens(model.AppendToken(nil, f.Text, model.TokenType, f.Text[at+5:at+5+len(typ)]))
		o := &model.Occurrence{
			Kind: model.KindFunction, Name: "moor", Line: int32(i + 1), NameSpan: source.NewSpan(at, at+4), Signature: token,
			Callable: &model.Callable{Params: []model.Param{{Name: "a", Type: token}}},
		}
		change(i, o)
		d.Occurrences = append(d.Occurrences, model.At{Occurrence: o, File: f})
	}
	d.Settle()
	return d
}

func typesOf(forms []model.Form) (out [][]string) {
	for i := range forms {
		out = append(out, forms[i].Head().ParamTypes())
	}
	return out
}

func TestOverloadsAreForms(t *testing.T) {
	d := moors(t, true, 2, func(i int, o *model.Occurrence) {
		if i == 1 {
			o.Doc, o.Visibility = &model.Doc{Text: "Moors by name."}, model.Private
		}
	})
	forms := d.Split()
	assert.Equal(t, [][]string{{"int"}, {"text"}}, typesOf(forms), "in the order in which they are written, whichever speaks")
	doc, _ := forms[0].Doc()
	assert.Nil(t, doc, "a comment is that of its form")
	doc, file := forms[1].Doc()
	require.NotNil(t, doc)
	assert.Equal(t, "a", file.Path)
	assert.Equal(t, model.Public, forms[0].Visibility())
	assert.Equal(t, model.Private, forms[1].Visibility())
}

func TestHeadAndBodyAreOneForm(t *testing.T) {
	d := moors(t, true, 3, func(i int, o *model.Occurrence) {
		if i == 2 {
			o.Implementation, o.Doc = true, &model.Doc{Text: "The body's."}
		}
	})
	forms := d.Split()
	require.Len(t, forms, 2)
	require.Len(t, forms[0].Occurrences, 2, "the body goes to the form with its parameters, not to the one before it")
	doc, _ := forms[0].Doc()
	require.NotNil(t, doc)
	assert.Equal(t, "The body's.", doc.Text)
	assert.False(t, forms[0].Head().Implementation)
}

func TestConditions(t *testing.T) {
	deep := func(i int, o *model.Occurrence) {
		if i == 1 {
			o.Extra = &model.Extra{Conditions: []string{"deep"}}
		}
	}
	assert.Len(t, moors(t, true, 2, deep).Split(), 2, "a condition on one makes no builds of overloads")
	assert.Len(t, moors(t, false, 2, deep).Split(), 1, "without overloads they are builds of one form")
	whole := moors(t, false, 2, deep).Split()[0]
	assert.Len(t, whole.Occurrences, 2)
}

func TestConditionsOfGenerics(t *testing.T) {
	under := func(typeParams int) int {
		d := moors(t, true, 3, func(i int, o *model.Occurrence) {
			if i == 2 {
				o.Extra = &model.Extra{Conditions: []string{"deep"}, TypeParams: make([]model.Param, typeParams)}
				o.Signature += o.Signature
			}
		})
		return len(d.Split())
	}
	assert.Equal(t, 2, under(0), "with the same types it is the first one, built otherwise")
	assert.Equal(t, 3, under(1), "with a type parameter of its own callers pick it")
}

func TestOneFormKeepsAll(t *testing.T) {
	d := moors(t, true, 1, func(int, *model.Occurrence) {})
	forms := d.Split()
	require.Len(t, forms, 1)
	assert.Equal(t, []string{"int"}, forms[0].Head().ParamTypes())
	assert.Nil(t, d.Overloads())
	assert.Len(t, moors(t, true, 2, func(int, *model.Occurrence) {}).Overloads(), 2)
}

func TestNamesHaveSpacesAndArity(t *testing.T) {
	m := model.NewModule(&model.Library{Name: "port"}, "Port.Tides")
	plain := m.Declare(nil, "", model.Name{Text: "Berth"})
	generic := m.Declare(nil, "", model.Name{Text: "Berth", Arity: 2})
	macro := m.Declare(nil, "", model.Name{Text: "Berth", Space: "macro"})
	inside := m.Declare(generic, "Berth", model.Name{Text: "a.b"})
	assert.Same(t, generic, m.Declare(nil, "", model.Name{Text: "Berth", Arity: 2}), "the same name is the same declaration")
	var ids []string
	for d := range plain.Namesakes {
		ids = append(ids, d.ID())
	}
	assert.Equal(t, []string{"port/Port.Tides#Berth", "port/Port.Tides#Berth-2", "port/Port.Tides#macro:Berth"}, ids)
	assert.Equal(t, "port/Port.Tides#Berth-2.a.b", inside.ID())
	assert.Equal(t, "Berth.a.b", inside.Path())
	assert.Equal(t, "Berth-2.a.b", inside.Label())
	assert.Same(t, inside, generic.Member("a.b"), "a name may hold a dot")
	assert.Nil(t, macro.Member("a.b"), "members are those of one of the namesakes")
	assert.Nil(t, plain.Member("a.b"))
}

func TestAttach(t *testing.T) {
	m := model.NewModule(&model.Library{Name: "port"}, "Port")
	f := &model.Facts{Path: "a"}
	m.Files = []*model.Facts{f}
	at := func() []model.At { return []model.At{{Occurrence: &model.Occurrence{}, File: f}} }
	quay := m.Declare(nil, "", model.Name{Text: "Quay"})
	own := m.Declare(quay, "Quay", model.Name{Text: "length"})
	own.Occurrences = at()
	apart := m.Declare(nil, "Quay", model.Name{Text: "show"})
	apart.Occurrences = at()
	again := m.Declare(nil, "Quay", model.Name{Text: "length"})
	again.Occurrences = at()
	m.Attach(apart, quay)
	m.Attach(again, quay)
	assert.Same(t, apart, quay.Member("show"), "what stands elsewhere is found in its type")
	assert.Equal(t, "port/Port#Quay.show", apart.ID())
	assert.Len(t, own.Occurrences, 2, "what is there already gets the occurrences")
	var left []string
	for d := range m.Declarations {
		left = append(left, d.Path())
	}
	assert.Equal(t, []string{"Quay", "Quay.length", "Quay.show"}, left)
}
