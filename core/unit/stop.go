package unit

import (
	"slices"
	"strconv"
	"strings"
)

// Stations are the stations of a job, in the order of work.
var Stations = []string{"receive", "strip", "measure", "explain", "decide", "kit", "build", "prove", "handover"}

// StopKind is what must be settled before the next station is honest.
type StopKind string

// The kinds of stop, by station.
const (
	StopCaution      StopKind = "caution" // at any station: not read
	StopComplaint    StopKind = "complaint"
	StopDisplacement StopKind = "displacement"
	StopSpeed        StopKind = "speed"
	StopDutyPressure StopKind = "duty_pressure"
	StopBaseline     StopKind = "baseline"
	StopRating       StopKind = "rating"    // asked more than it is made for
	StopPartOnly     StopKind = "part_only" // a part is asked for, and nobody knows what ate the old one
	StopWarranty     StopKind = "warranty"

	StopStillOn   StopKind = "still_on"
	StopUncounted StopKind = "uncounted"
	StopShort     StopKind = "short"
	StopOver      StopKind = "over"
	StopFacing    StopKind = "facing" // at Strip and at Build
	StopLoose     StopKind = "loose"
	StopStuck     StopKind = "stuck"
	StopStack     StopKind = "stack" // at Strip and at Build
	StopAcquitted StopKind = "acquitted"
	StopGauges    StopKind = "gauges" // the answers at the machine keep it shut; its part is why

	StopFault       StopKind = "fault"
	StopUndecided   StopKind = "undecided"
	StopNotMeasured StopKind = "not_measured"
	StopSpring      StopKind = "spring" // goes back and nobody measured it
	StopSuspect     StopKind = "suspect"
	StopCalibration StopKind = "calibration"
	StopCoarse      StopKind = "coarse"

	StopConclusion StopKind = "conclusion"
	StopOutside    StopKind = "outside"
	StopMisfit     StopKind = "misfit"
	StopLeftOver   StopKind = "left_over" // fair wear called before other roots were looked for
	StopBlamed     StopKind = "blamed"    // a part outside that was not measured
	StopUncured    StopKind = "uncured"   // another unit runs where the cause still is

	StopOpen   StopKind = "open"
	StopReason StopKind = "reason"
	StopAnswer StopKind = "answer" // the customer has not said, or what he said is not what is done
	StopRework StopKind = "rework" // a rework that is not finished, or went too far

	StopPlace StopKind = "place"
	StopPiece StopKind = "piece"
	StopSeal  StopKind = "seal" // a rubber that does not bear the fluid, or is too old

	StopTurn         StopKind = "turn"
	StopStiff        StopKind = "stiff"
	StopAgain        StopKind = "again"
	StopUnfitted     StopKind = "unfitted"
	StopOrder        StopKind = "order"    // it went in over an open place
	StopCount        StopKind = "count_in" // not as many went in as belong
	StopTorque       StopKind = "torque"   // not said, too much, or of an unknown bolt
	StopLip          StopKind = "lip"      // it runs on the old groove
	StopProud        StopKind = "proud"    // something stands proud under a joint
	StopFill         StopKind = "fill"     // not filled, primed or bled
	StopEmpty        StopKind = "empty"    // fitted as new, and no piece lies at its place
	StopBelongs      StopKind = "belongs"  // a pack went in, and nobody knows which belongs
	StopModification StopKind = "modification"

	StopProved StopKind = "proved"

	StopLesson StopKind = "lesson"
	StopEnding StopKind = "ending"
	StopFlush  StopKind = "flush"
	StopSump   StopKind = "sump" // another one gained and was not drained
)

// StopKinds are all kinds.
var StopKinds = []StopKind{
	StopCaution, StopComplaint, StopDisplacement, StopSpeed, StopDutyPressure, StopBaseline, StopRating, StopPartOnly,
	StopWarranty,
	StopStillOn, StopUncounted, StopShort, StopOver, StopFacing, StopLoose, StopStuck, StopStack, StopAcquitted,
	StopGauges,
	StopFault, StopUndecided, StopNotMeasured, StopSpring, StopSuspect, StopCalibration, StopCoarse,
	StopConclusion, StopOutside, StopMisfit, StopLeftOver, StopOpen, StopReason, StopAnswer, StopRework,
	StopPlace, StopPiece, StopSeal,
	StopOrder, StopCount, StopTorque, StopLip, StopProud, StopFill,
	StopTurn, StopStiff, StopAgain, StopUnfitted, StopEmpty, StopBelongs, StopModification,
	StopProved, StopLesson, StopEnding,
	StopFlush, StopBlamed, StopUncured, StopSump,
}

// StopCode names one stop of a job by what it is about, never by its wording or
// the number of a row, so that a lead's waiver sticks to it through rounds,
// export and import.
type StopCode struct {
	Unit    int
	Station string
	Kind    StopKind
	Part    string // code; of a caution its code
	Feature string // code
	Number  int    // of a loose piece, a kit piece or a further cause
}

// String writes the code: u1/measure/undecided/rear_plate/side_clearance.
func (c StopCode) String() string {
	at := []string{"u" + strconv.Itoa(c.Unit), c.Station, string(c.Kind)}
	if c.Part != "" {
		at = append(at, c.Part)
	}
	if c.Feature != "" {
		at = append(at, c.Feature)
	}
	if c.Number > 0 {
		at = append(at, strconv.Itoa(c.Number))
	}
	return strings.Join(at, "/")
}

// numbered reports that stops of the kind can be of one of several numbered things.
func (k StopKind) numbered() bool {
	return k == StopLoose || k == StopPiece || k == StopSeal || k == StopOutside
}

// ParseStopCode reads a code as String writes it.
func ParseStopCode(text string) (c StopCode, ok bool) {
	words := strings.Split(text, "/")
	if len(words) < 3 || len(words) > 5 || !slices.Contains(StopKinds, StopKind(words[2])) {
		return c, false
	}
	c.Unit, ok = count(strings.TrimPrefix(words[0], "u"))
	c.Station, c.Kind = words[1], StopKind(words[2])
	rest := words[3:]
	if len(rest) == 1 && c.Kind.numbered() {
		switch n, is := count(rest[0]); {
		case is:
			c.Number, rest = n, nil
		case c.Kind != StopOutside: // a cause is numbered, the root of all is not
			return c, false
		}
	}
	if len(rest) > 0 {
		c.Part = rest[0]
	}
	if len(rest) > 1 {
		c.Feature = rest[1]
	}
	return c, ok && c.Unit > 0 && c.String() == text
}
