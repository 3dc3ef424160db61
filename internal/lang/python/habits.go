package python

import "codrel/internal/model"

var habits = model.Habits{
	Language: "python", Name: "Python", Dialect: "docstring", Fences: []string{"python", "py", "python3", "pycon", "py3"},
	PathMark: ".", Unused: "_", Directive: "# codrel: ", Fails: "raises", Dynamic: true, Self: []string{"self", "cls"}, Nothing: []string{"", "None", "NoReturn", "Never"},
}

// Habits are those of Python.
func (FrontEnd) Habits() *model.Habits { return &habits }
