package golang

import "codrel/internal/model"

var habits = model.Habits{
	Language: "go", Name: "Go", Dialect: "go", Fences: []string{"go", "golang"},
	PathMark: "/", Program: "main", Unnamed: "_", Directive: "//codrel:", Fails: "returns", Implicit: true, Started: []string{"main", "init"},
	Universe: map[string]map[string]string{
		"error": {"Error": "()(string)"}, // predeclared ("The Go Programming Language Specification", "Predeclared identifiers")
		"any":   {},
	},
}

// Habits are those of Go.
func (FrontEnd) Habits() *model.Habits { return &habits }
