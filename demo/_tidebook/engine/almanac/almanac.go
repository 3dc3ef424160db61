package almanac

import "tidebook.example/engine/tide"

// Page is one page of the almanac: a day and its tides.
type Page struct {
	Day   string
	Tides []tide.Tide
}

// Phase is a part of the year, as the almanac divides it.
type Phase string

// Index finds pages by their day.
type Index map[string]Page

// con is short for concordance. It is here because some systems cannot name a file so.
type con struct{}

// Print sets a page in columns.
//
//codrel:wrods typeset, column
func Print(p Page, width int) string { return "" }
