package link

import (
	"cmp"
	"context"
	"slices"
	"strings"

	"codrel/internal/lang"
	"codrel/internal/model"
	"codrel/internal/parallel"
)

// Relations are what a type, or a member of one, has to do with other declarations. Every list is
// sorted by identifier and holds nothing that is out of reach.
type Relations struct {
	Implements    []*model.Declaration // interfaces that the type fulfils
	ImplementedBy []*model.Declaration
	Extends       []*model.Declaration
	ExtendedBy    []*model.Declaration
	Embeds        []*model.Declaration
	EmbeddedIn    []*model.Declaration
	Overrides     []*model.Declaration // the member that a member takes the place of
	OverriddenBy  []*model.Declaration
	RaisedBy      []*model.Declaration // callables that fail with the type
	TakenBy       []*model.Declaration // callables with a parameter of the type
	ReturnedBy    []*model.Declaration // callables with a result of the type
	AddedBy       []*model.Declaration // what is called as if it were a member of the type
}

// Relations are those of a declaration; never nil.
func (x *Index) Relations(d *model.Declaration) *Relations {
	if r := x.related[d]; r != nil {
		return r
	}
	return &Relations{}
}

// relation is one pair that a worker found.
type relation struct {
	of    *model.Declaration
	other *model.Declaration
	field func(*Relations) *[]*model.Declaration
}

func takenBy(r *Relations) *[]*model.Declaration       { return &r.TakenBy }
func addedBy(r *Relations) *[]*model.Declaration       { return &r.AddedBy }
func returnedBy(r *Relations) *[]*model.Declaration    { return &r.ReturnedBy }
func extends(r *Relations) *[]*model.Declaration       { return &r.Extends }
func extendedBy(r *Relations) *[]*model.Declaration    { return &r.ExtendedBy }
func overrides(r *Relations) *[]*model.Declaration     { return &r.Overrides }
func overriddenBy(r *Relations) *[]*model.Declaration  { return &r.OverriddenBy }
func raisedBy(r *Relations) *[]*model.Declaration      { return &r.RaisedBy }
func embeds(r *Relations) *[]*model.Declaration        { return &r.Embeds }
func embeddedIn(r *Relations) *[]*model.Declaration    { return &r.EmbeddedIn }
func implements(r *Relations) *[]*model.Declaration    { return &r.Implements }
func implementedBy(r *Relations) *[]*model.Declaration { return &r.ImplementedBy }

// relate computes all relations, a module at a time.
func (x *Index) relate() {
	var modules []*model.Module
	for _, lib := range x.Project.Libraries {
		modules = append(modules, lib.Modules...)
	}
	found := make([][]relation, len(modules))
	x.parallel(len(modules), func(i int) { found[i] = x.uses(modules[i]) })
	found = append(found, x.implementations(modules))
	for _, list := range found {
		for _, r := range list {
			to := x.related[r.of]
			if to == nil {
				to = &Relations{}
				x.related[r.of] = to
			}
			field := r.field(to)
			*field = append(*field, r.other)
		}
	}
	for _, r := range x.related {
		for _, list := range []*[]*model.Declaration{
			&r.Implements, &r.ImplementedBy, &r.Extends, &r.ExtendedBy, &r.Embeds, &r.EmbeddedIn, &r.Overrides, &r.OverriddenBy,
			&r.TakenBy, &r.ReturnedBy, &r.RaisedBy, &r.AddedBy,
		} {
			slices.SortFunc(*list, byID)
			*list = slices.Compact(*list)
		}
	}
}

// byID orders declarations as their IDs would be, without making them.
func byID(a, b *model.Declaration) int {
	return cmp.Or(strings.Compare(a.Module.Library.Name, b.Module.Library.Name), strings.Compare(a.Module.Path, b.Module.Path),
		strings.Compare(a.Scope, b.Scope), strings.Compare(a.Name, b.Name))
}

// parallel runs work for 0 to n-1 on all workers.
func (x *Index) parallel(n int, work func(int)) {
	_ = parallel.Each(context.Background(), x.options.Workers, n, work) // which nothing ends
}

