package knot

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
