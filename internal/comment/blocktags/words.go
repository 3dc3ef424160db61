package blocktags

import (
	"slices"
	"strings"

	"codrel/internal/nearest"
	"codrel/internal/prose"
)

// meaning is what a block tag is about.
type meaning struct {
	kind       prose.PartKind
	title      string // of a section under a title of its own
	body       bool   // it goes on with the text
	deprecated bool
	taken      bool   // the text is that of what the subject overrides or fulfils
	mark       string // it says something of the subject itself: a key of [prose.Sections.Marks]
	label      bool   // it is shown before what follows
	names      bool   // names follow it
	subject    bool   // a type, name and text of the subject may follow it
	silent     bool   // it speaks to tools, or says what the signature says
	line       bool   // what it says ends with its line, and the text goes on below
}

// vocabulary maps the words of block tags to what they are about.
var vocabulary = wordsOf(func(put func(m meaning, list string)) {
	put(meaning{kind: prose.Parameters}, "param arg argument")
	put(meaning{kind: prose.TypeParameters}, "template typeParam typeparam")
	put(meaning{kind: prose.Results}, "returns return")
	put(meaning{kind: prose.Series}, "yields yield")
	put(meaning{kind: prose.Failures}, "throws throw exception rejects")
	put(meaning{kind: prose.Fields}, "property prop")
	put(meaning{kind: prose.Examples}, "example examples")
	put(meaning{kind: prose.SeeAlso}, "see seealso")
	put(meaning{kind: prose.Since}, "since added introduced")
	put(meaning{kind: prose.Notes}, "note")
	put(meaning{kind: prose.Caution}, "warning caution")
	put(meaning{deprecated: true}, "deprecated")
	put(meaning{taken: true}, "inheritDoc inheritdoc")
	put(meaning{body: true}, "description desc summary remarks classdesc file fileoverview overview brief")
	put(meaning{kind: prose.Other, title: "Default"}, "default defaultValue defaultvalue")
	put(meaning{kind: prose.Other, title: "Fires", names: true}, "fires emits")
	put(meaning{kind: prose.Other, title: "Listens to", names: true}, "listens")
	for _, mark := range prose.Marks {
		put(meaning{mark: mark}, mark)
	}
	put(meaning{mark: "abstract"}, "virtual")
	put(meaning{kind: prose.Other, title: "To do"}, "todo")
	put(meaning{silent: true, line: true}, `access alias augments chainable chained fluent category class
		constructor constructs eventProperty export exports extends function func
		global group hidden hideconstructor ignore implements inline inner instance interface
		internal kind lends memberof memberOf method mixes mixin module namespace nocollapse noalias nosideeffects
		noInheritDoc overload package packageDocumentation preserve private protected public
		struct unrestricted unstable ts-check ts-expect-error ts-ignore ts-nocheck cc_on __PURE__ vue-ignore`)
	put(meaning{subject: true}, "const constant member var enum name field")
	put(meaning{silent: true}, `author borrows callback copyright decorator external host import
		label license link privateRemarks record requires satisfies stability suppress this
		tutorial type typedef variation version jsx jsxRuntime jsxImportSource jest-environment internalRemarks source`)
})

// wordsOf are the words that a function puts, in lists of one meaning.
func wordsOf(fill func(put func(m meaning, list string))) map[string]meaning {
	words := map[string]meaning{}
	fill(func(m meaning, list string) {
		for word := range strings.FieldsSeq(list) {
			words[word] = m
		}
	})
	return words
}

// meaning is what a tag is about, the maintainer's own words first.
func (p *parser) meaning(word string) (meaning, bool) {
	own := p.own.Of(word)
	switch own {
	case "":
	case prose.MeansDeprecated:
		return meaning{deprecated: true}, true
	case prose.MeansIgnored:
		return meaning{silent: true}, true
	case prose.MeansLabel:
		return meaning{label: true}, true
	case prose.MeansMark, prose.MeansText:
		return meaning{body: true}, true
	default:
		if kind, ok := prose.PartNamed(own); ok {
			return meaning{kind: kind}, true
		}
	}
	if m, ok := vocabulary[word]; ok {
		return m, true
	}
	m, ok := vocabulary[strings.ToLower(word)]
	return m, ok
}

// nearTag is the known word that was probably meant, with its sign.
func nearTag(word string) string { return nearOf(word, vocabulary) }

// nearOf is the word of a list that was probably meant, with its sign.
func nearOf(word string, words map[string]meaning) string {
	list := make([]string, 0, len(words))
	for w := range words {
		list = append(list, w)
	}
	slices.Sort(list)
	if near := nearest.Word(word, list); near != "" {
		return "@" + near
	}
	return ""
}
