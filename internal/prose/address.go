package prose

import (
	"net/url"
	"strings"
)

// AllowedAddress reports whether a link of a comment or guide may lead to this
// address: http, https and mailto, or a path without a scheme. Every dialect
// asks before it makes a Link or Image node, so that no renderer has to.
func AllowedAddress(address string) bool {
	clean := strings.Map(func(r rune) rune {
		if r <= ' ' || r == 0x7f { // browsers drop these inside a scheme
			return -1
		}
		return r
	}, address)
	if clean == "" {
		return false
	}
	end := strings.IndexAny(clean, ":/?#")
	if end < 0 || clean[end] != ':' {
		return !strings.HasPrefix(clean, "//")
	}
	switch strings.ToLower(clean[:end]) {
	case "http", "https":
		u, err := url.Parse(clean)
		return err == nil && u.Host != ""
	case "mailto":
		return true
	}
	return false
}

// RefScheme is what addresses begin with that name a declaration, which must be there.
const RefScheme = "ref:"

// Leading is the node of what leads to an address: a reference, a fragment or a link; ok is
// false where nothing may lead there.
func Leading(address string) (n Node, ok bool) {
	if name, ok := strings.CutPrefix(address, RefScheme); ok {
		return Node{Kind: Reference, Strict: true, Target: name}, true
	}
	if name, ok := strings.CutPrefix(address, InsertScheme); ok {
		return Node{Kind: Insert, Target: name}, true
	}
	return Node{Kind: Link, Target: address}, AllowedAddress(address)
}
