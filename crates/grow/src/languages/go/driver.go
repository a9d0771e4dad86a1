package main

import (
	"bufio"
	"fmt"
	"os"
	"strings"
)

// roundTrip decodes a text, and encodes what came of it.
func roundTrip[T any](decode func([]byte) (T, error), encode func(T) ([]byte, error)) func([]byte) ([]byte, error) {
	return func(text []byte) ([]byte, error) {
		value, err := decode(text)
		if err != nil {
			return nil, err
		}
		return encode(value)
	}
}

// Every line of standard input names a trial, a sample to read and a result to write, tabs between them.
func main() {
	lines := bufio.NewScanner(os.Stdin)
	for lines.Scan() {
		fields := strings.Split(lines.Text(), "\t")
		text, err := os.ReadFile(fields[1])
		if err == nil {
			text, err = trials[fields[0]](text)
		}
		if err == nil {
			err = os.WriteFile(fields[2], text, 0o600)
		}
		if err != nil {
			fmt.Printf("%s\t%s\t%s\n", fields[0], fields[1], strings.Join(strings.Fields(err.Error()), " "))
		}
	}
}
