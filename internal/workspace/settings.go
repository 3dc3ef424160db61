package workspace

import (
	"errors"
	"io/fs"
	"os"
	"path/filepath"

	"codrel/internal/check"
	"codrel/internal/languages"
	"codrel/internal/prose"
	"codrel/internal/settings"
)

// readSettings reads the named settings file, else the usual one where there is one.
func (w *Workspace) readSettings() error {
	file := w.options.SettingsFile
	if file == "" {
		file = filepath.Join(w.Dir, settings.FileName)
	}
	if abs, err := filepath.Abs(file); err == nil {
		w.settingsPath = abs
	}
	data, err := os.ReadFile(file)
	switch {
	case errors.Is(err, fs.ErrNotExist) && w.options.SettingsFile == "":
		w.Settings, w.settingsText = settings.Default(), ""
		return nil
	case errors.Is(err, fs.ErrNotExist):
		return wrongUse("there is no settings file %s", w.options.SettingsFile)
	case err != nil:
		return diskError(err)
	}
	known := settings.Known{Version: w.options.Version, Rules: check.Names(), Languages: languages.Names(), Meanings: prose.Meanings(), Sections: prose.SectionNames()}
	read, err := settings.Parse(w.options.Shown(file), data, known)
	if err != nil {
		return &Error{true, err}
	}
	if rel, err := filepath.Rel(w.Dir, w.settingsPath); err == nil {
		read.File = filepath.ToSlash(rel)
	}
	w.Settings, w.settingsText = read, string(data)
	return nil
}
