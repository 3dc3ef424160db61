package model

import (
	"slices"
	"strings"
)

// Kind tells what a declaration is, in terms that hold for all languages.
type Kind uint8

// The kinds of declarations.
const (
	KindModule Kind = iota
	KindNamespace
	KindClass
	KindStruct
	KindInterface
	KindTrait
	KindEnum
	KindEnumMember
	KindUnion
	KindRecord
	KindFunction
	KindMethod
	KindConstructor
	KindDestructor
	KindOperator
	KindField
	KindProperty
	KindEvent
	KindConstant
	KindVariable
	KindType
	KindMacro
	KindAnnotation
	KindDelegate
	KindIndexer
	KindOperation
)

var kindWords = [...]string{
	"module", "namespace", "class", "struct", "interface", "trait", "enum", "enum-member", "union", "record",
	"function", "method", "constructor", "destructor", "operator", "field", "property", "event", "constant",
	"variable", "type", "macro", "annotation", "delegate", "indexer", "operation",
}

// String is the kind's word, as the symbol stream writes it.
func (k Kind) String() string { return kindWords[k] }

// Words are those of the kind for people to read.
func (k Kind) Words() string { return strings.ReplaceAll(kindWords[k], "-", " ") }

// IsType reports whether declarations of this kind have a page and members of their own.
func (k Kind) IsType() bool {
	switch k {
	case KindClass, KindStruct, KindInterface, KindTrait, KindEnum, KindUnion, KindRecord, KindType, KindAnnotation, KindDelegate, KindNamespace, KindModule:
		return true
	}
	return false
}

// IsCallable reports whether declarations of this kind take parameters.
func (k Kind) IsCallable() bool {
	switch k {
	case KindFunction, KindMethod, KindConstructor, KindDestructor, KindOperator, KindMacro, KindDelegate, KindIndexer, KindOperation:
		return true
	}
	return false
}

// KindWords lists the words of all kinds, in the order of the constants.
func KindWords() []string { return slices.Clone(kindWords[:]) }

// ParseKind is the kind that a word stands for.
func ParseKind(word string) (Kind, bool) {
	i := slices.Index(kindWords[:], word)
	return Kind(max(i, 0)), i >= 0
}

// Visibility tells who may use a declaration, by its language's rules.
type Visibility uint8

// The visibilities, widest first, so that the least visible of two is the greater.
const (
	Public Visibility = iota
	Protected
	Internal
	PackageWide // visible in the package only, the language's default
	Private
)

var visibilityWords = [...]string{"public", "protected", "internal", "package", "private"}

// String is the word that the symbol stream and the settings use.
func (v Visibility) String() string { return visibilityWords[v] }

// VisibilityWords lists the words of all visibilities, widest first.
func VisibilityWords() []string { return slices.Clone(visibilityWords[:]) }

// Reach is the least visible kind of declaration that is included.
type Reach Visibility

// The reaches a setting can name. Package-wide declarations are within Internal.
const (
	ReachPublic    = Reach(Public)
	ReachProtected = Reach(Protected)
	ReachInternal  = Reach(PackageWide)
	ReachPrivate   = Reach(Private)
)

var reachWords = map[string]Reach{
	"public": ReachPublic, "protected": ReachProtected, "internal": ReachInternal, "private": ReachPrivate,
}

// ParseReach reads the word of a setting or flag.
func ParseReach(word string) (Reach, bool) {
	r, ok := reachWords[word]
	return r, ok
}

// String is the word that the settings use.
func (r Reach) String() string {
	for word, reach := range reachWords {
		if reach == r {
			return word
		}
	}
	return Visibility(r).String()
}

// Includes reports whether declarations of visibility v are in reach.
func (r Reach) Includes(v Visibility) bool { return v <= Visibility(r) }

// Role tells what a file is for.
type Role uint8

// The roles of files.
const (
	RoleCode Role = iota
	RoleTest      // read for relations, never shown as reference
)

// String is the word that the symbol stream uses.
func (r Role) String() string {
	if r == RoleTest {
		return "test"
	}
	return "code"
}

// Known reports whether there is such a kind.
func (k Kind) Known() bool { return int(k) < len(kindWords) }
