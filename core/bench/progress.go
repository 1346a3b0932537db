package bench

import (
	"corvek/core/unit"
)

// Progress is how far a station's work is.
type Progress struct {
	Station string
	Begun   bool // something was done there
	Done    bool // its work is done and nothing is open
	Owed    bool // the job's ending asks for it
	Open    int  // stops that nobody waived
}

// Progress tells how far the unit is at each station, in the order of the work.
// A station with nothing open because nothing was begun is not done.
func (st *State) Progress() []Progress {
	done := map[string]bool{}
	var out []Progress
	for _, station := range unit.Stations {
		p := Progress{Station: station, Begun: st.begun(station), Open: st.Open(station),
			Owed: st.Unit.Owes(station)}
		p.Done = p.Owed && p.Open == 0 && st.worked(station, done)
		done[station] = p.Done || !p.Owed
		out = append(out, p)
	}
	return out
}

// begun reports that something was done at a station.
func (st *State) begun(station string) bool {
	u := st.Unit
	switch station {
	case "receive":
		return true
	case "strip":
		return anyPart(u, func(p *unit.Part) bool { return p.Off }) || len(u.Loose) > 0
	case "measure":
		return st.reading(unit.StageFound)
	case "explain": // marks are noted all along
		return len(u.Conclusions) > 0
	case "decide":
		return anyPart(u, func(p *unit.Part) bool { return len(p.Decisions) > 0 })
	case "kit":
		return len(u.Kit) > 0
	case "build":
		return anyPart(u, func(p *unit.Part) bool { return p.Step(st.Round) != nil })
	case "prove":
		return st.Attempt() != nil
	}
	return st.Job.HandedOver()
}

// worked reports that a station's own work was done, stops aside.
func (st *State) worked(station string, done map[string]bool) bool {
	switch station {
	case "receive":
		return true
	case "strip":
		return !anyPart(st.Unit, func(p *unit.Part) bool { return !p.Off })
	case "measure":
		return done["strip"] && (st.reading(unit.StageFound) || !st.measurable())
	case "explain":
		return st.Conclude.Cause != ""
	case "decide": // proposals rest on the strip record and the readings
		return done["strip"] && done["measure"]
	case "kit":
		return done["decide"]
	case "build":
		return !anyPart(st.Unit, func(p *unit.Part) bool { s := p.Built(st.Round); return s == nil || !s.Done })
	case "prove":
		return st.Counts() != nil && len(st.Unsettled()) == 0
	}
	return st.Job.HandedOver()
}

func anyPart(u *unit.Unit, is func(*unit.Part) bool) bool {
	for _, p := range u.Parts {
		if p.OnUnit() && is(p) {
			return true
		}
	}
	return false
}

// reading reports that something was measured at a stage.
func (st *Stripped) reading(stage string) bool {
	for _, p := range st.Parts {
		for _, f := range p.Features {
			if f.Result(stage).Any {
				return true
			}
		}
	}
	return false
}

// measurable reports that the unit has something to measure.
func (st *Stripped) measurable() bool {
	for _, p := range st.Parts {
		if len(p.Features) > 0 {
			return true
		}
	}
	return false
}

// Stands is the station where a job stands: behind the last one where something
// was done, or there while it is not finished. Of several units it is the one
// that is least far.
func Stands(states []*State) string {
	least := len(unit.Stations) - 1
	for _, st := range states {
		progress, at := st.Progress(), 0
		for i, p := range progress {
			if p.Begun {
				at = i
			}
		}
		for at < len(progress)-1 && (progress[at].Done || !progress[at].Owed) {
			at++
		}
		least = min(least, at)
	}
	return unit.Stations[least]
}
