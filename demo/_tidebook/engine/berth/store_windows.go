package berth

import "os"

// Store is where plans are kept on this system.
const Store = `C:\ProgramData\Tidebook`

// Sync makes sure that a plan has reached the disk.
func Sync(f *os.File) error { return f.Sync() }
