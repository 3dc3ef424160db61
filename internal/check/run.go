package check

import (
	"context"
	"slices"
	"strings"

	"github.com/bmatcuk/doublestar/v4"

	"codrel/internal/finding"
	"codrel/internal/lang"
	"codrel/internal/link"
	"codrel/internal/model"
	"codrel/internal/parallel"
)

// Options is what the rules are told.
type Options struct {
	Reach   model.Reach
	Rules   map[string]finding.Severity // instead of the default ones
	Folders []Folder                    // later ones win
	Only    []string                    // names of the only rules to apply; empty for all
	Workers int
	// AskInherited is whether a member that inherits its text should have one of its own.
	AskInherited bool
	// FileFields are what the comment at the head of each file must say.
	FileFields []string
}

// Folder changes severities for the files that match a pattern.
type Folder struct {
	Pattern string
	Rules   map[string]finding.Severity
}

// Coverage counts the declarations that ask for a comment.
type Coverage struct {
	Documented    int
	Total         int
	Inherited     int // of the documented: described by another's comment alone
	InheritedOnly int // described by another's comment, which does not count
}

// Percent is the documented share; a project that has nothing to document is whole.
func (c Coverage) Percent() float64 {
	if c.Total == 0 {
		return 100
	}
	return 100 * float64(c.Documented) / float64(c.Total)
}

// Result is what a run found.
type Result struct {
	Findings []finding.Finding // sorted, with their severities
	Coverage Coverage
	Modules  map[*model.Module]Coverage
	Excused  int // findings that an excuse in the source keeps silent
}

// Run applies the rules to every module. earlier are findings of the stages
// before, which get their severities here too.
func Run(ctx context.Context, project *model.Project, links *link.Index, earlier []finding.Finding, options Options) Result {
	var modules []*model.Module
	for _, lib := range project.Libraries {
		modules = append(modules, lib.Modules...)
	}
	passes := make([]Pass, len(modules))
	_ = parallel.Each(ctx, options.Workers, len(modules), func(i int) { // who asks looks at the context
		passes[i] = Pass{Links: links, Module: modules[i], known: isRule, inheritedCounts: !options.AskInherited, fileFields: options.FileFields}
		passes[i].run(options)
	})
	result := Result{Findings: slices.Clone(earlier), Modules: map[*model.Module]Coverage{}}
	home := Pass{Links: links}
	var inserted []string
	for _, p := range passes {
		inserted = append(inserted, p.inserted...)
	}
	home.pages(inserted, options)
	for _, p := range append(passes, home) {
		result.Findings = append(result.Findings, p.findings...)
		result.Coverage.Documented += p.coverage.Documented
		result.Coverage.Total += p.coverage.Total
		result.Coverage.Inherited += p.coverage.Inherited
		result.Coverage.InheritedOnly += p.coverage.InheritedOnly
		result.Excused += p.excused
		if p.Module != nil {
			result.Modules[p.Module] = p.coverage
		}
	}
	result.Findings = options.weigh(result.Findings)
	finding.Sort(result.Findings)
	result.Findings = merged(finding.Unique(result.Findings))
	return result
}

// Module is what the rules find in one module, sorted and with severities: the findings of
// [Run] that have a place in it, but for places in other modules of the same cause.
func Module(m *model.Module, links *link.Index, options Options) []finding.Finding {
	p := Pass{Links: links, Module: m, known: isRule, inheritedCounts: !options.AskInherited, fileFields: options.FileFields}
	p.run(options)
	list := p.findings
	for _, f := range m.Files {
		list = append(list, f.Problems...)
	}
	list = options.weigh(list)
	finding.Sort(list)
	return merged(finding.Unique(list))
}

// Pages are what the rules find in the guides and fragments, sorted and with severities: the
// findings of [Run] that have a place in them, but for fragments that nothing inserts.
func Pages(links *link.Index, options Options) []finding.Finding {
	p := Pass{Links: links}
	p.pages(nil, options)
	list := slices.DeleteFunc(p.findings, func(f finding.Finding) bool { return f.Rule == finding.BrokenFragment && f.Form == "unused" })
	list = options.weigh(list)
	finding.Sort(list)
	return merged(finding.Unique(list))
}

// Add puts findings to those of [Run], with their severities, in order.
func Add(to, found []finding.Finding, options Options) []finding.Finding {
	list := slices.Concat(to, options.weigh(found))
	finding.Sort(list)
	return list
}

