package main

import (
	"fmt"
	"os"
	"os/exec"
	"slices"
	"strings"
	"time"

	"codrel/internal/languages"
)

// race lets the compiler's parser and our reading take turns, each in a process
// of its own on one processor.
func race(language, with string, dirs []string, runs int) error {
	end := languages.ByName(language)
	var list []string
	var size int64
	for _, dir := range dirs {
		found, err := files(end, dir)
		if err != nil {
			return err
		}
		list = append(list, found...)
	}
	for _, f := range list {
		if info, err := os.Stat(f); err == nil {
			size += info.Size()
		}
	}
	self, err := os.Executable()
	if err != nil {
		return err
	}
	var theirs, own []time.Duration
	for range runs {
		cmd, clean, err := oracle(language, with, "time")
		if err != nil {
			return err
		}
		pinned(cmd)
		cmd.Stdin = strings.NewReader(strings.Join(list, "\n"))
		spent, err := seconds(cmd)
		clean()
		if err != nil {
			return fmt.Errorf("the oracle: %w", err)
		}
		theirs = append(theirs, spent)
		ours := exec.Command(self, append([]string{"-read", "-language", language}, dirs...)...)
		ours.Env = append(os.Environ(), "GOMAXPROCS=1")
		pinned(ours)
		if spent, err = seconds(ours); err != nil {
			return err
		}
		own = append(own, spent)
	}
	slices.Sort(theirs)
	slices.Sort(own)
	t, o := theirs[runs/2], own[runs/2]
	fmt.Printf("\n%d files, %.1f MB: the compiler parses in %.2f s , we read in %.2f s (neither with the time of the disk): %.1f times as fast\n",
		len(list), float64(size)/1e6, t.Seconds(), o.Seconds(), t.Seconds()/o.Seconds())
	return nil
}

// seconds runs a command and reads the time that it prints.
func seconds(cmd *exec.Cmd) (time.Duration, error) {
	out, err := cmd.Output()
	if err != nil {
		return 0, err
	}
	return time.ParseDuration(strings.TrimSpace(string(out)) + "s")
}

// pinned lets a command run on one processor where the system has a tool for it.
func pinned(cmd *exec.Cmd) {
	if path, err := exec.LookPath("taskset"); err == nil {
		cmd.Args = append([]string{path, "-c", "0"}, cmd.Args...)
		cmd.Path = path
	}
}
