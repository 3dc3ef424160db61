package cli

import (
	"strings"

	"github.com/spf13/cobra"
)

// This file says what commands take, in words that say what to do instead.

// upTo takes at most n arguments; what says what one is.
func upTo(n int, what string) cobra.PositionalArgs {
	return func(c *cobra.Command, args []string) error {
		switch {
		case len(args) <= n:
			return nil
		case n == 0:
			return usage("\"%s\" takes no arguments, but got %s", c.CommandPath(), quoted(args))
		case n == 1:
			return usage("\"%s\" takes one %s, but got %s", c.CommandPath(), what, quoted(args))
		}
		return usage("\"%s\" takes at most %d arguments, but got %s", c.CommandPath(), n, quoted(args))
	}
}

// some takes one argument or more; what says what is wanted.
func some(what, example string) cobra.PositionalArgs {
	return func(c *cobra.Command, args []string) error {
		if len(args) == 0 || strings.TrimSpace(strings.Join(args, "")) == "" {
			return usage("\"%s\" needs %s, for example: %s", c.CommandPath(), what, example)
		}
		return nil
	}
}

// one takes exactly one argument of a list.
func one(what string, of []string) cobra.PositionalArgs {
	return func(c *cobra.Command, args []string) error {
		if len(args) != 1 {
			return usage("\"%s\" needs one %s: %s", c.CommandPath(), what, strings.Join(of, ", "))
		}
		return nil
	}
}

func quoted(args []string) string {
	return list(quotes(args))
}

func quotes(args []string) []string {
	out := make([]string, len(args))
	for i, arg := range args {
		out[i] = "\"" + arg + "\""
	}
	return out
}
