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
	Documented    bool    // it stands in a document or on the sheet of the model
	Angle         string  // spanner and angle, where that is how it is tightened
	Circle        int     // bolts on one circle
	Bolts         bool    // screws by whose size and class a torque can be told; caps, nuts and ports are none
}

// JointOf is what the sheet of the model has of a joint, with what was read off this unit in its place. The
// sheet's torque goes with its own thread and class only. False where the part is not bolted.
func JointOf(def *family.Part, own unit.Joint) (Joint, bool) {
	j := Joint{Dry: own.Dry, Angle: own.Angle, Bolts: def.Kind == "bolts"}
	if b := def.Bolt; b != nil {
		j.Thread, j.Class, j.Circle = b.Thread, b.Class, b.Circle
		if q, err := quantity.Parse(b.Torque, quantity.Torque); err == nil {
			j.Torque, j.Source, j.Documented = q.SI, "the shop's sheet of the model", true
			if b.Source != "" {
				j.Source += ", " + b.Source
			}
		}
	}
	if own.Thread != "" && own.Thread != j.Thread {
		j.Thread, j.Torque, j.Documented = own.Thread, 0, false
	}
	if class := strings.ReplaceAll(own.Class, "_", " "); class != "" && class != j.Class {
		j.Class, j.Torque, j.Documented = class, 0, false
	}
	if !own.Torque.IsZero() {
		j.Torque, j.Source, j.Documented = own.Torque.SI, "typed at the bench, without a document", false
		if own.Source != "" {
			j.Source, j.Documented = "maker's figure, "+own.Source, true
		}
	}
	return j, def.Bolt != nil || j.Thread != "" || j.Torque > 0 || j.Angle != ""
}

// Tightening is the torque of a fastener and its standing.
type Tightening struct {
	Torque  float64 // N·m
	Source  string  // whose figure, or table by size and class
	Order   []int
	Stages  []float64 // N·m
	Unknown bool      // no class known: no torque may be called safe
	// Of a thread whose head mark nobody read: what it would be over the usual classes, N·m, none of it safe
	Low, High float64
}

// Tighten works out a fastener: the torque that is given, else of screws by thread and class at
// the usual preload, oiled or dry (short torque formula, ISO 898-1 and SAE J429). Of screws whose thread or
// head mark nobody read, only a documented torque is one.
func Tighten(j Joint) (Tightening, error) {
	t := Tightening{Torque: j.Torque, Source: j.Source}
	switch {
	case !j.Bolts && j.Angle != "":
		t.Torque, t.Source = 0, j.Angle
	case !j.Bolts && j.Torque == 0:
		t.Source = "no table tells it: its torque, or spanner and angle, with where that is from"
	case j.Bolts && !j.Documented:
		if err := t.byTable(j); err != nil {
			return t, err
		}
	}
	if j.Circle > 1 {
		t.Order = fastener.Crosswise(j.Circle)
		for _, s := range fastener.StageShares(3) {
			if t.Torque > 0 {
				t.Stages = append(t.Stages, s*t.Torque)
			}
		}
	}
	return t, nil
}

func (t *Tightening) byTable(j Joint) error {
	if j.Thread == "" {
		t.Unknown, t.Torque, t.Source = true, 0, "read thread and head mark first: no torque is safe without them"
		return nil
	}
	th, err := fastener.ParseThread(j.Thread)
	if err != nil {
		return err
	}
	c, err := fastener.ClassByName(j.Class)
	switch {
	case th.Pipe:
		t.Unknown, t.Torque, t.Source = true, 0, th.NoTable()
	case err != nil:
		t.Unknown, t.Torque = true, 0
		t.Source = "read the head mark first: no torque is safe without its class"
		for _, c := range fastener.Span(th, j.factor(), fastener.UsualPreload) {
			if t.Low == 0 || c.Torque < t.Low {
				t.Low = c.Torque
			}
			t.High = max(t.High, c.Torque)
		}
	case j.Torque == 0:
		t.Torque = j.byClass(th, c)
		t.Source = fmt.Sprintf("table: %s class %s, %s, %.0f %% of proof load", th.Name, c.Name, j.surface(),
			100*fastener.UsualPreload)
	}
	return nil
}

// byClass is the torque of a thread at the usual preload of a class.
func (j Joint) byClass(th fastener.Thread, c fastener.Class) float64 {
	return fastener.Torque(j.factor(), th.Diameter, fastener.UsualPreload*c.Proof(th.Diameter)*th.StressArea())
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

// Loads judges a torque in N·m; ok is false where it is none of screws, or the thread says nothing.
func (j Joint) Loads(torque float64) (l Load, ok bool) {
	if !j.Bolts || torque <= 0 {
		return l, false
	}
	th, err := fastener.ParseThread(j.Thread)
	if err != nil || th.Pipe {
		return Load{Unknown: !j.Documented}, j.Thread == ""
	}
	c, err := fastener.ClassByName(j.Class)
	if err != nil {
		return Load{Unknown: !j.Documented}, true
	}
	l.Share = fastener.Preload(j.factor(), th.Diameter, torque) / (c.Proof(th.Diameter) * th.StressArea())
	l.Over = l.Share > fastener.ProofWarning
	return l, true
}
