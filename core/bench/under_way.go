package bench

import (
	"fmt"
	"strings"

	"corvek/core/unit"
)

// UnderWay is what was begun at a station and is not finished.
type UnderWay struct {
	Station string
	Words   string // how far it is
	Next    string // the next act, "" where nothing is in the way
}

// mostNamed things that are half done are named, the others counted.
const mostNamed = 4

// UnderWay is what whoever takes the job over finds half done, station by station in the order of the work.
func (st *State) UnderWay() (out []UnderWay) {
	for _, p := range st.Progress() {
		if !p.Begun || p.Done || !p.Owed || p.Station == unit.Stations[len(unit.Stations)-1] {
			continue
		}
		w := UnderWay{Station: p.Station, Words: st.howFar(p.Station)}
		for _, stop := range st.Stops[p.Station] {
			if stop.Waived == nil {
				w.Next = stop.Next()
				break
			}
		}
		if w.Words != "" || w.Next != "" {
			out = append(out, w)
		}
	}
	return out
}

// howFar says how far the work of a station is, "" where there is nothing to count.
func (st *State) howFar(station string) string {
	switch station {
	case "strip":
		return st.counted("parts are off", func(p *unit.Part) bool { return p.Off })
	case "measure":
		return st.halfMeasured()
	case "build":
		return st.counted("parts are fitted", func(p *unit.Part) bool {
			s := p.Built(st.Round)
			return s != nil && s.Done
		})
	case "prove":
		if a := st.Attempt(); a != nil && !a.Closed {
			return fmt.Sprintf("test %d is open", a.Number)
		}
	}
	return ""
}

func (st *State) counted(what string, is func(*unit.Part) bool) string {
	done, all := 0, 0
	for _, p := range st.Unit.Parts {
		if !p.OnUnit() {
			continue
		}
		all++
		if is(p) {
			done++
		}
	}
	return fmt.Sprintf("%d of %d %s", done, all, what)
}

// halfMeasured names what was begun to measure and lacks readings.
func (st *State) halfMeasured() string {
	var names []string
	for _, p := range st.Parts {
		for _, f := range p.Features {
			if r := f.Result(unit.StageFound); r.Any && !r.Complete {
				names = append(names, p.Name+", "+strings.ToLower(f.Def.Name))
			}
		}
	}
	if len(names) == 0 {
		return ""
	}
	more := ""
	if n := len(names) - mostNamed; n > 0 {
		names, more = names[:mostNamed], fmt.Sprintf(" and %d more", n)
	}
	return "readings are missing of " + strings.Join(names, "; ") + more
}
