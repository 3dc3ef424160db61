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
