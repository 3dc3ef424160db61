package model

import "slices"

// This file makes one declaration of two that different modules have: the same thing to its users, who get the
// one or the other by the conditions under which they build.

// Unite makes what another module declares at its top a part of a declaration: its occurrences are that one's from
// now on, members go to the members of their names, and its own module finds that one under its name. That module
// is to be asked to [Module.Prune] what it has at the top when all is done.
func (d *Declaration) Unite(with *Declaration) {
	d.Module.changed, with.Module.changed = true, true
	d.unite(with, 0)
}

// Prune takes what is a part of another module's declarations now from what the module has at its top.
func (m *Module) Prune() {
	m.Top = slices.DeleteFunc(slices.Clone(m.Top), func(d *Declaration) bool { return d.gone })
}

// CanUnite reports whether there is but one declaration of the name in the module of each of two.
func (d *Declaration) CanUnite(with *Declaration) bool {
	return d.Module != with.Module && with.next == nil && with.Module.names.get(with.key()) == with && d.next == nil && d.Module.names.get(d.key()) == d
}

func (d *Declaration) unite(with *Declaration, depth int) {
	other := with.Module
	other.unfile(with)
	with.gone = true
	other.count--
	d.Occurrences = append(slices.Clip(d.Occurrences), with.Occurrences...)
	d.Visibility = min(d.Visibility, with.Visibility)
	if depth < deepest {
		for _, member := range with.Members {
			into := d.Module.Declare(d, "", Name{member.Written(), member.Space(), member.Arity()})
			if into.Occurrences == nil {
				into.Scope, into.Visibility, into.Hidden = d.Path(), max(d.Visibility, member.Visibility), d.Hidden || member.Hidden
				d.Members = append(slices.Clip(d.Members), into)
			}
			into.unite(member, depth+1)
		}
	}
	d.Settle()
	key := d.key()
	other.names.rename(key, d.Module.names.get(key))
}