// uses finds who takes, returns and embeds which types.
func (x *Index) uses(m *model.Module) []relation {
	var out []relation
	class := len(x.BaseModules(m)) > 0
	for d := range m.Declarations {
		if !x.InReach(d) {
			continue
		}
		if class {
			if of := x.memberAbove(d); of != nil {
				out = append(out, relation{d, of, overrides}, relation{of, d, overriddenBy})
			}
		}
		if d.Kind().IsType() {
			implicit := x.implicit(m.Library)
			for _, base := range x.bases(d) {
				switch {
				case !x.InReach(base) || base == d:
				case implicit:
					out = append(out, relation{d, base, embeds}, relation{base, d, embeddedIn})
				case base.Kind() != model.KindInterface && x.statedAs(d, base) == model.Implements:
					out = append(out, relation{d, base, implements}, relation{base, d, implementedBy})
				case base.Kind() != model.KindInterface || d.Kind() == model.KindInterface:
					out = append(out, relation{d, base, extends}, relation{base, d, extendedBy})
				}
			}
			out = x.inherits(out, d)
		}
		for o := range x.occurrencesInReach(d) {
			if typ := x.addsTo(d, o); typ != nil {
				out = append(out, relation{typ, d, addedBy})
			}
			if o.Callable == nil {
				continue
			}
			out = x.mentions(out, d, o, o.Callable.Params, takenBy)
			if !o.Callable.TypeGuard {
				out = x.mentions(out, d, o, o.Callable.Results, returnedBy)
			}
			for _, f := range slices.Concat(o.Declares(), o.Callable.Fails()) {
				if typ := x.Type(d.Site().Module, o.File, f.Name).Declaration; x.InReach(typ) && typ.Kind().IsType() {
					out = append(out, relation{typ, d, raisedBy})
				}
			}
		}
	}
	return out
}

func (x *Index) mentions(out []relation, d *model.Declaration, o model.At, params []model.Param, field func(*Relations) *[]*model.Declaration) []relation {
	for _, p := range params {
		for t := range o.Tokens(p.Type) {
			if t.Kind != model.TokenType {
				continue
			}
			if typ := x.TypeOf(d, o.File, t).Declaration; x.InReach(typ) && typ != d.Parent && typ != d {
				out = append(out, relation{typ, d, field})
			}
		}
	}
	return out
}

// addsTo is the type whose member a declaration seems to be where it is used, in languages in
// which others may add some, or nil.
func (x *Index) addsTo(d *model.Declaration, o model.At) *model.Declaration {
	if h := d.Module.Library.Habits; h == nil || !h.Extensions || d.Parent == nil || d.Kind().IsType() {
		return nil
	}
	begun := false
	for t := range o.Tokens(o.Signature) {
		switch text := strings.TrimSpace(t.Text); {
		case t.Kind == model.TokenKeyword && (text == "this" || text == "extension"):
			begun = true
		case begun && t.Kind == model.TokenType:
			if typ := x.TypeOf(d, o.File, t).Declaration; typ != nil && typ.Kind().IsType() && x.InReach(typ) && typ != d.Parent {
				return typ
			}
			return nil
		case begun && (t.Kind == model.TokenTypeParam || t.Kind == model.TokenParameter || t.Kind == model.TokenName || t.Kind == model.TokenKeyword && !passing[text]):
			return nil
		}
	}
	return nil
}

// passing are the words before the type of a parameter.
var passing = map[string]bool{"ref": true, "in": true, "readonly": true, "scoped": true, "out": true}

// statedAs is how a type says that it has another one for a base.
func (x *Index) statedAs(d, base *model.Declaration) model.Inheritance {
	for o, b := range x.basesOf(d) {
		if b.How != model.Extends && slices.ContainsFunc(x.embeddings(d, o, b.Type), func(e embedding) bool { return e.declaration == base }) {
			return b.How
		}
	}
	return model.Extends
}

// embedding is one thing that a type embeds.
type embedding struct {
	declaration *model.Declaration // nil where it is outside the project or no plain type
	name        string
	oneOf       bool // the type may be this one or another
}

