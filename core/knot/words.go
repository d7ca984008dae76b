package knot

import (
	"fmt"
	"strings"
)

// Plural is the s of a word that counts n.
func Plural(n int) string {
	if n == 1 {
		return ""
	}
	return "s"
}

// Numbered are n places from one on.
func Numbered(from, n int) []int {
	out := make([]int, n)
	for i := range out {
		out[i] = from + i
	}
	return out
}

// Identity is the order of n strands that stay where they are.
func Identity(n int) []int { return Numbered(0, n) }

// List lists words as a sentence does: with commas, and an "and" before the last.
func List(words []string) string {
	if n := len(words); n > 1 {
		return strings.Join(words[:n-1], ", ") + " and " + words[n-1]
	}
	return strings.Join(words, "")
}

// Strands is so many strands in words: 1 strand, 3 strands.
func Strands(n int) string { return fmt.Sprintf("%d strand%s", n, Plural(n)) }
