// Package vcs owns what a repository says of the tree that is read: the revision
// that links to a forge name, and where it was cloned from.
//
// It asks git, and nothing of the repository's own runs: watchers, hooks and
// locks are switched off. It knows neither settings nor pages.
package vcs

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"slices"
	"strings"
	"time"
)

// Revision is the state of a folder's repository.
type Revision struct {
	Hash  string // of the commit that is checked out
	Dirty bool   // files that the repository keeps differ from it
}

// ErrNoRepository is the error of a folder that no repository keeps, or that has
// no commit yet.
var ErrNoRepository = errors.New("no git repository with a commit keeps this folder")

// patience is how long git may take; it answers at once or is stuck.
const patience = 30 * time.Second

// Read asks git for the revision of a folder. The error is [ErrNoRepository], or
// says what kept git from answering.
func Read(ctx context.Context, dir string) (Revision, error) {
	ctx, stop := context.WithTimeout(ctx, patience)
	defer stop()
	hash, err := git(ctx, dir, "rev-parse", "--verify", "--quiet", "HEAD^{commit}")
	if err != nil {
		return Revision{}, err
	}
	changes, err := git(ctx, dir, "status", "--porcelain", "--untracked-files=no", "--ignore-submodules=all", "--", ".")
	if err != nil {
		return Revision{}, err
	}
	return Revision{Hash: strings.TrimSpace(hash), Dirty: strings.TrimSpace(changes) != ""}, nil
}

// Origin is where a folder's repository was cloned from.
type Origin struct {
	Address string // that of "origin", else of the first remote, or "" where there is none
	Below   string // the path of the folder in the repository, with "/" at its end, or ""
}

// Clone asks git for the origin of a folder. The error is [ErrNoRepository], or says what kept
// git from answering.
func Clone(ctx context.Context, dir string) (Origin, error) {
	ctx, stop := context.WithTimeout(ctx, patience)
	defer stop()
	below, err := git(ctx, dir, "rev-parse", "--show-prefix")
	if err != nil {
		return Origin{}, err
	}
	out := Origin{Below: strings.TrimSuffix(below, "\n")}
	names, err := git(ctx, dir, "remote")
	list := strings.Fields(names)
	if err != nil || len(list) == 0 {
		return out, err
	}
	name := list[0]
	if slices.Contains(list, "origin") {
		name = "origin"
	}
	address, err := git(ctx, dir, "remote", "get-url", name)
	out.Address = strings.TrimSpace(address)
	return out, err
}

func git(ctx context.Context, dir string, args ...string) (string, error) {
	args = append([]string{"-C", dir, "--no-optional-locks", "-c", "core.fsmonitor=false", "-c", "core.hooksPath=" + os.DevNull}, args...)
	c := exec.CommandContext(ctx, "git", args...)
	c.Env = append(os.Environ(), "LC_ALL=C", "GIT_TERMINAL_PROMPT=0")
	var out, trouble bytes.Buffer
	c.Stdout, c.Stderr = &out, &trouble
	err := c.Run()
	var status *exec.ExitError
	switch {
	case err == nil:
		return out.String(), nil
	case ctx.Err() != nil:
		return "", ctx.Err()
	case errors.Is(err, exec.ErrNotFound):
		return "", errors.New("there is no program git on this machine")
	case errors.As(err, &status) && (trouble.Len() == 0 || strings.Contains(trouble.String(), "not a git repository")):
		return "", ErrNoRepository
	}
	message, _, _ := strings.Cut(strings.TrimSpace(trouble.String()), "\n")
	return "", fmt.Errorf("git says: %s", message)
}
