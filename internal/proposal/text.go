package proposal

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"
)

// This file writes a proposal as a settings file in which each line has its reason.

// Text is the settings file.
func (p *Proposal) Text() string {
	var b strings.Builder
	b.WriteString("# Settings of Codrel, by \"codrel init\". Every key may be left out; \"codrel schema settings\"\n# prints all that there are.\n\n")
	line := func(key string, v Value) {
		if v.Text != "" {
			fmt.Fprintf(&b, "# %s\n%s: %s\n\n", upperFirst(v.Reason), key, scalar(v.Text))
		}
	}
	line("name", p.Name)
	said := func(what string, v Value) {
		if v.Text != "" {
			fmt.Fprintf(&b, "# %s: %s, %s\n\n", what, v.Text, v.Reason)
		}
	}
	said("version", p.Version)
	said("home", p.Home)
	if p.Guides.Text != "" {
		fmt.Fprintf(&b, "guides:\n  # %s\n  folder: %s\n\n", upperFirst(p.Guides.Reason), scalar(p.Guides.Text))
	}
	line("reach", p.Reach)
	p.read(&b)
	if p.Source.Text != "" {
		fmt.Fprintf(&b, "links:\n  # %s\n  source: %s\n\n", upperFirst(p.Source.Reason), scalar(p.Source.Text))
	}
	fmt.Fprintf(&b, "checks:\n  # Builds and checks end with exit code 1 from this severity on: error, warning, note or off\n  fail-on: error\n\n")
	fmt.Fprintf(&b, "write:\n  # %s\n  site: %s\n", upperFirst(p.Site.Reason), scalar(p.Site.Text))
	return b.String()
}

// mostListed is how many libraries are named one by one.
const mostListed = 12

func (p *Proposal) read(b *strings.Builder) {
	b.WriteString("# What is found here:\n")
	for i, lib := range p.Libraries {
		if i == mostListed {
			fmt.Fprintf(b, "#   and %d more\n", len(p.Libraries)-i)
			break
		}
		files := strconv.Itoa(lib.Files) + " files"
		if lib.Files == 1 {
			files = "1 file"
		}
		fmt.Fprintf(b, "#   %s, %s in %s of %s\n", lib.Name, lib.Language, files, folderName(lib.Folder))
	}
	if len(p.Libraries) == 0 {
		b.WriteString("#   nothing yet in a language that is read\n")
	}
	if len(p.Skip) == 0 {
		b.WriteByte('\n')
		return
	}
	b.WriteString("read:\n  - path: .\n    skip:\n")
	for _, v := range p.Skip {
		fmt.Fprintf(b, "      - %s # %s\n", scalar(v.Text), v.Reason)
	}
	b.WriteByte('\n')
}

func folderName(folder string) string {
	if folder == "." {
		return "this folder"
	}
	return folder
}

// plain are texts that YAML takes for themselves; word are those of them that mean something else.
var (
	plain = regexp.MustCompile(`^[A-Za-z][\w./-]*$`)
	word  = regexp.MustCompile(`(?i)^(?:y|n|yes|no|on|off|true|false|null)$`)
)

// scalar is a text as a value of YAML.
func scalar(text string) string {
	if plain.MatchString(text) && !word.MatchString(text) {
		return text
	}
	return strconv.Quote(text)
}

func upperFirst(s string) string {
	if s == "" {
		return ""
	}
	return strings.ToUpper(s[:1]) + s[1:]
}
