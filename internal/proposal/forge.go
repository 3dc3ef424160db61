package proposal

import (
	"net/url"
	"strings"
)

// This file makes the address of a source line out of that of a repository.

// lines are the ways in which forges address a line of a file, by a part of the host's name.
var lines = []struct{ host, pattern string }{
	{"gitlab", "/-/blob/{revision}/{path}#L{line}"},
	{"bitbucket", "/src/{revision}/{path}#lines-{line}"},
	{"codeberg", "/src/commit/{revision}/{path}#L{line}"},
	{"gitea", "/src/commit/{revision}/{path}#L{line}"},
	{"sr.ht", "/tree/{revision}/item/{path}#L{line}"},
	{"github", "/blob/{revision}/{path}#L{line}"},
}

// source proposes the address of a source line.
func (p *Proposal) source(remote, below string) {
	web := webAddress(remote)
	if web == "" {
		return
	}
	host := strings.ToLower(web)
	for _, forge := range lines {
		if strings.Contains(host, forge.host) {
			p.Source = Value{web + strings.Replace(forge.pattern, "{path}", below+"{path}", 1), "from git's remote; {revision} is the commit that is built"}
			return
		}
	}
	p.Source = Value{web + "/blob/{revision}/" + below + "{path}#L{line}", "from git's remote; its host is not known, so try one link"}
}

// webAddress is where a repository is seen in a browser: of "git@host:owner/name.git",
// "ssh://git@host:22/owner/name" and "https://user@host/owner/name.git". It is "" where the
// remote is no address of a host, such as a folder.
func webAddress(remote string) string {
	remote = strings.TrimSuffix(strings.TrimSuffix(strings.TrimSpace(remote), "/"), ".git")
	if !strings.Contains(remote, "://") {
		at := strings.IndexByte(remote, '@')
		host, file, short := strings.Cut(remote[at+1:], ":")
		if !short || at < 0 || strings.ContainsAny(host, "/\\") || file == "" {
			return ""
		}
		remote = "ssh://" + host + "/" + strings.TrimPrefix(file, "/")
	}
	u, err := url.Parse(remote)
	if err != nil || u.Hostname() == "" || strings.Trim(u.Path, "/") == "" || u.Scheme == "file" {
		return ""
	}
	host := u.Hostname()
	if u.Port() != "" && (u.Scheme == "http" || u.Scheme == "https") {
		host = u.Host
	}
	scheme := "https"
	if u.Scheme == "http" {
		scheme = "http"
	}
	return scheme + "://" + host + "/" + strings.Trim(u.Path, "/")
}