// embedded lists what a type embeds by its own words, through all its builds.
func (x *Index) embedded(d *model.Declaration) []embedding {
	var out []embedding
	add := func(o model.At) {
		for _, b := range o.Bases() {
			out = append(out, x.embeddings(d, o, b.Type)...)
		}
	}
	for o, b := range x.basesOf(d) {
		out = append(out, x.embeddings(d, o, b.Type)...)
	}
	for _, member := range d.Members {
		for _, o := range member.Occurrences {
			if o.Embedded {
				add(o)
			}
		}
	}
	return out
}

// embeddings are what a base stands for: one type, or, where it is called or combined out
// of several, those of these that can be told.
func (x *Index) embeddings(d *model.Declaration, o model.At, written model.Tokens) []embedding {
	tokens := written.List(o.File.Text)
	combiner, _ := x.options.FrontEnds[d.Module.Library.Language].(lang.Combiner)
	var out []embedding
	if isUnion(tokens) { // which has the members of none of its terms
		return []embedding{{}}
	}
	for i := 0; i < len(tokens); i++ {
		if tokens[i].Kind != model.TokenType {
			continue
		}
		e := embedding{name: tokens[i].Text}
		base := x.TypeOf(d, o.File, tokens[i]).Declaration
		called := i+1 < len(tokens) && strings.HasPrefix(tokens[i+1].Text, "(")
		switch {
		case base != nil && base.Kind() == model.KindType && combiner != nil && combiner.MapsFirst(base, names{x}) && i+1 < len(tokens) && strings.HasPrefix(tokens[i+1].Text, "<"):
			continue // so is what the project itself makes types with
		case base != nil && base.Kind().IsType() && base != d:
			e.declaration = base
			return append(out, e)
		case called && len(out) == 0: // a function that makes a type of others: what it adds nobody knows
			out = append(out, e)
			for _, t := range tokens[i+1:] {
				if t.Kind == model.TokenType {
					if base := x.TypeOf(d, o.File, t).Declaration; base != nil && base.Kind().IsType() && base != d {
						out = append(out, embedding{declaration: base, name: t.Text})
					}
				}
			}
			return out
		case base == nil && combiner != nil && combiner.Combines(e.name):
			continue // its first argument is what it is made of
		default:
			return append(out, e)
		}
	}
	if len(out) == 0 {
		out = append(out, embedding{})
	}
	return out
}

// combined are the types that another name stands for which is made of them, as in
// "type A = B & C".
func (x *Index) combined(d *model.Declaration) []embedding {
	combiner, ok := x.options.FrontEnds[d.Module.Library.Language].(lang.Combiner)
	if !ok || d.Kind() != model.KindType || d.Module.Library.Elsewhere != nil {
		return nil
	}
	var out []embedding
	for _, part := range combiner.Combined(d, names{x}) {
		out = append(out, embedding{declaration: part.Means, name: part.Name, oneOf: part.OneOf})
	}
	return out
}

// TypeOf resolves a type that a token of a declaration's signature names, by its arguments
// too, where types of one name are told apart by them.
func (x *Index) TypeOf(d *model.Declaration, f *model.Facts, t model.Token) Target {
	of := x.TypeIn(d, f, t.Text)
	if of.Declaration != nil {
		of.Declaration = withArity(of.Declaration, t.Arity)
	}
	return of
}

// withArity is the declaration of the same name that has so many type parameters, where
// there is one.
func withArity(d *model.Declaration, arity int32) *model.Declaration {
	if d.Arity() == arity {
		return d
	}
	for other := range d.Namesakes {
		if other.Arity() == arity {
			return other
		}
	}
	return d
}

// TypeIn resolves the name of a type that is written in the head or signature of a
// declaration: what stands around it is nearer than its module.
func (x *Index) TypeIn(d *model.Declaration, f *model.Facts, name string) Target {
	site := d.Site()
	if t, _, ok := x.ImportedType(site.Module, f, name); ok {
		return t
	}
	name = site.Module.Library.Habits.Dotted(name)
	for _, from := range []*model.Declaration{site, d} {
		if t := x.typeAround(from, name); !t.None() {
			return t
		}
		if site == d {
			break
		}
	}
	if to := x.addedTo[site]; to != nil {
		if t := x.typeAround(to, name); !t.None() {
			return t
		}
	}
	return x.Type(site.Module, f, name)
}

