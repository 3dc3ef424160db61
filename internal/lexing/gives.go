package lexing

import "codrel/internal/model"

// Gives is what the body gives that a token opens, or that stands behind an arrow, where it
// has nothing that a comment would have to describe: every call fails, or it is the object
// itself. Else it is [model.ReturnsUnknown]. A method that gives what its type is passes its
// own name: one that hands on what another form of it gives is such a one.
func (c *Cursor) Gives(open int, name string) model.Returned {
	switch {
	case c.IsMark(open, "=>"):
		return c.given(open+1, name)
	case !c.Is(open, '{') || int(c.Tokens[open].Partner) <= open:
		return model.ReturnsUnknown
	}
	end := int(c.Tokens[open].Partner)
	if c.Word(open+1) == "throw" && c.UpTo(open+1, end, ';') == end {
		return model.ReturnsNever
	}
	found := model.ReturnsUnknown
	for i := open + 1; i < end; i++ {
		if c.Word(i) != "return" {
			continue
		}
		if found = c.given(i+1, name); found != model.ReturnsSelf {
			return model.ReturnsUnknown
		}
	}
	return found
}

// given is what a value gives that begins at a token.
func (c *Cursor) given(i int, name string) model.Returned {
	switch {
	case name != "" && c.Word(i) == name && c.Is(i+1, '('):
		return model.ReturnsSelf
	case c.Word(i) == "throw":
		return model.ReturnsNever
	case c.Word(i) == "this" && c.Is(i+1, ';'):
		return model.ReturnsSelf
	}
	return model.ReturnsUnknown
}
