package script

import (
	"path"
	"strings"
)

// This file reads types that name their module ("import('./berth').Berth"), as compilers
// and comments write them (TypeScript Handbook, "Import types").

// importedType is the offset behind such a type that begins at an offset, or 0.
func (l *lexer) importedType(at int) int {
	if !l.wordAt(at, "import") || l.byteAt(l.after(at+len("import"))) != '(' {
		return 0
	}
	open := l.after(l.after(at+len("import")) + 1)
	if c := l.byteAt(open); c != '"' && c != '\'' {
		return 0
	}
	end := l.after(l.quoted(open))
	if l.byteAt(end) != ')' {
		return 0
	}
	stop := 0
	for at = end + 1; l.byteAt(at) == '.' && startsName(l.byteAt(at+1)); at = stop {
		stop = l.nameEnd(at + 1)
	}
	return stop
}

// ImportedType takes a type apart that names its module.
func (FrontEnd) ImportedType(text string) (from, name, short string, ok bool) {
	l := lexer{text: text, typed: true, unclosed: -1, sig: -1}
	if !strings.HasPrefix(text, "import") || l.importedType(0) != len(text) {
		return "", "", "", false
	}
	open := strings.IndexAny(text, `'"`)
	end := l.quoted(open)
	from, name = text[open+1:end-1], text[strings.IndexByte(text[end:], '.')+end+1:]
	if short = name; name == "default" {
		short = stem(path.Base(from))
	}
	return from, name, short, true
}