// typeAround looks for a type in what stands around a declaration.
func (x *Index) typeAround(d *model.Declaration, name string) Target {
	first, rest, dotted := strings.Cut(name, ".")
	habits := d.Module.Library.Habits
	inner := d.Kind().IsType() || habits != nil && habits.SeesInner
	for at, depth := d.Parent, 0; at != nil && depth < highest; at, depth = at.Parent, depth+1 {
		if k := at.Kind(); k != model.KindNamespace && k != model.KindModule && !(k.IsType() && inner) {
			continue
		}
		if m := at.Member(first); m != nil && m != d && (m.Kind().IsType() || dotted) {
			if dotted {
				return x.under(Target{Declaration: m}, rest)
			}
			return Target{Declaration: m}
		}
		if habits != nil && habits.SeesInner {
			if m := x.innerOfBase(at, first); m != nil && m != d {
				if dotted {
					return x.under(Target{Declaration: m}, rest)
				}
				return Target{Declaration: m}
			}
		}
	}
	return Target{}
}

// innerOfBase finds a type that a type has as a member from one of its bases, the nearest
// one. These are looked up by their names alone, since their own heads may ask for members
// of others.
func (x *Index) innerOfBase(d *model.Declaration, name string) *model.Declaration {
	seen := []*model.Declaration{d}
	for i := 0; i < len(seen) && i < mostBases; i++ {
		for _, base := range x.plainBases(seen[i]) {
			if slices.Contains(seen, base) {
				continue
			}
			if m := base.Member(name); m != nil && m.Kind().IsType() {
				return m
			}
			seen = append(seen, base)
		}
	}
	return nil
}

// mostBases is how many bases are looked through for a type that stands in them.
const mostBases = 64

// plainBases are the bases of a type as their names alone say them, each once.
func (x *Index) plainBases(d *model.Declaration) []*model.Declaration {
	if known, ok := x.plain.Load(d); ok {
		return known.([]*model.Declaration)
	}
	var out []*model.Declaration
	names := map[string]bool{}
	for o, b := range x.basesOf(d) {
		for t := range o.Tokens(b.Type) {
			if t.Kind != model.TokenType {
				continue
			}
			if !names[t.Text] && len(out) < mostBases {
				names[t.Text] = true
				if base := x.Type(d.Module, o.File, t.Text).Declaration; base != nil && base != d {
					out = append(out, base)
				}
			}
			break
		}
	}
	x.plain.Store(d, out)
	return out
}

// bases are the declarations among what a type embeds.
func (x *Index) bases(d *model.Declaration) []*model.Declaration { return x.madeOf(d).bases }

// madeOf are the types that a type is made of.
type madeOf struct {
	bases []*model.Declaration // whose members it has, all of them
	oneOf []*model.Declaration // of which it may be any, as in "type A = B | C"
}

func (x *Index) madeOf(d *model.Declaration) madeOf {
	if !d.Kind().IsType() {
		return madeOf{}
	}
	if known, ok := x.based.Load(d); ok {
		return known.(madeOf)
	}
	var out madeOf
	if d.Module.Library.Elsewhere != nil {
		out.bases = x.elsewhere.bases(d)
	}
	all := append(x.embedded(d), x.combined(d)...)
	for _, more := range x.added[d] {
		all = append(all, x.embedded(more)...)
	}
	for _, e := range all {
		to := &out.bases
		if e.oneOf {
			to = &out.oneOf
		}
		if e.declaration != nil && e.declaration != d && e.declaration.Kind().IsType() && !slices.Contains(*to, e.declaration) {
			*to = append(*to, e.declaration)
		}
	}
	x.based.Store(d, out)
	return out
}

// isUnion reports whether a type is written as one of several.
func isUnion(tokens []model.Token) bool {
	depth := 0
	for _, t := range tokens {
		if t.Kind != model.TokenPunctuation {
			continue
		}
		for _, c := range t.Text {
			switch c {
			case '(', '[', '{', '<':
				depth++
			case ')', ']', '}', '>':
				depth--
			case '|':
				if depth == 0 {
					return true
				}
			}
		}
	}
	return false
}
