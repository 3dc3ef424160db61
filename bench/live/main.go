// Command live measures how long a save takes to be on an open page: from the write of a file
// to the new text in a browser that shows it, with the program as users have it.
//
//	go run ./bench/live [-tree DIR] [-saves 30] [-browser chromium]
//
// The tree is copied first, and its copy is changed. A page that the browser loads without any
// change, in the same run, is the reference.
package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"github.com/chromedp/chromedp"
)

func main() {
	tree := flag.String("tree", goTree(), "the tree to serve")
	page := flag.String("page", "", "address of the page that is open (default: that of net/http in Go's tree)")
	file := flag.String("file", "net/http/server.go", "file that is saved, which the page shows the comment of")
	saves := flag.Int("saves", 30, "how many saves are measured")
	browser := flag.String("browser", "", "the browser's program")
	flag.Parse()
	if err := run(*tree, *page, *file, *browser, *saves); err != nil {
		fmt.Fprintln(os.Stderr, "live:", err)
		os.Exit(1)
	}
}

func run(tree, page, file, browser string, saves int) error {
	folder, err := os.MkdirTemp("", "live")
	if err != nil {
		return err
	}
	defer os.RemoveAll(folder)
	program := filepath.Join(folder, "codrel")
	if out, err := exec.Command("go", "build", "-o", program, "./cmd/codrel").CombinedOutput(); err != nil {
		return fmt.Errorf("%w\n%s", err, out)
	}
	copied := filepath.Join(folder, "src")
	if err := os.CopyFS(copied, os.DirFS(tree)); err != nil {
		return err
	}
	ctx, stop := context.WithCancel(context.Background())
	defer stop()
	root, err := serve(ctx, program, copied)
	if err != nil {
		return err
	}
	options := append(chromedp.DefaultExecAllocatorOptions[:], chromedp.NoSandbox)
	if browser != "" {
		options = append(options, chromedp.ExecPath(browser))
	}
	allocated, done := chromedp.NewExecAllocator(ctx, options...)
	defer done()
	tab, closeTab := chromedp.NewContext(allocated)
	defer closeTab()
	if page == "" {
		page = "reference/std/net/http/Server.html"
	}
	if _, err := chromedp.Run(tab, chromedp.Navigate(root+page)); err != nil {
		return err
	}
	var took, plain []time.Duration
	source := filepath.Join(copied, filepath.FromSlash(file))
	was, err := os.ReadFile(source)
	if err != nil {
		return err
	}
	for i := range saves {
		mark := fmt.Sprintf("Saved as number %d.", i)
		now := strings.Replace(string(was), "// A Server defines parameters", "// "+mark+"\n//\n// A Server defines parameters", 1)
		if now == string(was) {
			return errors.New("the file has no place to change")
		}
		begun := time.Now()
		if err := os.WriteFile(source, []byte(now), 0o644); err != nil {
			return err
		}
		if err := shows(tab, mark); err != nil {
			return err
		}
		took = append(took, time.Since(begun))
		begun = time.Now()
		if _, err := chromedp.Run(tab, chromedp.Reload()); err != nil {
			return err
		}
		plain = append(plain, time.Since(begun))
		time.Sleep(time.Second) // nobody saves more often
	}
	slices.Sort(took)
	slices.Sort(plain)
	ms := func(d time.Duration) float64 { return float64(d.Microseconds()) / 1000 }
	fmt.Printf("%s, %d saves of %s\n", tree, saves, file)
	fmt.Printf("from the write to the open page: median %.0f ms, nine of ten below %.0f ms; a plain reload: median %.0f ms\n",
		ms(took[len(took)/2]), ms(took[len(took)*9/10]), ms(plain[len(plain)/2]))
	return nil
}

// serve starts the program and waits until it has read the tree.
func serve(ctx context.Context, program, dir string) (root string, err error) {
	c := exec.CommandContext(ctx, program, "serve", "--address", "localhost:0", dir)
	out, err := c.StdoutPipe()
	if err != nil {
		return "", err
	}
	if err := c.Start(); err != nil {
		return "", err
	}
	var said strings.Builder
	buffer := make([]byte, 4096)
	for !strings.Contains(said.String(), "read in") {
		n, err := out.Read(buffer)
		said.Write(buffer[:n])
		if err != nil {
			return "", fmt.Errorf("the program ended: %s", said.String())
		}
	}
	go func() { _, _ = io.Copy(io.Discard, out) }()
	_, rest, _ := strings.Cut(said.String(), "http://")
	root = "http://" + strings.Fields(rest)[0]
	answer, err := http.Get(root)
	if err != nil {
		return "", err
	}
	return root, answer.Body.Close()
}

// shows waits until the page has a text.
func shows(tab context.Context, text string) error {
	for range 2000 {
		has, err := chromedp.Run(tab, chromedp.Evaluate[bool](fmt.Sprintf(`(document.querySelector("main .prose") || {textContent: ""}).textContent.includes(%q)`, text)))
		if err == nil && has {
			return nil
		}
		time.Sleep(2 * time.Millisecond)
	}
	return errors.New("the page never showed the change")
}

// goTree is the source of Go itself on this machine.
func goTree() string {
	out, err := exec.Command("go", "env", "GOROOT").Output()
	if err != nil {
		return ""
	}
	return filepath.Join(strings.TrimSpace(string(out)), "src")
}
