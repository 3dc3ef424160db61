package symbols

import (
	"encoding/json"
	"errors"
	"fmt"
	"net/url"
	"strings"
)

// Largest is the size in bytes above which no file is read: two million
// declarations fit in it.
const Largest = 128_000_000

// Read reads a table. The error says in the user's words what is wrong: a file that
// is cut, that is something else, or that a newer program wrote.
func Read(data []byte) (*Table, error) {
	var t Table
	if err := decode(data, form, &t); err != nil {
		return nil, err
	}
	if !served(t.Site) {
		t.Site = "" // pages may not lead to a script
	}
	return &t, nil
}

// ReadTexts reads texts, by module and path.
func ReadTexts(data []byte) (map[string]map[string]string, error) {
	var t Texts
	err := decode(data, formTexts, &t)
	return t.Texts, err
}

func decode(data []byte, want string, to any) error {
	if len(data) > Largest {
		return fmt.Errorf("it is larger than %d MB", Largest/1_000_000)
	}
	var head struct {
		Codrel  any     `json:"codrel"`
		Version float64 `json:"version"`
	}
	err := json.Unmarshal(data, &head)
	var syntax *json.SyntaxError
	switch {
	case len(data) == 0:
		return errors.New("it is empty")
	case errors.As(err, &syntax) && head.Codrel == nil && !strings.Contains(string(data[:min(len(data), 200)]), `"codrel"`):
		return fmt.Errorf("it is no file of names that Codrel wrote; name the %s of a site", FileName)
	case errors.As(err, &syntax):
		return fmt.Errorf("it is cut short or damaged at byte %d; build that site again", syntax.Offset)
	case head.Codrel != want:
		return fmt.Errorf("it is no file of names that Codrel wrote; name the %s of a site", FileName)
	case head.Version > Version:
		return fmt.Errorf("a newer Codrel wrote it (form %v, this one reads %d); update this one, or build that site with it", head.Version, Version)
	case err != nil || head.Version != Version:
		return errors.New("its version is no number that Codrel wrote; build that site again")
	}
	if err := json.Unmarshal(data, to); err != nil {
		var wrong *json.UnmarshalTypeError
		if errors.As(err, &wrong) {
			return fmt.Errorf("its key %q holds the wrong thing (%s); build that site again", wrong.Field, wrong.Value)
		}
		return fmt.Errorf("it is damaged: %w", err)
	}
	return nil
}

// served reports whether an address is one that a site can be served from.
func served(address string) bool {
	u, err := url.Parse(address)
	return err == nil && (u.Scheme == "https" || u.Scheme == "http") && u.Host != "" && strings.HasSuffix(address, "/")
}
