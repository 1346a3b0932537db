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

// Ring is a standard O-ring, lengths in m. A tolerance of 0 is one that the
// table does not hold.
type Ring struct {
	Standard, Code                    string
	Inside, Section                   float64
	InsideTolerance, SectionTolerance float64 // plus or minus
}

// generalSections are the section tolerances of ISO 3601-1, mm by mm; those of
// the inside diameter differ between its editions and are left out.
var generalSections = map[string]float64{"1.8": 0.08, "2.65": 0.09, "3.55": 0.10, "5.3": 0.13, "7": 0.15}

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
		ring := Ring{Standard: "AS568", Code: "-" + r[0], Inside: figure(r[1]) * inch, Section: figure(r[2]) * inch,
			SectionTolerance: figure(r[4]) * inch}
		if r[3] != "" {
			ring.InsideTolerance = figure(r[3]) * inch
		}
		out = append(out, ring)
	}
	for _, r := range rows(iso3601)[1:] {
		out = append(out, Ring{Standard: "ISO 3601-1 G", Code: r[0] + "x" + r[1], Inside: figure(r[0]) * 1e-3,
			Section: figure(r[1]) * 1e-3, SectionTolerance: generalSections[r[1]] * 1e-3})
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
