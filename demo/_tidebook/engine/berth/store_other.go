//go:build !linux && !windows

package berth

import "io"

// Store is where plans are kept on this system.
const Store = "tidebook"

// Sync does nothing where the system cannot promise anything.
func Sync(w io.Writer) error { return nil }
