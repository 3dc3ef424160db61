package settings

import (
	"encoding/json"
	"slices"
	"strconv"
	"strings"

	"go.yaml.in/yaml/v3"

	"codrel/internal/nearest"
)

// This file reads the shapes of YAML: mappings with known keys, lists, words.

type keys map[string]func(*yaml.Node)

// mapping calls the function of each key that stands in n. An unknown key and a
// key that stands twice are problems.
func (r *reader) mapping(n *yaml.Node, of string, known keys) {
	if n.Kind == yaml.AliasNode {
		n = n.Alias
	}
	if n.Kind != yaml.MappingNode {
		r.fail(n, "%s must have keys with values, not %s", place(of), shape(n))
		return
	}
	names := make([]string, 0, len(known))
	for k := range known {
		names = append(names, k)
	}
	slices.Sort(names)
	seen := map[string]bool{}
	for i := 0; i+1 < len(n.Content); i += 2 {
		key, value := n.Content[i], n.Content[i+1]
		read := known[key.Value]
		switch {
		case read == nil:
			if above := placeOf(key.Value); above != "" && above != of && nearest.Word(key.Value, names) == "" {
				r.fail(key, "%s has no key %q; it stands below %q", place(of), key.Value, above)
				break
			}
			r.unknown(key, place(of)+" has no key", names)
		case seen[key.Value]:
			r.fail(key, "the key %q is given twice", key.Value)
		case value.Kind == yaml.ScalarNode && value.Tag == "!!null":
			r.fail(key, "the key %q has no value; remove the line to get the default", key.Value)
		default:
			if value.Kind == yaml.AliasNode {
				value = value.Alias
			}
			read(value)
		}
		seen[key.Value] = true
	}
}

// placeOf is the key at the top of the settings below which alone a key stands, or "".
func placeOf(key string) string {
	var schema struct {
		Properties map[string]struct {
			Properties map[string]any `json:"properties"`
		} `json:"properties"`
	}
	if json.Unmarshal(Schema, &schema) != nil {
		return ""
	}
	above := ""
	for name, of := range schema.Properties {
		if _, has := of.Properties[key]; has {
			if above != "" {
				return ""
			}
			above = name
		}
	}
	return above
}

func place(of string) string {
	if of == "" {
		return "the settings file"
	}
	return strconv.Quote(of)
}

func (r *reader) unknown(n *yaml.Node, what string, names []string) {
	if near := nearest.Word(n.Value, names); near != "" {
		r.fail(n, "%s %q; did you mean %q?", what, n.Value, near)
		return
	}
	r.fail(n, "%s %q; available: %s", what, n.Value, strings.Join(names, ", "))
}

func (r *reader) list(n *yaml.Node, key string, each func(*yaml.Node)) {
	if n.Kind != yaml.SequenceNode {
		r.fail(n, "%q must be a list, not %s", key, shape(n))
		return
	}
	for _, item := range n.Content {
		if item.Kind == yaml.AliasNode {
			item = item.Alias
		}
		each(item)
	}
}

func (r *reader) text(n *yaml.Node, to *string) {
	if n.Kind != yaml.ScalarNode {
		r.fail(n, "expected text, not %s", shape(n))
		return
	}
	*to = n.Value
}

func (r *reader) oneOf(n *yaml.Node, what string, words []string, to *string) {
	if !slices.Contains(words, n.Value) {
		r.unknown(n, "there is no "+what, words)
		return
	}
	*to = n.Value
}

// choice takes one of the words that a key may have.
func (r *reader) choice(n *yaml.Node, key string, words []string, to *string) {
	if !slices.Contains(words, n.Value) {
		r.unknown(n, strconv.Quote(key)+" cannot be", words)
		return
	}
	*to = n.Value
}

func shape(n *yaml.Node) string {
	switch n.Kind {
	case yaml.MappingNode:
		return "a mapping"
	case yaml.SequenceNode:
		return "a list"
	}
	return strconv.Quote(n.Value)
}

func isVersion(v string) bool {
	if v == "" {
		return false
	}
	for part := range strings.SplitSeq(v, ".") {
		if _, err := strconv.ParseUint(part, 10, 32); err != nil {
			return false
		}
	}
	return true
}

// older reports whether version a comes before b; missing parts count as 0.
func older(a, b string) bool {
	x, y := strings.Split(a, "."), strings.Split(b, ".")
	for i := range max(len(x), len(y)) {
		if m, n := part(x, i), part(y, i); m != n {
			return m < n
		}
	}
	return false
}

func part(parts []string, i int) int {
	if i >= len(parts) {
		return 0
	}
	n, _ := strconv.Atoi(parts[i])
	return n
}