// off reports whether a rule is off for all files.
func (o Options) off(r *Rule) bool {
	on := r.Default
	if s, said := o.Rules[r.Name]; said {
		on = s
	}
	return on == finding.Off && !slices.ContainsFunc(o.Folders, func(f Folder) bool { _, said := f.Rules[r.Name]; return said })
}

func applies(options Options, rule string) bool {
	return len(options.Only) == 0 || slices.Contains(options.Only, rule)
}

// weigh sets the severities and drops what is off.
func (o Options) weigh(list []finding.Finding) []finding.Finding {
	kept := list[:0]
	for _, f := range list {
		if !applies(o, f.Rule) {
			continue
		}
		severity := o.severity(f.Rule, f.Place.File)
		if f.Severity != finding.Off {
			severity = min(severity, f.Severity)
		}
		if f.Severity = severity; severity != finding.Off {
			kept = append(kept, f)
		}
	}
	return kept
}

func (o Options) severity(rule, file string) finding.Severity {
	severity := finding.Error
	if r := ByName(rule); r != nil {
		severity = r.Default
	}
	if s, ok := o.Rules[rule]; ok {
		severity = s
	}
	for _, f := range o.Folders {
		s, ok := f.Rules[rule]
		if !ok {
			continue
		}
		if match, _ := doublestar.Match(f.Pattern, file); match || strings.HasPrefix(file, strings.TrimSuffix(f.Pattern, "/")+"/") {
			severity = s
		}
	}
	return severity
}

// Pass is the application of all rules to one module.
type Pass struct {
	Links    *link.Index
	Module   *model.Module
	findings []finding.Finding
	coverage Coverage
	excused  int
	inserted []string // names of fragments that texts insert

	inheritedCounts bool
	fileFields      []string
	known           func(rule string) bool // a rule's name; a rule cannot ask the list it stands in
}

func isRule(name string) bool { return ByName(name) != nil }

func (p *Pass) run(options Options) {
	p.count()
	for i := range Rules {
		if Rules[i].module != nil && applies(options, Rules[i].Name) && !options.off(&Rules[i]) {
			Rules[i].module(p)
		}
	}
}

// report adds a finding about a declaration, unless an excuse beside it lets
// the rule pass. d is nil for what is about the module as a whole.
func (p *Pass) report(d *model.Declaration, f finding.Finding) {
	if d != nil {
		f.Subject = d.ID()
	}
	if p.lets(d, f.Rule) {
		p.excused++
		return
	}
	p.findings = append(p.findings, f)
}

// lets reports whether an excuse with a reason stands beside the declaration.
func (p *Pass) lets(d *model.Declaration, rule string) bool {
	excuses := func(list []model.Directive) bool {
		return slices.ContainsFunc(list, func(w model.Directive) bool {
			return w.Verb == "let" && w.Object == rule && w.Reason != ""
		})
	}
	if d == nil {
		if rule == finding.MissingModuleComment && p.Module != nil && p.Module.Unworded {
			return true
		}
		return p.Module != nil && slices.ContainsFunc(p.Module.Files, func(f *model.Facts) bool { return excuses(f.Directives) })
	}
	return rule == finding.Undocumented && d.Module.Unworded || slices.ContainsFunc(d.Occurrences, func(o model.At) bool { return excuses(o.Directives()) })
}

// moduleWord is what the language calls the module.
func (p *Pass) moduleWord() string {
	if worder, ok := p.Links.FrontEnd(p.Module.Library.Language).(lang.Terminology); ok {
		return strings.ReplaceAll(strings.TrimSuffix(worder.ModuleWord(p.Module), "-word"), "-", " ") // it is a key of texts
	}
	return model.KindModule.String()
}

// failureVerb is how the language says that a body fails.
func (p *Pass) failureVerb() string {
	return p.Module.Library.Habits.Fails
}

// shown yields the declarations of the module that are in reach and written by a person.
func (p *Pass) shown(yield func(*model.Declaration) bool) {
	for d := range p.Module.Declarations {
		if p.Links.InReach(d) && !d.Generated() && p.Links.Adopter(d) && !yield(d) {
			return
		}
	}
}

func at(d *model.Declaration) finding.Place {
	o := d.Speaks(model.Words)
	return o.File.Place(o.NameSpan)
}

func argument(name, value string) finding.Argument {
	return finding.Argument{Name: name, Value: value}
}
