package model_test

import (
	"encoding/json"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/model"
	"codrel/internal/source"
)

func piece(class model.PieceClass, start, end int) model.Piece {
	return model.Piece{Class: class, Span: source.NewSpan(start, end)}
}

func TestPieces(t *testing.T) {
	var p model.Pieces
	assert.True(t, p.Empty())
	want := []model.Piece{
		piece(model.PieceComment, 0, 3), piece(model.PieceKeyword, 3, 9), piece(model.PieceText, 300, 70_000), piece(model.PieceNumber, 70_001, 70_002),
	}
	for _, one := range want {
		p.Add(one)
	}
	assert.False(t, p.Empty())
	assert.Equal(t, want, slices.Collect(p.All()))
	p.Add(piece(model.PieceText, 69_000, 69_100))
	p.Add(piece(model.PieceText, 80_000, 80_000))
	assert.Equal(t, want, slices.Collect(p.All()), "what overlaps, and what is empty, is left out")
	for range p.All() {
		break // who stops early is left alone
	}

	data, err := json.Marshal(p)
	require.NoError(t, err)
	var read model.Pieces
	require.NoError(t, json.Unmarshal(data, &read))
	assert.Equal(t, want, slices.Collect(read.All()))
	data, err = json.Marshal(model.Pieces{})
	require.NoError(t, err)
	assert.Equal(t, "{}", string(data))
}

// What comes from outside may be damaged: it is refused, not believed.
func TestDamagedLists(t *testing.T) {
	for what, data := range map[string]string{
		"no end":        `{"packed":"AAM="}`,
		"another end":   `{"packed":"AAM=","end":5}`,
		"half a number": `{"packed":"gA==","end":3}`,
		"half a piece":  `{"packed":"AA==","end":3}`,
		"no base64":     `{"packed":"%%","end":3}`,
		"no object":     `[1]`,
	} {
		var p model.Pieces
		assert.Error(t, json.Unmarshal([]byte(data), &p), what)
		assert.True(t, p.Empty(), what)
	}
	for what, data := range map[string]string{
		"a count that is not so": `{"packed":"AAM=","end":3,"count":2}`,
		"an end that is not so":  `{"packed":"AAM=","end":4,"count":1}`,
		"half a use":             `{"packed":"AA==","end":3,"count":1}`,
		"half a type":            `{"packed":"AgM=","end":3,"count":1}`,
		"a number that runs on":  `{"packed":"gICAgICAgICAgIA=","end":3,"count":1}`,
		"no object":              `"x"`,
	} {
		var u model.Uses
		assert.Error(t, json.Unmarshal([]byte(data), &u), what)
		assert.Zero(t, u.Len(), what)
	}
}

func TestUsesAreWrittenWhole(t *testing.T) {
	var u model.Uses
	want := []model.Use{
		{Form: model.UseBare, Span: source.NewSpan(0, 4)},
		{Form: model.UseMember, Span: source.NewSpan(10, 14), Type: source.NewSpan(2, 6)},
		{Form: model.UseKey, Span: source.NewSpan(20, 21), Type: source.NewSpan(500, 520)},
		{Form: model.UseQualified, Span: source.NewSpan(1_000_000, 1_000_010)},
	}
	for _, one := range want {
		u.Add(one)
	}
	data, err := json.Marshal(u)
	require.NoError(t, err)
	var read model.Uses
	require.NoError(t, json.Unmarshal(data, &read))
	assert.Equal(t, want, slices.Collect(read.All()))
	assert.Equal(t, len(want), read.Len())
}

func TestTokensAreSound(t *testing.T) {
	const file = "func Assign(v Vessel) error"
	packed := model.AppendToken(nil, file, model.TokenKeyword, file[:4])
	packed = model.AppendToken(packed, file, model.TokenName, file[5:11])
	packed = model.AppendToken(packed, file, model.TokenPunctuation, " of its own ")
	tokens := model.Tokens(packed)
	assert.True(t, tokens.Sound(len(file)))
	assert.True(t, model.Tokens("").Sound(0))
	assert.False(t, tokens.Sound(8), "the text is shorter")
	for n := 1; n < len(tokens); n++ {
		if cut := tokens[:n]; cut.Sound(len(file)) {
			assert.NotPanics(t, func() { cut.Text(file) }, "what is called sound can be read")
		}
	}
	for _, bad := range []model.Tokens{"\x00", "\x00\x05", "\x80\x05ab", "\x00\xff", "\x00\xff\xff\xff\xff\xff\xff\xff\xff\xff\xff\xff\x01\x00", "\x00\x04\xff\x7f"} {
		assert.False(t, bad.Sound(len(file)), "%q", bad)
	}
	text, err := tokens.MarshalText()
	require.NoError(t, err)
	var read model.Tokens
	require.NoError(t, read.UnmarshalText(text))
	assert.Equal(t, tokens, read)
	assert.Error(t, read.UnmarshalText([]byte("no base 64!")))
}

func TestSpansAreWritten(t *testing.T) {
	data, err := json.Marshal(source.NewSpan(3, 12))
	require.NoError(t, err)
	assert.Equal(t, "[3,12]", string(data))
	var s source.Span
	require.NoError(t, json.Unmarshal(data, &s))
	assert.Equal(t, source.NewSpan(3, 12), s)
	for _, wrong := range []string{"[5,3]", "[-1,3]", "{}", `"x"`, "[1,99999999999]"} {
		assert.Error(t, json.Unmarshal([]byte(wrong), &s), wrong)
	}
}

func TestSettledModules(t *testing.T) {
	lib := &model.Library{Name: "port"}
	m := model.NewModule(lib, "port")
	d := m.Declare(nil, "", model.Name{Text: "Berth"})
	assert.True(t, m.Has(nil, "Berth"))
	assert.False(t, m.Has(d, "Berth"))
	assert.False(t, m.Changed())
	assert.False(t, m.Settled())
	m.Settle()
	m.Settle()
	assert.True(t, m.Settled())
	assert.False(t, m.Changed(), "to settle is no change")

	other := model.NewModule(lib, "quay")
	f := &model.Facts{Path: "a"}
	base := other.Declare(nil, "", model.Name{Text: "base"})
	base.Occurrences = []model.At{{Occurrence: &model.Occurrence{Name: "base"}, File: f}}
	base.Settle()
	require.NotNil(t, other.Adopt(nil, with(other, "depth", f)))
	assert.True(t, other.Changed(), "a module that linking gave a member")
}

func with(m *model.Module, name string, f *model.Facts) *model.Declaration {
	from := model.NewModule(m.Library, "elsewhere")
	d := from.Declare(nil, "", model.Name{Text: name})
	d.Occurrences = []model.At{{Occurrence: &model.Occurrence{Name: name}, File: f}}
	d.Settle()
	return d
}
