package sink

// FileByFile commits as if the target could not be renamed.
func (f *Folder) FileByFile() error { return f.fileByFile() }

// TwoRenames commits as if the system had no atomic exchange.
func (f *Folder) TwoRenames() error { return f.twoRenames() }
