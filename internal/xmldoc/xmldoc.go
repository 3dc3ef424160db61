// Package xmldoc owns the documentation file that the compilers of C# write beside a program
// and editors read (ECMA-334, Annex D, clause D.4): "<doc><members><member name="M:...">".
//
// It reads one into the names and texts of another project, and writes one from members that
// are handed in. It knows nothing of declarations, comments or links.
package xmldoc

import (
	"bytes"
	"encoding/xml"
	"errors"
	"fmt"
	"html"
	"io"
	"strings"

	"codrel/internal/symbols"
)

// File is what a documentation file says.
type File struct {
	Assembly string
	Members  []Member // in the order of the file
}

// Member is one of its members.
type Member struct {
	ID   string // as [codrel/internal/memberid] has it
	Text string // the inside of its element, XML
}

// Parse reads a documentation file. An error says what is wrong with it, and where.
func Parse(text string) (*File, error) {
	if len(text) > symbols.Largest {
		return nil, fmt.Errorf("it is larger than %d MB", symbols.Largest/1_000_000)
	}
	p := &parser{text: text, in: xml.NewDecoder(strings.NewReader(text))}
	p.in.CharsetReader = func(_ string, in io.Reader) (io.Reader, error) { return in, nil } // it is UTF-8 by now
	if err := p.doc(); err != nil {
		return nil, err
	}
	return &p.file, nil
}

// parser reads one file.
type parser struct {
	text string
	in   *xml.Decoder
	file File
}

var errForeign = errors.New(`it is no documentation file of a C# compiler: those begin with <doc> and have <members>`)

func (p *parser) doc() error {
	members := false
	for depth := 0; ; {
		token, err := p.in.Token()
		switch {
		case errors.Is(err, io.EOF):
			if !members {
				return errForeign
			}
			return nil
		case err != nil && depth == 0:
			return errForeign
		case err != nil:
			return p.damaged(err)
		}
		switch t := token.(type) {
		case xml.StartElement:
			switch name := t.Name.Local; {
			case depth == 0 && name != "doc":
				return errForeign
			case depth == 1 && name == "members":
				members = true
			case depth == 2 && name == "member":
				if err := p.member(t); err != nil {
					return err
				}
				continue
			case depth == 2 && name == "name":
				inside, err := p.inside()
				if err != nil {
					return err
				}
				p.file.Assembly = strings.TrimSpace(html.UnescapeString(inside))
				continue
			}
			depth++
		case xml.EndElement:
			depth--
		}
	}
}

func (p *parser) member(start xml.StartElement) error {
	id := ""
	for _, a := range start.Attr {
		if a.Name.Local == "name" {
			id = a.Value
		}
	}
	inside, err := p.inside()
	if err == nil && id != "" {
		p.file.Members = append(p.file.Members, Member{ID: id, Text: outdented(inside)})
	}
	return err
}

// inside is the source of what stands between the tag that was read last and its end.
func (p *parser) inside() (string, error) {
	begin := p.in.InputOffset()
	end := begin
	for depth := 1; depth > 0; {
		end = p.in.InputOffset()
		token, err := p.in.Token()
		if err != nil {
			return "", p.damaged(err)
		}
		switch token.(type) {
		case xml.StartElement:
			depth++
		case xml.EndElement:
			depth--
		}
	}
	if p.text[begin:end] == "" || begin == end {
		return "", nil
	}
	return p.text[begin:end], nil
}

func (p *parser) damaged(err error) error {
	line, _ := p.in.InputPos()
	var syntax *xml.SyntaxError
	what := "it ends there"
	if errors.As(err, &syntax) {
		line, what = syntax.Line, syntax.Msg
	}
	return fmt.Errorf("it is cut short or damaged at line %d (%s)", line, what)
}

// outdented takes the indentation that all lines share off them, and blank lines off both ends.
func outdented(text string) string {
	lines := strings.Split(strings.ReplaceAll(text, "\r\n", "\n"), "\n")
	least := -1
	for i, line := range lines {
		trimmed := strings.TrimLeft(line, " \t")
		if i == 0 && trimmed == line || trimmed == "" {
			continue
		}
		if n := len(line) - len(trimmed); least < 0 || n < least {
			least = n
		}
	}
	for i, line := range lines {
		if i > 0 || strings.TrimLeft(line, " \t") != line {
			line = line[min(max(least, 0), len(line)-len(strings.TrimLeft(line, " \t"))):]
		}
		lines[i] = strings.TrimRight(line, " \t")
	}
	return strings.Trim(strings.Join(lines, "\n"), "\n")
}

// Write writes a documentation file. Texts are written as they are: what is no XML in them is
// for the caller to leave out.
func Write(to io.Writer, f *File) error {
	var out bytes.Buffer
	out.WriteString("<?xml version=\"1.0\"?>\n<doc>\n    <assembly>\n        <name>")
	_ = xml.EscapeText(&out, []byte(f.Assembly)) // a buffer takes everything
	out.WriteString("</name>\n    </assembly>\n    <members>\n")
	for _, m := range f.Members {
		out.WriteString(`        <member name="`)
		_ = xml.EscapeText(&out, []byte(m.ID))
		out.WriteString("\">\n")
		for line := range strings.Lines(m.Text) {
			if line = strings.TrimRight(line, " \t\r\n"); line != "" {
				out.WriteString("            " + line)
			}
			out.WriteByte('\n')
		}
		out.WriteString("        </member>\n")
	}
	out.WriteString("    </members>\n</doc>\n")
	_, err := to.Write(out.Bytes())
	return err
}

// Sound reports whether a text can stand in a documentation file: its elements are closed and
// nothing in it is outside what XML allows.
func Sound(text string) bool {
	in := xml.NewDecoder(strings.NewReader("<member>" + text + "</member>"))
	depth := 0
	for ended := false; ; {
		token, err := in.Token()
		if errors.Is(err, io.EOF) {
			return ended && depth == 0
		}
		if err != nil || ended {
			return false
		}
		switch token.(type) {
		case xml.StartElement:
			depth++
		case xml.EndElement:
			depth--
			ended = depth == 0
		}
	}
}
