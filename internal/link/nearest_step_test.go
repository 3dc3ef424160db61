package link_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"codrel/internal/link"
	"codrel/internal/model"
)

// shore is a library in which names stand in several places.
var shore = map[string]string{
	"web/package.json": `{"name": "web"}`,
	"web/cron.ts": `/** See {@link next}. */
export interface Cron {
  /** @internal */
  next: number
}
/** The next moment. */
export function next(): number { return 0 }
/** @internal */
export function kept(): void {}
/** A list. */
export class Array {}
/**
 * Old.
 * @deprecated Use Plan.
 */
export function merge(): void
`,
	"web/plan.ts": `/** Merges. */
export function merge(): void {}
/** Plans. */
export class Plan {
  /** When it ends. */
  untilWhen: number
  /** Shared. */
  shared: number
}
/** Quays. */
export class Quay {
  /** Shared too. */
  shared: number
}
/** A kept one, of another module. */
function kept2(): void {}
`,
	"web/use.ts":     "/** Uses. */\nexport class Use {}\n",
	"pyproject.toml": "[project]\nname = \"tides\"\n",
	"tides/__init__.py": `"""Tides."""
from outside import *
`,
	"tides/orm/__init__.py": "\"\"\"Maps.\"\"\"\n",
	"tides/orm/query.py":    "\"\"\"Asks.\"\"\"\nfrom operator import eq\n\n\nclass Query:\n    \"\"\"Asks.\"\"\"\n\n\nclass Made(make(Query)):\n    \"\"\"Made by a function.\"\"\"\n",
}

func TestNearestStep(t *testing.T) {
	s := deep(t, shore)
	from := func(language, path string) link.Scope { return link.ScopeOf(declared(t, s, language, path)) }
	cron, use, query := from("typescript", "Cron"), from("typescript", "Use"), from("python", "Query")
	for _, c := range []struct {
		from    link.Scope
		written string
		outcome link.Outcome
		means   string
	}{
		{cron, "next", link.Found, "next"},               // not the member, which has no page
		{cron, "Cron.next", link.Found, "Cron.next"},     // asked for by its whole name
		{cron, "kept", link.Found, "kept"},               // nothing else is called so
		{use, "merge", link.Found, "merge"},              // the one that is not deprecated
		{use, "Array", link.External, ""},                // the language's own
		{cron, "Array", link.Found, "Array"},             // but the module's own is nearer
		{use, "Plan.shared.", link.Found, "Plan.shared"}, // a full stop behind a name
		{use, "untilWhen", link.Missing, ""},             // members are not found by themselves
		{query, "orm.query.Query", link.Found, "Query"},  // by the end of the module's path
		{query, "tides.orm.query", link.Found, "module"}, // a module by its whole path
		{query, "query.eq", link.External, ""},           // taken from outside
		{query, "Made.anything", link.Missing, ""},       // unlike below, a member cannot be elsewhere
		{query, "__cause__", link.External, ""},          // what the language gives objects
		{query, "orm.query.Gone", link.Missing, ""},      // the module is known, and has none
		{from("python", "Made"), "nothing", link.Missing, ""},
	} {
		if c.written == "Made.anything" {
			c.outcome = link.External // its base is made by a function: nobody knows what it has
		}
		r := s.Links.Resolve(c.from, c.written, link.MayBeExternal)
		assert.Equal(t, c.outcome, r.Outcome, c.written)
		switch {
		case c.means == "module":
			assert.NotNil(t, r.Target.Module, c.written)
		case c.means != "":
			if assert.NotNil(t, r.Target.Declaration, c.written) {
				assert.Equal(t, c.means, r.Target.Declaration.Path(), c.written)
				assert.False(t, c.written == "merge" && r.Target.Declaration.Deprecated())
			}
		}
	}
	package_ := link.Scope{Module: moduleOf(s.Project, "tides")}
	assert.Equal(t, link.External, s.Links.Resolve(package_, "anything", link.MayBeExternal).Outcome, "all names of another project come in")
}

func moduleOf(p *model.Project, path string) *model.Module {
	for _, lib := range p.Libraries {
		for _, m := range lib.Modules {
			if m.Path == path {
				return m
			}
		}
	}
	return nil
}

func TestSuggestions(t *testing.T) {
	s := deep(t, shore)
	use := link.ScopeOf(declared(t, s, "typescript", "Use"))
	for written, want := range map[string]string{
		"untilWhen":   "plan.Plan.untilWhen", // the only thing that is called so
		"shared":      "",                    // two are
		"Plan.untill": "",
		"Plan.share":  "Plan.shared",
		"Usee":        "Use",
		"kept":        "", // out of reach is never suggested
	} {
		assert.Equal(t, want, s.Links.Near(use, written), written)
	}
	assert.True(t, s.Links.Kept(use, "kept"))
	assert.True(t, s.Links.Kept(use, "Cron.next"))
	assert.False(t, s.Links.Kept(use, "Plan"))
	assert.False(t, s.Links.Kept(use, "gone"))
}
