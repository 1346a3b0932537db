package mount

import "corvek/core/proof"

// Mounted is the unit that lies on the simulated stand, as its own figures describe it.
type Mounted struct {
	Tag    string             `json:"tag"`
	Action string             `json:"action"` // pump, motor, cylinder, valve
	Model  proof.Model        `json:"model"`
	Duty   proof.Duty         `json:"duty"`
	Stiff  bool               `json:"stiff"`   // a joint or a bearing turns hard
	SealOK bool               `json:"seal_ok"` // soft parts were renewed
	Rest   map[string]float64 `json:"rest"`    // what the step reads besides, at rest, in base units
	Faults []string           `json:"faults"`
	// Figures at rest that what the job needs or the setting decides, and not the model: they are shown as they are
	Needed []string `json:"needed,omitempty"`
	// What of it was made up, because it is not known of the unit
	Invented []string `json:"invented,omitempty"`
}

// Faults that the simulated stand and its unit can have.
const (
	FaultAir     = "air"            // in the oil: pressure and flow hunt
	FaultPiston  = "dead_piston"    // one element of nine delivers nothing
	FaultPoppet  = "stuck_poppet"   // the relief stays open
	FaultStiff   = "stiff_joint"    // the shaft turns hard
	FaultRing    = "misfitted_ring" // a ring on the wrong side leaks half of what is asked
	FaultJump    = "sensor_jump"    // the pressure jumps from one reading to the next
	FaultRunaway = "runaway"        // the pressure climbs whatever it is set to
	FaultSilent  = "silent"         // the stand answers no more
)

// Faults are all of them, in the order they are offered.
var Faults = []string{FaultAir, FaultPiston, FaultPoppet, FaultStiff, FaultRing, FaultJump, FaultRunaway, FaultSilent}

// Mechanical is the share of the theoretical torque that a shaft gives; a pump takes as much more.
const Mechanical = 0.92
