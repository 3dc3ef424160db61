package picture_test

import (
	"bytes"
	"encoding/base64"
	"image"
	"image/gif"
	"image/jpeg"
	"image/png"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"codrel/internal/picture"
)

func TestSizes(t *testing.T) {
	box := func(kind string, inside ...string) string {
		text := strings.Join(inside, "")
		n := len(text) + 8
		return string([]byte{byte(n >> 24), byte(n >> 16), byte(n >> 8), byte(n)}) + kind + text
	}
	track := func(w, h byte) string {
		return box("trak", box("tkhd", strings.Repeat("\x00", 76)+"\x00"+string(w)+"\x00\x00\x00"+string(h)+"\x00\x00"))
	}
	made := image.NewGray(image.Rect(0, 0, 31, 17))
	var asPNG, asJPEG, asGIF bytes.Buffer
	require.NoError(t, png.Encode(&asPNG, made))
	require.NoError(t, jpeg.Encode(&asJPEG, made, nil))
	require.NoError(t, gif.Encode(&asGIF, made, nil))
	webp, err := base64.StdEncoding.DecodeString("UklGRhoAAABXRUJQVlA4TA0AAAAvAAAAEAcQERGIiP4HAA==")
	require.NoError(t, err)
	film, err := os.ReadFile("../../demo/_tidebook/docs/guides/pictures/norhaven.webm")
	require.NoError(t, err)
	for _, c := range []struct {
		file          string
		data          string
		width, height int
	}{
		{"a.PNG", asPNG.String(), 31, 17},
		{"a.jpg", asJPEG.String(), 31, 17},
		{"a.gif", asGIF.String(), 31, 17},
		{"a.webp", string(webp), 1, 1},
		{"a.svg", `<?xml version="1.0"?><!-- x --><svg width="30px" height="20.4" viewBox="0 0 3 4">`, 30, 20},
		{"a.svg", `<svg width="100%" viewBox="0, 0, 300 40"/>`, 300, 40},
		{"a.svg", `<svg/>`, 0, 0},
		{"a.svg", `no picture`, 0, 0},
		{"a.png", "x", 0, 0},
		{"a.mp4", box("ftyp", "isom") + box("moov", track(0, 0)[:0], box("mvhd", "x"), track(64, 48)), 64, 48},
		{"a.mp4", box("moov", "")[:6], 0, 0},
		{"a.mp4", "\x00\x00\x00\x01moov\x00\x00\x00\x00\x00\x00\x00\x01", 0, 0},
		{"a.webm", string(film), 480, 200},
		{"a.webm", "\xB0\x82", 0, 0},
	} {
		width, height, ok := picture.Size(c.file, []byte(c.data))
		assert.Equal(t, c.width > 0, ok, "%s %.20q", c.file, c.data)
		if ok {
			assert.Equal(t, [2]int{c.width, c.height}, [2]int{width, height}, "%s %.20q", c.file, c.data)
		}
	}
	assert.Equal(t, picture.Still, picture.Of("a/b.JPEG"))
	assert.Equal(t, picture.Film, picture.Of("b.webm"))
	assert.Equal(t, picture.None, picture.Of("b.pdf"))
}
