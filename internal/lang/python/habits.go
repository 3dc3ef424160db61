package python

import "codrel/internal/model"

var habits = model.Habits{
	Language: "python", Name: "Python", Dialect: "docstring", Fences: []string{"python", "py", "python3", "pycon", "py3"},
	PathMark: ".", Unused: "_", Directive: "# codrel: ", Fails: "raises", Dynamic: true, Self: []string{"self", "cls"}, Nothing: []string{"", "None", "NoReturn", "Never"},
	MayMake:   []string{"__getattr__", "globals()", "vars()", "locals()", "setattr(", "exec(", "sys.modules", "global_enum", "\n    global "},
	Makes:     []string{"globals()[", "globals().update("},
	AnyMember: "__getattr__",
}

// Habits are those of Python.
func (FrontEnd) Habits() *model.Habits { return &habits }
