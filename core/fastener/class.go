package fastener

import (
	"fmt"
	"slices"
	"strings"
)

// Class is a bolt strength class or grade.
type Class struct {
	Name   string
	Inch   bool
	ranges []strength
}

type strength struct {
	upTo  float64 // m, largest nominal diameter of the range
	proof float64 // Pa
}

const (
	mpa = 1e6
	ksi = 6894757.293168361
)

// Classes are the usual ones: ISO 898-1 property classes and SAE J429 grades. They are what an unread head mark
// may be.
var Classes = []Class{
	{"8.8", false, []strength{{0.016, 580 * mpa}, {0.036, 600 * mpa}}},
	{"10.9", false, []strength{{0.036, 830 * mpa}}},
	{"12.9", false, []strength{{0.036, 970 * mpa}}},
	{"grade 2", true, []strength{{0.75 * inch, 55 * ksi}, {1.5 * inch, 33 * ksi}}},
	{"grade 5", true, []strength{{1 * inch, 85 * ksi}, {1.5 * inch, 74 * ksi}}},
	{"grade 8", true, []strength{{1.5 * inch, 120 * ksi}}},
}

// softer are classes that hydraulic joints are not made with and that stand on heads all the same: ISO 898-1,
// and stainless steel by its 0.2 % proof stress (ISO 3506-1).
var softer = []Class{
	{"4.6", false, []strength{{0.036, 225 * mpa}}},
	{"5.8", false, []strength{{0.036, 380 * mpa}}},
	{"A2-50", false, []strength{{0.036, 210 * mpa}}},
	{"A2-70", false, []strength{{0.024, 450 * mpa}}},
}

// AllClasses are the classes whose mark can be read off a head.
func AllClasses() []Class { return append(slices.Clone(softer), Classes...) }

// ClassByName finds a class; the case of letters does not matter.
func ClassByName(s string) (Class, error) {
	key := strings.Join(strings.Fields(strings.ToLower(s)), " ")
	for _, c := range AllClasses() {
		if strings.ToLower(c.Name) == key || c.Inch && strings.ReplaceAll(c.Name, " ", "") == key {
			return c, nil
		}
	}
	return Class{}, fmt.Errorf(
		"%q is not a class here; use 4.6, 5.8, 8.8, 10.9, 12.9, A2-50, A2-70, grade 2, grade 5, grade 8 or unknown",
		s,
	)
}

// Proof is the proof stress in Pa for a nominal diameter in m.
func (c Class) Proof(diameter float64) float64 {
	for _, r := range c.ranges {
		if diameter <= r.upTo*(1+1e-9) {
			return r.proof
		}
	}
	return c.ranges[len(c.ranges)-1].proof
}

// Usual K factors of the short torque formula.
const (
	KDry   = 0.20
	KOiled = 0.15
	// UsualPreload is the share of proof load commonly aimed at for joints that
	// are taken apart again.
	UsualPreload = 0.75
	// ProofWarning is the share of proof load above which a bolt is at risk,
	// given the scatter of torque tightening.
	ProofWarning = 0.9
)

// Torque is K·d·F in N·m: diameter in m, preload in N.
func Torque(k, diameter, preload float64) float64 { return k * diameter * preload }

// Preload is the inverse of Torque.
func Preload(k, diameter, torque float64) float64 { return torque / (k * diameter) }
