package source

import (
	"bytes"
	"encoding/binary"
	"strings"
	"unicode/utf16"
	"unicode/utf8"
	"unsafe"
)

// Encoding says how the bytes of a file stood for its text.
type Encoding uint8

// The encodings that are read. Only UTF8 files may ever be written back.
const (
	UTF8     Encoding = iota // UTF-8 without a mark
	UTF8Mark                 // UTF-8 behind a byte order mark
	UTF16LE                  // UTF-16, little end first, behind a mark
	UTF16BE                  // UTF-16, big end first, behind a mark
	Latin1                   // not valid UTF-8: bytes above 127 are read as ISO 8859-1
)

// String names the encoding as its standard does.
func (e Encoding) String() string {
	return [...]string{"UTF-8", "UTF-8 with a byte order mark", "UTF-16LE", "UTF-16BE", "ISO 8859-1"}[e]
}

// Text is one decoded file.
type Text struct {
	String   string   // always valid UTF-8, without a byte order mark
	Encoding Encoding // how the bytes were read
	Lines    Lines
	// Foreign is the first place where the bytes were not valid UTF-8, and is
	// meaningful for Latin1 only.
	Foreign Span
}

// Decode turns the bytes of a file into text and never fails: what is not
// UTF-8 and carries no UTF-16 mark is read as ISO 8859-1, byte for character.
// Decode takes over data, which must not be changed afterwards.
func Decode(data []byte) Text {
	t := Text{}
	switch {
	case bytes.HasPrefix(data, []byte("\xef\xbb\xbf")):
		t.Encoding, data = UTF8Mark, data[3:]
	case bytes.HasPrefix(data, []byte("\xff\xfe")):
		t.Encoding, data = UTF16LE, fromUTF16(data[2:], binary.LittleEndian)
	case bytes.HasPrefix(data, []byte("\xfe\xff")):
		t.Encoding, data = UTF16BE, fromUTF16(data[2:], binary.BigEndian)
	}
	// The bytes are handed over, so the copy that a conversion makes is saved:
	// it would double the memory traffic of reading.
	t.String = unsafe.String(unsafe.SliceData(data), len(data))
	ascii := isASCII(t.String)
	if !ascii && !utf8.ValidString(t.String) {
		t.Encoding = Latin1
		t.String, t.Foreign = fromLatin1(t.String)
	}
	t.Lines = linesOf(t.String, ascii)
	return t
}

func fromUTF16(data []byte, order binary.ByteOrder) []byte {
	units := make([]uint16, len(data)/2)
	for i := range units {
		units[i] = order.Uint16(data[2*i:])
	}
	return []byte(string(utf16.Decode(units)))
}

// fromLatin1 keeps the sequences that are valid UTF-8 and reads every other
// byte as one ISO 8859-1 character: files of mixed origin are common.
func fromLatin1(s string) (text string, first Span) {
	var b strings.Builder
	b.Grow(len(s) + len(s)/8)
	for i := 0; i < len(s); {
		r, n := utf8.DecodeRuneInString(s[i:])
		if r == utf8.RuneError && n == 1 {
			r = rune(s[i])
			if first.Empty() {
				first = NewSpan(b.Len(), b.Len()+2)
			}
		}
		b.WriteRune(r)
		i += n
	}
	return b.String(), first
}
