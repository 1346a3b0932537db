package hidden

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/fluid"
	"corvek/core/unit"
)

// theFile is where a figure of a written case is from: who said so is left out with all names.
const theFile = "the file of the unit"

// Written makes a case of a unit that was worked on: what was found on it is how it truly is, and what was concluded is
// what is wrong with it. Only figures, counts, marks and answers are taken over, none of the words that somebody wrote,
// so that no name comes along. It fails with what keeps it from being a case.
func Written(s *Shop, j *unit.Job, number int) (c *Case, came *unit.Job, err error) {
	of := j.Unit(number)
	if of == nil {
		return nil, nil, fmt.Errorf("the job has no unit %d", number)
	}
	if came, err = s.cameFrom(of, j.Policy); err != nil {
		return nil, nil, err
	}
	c = &Case{Kind: Astray, True: came.Clone(), Causes: Concluded(of)}
	if len(c.Causes) == 0 {
		return nil, nil, fmt.Errorf("no cause of the list is concluded on it")
	}
	if len(c.Causes) > 1 {
		c.Kind = Two
	}
	found(c.True, j, of)
	st, err := s.state(c.True)
	if err != nil {
		return nil, nil, err
	}
	if !c.Names(st.Knowledge.Standing(st.Findings)) {
		return nil, nil, fmt.Errorf("what stands on its record does not make that cause as good as sure (%s)",
			standsAt(st, c.Causes))
	}
	if len(c.True.Symptoms) == 0 {
		return nil, nil, fmt.Errorf("no symptom stands on its record, so that nothing can be complained of")
	}
	return c, came, nil
}

func standsAt(st *bench.State, causes []string) string {
	s := st.Knowledge.Standing(st.Findings)
	var words []string
	for _, code := range causes {
		words = append(words, fmt.Sprintf("%.0f %%", 100*s.Of(code)))
	}
	return strings.Join(words, ", ")
}

// Concluded are the root causes that were concluded of a unit, of the list.
func Concluded(u *unit.Unit) (out []string) {
	if c := u.Conclusion().Cause; c != "" && c != unit.CauseNotFound && c != unit.CauseNone {
		out = append(out, c)
	}
	for _, c := range u.Causes {
		if c.Role == unit.RoleRoot && c.Code != "" && !slices.Contains(out, c.Code) {
			out = append(out, c.Code)
		}
	}
	return out
}

// cameFrom is the unit as it came: what its plate and its papers say, and nothing that was found.
func (s *Shop) cameFrom(of *unit.Unit, policy string) (*unit.Job, error) {
	f := s.Catalog.Families(of)
	if f == nil {
		return nil, fmt.Errorf("its family is not in the library")
	}
	came, err := s.Received(f.Code)
	if err != nil {
		return nil, err
	}
	came.Policy = policy
	u := unit.New(f, 1, s.Entry.Who, s.Day.Time())
	u.Variant, u.Rotation, u.Fluid, u.More = of.Variant, of.Rotation, of.Fluid, of.More
	u.Viscosity, u.Density, u.Displacement, u.Speed = of.Viscosity, of.Density, of.Displacement, of.Speed
	u.DutyPressure, u.RatedPressure = of.DutyPressure, of.RatedPressure
	u.Temperature, u.Hours = of.Temperature, of.Hours
	u.Need, u.Setting = of.Need, of.Setting
	u.Setting.Source = theFile
	for _, l := range of.Limits {
		u.Limits = append(u.Limits, &unit.StepLimit{Code: l.Code, Least: l.Least, Most: l.Most, Source: theFile})
	}
	for _, p := range u.Parts {
		was := of.Part(p.Code)
		if was == nil {
			continue
		}
		p.Expected, p.Spring, p.Joint, p.Rub, p.Coil = was.Expected, was.Spring, was.Joint, was.Rub, was.Coil
		p.Joint.Source, p.Joint.Locking, p.Rub.Source = theFile, "", theFile
		if was.Absent != "" {
			p.Absent = "not on this unit"
		}
		for _, x := range p.Features {
			if o := featureOf(was, x.Code); o != nil {
				x.New, x.Lower, x.Upper, x.LimitSource, x.Measured, x.LimitFor = o.New, o.Lower, o.Upper, o.LimitSource,
					o.Measured, o.LimitFor
				x.New.Source = theFile
			}
		}
	}
	came.Units = []*unit.Unit{u}
	return came, nil
}

func featureOf(p *unit.Part, code string) *unit.Feature {
	at := slices.IndexFunc(p.Features, func(f *unit.Feature) bool { return f.Code == code })
	if at < 0 {
		return nil
	}
	return p.Features[at]
}

// found lays on a unit what was found on another of the same kind.
func found(j, from *unit.Job, of *unit.Unit) {
	u := j.Unit(1)
	for _, code := range from.Symptoms {
		if _, known := family.SymptomByCode(code); known {
			j.Symptoms = append(j.Symptoms, code)
		}
	}
	for q, a := range of.Gauge {
		u.Gauge[q] = a
	}
	u.DrainedLook = seen(fluid.SightOf(of.DrainedLook))
	for _, m := range of.Marks {
		said := of.LastSaid(m.Code)
		if slices.ContainsFunc(u.Marks, func(o *unit.UnitMark) bool { return o.Code == m.Code }) {
			continue
		}
		u.Marks = append(u.Marks, &unit.UnitMark{Mark: unit.Mark{Round: 1, Code: m.Code, State: said.State,
			Origin: unit.OriginFound}})
	}
	for _, p := range u.Parts {
		if was := of.Part(p.Code); was != nil {
			p.Off, p.Found, p.Fragments, p.FragmentsMake = true, was.Found, was.Fragments, was.FragmentsMake
			p.Facing, p.Stuck, p.Sound, p.StackFound = was.Facing, was.Stuck, was.Sound, was.StackFound
			marksOn(p, was)
		}
	}
	if before := of.Attempt(0); before != nil {
		for _, x := range before.Points {
			u.Attempts[0].Points = append(u.Attempts[0].Points,
				&unit.Point{Code: x.Code, Word: x.Word, Figures: maps.Clone(x.Figures)})
		}
	}
}

func marksOn(p, was *unit.Part) {
	for _, m := range was.Marks {
		said := was.LastSaid(m.Code)
		if !slices.ContainsFunc(p.Marks, func(o *unit.PartMark) bool { return o.Code == m.Code }) {
			p.Marks = append(p.Marks, &unit.PartMark{Mark: unit.Mark{Round: 1, Code: m.Code, State: said.State,
				Grade: said.Grade, Origin: unit.OriginFound}})
		}
	}
	for _, x := range p.Features {
		o := featureOf(was, x.Code)
		if o == nil {
			continue
		}
		for _, r := range o.Newest(unit.StageFound) {
			x.Readings = append(x.Readings, &unit.Reading{Round: 1, Stage: r.Stage, Slot: r.Slot, Value: r.Value,
				Size: r.Size})
		}
	}
}

// seen are the words for what a drained fluid shows.
func seen(s fluid.Sight) string {
	var words []string
	for of, is := range map[string]bool{"water": s.Milky, "burnt": s.Burnt, "metal": s.Metal} {
		if is {
			words = append(words, looks[of])
		}
	}
	slices.Sort(words)
	if len(words) == 0 && s.Clear {
		return "clear"
	}
	return strings.Join(words, ", ")
}
