package build

import (
	"fmt"
	"strings"

	"corvek/core/family"
	"corvek/core/fastener"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// Joint is how a part of one unit is bolted on.
type Joint struct {
	Thread, Class string
	Dry           bool
	Torque        float64 // N·m it is to have, 0 where no figure is given
	Source        string  // where that figure is from
	Circle        int     // bolts on one circle
}

// JointOf is the family's joint with what was read off this unit in its place. The
// family's torque goes with its own thread and class only. False where the part is
// not bolted.
func JointOf(def *family.Bolt, own unit.Joint) (Joint, bool) {
	j := Joint{Dry: own.Dry}
	if def != nil {
		j.Thread, j.Class, j.Circle = def.Thread, def.Class, def.Circle
		if q, err := quantity.Parse(def.Torque, quantity.Torque); err == nil {
			j.Torque, j.Source = q.SI, "guidance of this family; the maker's figure wins"
		}
	}
	if own.Thread != "" && own.Thread != j.Thread {
		j.Thread, j.Torque = own.Thread, 0
	}
	if class := strings.ReplaceAll(own.Class, "_", " "); class != "" && class != j.Class {
		j.Class, j.Torque = class, 0
	}
	if !own.Torque.IsZero() {
		j.Torque, j.Source = own.Torque.SI, "typed at the bench, without a document"
		if own.Source != "" {
			j.Source = "maker's figure, " + own.Source
		}
	}
	return j, j.Thread != ""
}

// Tightening is the torque of a fastener and its standing.
type Tightening struct {
	Torque  float64 // N·m
	Source  string  // whose figure, or table by size and class
	Order   []int
	Stages  []float64 // N·m
	Unknown bool      // no class known: no torque may be called safe
}

// Tighten works out a fastener: the torque that is given, else by thread and class at
// the usual preload, oiled or dry (short torque formula, ISO 898-1 and SAE J429).
func Tighten(j Joint) (Tightening, error) {
	t := Tightening{Torque: j.Torque, Source: j.Source}
	th, err := fastener.ParseThread(j.Thread)
	if err != nil {
		return t, err
	}
	c, err := fastener.ClassByName(j.Class)
	switch {
	case err != nil:
		t.Unknown, t.Torque = true, 0
		t.Source = "read the head mark first: no torque is safe without its class"
	case j.Torque == 0:
		preload := fastener.UsualPreload * c.Proof(th.Diameter) * th.StressArea()
		t.Torque = fastener.Torque(j.factor(), th.Diameter, preload)
		t.Source = fmt.Sprintf("table: %s class %s, %s, %.0f %% of proof load", th.Name, c.Name, j.surface(),
			100*fastener.UsualPreload)
	}
	if j.Circle > 1 {
		t.Order = fastener.Crosswise(j.Circle)
		for _, s := range fastener.StageShares(3) {
			t.Stages = append(t.Stages, s*t.Torque)
		}
	}
	return t, nil
}

func (j Joint) factor() float64 {
	if j.Dry {
		return fastener.KDry
	}
	return fastener.KOiled
}

func (j Joint) surface() string {
	if j.Dry {
		return "dry"
	}
	return "oiled"
}

// Short reports that less thread carries (m) than a steel bolt needs: its own diameter. Into
// iron or aluminium half as much again is usual.
func (j Joint) Short(engaged float64) bool {
	th, err := fastener.ParseThread(j.Thread)
	return err == nil && engaged < th.Diameter
}

// Load is what a torque that was typed does to the bolts of a joint.
type Load struct {
	Share   float64 // of proof load
	Over    bool    // above what the scatter of torque tightening leaves safe
	Unknown bool    // nobody read the head mark
}

// Loads judges a torque in N·m; ok is false where the thread says nothing.
func (j Joint) Loads(torque float64) (l Load, ok bool) {
	th, err := fastener.ParseThread(j.Thread)
	if err != nil || torque <= 0 {
		return l, false
	}
	c, err := fastener.ClassByName(j.Class)
	if err != nil {
		return Load{Unknown: true}, true
	}
	l.Share = fastener.Preload(j.factor(), th.Diameter, torque) / (c.Proof(th.Diameter) * th.StressArea())
	l.Over = l.Share > fastener.ProofWarning
	return l, true
}
