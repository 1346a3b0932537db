package metrology

import (
	"errors"
	"strconv"
	"strings"

	"corvek/core/quantity"
)

var errShimCount = errors.New("a count after x is a whole number, like 0.05 mm x2")

// ParseShims reads a list such as "0.10 mm, 0.05 mm".
func ParseShims(text string) ([]float64, error) {
	var out []float64
	for _, part := range splitList(text) {
		q, err := quantity.Parse(part, quantity.Length)
		if err != nil {
			return nil, err
		}
		out = append(out, q.SI)
	}
	return out, nil
}

// ParseShimStock reads a list such as "0.05 mm x2, 0.02 mm".
func ParseShimStock(text string) ([]ShimStock, error) {
	var out []ShimStock
	for _, part := range splitList(text) {
		count := 1
		if thickness, n, ok := strings.Cut(strings.ReplaceAll(part, "×", "x"), "x"); ok {
			c, err := strconv.Atoi(strings.TrimSpace(n))
			if err != nil || c < 1 || c > 200 {
				return nil, errShimCount
			}
			part, count = thickness, c
		}
		q, err := quantity.Parse(part, quantity.Length)
		if err != nil {
			return nil, err
		}
		out = append(out, ShimStock{Thickness: q.SI, Count: count})
	}
	return out, nil
}

func splitList(text string) []string {
	var out []string
	for _, part := range strings.FieldsFunc(text, func(r rune) bool { return r == ',' || r == ';' || r == '\n' }) {
		if part = strings.TrimSpace(part); part != "" {
			out = append(out, part)
		}
	}
	return out
}
