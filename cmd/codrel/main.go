// Command codrel turns source code into reference pages that can be trusted.
package main

import (
	"os"

	"codrel/internal/cli"
)

func main() { os.Exit(cli.Main(os.Args[1:], os.Stdin, os.Stdout, os.Stderr)) }
