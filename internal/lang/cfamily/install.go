package cfamily

import (
	"path"
	"slices"
	"strings"

	"github.com/bmatcuk/doublestar/v4"

	"codrel/internal/model"
)

// This file reads which headers a build file installs, where it says so in plain words: those are
// for users.

// unknownInstalls stands for headers of which a build file says only when it runs which they are.
const unknownInstalls = "?"

// installedBy are the paths and patterns of the headers that a build file installs, from the
// project's root.
func installedBy(file, text string) (out []string) {
	var names []string
	switch base := path.Base(file); base {
	case "CMakeLists.txt":
		names = installedByCMake(text)
	case "meson.build":
		names = installedByMeson(text)
	case "Makefile.am":
		names = installedByAutomake(text)
	default:
		return nil
	}
	for _, name := range names {
		if strings.Contains(name, "_BINARY_DIR}") {
			continue // what a build makes
		}
		switch {
		case strings.ContainsAny(name, "$@<>{}"):
			name = unknownInstalls
		case strings.HasSuffix(name, "/"):
			name = path.Join(path.Dir(file), name) + "/**"
		case name != unknownInstalls:
			name = path.Join(path.Dir(file), name)
		}
		if !slices.Contains(out, name) {
			out = append(out, name)
		}
	}
	return out
}

// sayings are what a build file says of the library beyond its name.
func sayings(file, text string) []model.Saying {
	names := installedBy(file, text)
	if len(names) == 0 {
		return nil
	}
	key := model.Installs
	if slices.Contains(names, unknownInstalls) { // another build file may say all
		if key, names = model.InstallsPartly, slices.DeleteFunc(names, func(name string) bool { return name == unknownInstalls }); len(names) == 0 {
			return nil
		}
	}
	return []model.Saying{{Key: key, Names: names}}
}

// calls gives the words between the brackets of each call of a function in a build file.
func calls(text, name string, yield func(args []string)) {
	for at := 0; ; {
		i := strings.Index(text[at:], name)
		if i < 0 {
			return
		}
		i += at
		at = i + len(name)
		rest := strings.TrimLeft(text[at:], " \t")
		if i > 0 && isNameByte(text[i-1]) || !strings.HasPrefix(rest, "(") || inRemark(text, i) {
			continue
		}
		depth, end := 0, -1
		for k := 0; k < len(rest) && end < 0; k++ {
			switch rest[k] {
			case '(':
				depth++
			case ')':
				if depth--; depth == 0 {
					end = k
				}
			}
		}
		if end < 0 {
			return
		}
		yield(wordsOf(rest[1:end]))
	}
}

// inRemark reports whether an offset of a build file stands behind a "#" on its line.
func inRemark(text string, at int) bool {
	line := text[strings.LastIndexByte(text[:at], '\n')+1 : at]
	return strings.Contains(line, "#")
}

// wordsOf are the words of a list, without its marks and remarks.
func wordsOf(text string) (out []string) {
	for line := range strings.Lines(text) {
		line, _, _ = strings.Cut(line, "#")
		out = append(out, strings.FieldsFunc(line, func(c rune) bool { return strings.ContainsRune(" \t\r\n,;'\"[]()\\", c) })...)
	}
	return out
}

// isHeaderName reports whether a word of a build file is the name of a header.
func isHeaderName(name string) bool {
	switch path.Ext(name) {
	case ".h", ".hh", ".hpp", ".hxx", ".h++", ".H", ".inl", ".ipp", ".tcc", ".inc":
		return true
	}
	return false
}

// given replaces words that stand for lists by these.
func given(words []string, lists map[string][]string, open, shut string) (out []string) {
	for _, word := range words {
		if name, ok := strings.CutPrefix(word, open); ok && strings.HasSuffix(name, shut) {
			if list := lists[strings.TrimSuffix(name, shut)]; list != nil {
				out = append(out, list...)
				continue
			}
		}
		out = append(out, word)
	}
	return out
}

// upper reports whether a word is one of a build file's own, as DESTINATION is.
func upper(word string) bool {
	for i := range len(word) {
		if c := word[i]; (c < 'A' || 'Z' < c) && c != '_' {
			return false
		}
	}
	return len(word) > 2
}

