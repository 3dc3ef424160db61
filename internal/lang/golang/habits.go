package golang

import "codrel/internal/model"

var habits = model.Habits{
	Language: "go", Name: "Go", Dialect: "go", Fences: []string{"go", "golang"},
	PathMark: "/", Nested: true, Program: "main", Unnamed: "_", Unused: "_", Directive: "//codrel:", Fails: "returns", Started: []string{"main", "init"},
}

// Habits are those of Go.
func (FrontEnd) Habits() *model.Habits { return &habits }
