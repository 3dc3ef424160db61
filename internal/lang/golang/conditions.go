package golang

import (
	"go/ast"
	"go/build/constraint"
	"path"
	"strings"

	"codrel/internal/lexing"
)

// This file reads the conditions under which a file is compiled: "//go:build"
// lines and the operating system and architecture in a file's name (go help
// buildconstraint).

func (r *reader) conditions(tree *ast.File) {
	for _, group := range tree.Comments {
		if group.Pos() > tree.Package {
			break
		}
		for _, c := range group.List {
			line := strings.TrimSpace(c.Text)
			if !constraint.IsGoBuild(line) {
				continue
			}
			expr, err := constraint.Parse(line)
			if err != nil {
				continue
			}
			if neverBuilt(expr) {
				r.facts.Standalone = true
				continue
			}
			r.facts.Conditions = append(r.facts.Conditions, expr.String())
		}
	}
	r.facts.Conditions = append(r.facts.Conditions, nameConditions(r.facts.Path)...)
}

// neverBuilt reports whether the expression holds only if "ignore" is set: the
// usual word for "not part of the package".
func neverBuilt(e constraint.Expr) bool {
	switch x := e.(type) {
	case *constraint.TagExpr:
		return x.Tag == "ignore"
	case *constraint.AndExpr:
		return neverBuilt(x.X) || neverBuilt(x.Y)
	case *constraint.OrExpr:
		return neverBuilt(x.X) && neverBuilt(x.Y)
	}
	return false
}

// nameConditions reads "name_GOOS.go", "name_GOARCH.go" and "name_GOOS_GOARCH.go".
// What stands before the first underscore is never a condition.
func nameConditions(file string) []string {
	name := strings.TrimSuffix(path.Base(file), ".go")
	name = strings.TrimSuffix(name, "_test")
	parts := strings.Split(name, "_")[1:]
	n := len(parts)
	switch {
	case n >= 2 && knownSystems[parts[n-2]] && knownArchitectures[parts[n-1]]:
		return parts[n-2:]
	case n >= 1 && (knownSystems[parts[n-1]] || knownArchitectures[parts[n-1]]):
		return parts[n-1:]
	}
	return nil
}

// The names are those of the Go distribution, past and present; all of them stay
// reserved in file names for good.
var (
	knownSystems = lexing.WordSet(`aix android darwin dragonfly freebsd hurd illumos ios js linux nacl netbsd
		openbsd plan9 solaris wasip1 windows zos`)
	knownArchitectures = lexing.WordSet(`386 amd64 amd64p32 arm armbe arm64 arm64be loong64 mips mipsle mips64
		mips64le mips64p32 mips64p32le ppc ppc64 ppc64le riscv riscv64 s390 s390x sparc sparc64 wasm`)
)
