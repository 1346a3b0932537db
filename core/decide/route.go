package decide

import (
	"fmt"
	"slices"
	"strconv"
)

// Route is a way to save the part for one feature.
type Route struct {
	Code, Name  string
	For         []string // features that it answers
	Hours, Days float64
	Stock       float64 // m that may come off in all, 0 where no limit is given
	Taken       float64 // m taken off in all
	Need        float64 // m that must come off before the wear is gone, 0 where that is not known
	Goes        bool    // a person took this way
}

// Left is how much may still come off, in m; limited is false where nothing limits it.
func (r Route) Left() (left float64, limited bool) { return r.Stock - r.Taken, r.Stock > 0 }

// Answers reports that the way takes the wear of a feature away.
func (r Route) Answers(feature string) bool { return slices.Contains(r.For, feature) }

// Fault says why the way cannot be gone, "" where it can: what has to come off is more
// than may.
func (r Route) Fault() string {
	left, limited := r.Left()
	switch {
	case !limited:
		return ""
	case left < 0:
		return fmt.Sprintf("%s taken off, at most %s may come off", mm(r.Taken), mm(r.Stock))
	case r.Need > left:
		return fmt.Sprintf("%s would have to come off, %s may", mm(r.Need), mm(left))
	}
	return ""
}

func mm(m float64) string { return strconv.FormatFloat(m*1000, 'g', 3, 64) + " mm" }

// WayFor is the way for a feature: the one a person took, else the first that can be gone;
// faults are why the others cannot. −1 where none can.
func WayFor(routes []Route, feature string) (best int, faults []string) {
	best = -1
	for i, r := range routes {
		if r.Answers(feature) && r.Goes {
			return i, nil
		}
	}
	for i, r := range routes {
		switch fault := r.Fault(); {
		case !r.Answers(feature):
		case fault != "":
			faults = append(faults, fmt.Sprintf("%s: %s", r.Name, fault))
		case best < 0:
			best = i
		}
	}
	return best, faults
}

// Trend is what became of a face while it was worked.
type Trend string

// The trends. Hand lapping drifts out of flat the longer it goes on.
const (
	Flatter  Trend = "flatter"
	NoTrend  Trend = "as flat as before"
	LessFlat Trend = "less flat"
)

// Trending compares how far a face was out of flat before and is now, in m.
func Trending(before, now float64) Trend {
	switch {
	case now < before:
		return Flatter
	case now > before:
		return LessFlat
	}
	return NoTrend
}

// Oversize is how much larger than its nominal size a bore (m) is after it was honed,
// which the seals that go into it must make up.
func Oversize(nominal, after float64) float64 { return max(0, after-nominal) }
