// Package xmlpath finds parts of XML texts by XPath expressions (XPath 1.0), as doc comments
// take them from other texts. It knows nothing of comments.
package xmlpath

import (
	"bytes"
	"html"
	"strings"

	"github.com/antchfx/xmlquery"
)

// A Document is an XML text that was read.
type Document struct{ root *xmlquery.Node }

// Read reads a text; nil where it is no XML.
func Read(data []byte) *Document {
	root, err := xmlquery.Parse(bytes.NewReader(data))
	if err != nil {
		return nil
	}
	return &Document{root}
}

// longest is how many bytes are found at most, about.
const longest = 1 << 20

// Find is the source of what an expression finds, all of it in a row; ok is false where it
// finds nothing, or means nothing.
func (d *Document) Find(query string) (source string, ok bool) {
	found := d.find(query)
	var b strings.Builder
	for _, n := range found {
		if b.Len() > longest {
			break
		}
		if n.Type == xmlquery.AttributeNode {
			b.WriteString(html.EscapeString(n.InnerText()))
			continue
		}
		b.WriteString(n.OutputXML(true))
	}
	return b.String(), len(found) > 0
}

// find asks the library, which panics at expressions that make no sense to it.
func (d *Document) find(query string) (found []*xmlquery.Node) {
	defer func() {
		if recover() != nil {
			found = nil
		}
	}()
	found, err := xmlquery.QueryAll(d.root, query)
	if err != nil {
		return nil
	}
	return found
}
