// Package source finds the files of a project, reads them and decodes them.
//
// It owns byte spans, line tables and encodings, and the walk that decides
// which files are in reach (ignore files, skipped folders, links that leave the
// root). It knows nothing of languages: which file endings count and which
// folders a language leaves out come in as data. Everything is read through an
// [io/fs.FS], so that a disk, an editor's buffers and a test archive are one path.
package source
