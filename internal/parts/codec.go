package parts

import (
	"encoding/json"
	"errors"

	"codrel/internal/model"
	"codrel/internal/source"
)

// fileLine is a file as a line has it.
type fileLine struct {
	*File
	Text  *string    `json:"text,omitempty"` // nil where there are no facts
	Facts *factsLine `json:"facts,omitempty"`
}

// factsLine is the facts of a file. Comments that several occurrences have are one thing,
// and stay so: occurrences name them by their places in a list, counted from 1.
type factsLine struct {
	*model.Facts
	Docs        []*model.Doc     `json:"docs,omitempty"`
	Occurrences []occurrenceLine `json:"occurrences,omitempty"`
}

type occurrenceLine struct {
	*model.Occurrence
	Doc      int `json:"doc,omitempty"`
	GroupDoc int `json:"groupDoc,omitempty"`
}

func encode(f *File) ([]byte, error) {
	line := fileLine{File: f}
	if facts := f.Facts; facts != nil {
		line.Text, line.Facts = &facts.Text, &factsLine{Facts: facts}
		places := map[*model.Doc]int{}
		place := func(doc *model.Doc) int {
			if doc == nil {
				return 0
			}
			n, known := places[doc]
			if !known {
				line.Facts.Docs = append(line.Facts.Docs, doc)
				n = len(line.Facts.Docs)
				places[doc] = n
			}
			return n
		}
		for i := range facts.Occurrences {
			o := &facts.Occurrences[i]
			line.Facts.Occurrences = append(line.Facts.Occurrences, occurrenceLine{o, place(o.Doc), place(o.GroupDoc)})
		}
	}
	return json.Marshal(line)
}

// errDamaged is the error of a line that is no file's as it should be.
var errDamaged = errors.New("the facts of the file do not fit its text")

func decode(data []byte) (*File, error) {
	line := fileLine{File: &File{}}
	if err := json.Unmarshal(data, &line); err != nil {
		return nil, err
	}
	f := line.File
	if line.Facts == nil {
		return f, nil
	}
	if line.Text == nil || line.Facts.Facts == nil {
		return nil, errDamaged
	}
	facts := line.Facts.Facts
	facts.Path, facts.Text, facts.Lines = f.Path, *line.Text, source.NewLines(*line.Text)
	docs := line.Facts.Docs
	if len(line.Facts.Occurrences) > 0 {
		facts.Occurrences = make([]model.Occurrence, len(line.Facts.Occurrences))
	}
	for i, o := range line.Facts.Occurrences {
		if o.Occurrence == nil || o.Doc < 0 || o.Doc > len(docs) || o.GroupDoc < 0 || o.GroupDoc > len(docs) {
			return nil, errDamaged
		}
		facts.Occurrences[i] = *o.Occurrence
		if o.Doc > 0 {
			facts.Occurrences[i].Doc = docs[o.Doc-1]
		}
		if o.GroupDoc > 0 {
			facts.Occurrences[i].GroupDoc = docs[o.GroupDoc-1]
		}
	}
	if !sound(facts) {
		return nil, errDamaged
	}
	f.Facts = facts
	return f, nil
}
