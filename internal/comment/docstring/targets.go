package docstring

import "strings"

// This file reads addresses that stand apart from the text that leads to them
// ("Hyperlink Targets" in the specification).

// longestAddress ends what an address takes of the lines below it.
const longestAddress = 2000

// findTargets collects ".. _name: address" and ".. __: address" of all lines.
func (p *parser) findTargets() {
	p.targets = map[string]string{}
	for i, l := range p.lines {
		indent := l.indent()
		rest, ok := strings.CutPrefix(l.text[indent:], ".. _")
		if !ok {
			continue
		}
		name, address := cutTarget(rest)
		for _, below := range p.lines[i+1:] {
			if below.blank() || below.indent() <= indent || len(address) > longestAddress {
				break
			}
			address += strings.TrimSpace(below.text)
		}
		switch {
		case address == "":
		case name == "_":
			p.anonymous = append(p.anonymous, address)
		case p.targets[targetName(name)] == "":
			p.targets[targetName(name)] = address
		}
	}
}

// cutTarget takes "name: address" apart; the name may stand in backquotes.
func cutTarget(text string) (name, address string) {
	if quoted, ok := strings.CutPrefix(text, "`"); ok {
		name, address, _ = strings.Cut(quoted, "`:")
	} else {
		name, address, _ = strings.Cut(text, ":")
	}
	return name, strings.TrimSpace(address)
}

// targetName is a name as it is compared: case and spaces do not count.
func targetName(name string) string {
	return strings.ToLower(strings.Join(strings.Fields(name), " "))
}

// nextAnonymous is the address that the next text without a name leads to.
func (p *parser) nextAnonymous() string {
	if len(p.anonymous) == 0 {
		return ""
	}
	address := p.anonymous[0]
	p.anonymous = p.anonymous[1:]
	return address
}
