package parts

import (
	"bufio"
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"hash"
	"io"

	"codrel/internal/parallel"
)

// Writer writes a stream, a file at a time.
type Writer struct {
	out   *bufio.Writer
	sum   hash.Hash
	files int
}

// NewWriter begins a stream.
func NewWriter(to io.Writer, h Header) (*Writer, error) {
	sum := sha256.New()
	w := &Writer{out: bufio.NewWriterSize(to, 1<<16), sum: sum}
	h.Facts = Version
	return w, w.line(h)
}

// File writes a file.
func (w *Writer) File(f *File) error {
	data, err := encode(f)
	if err != nil {
		return err
	}
	w.files++
	return w.put(data)
}

// Close writes what tells that the stream is whole. It does not close what it writes to.
func (w *Writer) Close() error {
	end := trailer{Files: w.files, Sum: hex.EncodeToString(w.sum.Sum(nil))}
	if err := w.line(end); err != nil {
		return err
	}
	return w.out.Flush()
}

func (w *Writer) line(value any) error {
	data, err := json.Marshal(value)
	if err != nil {
		return err
	}
	return w.put(data)
}

func (w *Writer) put(data []byte) error {
	data = append(data, '\n')
	w.sum.Write(data)
	_, err := w.out.Write(data)
	return err
}

// Part is a stream that was read.
type Part struct {
	Name string
	Header
	Files []*File
}

// Read reads a stream of a name on several workers. What is wrong with it is an [Error].
func Read(ctx context.Context, name string, data []byte, workers int) (*Part, error) {
	p := &Part{Name: name}
	lines := bytes.SplitAfter(data, []byte("\n"))
	if n := len(lines); n > 0 && len(lines[n-1]) == 0 {
		lines = lines[:n-1]
	}
	if err := p.readHeader(lines); err != nil {
		return nil, err
	}
	files := lines[1:]
	var end trailer
	if n := len(files); n == 0 || json.Unmarshal(files[n-1], &end) != nil || end.Sum == "" {
		return nil, &Error{name, 0, "it is cut short; write it again with \"codrel extract --whole\""}
	}
	last := files[len(files)-1]
	files = files[:len(files)-1]
	sum := sha256.Sum256(data[:len(data)-len(last)])
	if end.Files != len(files) || end.Sum != hex.EncodeToString(sum[:]) {
		return nil, &Error{name, 0, "it is damaged: its contents do not have the sum that it names; write it again with \"codrel extract --whole\""}
	}
	p.Files = make([]*File, len(files))
	wrong := make([]error, len(files))
	if err := parallel.Each(ctx, workers, len(files), func(i int) { p.Files[i], wrong[i] = decode(files[i]) }); err != nil {
		return nil, err
	}
	for i, err := range wrong {
		if err != nil {
			return nil, &Error{name, i + 2, "it is damaged: " + err.Error()}
		}
	}
	return p, nil
}

func (p *Part) readHeader(lines [][]byte) error {
	foreign := &Error{p.Name, 0, "it is no stream of facts; \"codrel extract --whole\" writes one"}
	if len(lines) == 0 {
		return &Error{p.Name, 0, "it is empty; \"codrel extract --whole\" writes what is read here"}
	}
	if json.Unmarshal(lines[0], &p.Header) != nil || p.Facts == 0 {
		return foreign
	}
	if p.Facts != Version {
		return &Error{p.Name, 0, fmt.Sprintf("Codrel %s wrote it in version %d of its form, and this one reads version %d; use one version for all parts", p.Program, p.Facts, Version)}
	}
	return nil
}
