package model

import (
	"encoding/base64"
	"encoding/binary"
	"iter"
	"strings"
	"unsafe"
)

// TokenKind tells how a token of a signature is drawn and whether it can link.
type TokenKind uint8

// The kinds of signature tokens.
const (
	TokenPunctuation TokenKind = iota // with the spaces around it
	TokenKeyword
	TokenName      // the declared name itself
	TokenType      // names a type, maybe qualified
	TokenParameter // names a parameter or result
	TokenTypeParam // names a type parameter
	TokenLiteral
	TokenField   // names a field or method inside a type literal
	TokenValue   // names a value
	TokenComment // a doc comment on a part of a type, with its marks
)

// Token is one piece of a signature. The pieces in a row are the signature as it reads.
type Token struct {
	Kind  TokenKind
	Text  string
	Arity int32 // of a type: how many type arguments follow, where its language tells types apart by it
}

// OfArity is the kind of a token, to be packed, of a type that so many arguments follow.
func (k TokenKind) OfArity(arguments int) TokenKind {
	return k | TokenKind(min(arguments, mostArguments))<<arityAt
}

// What the byte of a packed kind holds beside the kind itself and [ownText].
const (
	arityAt       = 4
	mostArguments = 7 // or more
	kindAlone     = 1<<arityAt - 1
)

// Tokens is a run of tokens, packed: there are a hundred for each thing that a
// reader looks at, and most are never drawn. A token is its kind, its length,
// and its place in the file's text or, where it is not written there, its text.
type Tokens string

// ownText marks a token that carries its text.
const ownText = 0x80

// AppendToken packs a token of a file whose text is given.
func AppendToken(to []byte, file string, kind TokenKind, text string) []byte {
	if at, ok := cutFrom(file, text); ok {
		switch { // nearly all, written out since there are millions
		case len(text) < 1<<7 && at < 1<<7:
			return append(to, byte(kind), byte(len(text)), byte(at))
		case len(text) < 1<<7 && at < 1<<14:
			return append(to, byte(kind), byte(len(text)), byte(at)|1<<7, byte(at>>7))
		case len(text) < 1<<7 && at < 1<<21:
			return append(to, byte(kind), byte(len(text)), byte(at)|1<<7, byte(at>>7)|1<<7, byte(at>>14))
		}
		to = binary.AppendUvarint(append(to, byte(kind)), uint64(len(text)))
		return binary.AppendUvarint(to, uint64(at))
	}
	to = binary.AppendUvarint(append(to, byte(kind)|ownText), uint64(len(text)))
	return append(to, text...)
}

// cutFrom tells where in file the text lies, if it is a part of it and not merely equal.
func cutFrom(file, text string) (offset int, ok bool) {
	if len(text) == 0 || len(file) == 0 {
		return 0, false
	}
	at, from := uintptr(unsafe.Pointer(unsafe.StringData(text))), uintptr(unsafe.Pointer(unsafe.StringData(file)))
	return int(at - from), at >= from && at+uintptr(len(text)) <= from+uintptr(len(file))
}

// In yields the tokens; file is the text they were cut from.
func (t Tokens) In(file string) iter.Seq[Token] {
	return func(yield func(Token) bool) {
		for rest := string(t); rest != ""; {
			var token Token
			if token, rest = next(rest, file); !yield(token) {
				return
			}
		}
	}
}

func next(rest, file string) (Token, string) {
	kind := rest[0]
	size, n := uvarint(rest[1:])
	rest = rest[1+n:]
	if kind&ownText != 0 {
		return unpacked(kind&^ownText, rest[:size]), rest[size:]
	}
	at, n := uvarint(rest)
	return unpacked(kind, file[at:at+size]), rest[n:]
}

func unpacked(kind byte, text string) Token {
	return Token{Kind: TokenKind(kind & kindAlone), Text: text, Arity: int32(kind >> arityAt)}
}

// uvarint reads what [binary.AppendUvarint] wrote.
func uvarint(s string) (v, n int) {
	for shift := 0; n < len(s); shift += 7 {
		b := s[n]
		n++
		v |= int(b&0x7f) << shift
		if b < 0x80 {
			break
		}
	}
	return v, n
}

// List unpacks the tokens.
func (t Tokens) List(file string) []Token {
	var out []Token
	for token := range t.In(file) {
		out = append(out, token)
	}
	return out
}

// Text is how the tokens read in a row.
func (t Tokens) Text(file string) string {
	var b strings.Builder
	for token := range t.In(file) {
		b.WriteString(token.Text)
	}
	return b.String()
}

// Code is how the tokens read in a row, without the comments among them.
func (t Tokens) Code(file string) string {
	var b strings.Builder
	for token := range t.In(file) {
		if token.Kind != TokenComment {
			b.WriteString(token.Text)
		}
	}
	return b.String()
}

// MarshalText writes the run as it is packed, in base64 (RFC 4648).
func (t Tokens) MarshalText() ([]byte, error) {
	return base64.RawStdEncoding.AppendEncode(nil, []byte(t)), nil
}

// UnmarshalText takes a packed run.
func (t *Tokens) UnmarshalText(data []byte) error {
	packed, err := base64.RawStdEncoding.AppendDecode(nil, data)
	*t = Tokens(packed)
	return err
}

// Sound reports whether the run can be read with a text of a size: a run that came from
// outside may be damaged.
func (t Tokens) Sound(size int) bool {
	for rest := string(t); rest != ""; {
		own := rest[0]&ownText != 0
		length, n := uvarint(rest[1:])
		if n == 0 || rest[n] >= 0x80 || length < 0 {
			return false
		}
		rest = rest[1+n:]
		if own {
			if length > len(rest) {
				return false
			}
			rest = rest[length:]
			continue
		}
		at, n := uvarint(rest)
		if n == 0 || rest[n-1] >= 0x80 || at < 0 || at > size || length > size-at {
			return false
		}
		rest = rest[n:]
	}
	return true
}
