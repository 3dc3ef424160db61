package site

import (
	"codrel/internal/render/sink"
	"codrel/internal/symbols"
)

// writeSymbols writes what other projects link to this one by.
func (s *Site) writeSymbols(to sink.Sink) error {
	table := s.plan.Links.Symbols()
	table.Site = s.options.Base
	data, err := symbols.Write(table)
	if err != nil {
		return err
	}
	if err := to.Put(symbols.FileName, data); err != nil {
		return err
	}
	texts, err := symbols.WriteTexts(s.plan.Links.MemberTexts())
	if err != nil {
		return err
	}
	return to.Put(symbols.TextsName, texts)
}
