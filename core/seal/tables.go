// Package seal knows O-rings, rotary lip seals and elastomers: standard sizes,
// what a groove does to a ring, how long rubber keeps, and which fluid it bears.
//
// Sizes: AS568 dash numbers, the general series of ISO 3601-1, common rotary
// seals of ISO 6194-1 and their inch kin. docs/sources.md says what was left out.
package seal

import (
	"bytes"
	_ "embed"
	"encoding/csv"
	"fmt"
	"strconv"
)

//go:embed as568.csv
var as568 []byte

//go:embed iso3601_general.csv
var iso3601 []byte

//go:embed lip.csv
var lips []byte

//go:embed compatibility.csv
var compatibility []byte

const inch = 0.0254

// Ring is a standard O-ring, lengths in m.
type Ring struct {
	Standard, Code  string
	Inside, Section float64
}

// Lip is a standard rotary shaft seal, lengths in m.
type Lip struct {
	Standard           string
	Shaft, Bore, Width float64
}

// Rings and Lips are the shipped tables.
var (
	Rings = loadRings()
	Lips  = loadLips()
)

// rows reads a shipped table; a fault in one is a fault of the build.
func rows(text []byte) [][]string {
	all, err := csv.NewReader(bytes.NewReader(text)).ReadAll()
	if err != nil {
		panic(fmt.Sprintf("seal: %v", err))
	}
	return all
}

func figure(s string) float64 {
	v, err := strconv.ParseFloat(s, 64)
	if err != nil {
		panic(fmt.Sprintf("seal: %v", err))
	}
	return v
}

func loadRings() []Ring {
	var out []Ring
	for _, r := range rows(as568)[1:] {
		out = append(out, Ring{"AS568", "-" + r[0], figure(r[1]) * inch, figure(r[2]) * inch})
	}
	for _, r := range rows(iso3601)[1:] {
		out = append(out, Ring{"ISO 3601-1 G", r[0] + "x" + r[1], figure(r[0]) * 1e-3, figure(r[1]) * 1e-3})
	}
	return out
}

func loadLips() []Lip {
	var out []Lip
	for _, r := range rows(lips)[1:] {
		unit, standard := 1e-3, "ISO 6194-1"
		if r[0] == "inch" {
			unit, standard = inch, "inch, common"
		}
		out = append(out, Lip{standard, figure(r[1]) * unit, figure(r[2]) * unit, figure(r[3]) * unit})
	}
	return out
}
