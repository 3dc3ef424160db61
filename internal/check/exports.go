package check

import (
	"codrel/internal/finding"
	"codrel/internal/link"
)

var brokenExport = Rule{
	Name: finding.BrokenExport, Default: finding.Warning, Language: "python",
	Summary: "a module gives its users something that cannot be found",
	Explanation: `Whoever imports the name gets an error, or nothing, and no page can show it. The name
may have moved, or be misspelt. Modules that make names when they run, or take them
from outside the project, are not asked.`,
	Wrong: `"""Tides."""
from .plan import Plan, Berth
-- tide/__init__.py --
"""Tides."""
from .plan import Plan, Berth
__all__ = ["Plan", "Berth"]
-- tide/plan.py --
"""Plans."""
class Plan:
    """A plan."""
`,
	Right: `"""Tides."""
-- tide/__init__.py --
"""Tides."""
from .plan import Plan
__all__ = ["Plan"]
-- tide/plan.py --
"""Plans."""
class Plan:
    """A plan."""
`,
	Messages: map[string]string{
		"":       "{name} is given to users, but {module} has no such name",
		"module": "everything in {path} is given to users, but there is no such file",
		"file":   "{name} is given to users out of {path}, but there is no such file",
		"listed": "{name} is on the list of what the module gives to users, but nothing there is called so",
	},
	module: func(p *Pass) {
		if !p.Links.ModuleInReach(p.Module) {
			return
		}
		for _, broken := range p.Links.BrokenExports(p.Module) {
			if broken.File.Generated {
				continue
			}
			f := finding.Finding{Rule: finding.BrokenExport, Form: formOf(broken), Place: broken.File.Place(broken.Span)}
			f.Arguments = append(f.Arguments, argument("name", broken.Name), argument("path", broken.Path), argument("module", broken.Module))
			p.report(nil, f)
		}
	},
}

func formOf(b link.BrokenExport) string {
	switch {
	case b.Listed:
		return "listed"
	case b.Module != "":
		return ""
	case b.Name == "":
		return "module"
	}
	return "file"
}
