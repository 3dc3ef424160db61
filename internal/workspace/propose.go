package workspace

import (
	"context"
	"fmt"
	"os"
	"path/filepath"

	"codrel/internal/languages"
	"codrel/internal/proposal"
	"codrel/internal/vcs"
)

// Propose makes a proposal for the settings of the project in a folder, whatever settings it has.
// kept tells whether a git repository keeps the folder.
func Propose(ctx context.Context, dir string) (p *proposal.Proposal, kept bool, err error) {
	abs, err := filepath.Abs(dir)
	if err != nil {
		return nil, false, diskError(err)
	}
	if info, err := os.Stat(abs); err != nil || !info.IsDir() {
		return nil, false, diskError(fmt.Errorf("there is no folder %s", dir))
	}
	origin, err := vcs.Clone(ctx, abs)
	kept = err == nil
	p, err = proposal.Make(ctx, proposal.Folder{Files: os.DirFS(abs), Name: filepath.Base(abs), Remote: origin.Address, Below: origin.Below, FrontEnds: languages.All})
	return p, kept, err
}
