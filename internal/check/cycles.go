package check

import (
	"strconv"
	"strings"

	"codrel/internal/finding"
)

var importCycle = Rule{
	Name: finding.ImportCycle, Default: finding.Note, Language: "python",
	Summary: "modules import one another in a circle",
	Explanation: `None of the modules in a circle can be read, used or moved without all the
others, and which of them is loaded first decides what works. Move what they share
into a module of its own. Imports for types alone close no circle. Of a tangle of
several circles a shortest one is named.`,
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
		"":     "these modules import one another in a circle: {path}",
		"more": "these modules import one another in a circle: {path}, tangled with {n} more",
	},
	module: func(p *Pass) {
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
			if more := c.Tangled - len(c.Modules); more > 0 {
				f.Form = "more"
				f.Arguments = append(f.Arguments, argument("n", strconv.Itoa(more)))
			}
			p.report(nil, f)
		}
	},
}
