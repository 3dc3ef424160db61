package comment

// KeepAtMost sets how many bytes of prose the table keeps.
func (t *Table) KeepAtMost(bytes int) { t.most = bytes }
