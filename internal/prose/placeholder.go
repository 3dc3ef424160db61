package prose

// InsertScheme is what links begin with that stand for a fragment.
const InsertScheme = "insert:"

// Alone is the node of the kind that a paragraph holds and nothing else, or nil.
func Alone(paragraph *Node, kind Kind) *Node {
	if paragraph.Kind != Paragraph || len(paragraph.Children) != 1 || paragraph.Children[0].Kind != kind {
		return nil
	}
	return &paragraph.Children[0]
}

// AllTaken is the node that stands for all of a comment, where the comment says
// nothing but that its text is another's; else nil.
func (s *Sections) AllTaken() *Node {
	if len(s.Body) != 1 || len(s.Parts) > 0 {
		return nil
	}
	taken := Alone(&s.Body[0], Inherited)
	if taken != nil && taken.Info != "" { // a part of it
		return nil
	}
	return taken
}

// Entry is the first entry of a kind with a name, or nil.
func (s *Sections) Entry(kind PartKind, name string) *Entry {
	for i := range s.Parts {
		for j := range s.Parts[i].Entries {
			if e := &s.Parts[i].Entries[j]; s.Parts[i].Kind == kind && e.Name == name {
				return e
			}
		}
	}
	return nil
}
