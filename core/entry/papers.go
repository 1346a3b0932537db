package entry

import "corvek/core/unit"

// PapersState is the fingerprint of what the papers of a job rest on: all that it says but for
// what is written while it is closed, and what is asked back afterwards. It does not change j.
func PapersState(j *unit.Job) (string, error) {
	c := j.Clone()
	at := &Place{Job: c}
	for _, f := range Fields(unit.ScopeJob) {
		if !f.Closing {
			continue
		}
		if err := f.Load(at, ""); err != nil {
			return "", err
		}
	}
	c.FollowUps = nil
	return c.State()
}

// MovesPapers reports that a line of the record wrote what papers rest on.
func MovesPapers(e unit.Entry) bool {
	if e.Event != nil {
		switch e.Event.Kind {
		case unit.EventSignedOff, unit.EventHandedOver, unit.EventPaperKept, unit.EventAskedBack,
			unit.EventCameBack, unit.EventTakenOver:
			return false
		}
		return true
	}
	ref, err := unit.ParseRef(e.Field)
	if err != nil || ref.Scope != unit.ScopeJob {
		return true
	}
	f, known := Find(ref.Scope, ref.Name)
	return !known || !f.Closing
}
