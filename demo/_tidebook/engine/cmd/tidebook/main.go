// Command tidebook prints the tides of today.
//
//	tidebook Saltwick
package main

import (
	"fmt"
	"os"
	"time"

	"tidebook.example/engine/tide"
)

// Version is what "tidebook version" prints.
const Version = "2.3.0"

func main() {
	curve := tide.NewCurve(2.1, time.Now())
	if err := Run(os.Args[1:], curve); err != nil {
		fmt.Fprintln(os.Stderr, "tidebook:", err)
		os.Exit(1)
	}
}

// Run is the program without its surroundings.
func Run(args []string, water tide.Predictor) error {
	height, err := water.Height(time.Now())
	if err != nil {
		return err
	}
	fmt.Println(height)
	return nil
}
