package script_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/lang/langtest"
	"codrel/internal/model"
)

// Type parameters hide the types that are called as they are, wherever they are in scope.
func TestTypeParametersInTypes(t *testing.T) {
	for text, want := range map[string]string{
		"interface A<T> { x: T; y: B<T>; z: T.U }":                                           "B T.U",
		"interface A<T> { x<U>(u: U, t: T): V }\ninterface C { x: T; y: U }":                 "V T U",
		"class A<out T extends B = C> extends D<T> { x: T; constructor(t: T) {} }\nlet y: T": "B C D T",
		"function f<T, const U extends T>(t: T): U {}\nfunction g(t: T): U {}":               "T U",
		"const f = <T,>(t: T): Array<T> => t\nconst g = (t: T) => t":                         "Array T",
		"type A<T> = T extends B<infer U> ? U : C\ntype D = U":                               "B C U",
		"type A<T> = { [K in keyof T as B<K>]: T[K] }\ntype C = K":                           "B K",
		"type A = { <T>(t: T): B; new <U>(u: U): C; m<V>(v: V): D<V> }":                      "B C D",
		"declare const a: <T, U extends B<T>>(t: T, f: <V>(v: V) => U) => T":                 "B",
		"let a: B<C>, d: B<(T: E) => T>":                                                     "B C B E T",
	} {
		facts := langtest.Read(either{typescript}, "a.ts", []byte(text))
		var got []string
		for i := range facts.Occurrences {
			if facts.Occurrences[i].Local {
				continue // its types stand in that of what it is a member of
			}
			for token := range facts.Occurrences[i].Signature.In(facts.Text) {
				if token.Kind == model.TokenType {
					got = append(got, token.Text)
				}
			}
		}
		assert.Equal(t, want, strings.Join(got, " "), text)
	}
}