// installedByCMake reads the calls of install, and the lists of public headers.
func installedByCMake(text string) (out []string) {
	lists := map[string][]string{}
	calls(text, "set", func(args []string) {
		if len(args) > 1 {
			lists[args[0]] = args[1:]
		}
	})
	own := strings.NewReplacer("${CMAKE_CURRENT_SOURCE_DIR}/", "", "${CMAKE_CURRENT_LIST_DIR}/", "")
	take := func(args []string, from int) {
		for _, word := range given(args[from:], lists, "${", "}") {
			word = own.Replace(word)
			switch {
			case upper(word):
				return
			case isHeaderName(word), strings.Contains(strings.ToUpper(word), "HEADER") && strings.HasPrefix(word, "${"):
				out = append(out, word)
			}
		}
	}
	calls(text, "install", func(args []string) {
		if len(args) < 2 {
			return
		}
		switch args[0] {
		case "FILES":
			take(args, 1)
		case "DIRECTORY":
			if !slices.ContainsFunc(args, func(word string) bool { return strings.Contains(strings.ToLower(word), "include") }) {
				return
			}
			for _, word := range args[1:] {
				if upper(word) {
					break
				}
				out = append(out, strings.TrimSuffix(own.Replace(word), "/")+"/")
			}
		}
	})
	for _, mark := range []struct{ call, word string }{{"set_target_properties", "PUBLIC_HEADER"}, {"target_sources", "HEADERS"}} {
		calls(text, mark.call, func(args []string) {
			if i := slices.Index(args, mark.word); i >= 0 {
				if files := slices.Index(args, "FILES"); mark.word == "HEADERS" && files > i {
					i = files
				}
				take(args, i+1)
			}
		})
	}
	return out
}

// installedByMeson reads the calls of install_headers.
func installedByMeson(text string) (out []string) {
	lists := map[string][]string{}
	for line := range strings.Lines(text) {
		name, rest, ok := strings.Cut(line, "=")
		if name = strings.TrimRight(strings.TrimSpace(name), "+ "); !ok || strings.ContainsAny(name, " ('\"") {
			continue
		}
		rest = strings.TrimSpace(rest)
		begin := strings.Index(text, line) + strings.Index(line, "=") + 1
		if strings.HasPrefix(rest, "[") || strings.HasPrefix(rest, "files(") {
			inner, _, _ := strings.Cut(text[begin:], map[bool]string{true: "]", false: ")"}[strings.HasPrefix(rest, "[")])
			lists[name] = append(lists[name], wordsOf(strings.TrimPrefix(strings.TrimSpace(inner), "files"))...)
		}
	}
	calls(text, "install_headers", func(args []string) {
		for _, word := range args {
			switch list := lists[word]; {
			case strings.HasSuffix(word, ":"):
				return
			case list != nil:
				out = append(out, list...)
			case isHeaderName(word):
				out = append(out, word)
			default:
				out = append(out, unknownInstalls)
			}
		}
	})
	return out
}

// installedByAutomake reads the lists of headers that are installed.
func installedByAutomake(text string) (out []string) {
	lists := map[string][]string{}
	text = strings.ReplaceAll(strings.ReplaceAll(text, "\\\r\n", " "), "\\\n", " ")
	for line := range strings.Lines(text) {
		line, _, _ = strings.Cut(line, "#")
		name, rest, ok := strings.Cut(line, "=")
		if name = strings.TrimRight(strings.TrimSpace(name), "+: "); !ok || name == "" || strings.ContainsAny(name, " \t$") {
			continue
		}
		for _, word := range strings.Fields(rest) { // what it stands for is known before
			lists[name] = append(lists[name], given([]string{word}, lists, "$(", ")")...)
		}
		if strings.HasSuffix(name, "include_HEADERS") {
			for _, word := range lists[name] {
				switch {
				case isHeaderName(word):
					out = append(out, word)
				case strings.HasPrefix(word, "$"):
					out = append(out, unknownInstalls)
				}
			}
		}
	}
	return out
}

// installs are the patterns of the headers that a library's build files install; nil where none
// says all of them.
func installs(lib *model.Library) []string {
	if lib == nil {
		return nil
	}
	for _, said := range lib.Sayings {
		if said.Key == model.Installs {
			return said.Names
		}
	}
	return nil
}

// isInstalled reports whether one of some patterns is that of a file.
func isInstalled(patterns []string, file string) bool {
	return slices.ContainsFunc(patterns, func(pattern string) bool {
		ok, _ := doublestar.Match(pattern, file)
		return ok
	})
}
