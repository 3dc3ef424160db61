package script

import "codrel/internal/model"

var javascript = model.Habits{
	Language: "javascript", Name: "JavaScript", Family: "script", Dialect: "blocktags", Fences: []string{"javascript", "js", "jsx", "mjs", "cjs", "node"},
	PathMark: "/", Nested: true, Default: "default", Directive: "// codrel: ", Fails: "throws", Apart: true, Self: []string{"this"}, Unused: "_", Lists: true,
	Nothing: []string{"", "void", "undefined", "never", "Promise<void>", "asserts", "this"},
	MayMake: []string{"defineProperty", "Object.assign"},
}

var typescript = func() model.Habits {
	h := javascript
	h.Overloads = true
	h.Language, h.Name, h.Fences = "typescript", "TypeScript", []string{"typescript", "ts", "tsx", "mts", "cts"}
	return h
}()

// Habits are those of the language that is read.
func (e FrontEnd) Habits() *model.Habits {
	if e.Typed {
		return &typescript
	}
	return &javascript
}
