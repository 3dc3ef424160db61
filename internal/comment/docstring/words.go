package docstring

import (
	"slices"
	"strings"

	"codrel/internal/nearest"
	"codrel/internal/prose"
)

// headings maps the words over sections to what the sections are about.
var headings = map[string]prose.PartKind{
	"args": prose.Parameters, "arguments": prose.Parameters, "parameters": prose.Parameters, "params": prose.Parameters,
	"keyword args": prose.Parameters, "keyword arguments": prose.Parameters, "other parameters": prose.Parameters,
	"type parameters": prose.TypeParameters,
	"returns":         prose.Results, "return": prose.Results, "return value": prose.Results,
	"yields": prose.Series, "yield": prose.Series,
	"raises": prose.Failures, "raise": prose.Failures, "exceptions": prose.Failures,
	"warns": prose.Warnings, "warnings": prose.Caution, "warning": prose.Caution, "caution": prose.Caution, "danger": prose.Caution,
	"attributes": prose.Fields, "attribute": prose.Fields, "methods": prose.Other, "receives": prose.Other, "receive": prose.Other,
	"note": prose.Notes, "notes": prose.Notes, "important": prose.Notes, "tip": prose.Notes, "hint": prose.Notes, "todo": prose.Other,
	"example": prose.Examples, "examples": prose.Examples, "usage": prose.Examples,
	"see also": prose.SeeAlso, "seealso": prose.SeeAlso, "references": prose.Other,
}

// fieldWords maps the words of field lists.
var fieldWords = map[string]prose.PartKind{
	"param": prose.Parameters, "parameter": prose.Parameters, "arg": prose.Parameters, "argument": prose.Parameters,
	"key": prose.Parameters, "keyword": prose.Parameters, "kwarg": prose.Parameters, "kwparam": prose.Parameters,
	"tparam": prose.TypeParameters,
	"return": prose.Results, "returns": prose.Results, "yield": prose.Series, "yields": prose.Series,
	"raise": prose.Failures, "raises": prose.Failures, "except": prose.Failures, "exception": prose.Failures,
	"var": prose.Fields, "ivar": prose.Fields, "cvar": prose.Fields, "attr": prose.Fields,
	"note": prose.Notes, "warning": prose.Caution, "since": prose.Since, "see": prose.SeeAlso, "seealso": prose.SeeAlso,
}

// bareFieldWords are fields that are known and say something of their own.
var bareFieldWords = map[string]bool{
	"type": true, "vartype": true, "rtype": true, "meta": true, "author": true, "authors": true, "copyright": true, "license": true,
	"version": true, "date": true, "contact": true, "organization": true, "status": true, "orphan": true, "nosearch": true, "deprecated": true,
	"parameters": true, "params": true, "arguments": true, "keywords": true, "exceptions": true, "variables": true, "types": true, "ivariables": true, "cvariables": true,
	"todo": true, "example": true, "examples": true, "summary": true, "group": true, "sort": true, "undocumented": true, "requires": true, "bug": true,
}

// heading is what a word over a section means, the maintainer's own words first.
func (p *parser) heading(word string) (prose.PartKind, bool) {
	if own := p.own.Of(word); own != "" {
		if kind, ok := prose.PartNamed(own); ok {
			return kind, true
		}
		return prose.Other, true
	}
	kind, ok := headings[strings.ToLower(word)]
	return kind, ok
}

// fieldWord is what the word of a field means, the maintainer's own words first.
// bare is set for those that are shown behind their word.
func (p *parser) fieldWord(word string) (kind prose.PartKind, known, bare bool) {
	if own := p.own.Of(word); own != "" {
		kind, known = prose.PartNamed(own)
		return kind, known, !known
	}
	kind, known = fieldWords[word]
	return kind, known, bareFieldWords[word]
}

// nearField is the known field word that was probably meant.
func nearField(word string) string {
	list := make([]string, 0, len(fieldWords)+3)
	for w := range fieldWords {
		list = append(list, w)
	}
	list = append(list, "type", "rtype", "vartype")
	slices.Sort(list)
	return nearest.Word(word, list)
}

// nearHeading is the known heading that was probably meant.
func nearHeading(word string) string {
	list := make([]string, 0, len(headings))
	for w := range headings {
		list = append(list, w)
	}
	slices.Sort(list)
	return nearest.Word(word, list)
}
