package preview

import (
	"fmt"
	"net/http"
	"time"
)

// This file tells open pages that they have changed, as server-sent events (HTML, section 9.2).

// alive is how often something is sent, so that connections that nobody holds end.
const alive = 20 * time.Second

// events tells a page of the project when what it shows has changed.
func (p *project) events(w http.ResponseWriter, r *http.Request) {
	flusher, ok := w.(http.Flusher)
	if !ok {
		http.Error(w, "no stream is possible here", http.StatusInternalServerError)
		return
	}
	c := &client{address: r.URL.Query().Get("page"), seen: r.URL.Query().Get("seen"), changed: make(chan struct{}, 1)}
	p.mu.Lock()
	p.clients[c] = true
	p.mu.Unlock()
	defer func() {
		p.mu.Lock()
		delete(p.clients, c)
		p.mu.Unlock()
	}()
	w.Header().Set("Content-Type", "text/event-stream")
	w.Header().Set("Cache-Control", "no-store")
	_, _ = fmt.Fprint(w, "retry: 500\n\n")
	if p.page(r.Context(), c.address).sum != c.seen { // it changed while nobody listened
		c.changed <- struct{}{}
	}
	flusher.Flush()
	beat := time.NewTicker(alive)
	defer beat.Stop()
	for {
		text := ": still here\n\n"
		select {
		case <-r.Context().Done():
			return
		case <-beat.C:
		case <-c.changed:
			text = "event: changed\ndata: now\n\n"
		}
		if _, err := fmt.Fprint(w, text); err != nil {
			return
		}
		flusher.Flush()
	}
}
