// Package model owns the plain data that the whole program speaks of: a
// [Project] holds libraries, a [Library] holds files and modules, a [Module]
// holds declarations, and a [Declaration] is made of one or more occurrences.
//
// [Facts] are what one file says; nothing changes them once they were read, so
// that one file's facts can be replaced alone. Everything above them
// (declarations, links, relations) is made anew from the facts. The package
// computes nothing beyond names and identifiers, and knows no language.
package model
