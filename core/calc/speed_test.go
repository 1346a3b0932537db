package calc_test

import (
	"testing"

	"corvek/core/calc"
)

func BenchmarkCalculators(b *testing.B) {
	for _, d := range calc.All() {
		body := []byte(d.Example)
		b.Run(d.Name, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				if _, err := calc.Run(d.Name, body); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}
