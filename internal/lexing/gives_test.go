package lexing_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	front "codrel/internal/lang/java"
	"codrel/internal/lang/langtest"
	"codrel/internal/model"
)

// Bodies say where there is no result to describe.
func TestGives(t *testing.T) {
	for body, want := range map[string]model.Returned{
		"{ throw new A(); }":                              model.ReturnsNever,
		"{ throw b ? new A(\";\") : c(() -> { d(); }); }": model.ReturnsNever,
		"{ return this; }":                                model.ReturnsSelf,
		"{ if (a) { return this; } b(); return this; }":   model.ReturnsSelf,
		"{ return add(1, 2); }":                           model.ReturnsSelf,
		"{ if (a) throw new A(); return this; }":          model.ReturnsSelf,
		"{ if (a) return null; return this; }":            model.ReturnsUnknown,
		"{ return this.b; }":                              model.ReturnsUnknown,
		"{ return thisOne; }":                             model.ReturnsUnknown,
		"{ throw new A(); b(); }":                         model.ReturnsUnknown,
		"{ }":                                             model.ReturnsUnknown,
		";":                                               model.ReturnsUnknown,
	} {
		facts := langtest.Read(front.FrontEnd{}, "B.java", []byte("class B { /** Adds. */ B add(int a) "+body+" }"))
		assert.Equal(t, want, facts.Occurrences[1].Callable.Returns, body)
	}
	facts := langtest.Read(front.FrontEnd{}, "B.java", []byte("class B { /** Adds. */ int add(int a) { return add(1); } }"))
	assert.Equal(t, model.ReturnsUnknown, facts.Occurrences[1].Callable.Returns, "it may be any number")
}
