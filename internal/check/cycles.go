package check

import (
	"strings"

	"codrel/internal/finding"
)

var importCycle = Rule{
	Name: finding.ImportCycle, Default: finding.Note, Language: "python",
	Summary: "modules import one another in a cycle",
	Explanation: `No module of a cycle can be understood, used or moved without the others, and the
order of loading decides what works. Move what they share into a module of its own.
Imports for types alone are not counted. Where several cycles overlap, a shortest
one is named.`,
	Wrong: `"""Predicts."""
from . import moon
-- tide/__init__.py --
"""Tides."""
-- tide/tide.py --
"""Predicts."""
from . import moon
-- tide/moon.py --
"""Knows the moon."""
from . import tide
`,
	Right: `"""Predicts."""
-- tide/__init__.py --
"""Tides."""
-- tide/tide.py --
"""Predicts."""
from . import moon
-- tide/moon.py --
"""Knows the moon."""
`,
	Messages: map[string]string{
		"": "import cycle: {path}",
	},
	module: func(p *Pass) {
		if h := p.Module.Library.Habits; h != nil && h.Circles {
			return
		}
		for _, c := range p.Links.Cycles() {
			if c.Modules[0] != p.Module || c.Edge.File == nil {
				continue
			}
			f := finding.Finding{Rule: finding.ImportCycle, Place: c.Edge.File.Place(c.Edge.Span)}
			var path []string
			for _, m := range append(c.Modules, c.Modules[0]) {
				path = append(path, m.Path)
			}
			f.Arguments = append(f.Arguments, argument("path", strings.Join(path, " → ")))
			p.report(nil, f)
		}
	},
}
