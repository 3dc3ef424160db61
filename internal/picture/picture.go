// Package picture owns which files pages show as pictures and films, and how large these are
// drawn, so that a page keeps its lines in place while they load.
//
// It reads the first bytes of a file and nothing else; it knows no page.
package picture

import (
	"bytes"
	"encoding/xml"
	"image"
	_ "image/gif" // as a format of pictures
	_ "image/jpeg"
	_ "image/png"
	"path"
	"strconv"
	"strings"

	_ "golang.org/x/image/webp" // as a format of pictures
)

// Files that are larger are not copied into a site.
const (
	Largest     = 8 << 20   // bytes of a picture
	LargestFilm = 128 << 20 // bytes of a film
)

// Kind is what a file shows.
type Kind uint8

// The kinds of files.
const (
	None Kind = iota
	Still
	Film
)

// Of is the kind of a file, by its ending.
func Of(file string) Kind {
	switch strings.ToLower(path.Ext(file)) {
	case ".png", ".jpg", ".jpeg", ".gif", ".webp", ".avif", ".svg":
		return Still
	case ".mp4", ".webm", ".ogv", ".mov", ".m4v":
		return Film
	}
	return None
}

// Most is how many bytes a file of a kind may have to be copied.
func (k Kind) Most() int64 {
	if k == Film {
		return LargestFilm
	}
	return Largest
}

// Size is the width and height, in pixels, of a picture or film by its bytes; ok is false
// where they do not say it, or in a way that is not read here.
func Size(file string, data []byte) (width, height int, ok bool) {
	switch strings.ToLower(path.Ext(file)) {
	case ".svg":
		return svgSize(data)
	case ".mp4", ".mov", ".m4v":
		return boxSize(data, 0)
	case ".webm":
		return webmSize(data)
	}
	config, _, err := image.DecodeConfig(bytes.NewReader(data))
	if err != nil {
		return 0, 0, false
	}
	return config.Width, config.Height, config.Width > 0 && config.Height > 0
}

// svgSize reads the attributes of the outermost element: the size in pixels, else that of the
// part of the plane that it shows.
func svgSize(data []byte) (width, height int, ok bool) {
	d := xml.NewDecoder(bytes.NewReader(data))
	d.Strict = false
	for range 50 { // what stands before it: declarations and comments
		token, err := d.Token()
		if err != nil {
			return 0, 0, false
		}
		start, is := token.(xml.StartElement)
		if !is {
			continue
		}
		values := map[string]string{}
		for _, a := range start.Attr {
			values[a.Name.Local] = a.Value
		}
		width, wide := pixels(values["width"])
		height, high := pixels(values["height"])
		if box := strings.Fields(strings.ReplaceAll(values["viewBox"], ",", " ")); len(box) == 4 && !(wide && high) {
			width, wide = pixels(box[2])
			height, high = pixels(box[3])
		}
		return width, height, wide && high
	}
	return 0, 0, false
}

func pixels(text string) (int, bool) {
	n, err := strconv.ParseFloat(strings.TrimSuffix(strings.TrimSpace(text), "px"), 64)
	return int(n + 0.5), err == nil && n >= 1 && n < 100_000
}

// deepestBox bounds how far boxes are looked into.
const deepestBox = 4

// boxSize finds the track header with a size among the boxes of ISO/IEC 14496-12: its last two
// words are the width and height with 16 bits of fraction.
func boxSize(data []byte, depth int) (width, height int, ok bool) {
	for len(data) >= 8 && depth < deepestBox {
		size, kind, head := int64(word(data)), string(data[4:8]), int64(8)
		if size == 1 && len(data) >= 16 {
			size, head = int64(word(data[8:]))<<32|int64(word(data[12:])), 16
		}
		if size == 0 {
			size = int64(len(data))
		}
		if size < head {
			return 0, 0, false
		}
		inside := data[head:min(max(size, head), int64(len(data)))]
		switch kind {
		case "moov", "trak":
			if width, height, ok = boxSize(inside, depth+1); ok {
				return width, height, true
			}
		case "tkhd":
			if n := len(inside); n >= 84 {
				width, height = int(word(inside[n-8:])>>16), int(word(inside[n-4:])>>16)
				return width, height, width > 0 && height > 0
			}
		}
		if size >= int64(len(data)) {
			return 0, 0, false
		}
		data = data[size:]
	}
	return 0, 0, false
}

func word(b []byte) uint32 {
	return uint32(b[0])<<24 | uint32(b[1])<<16 | uint32(b[2])<<8 | uint32(b[3])
}

// webmSize looks for the pixel width and height of a video track (RFC 9559, 5.1.4.1.28): one or
// two bytes each behind their identifiers.
func webmSize(data []byte) (width, height int, ok bool) {
	data = data[:min(len(data), 64<<10)]
	for i := 0; i+8 < len(data); i++ {
		if data[i] != 0xB0 {
			continue
		}
		w, next, right := element(data, i)
		if !right || next+3 >= len(data) || data[next] != 0xBA {
			continue
		}
		if h, _, right := element(data, next); right {
			return w, h, true
		}
	}
	return 0, 0, false
}

// element is a small number with its length before it, and where the next element begins.
func element(data []byte, at int) (value, next int, ok bool) {
	switch data[at+1] {
	case 0x81:
		return int(data[at+2]), at + 3, data[at+2] > 0
	case 0x82:
		return int(data[at+2])<<8 | int(data[at+3]), at + 4, true
	}
	return 0, 0, false
}
