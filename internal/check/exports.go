package check

import (
	"codrel/internal/finding"
	"codrel/internal/link"
)

var brokenExport = Rule{
	Name: finding.BrokenExport, Default: finding.Warning, Language: "python",
	Summary: "a module exports a name that does not exist",
	Explanation: `Importing the name fails, and no page can show it. It may have moved or be
misspelled. Modules that create names at run time, or take them from outside the
project, are not judged.`,
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
		"":       "{name} is exported, but {module} declares no such name",
		"module": "all of {path} is exported, but there is no such file",
		"file":   "{name} is exported from {path}, but there is no such file",
		"listed": "{name} is listed as exported, but the module declares no such name",
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
