// Package languages is the explicit list of front ends: nobody else imports
// them. A new language is one folder below internal/lang and one line here.
package languages

import (
	"codrel/internal/lang"
	"codrel/internal/lang/cfamily"
	"codrel/internal/lang/csharp"
	"codrel/internal/lang/golang"
	"codrel/internal/lang/java"
	"codrel/internal/lang/perl"
	"codrel/internal/lang/python"
	"codrel/internal/lang/rust"
	"codrel/internal/lang/script"
)

// All are the front ends, in the order that pages and messages list languages.
var All = []lang.FrontEnd{
	golang.FrontEnd{},
	python.FrontEnd{},
	script.FrontEnd{},
	script.FrontEnd{Typed: true},
	csharp.FrontEnd{},
	java.FrontEnd{},
	cfamily.FrontEnd{},
	cfamily.FrontEnd{Plus: true},
	rust.FrontEnd{},
	perl.FrontEnd{},
}

// ByName finds the front end of a language, or nil.
func ByName(language string) lang.FrontEnd {
	for _, end := range All {
		if end.Habits().Language == language {
			return end
		}
	}
	return nil
}

// Names are the languages that can be read.
func Names() []string {
	names := make([]string, len(All))
	for i, end := range All {
		names[i] = end.Habits().Language
	}
	return names
}
