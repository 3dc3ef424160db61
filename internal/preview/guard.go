package preview

import (
	"net"
	"net/http"
	"net/url"
	"os"
	"strings"
)

// This file refuses what does not come from the browser of who asked for the preview: other
// names that lead to this machine, and pages of other sites that ask for ours.

// hosts are those that requests may name.
type hosts struct {
	port     string
	loopback bool // it listens on this machine alone
}

func hostsOf(address net.Addr) hosts {
	tcp, ok := address.(*net.TCPAddr)
	if !ok {
		return hosts{loopback: true}
	}
	_, port, _ := net.SplitHostPort(tcp.String())
	return hosts{port: port, loopback: tcp.IP.IsLoopback()}
}

// known reports whether a request may name a host: this machine by its usual names; where it
// listens for others too, by any number, and by the machine's own name.
func (h hosts) known(host string) bool {
	name, port, err := net.SplitHostPort(host)
	if err != nil {
		name, port = strings.Trim(host, "[]"), "80"
	}
	if h.port != "" && port != h.port {
		return false
	}
	ip := net.ParseIP(name)
	switch {
	case strings.EqualFold(name, "localhost"), ip != nil && ip.IsLoopback():
		return true
	case h.loopback:
		return false
	}
	own, err := os.Hostname()
	return ip != nil || err == nil && strings.EqualFold(name, own)
}

// guarded answers only requests that come from the preview's own pages, or that a person made.
func (s *Server) guarded(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		head := w.Header()
		head.Set("X-Content-Type-Options", "nosniff")
		head.Set("Cross-Origin-Resource-Policy", "same-origin")
		head.Set("Referrer-Policy", "no-referrer")
		switch {
		case !s.hosts.known(r.Host):
			http.Error(w, "This preview answers to localhost alone.", http.StatusForbidden)
		case s.foreign(r):
			http.Error(w, "This preview answers to its own pages alone.", http.StatusForbidden)
		case r.Method != http.MethodGet && r.Method != http.MethodHead:
			head.Set("Allow", "GET, HEAD")
			http.Error(w, "There are only pages to read here.", http.StatusMethodNotAllowed)
		default:
			next.ServeHTTP(w, r)
		}
	})
}

// foreign reports whether a page of another site made the request, by what browsers say of it
// (Fetch Metadata, and RFC 6454). Links that people follow are no such request.
func (s *Server) foreign(r *http.Request) bool {
	if origin := r.Header.Get("Origin"); origin != "" {
		u, err := url.Parse(origin)
		if err != nil || !s.hosts.known(u.Host) {
			return true
		}
	}
	switch r.Header.Get("Sec-Fetch-Site") {
	case "", "same-origin", "none":
		return false
	}
	return r.Header.Get("Sec-Fetch-Mode") != "navigate" || r.Header.Get("Sec-Fetch-Dest") != "document"
}
