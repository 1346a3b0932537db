package jobpages

import (
	"fmt"
	"html/template"
	"slices"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/answer"
	"corvek/internal/draw"
	"corvek/internal/report"
)

// MeasurePage is the sheet of the chosen feature and what the clearances cost.
type MeasurePage struct {
	JobPage
	No       int
	Part     *bench.Part
	Tabs     Tabs
	Sheet    *FeatureSheet // nil where nothing is measured on the part
	Next     string
	Leak     *LeakView  // nil until it is known
	Needs    []NeedLink // what must be known for it, or what is left out of it
	Sizes    []SizeRow  // that others go by
	Shim     *ShimView
	Marks    *MarksView
	Columns  string // the address of the sheet for many
	Cautions Cautions
	Stops    []StopRow
	Reckon   ReckonView
	Coil     []Entry // the own rate of a coil spring, or what it follows from
}

// NeedLink is something that a result waits for, and where it is told.
type NeedLink struct{ Words, URL string }

// leakNeeds are what the leak waits for, each with the place where it is told.
func (l *look) leakNeeds() (out []NeedLink) {
	for _, path := range l.st.Leak.Lacks {
		part, feature := family.CutFeature(path)
		out = append(out, NeedLink{l.st.SizeName(path), l.link("measure", part, feature)})
	}
	for _, words := range l.st.Leak.Needs {
		if !slices.ContainsFunc(out, func(n NeedLink) bool { return n.Words == words }) {
			out = append(out, NeedLink{Words: words})
		}
	}
	return out
}

// LeakView is what the clearances as found let through at duty.
type LeakView struct {
	Pressure, Viscosity string
	Flow, Share, Good   string
	Much                bool
	Plot                template.HTML
	Paths               []PathRow
	Density             float64 // kg/m3
}

// PathRow is the leak of one path.
type PathRow struct{ Name, Gap, Flow string }

// ShimView is the shim pack that brings a clearance back.
type ShimView struct {
	Possible         bool
	Measured, Result string
	Lower, Upper     string
	Pack             []string
	Steps            []string
	Fault            string
}

func measurePage(l *look) MeasurePage {
	p := MeasurePage{JobPage: l.page(), No: l.partNo(), Part: l.part, Leak: l.leak(), Needs: l.leakNeeds(),
		Shim: l.shim(), Marks: l.marks(l.part), Cautions: l.cautions(), Stops: l.stops(), Columns: l.columnsURL("")}
	if l.part.Def.Kind == "spring" {
		p.Coil = l.ofPart("coil_rate", "coil_wire", "coil_mean", "coil_turns")
	}
	code := ""
	if l.feature != nil {
		code = l.feature.Code
	}
	p.Reckon = l.reckons(l.link("measure", l.part.Code, code))
	_, p.Next = l.neighbours()
	sized := false
	for _, f := range l.part.Features {
		if f.Def.Size {
			sized = true
			continue
		}
		p.Tabs = append(p.Tabs, Tab{Name: f.Def.Name, URL: l.link("measure", l.part.Code, f.Code), On: f == l.feature,
			Tone: featureTone(f)})
	}
	atSizes := l.feature != nil && l.feature.Def.Size
	if sized {
		p.Tabs = append(p.Tabs, Tab{Name: "Sizes", URL: l.link("measure", l.part.Code, l.firstSize()), On: atSizes,
			Tone: "off"})
	}
	switch {
	case atSizes:
		p.Sizes = l.goneBy()
	case l.feature != nil:
		p.Sheet = l.sheet(l.feature, unit.StageFound)
	}
	return p
}

// firstSize is the first of the sizes of the part that others go by.
func (l *look) firstSize() string {
	for _, f := range l.part.Features {
		if f.Def.Size {
			return f.Code
		}
	}
	return ""
}

// featureTone marks a feature by its verdict; what must be measured and was not
// is marked as well.
func featureTone(f *bench.Feature) string {
	switch {
	case f.Found.Verdict != "":
		return answer.Tone(string(f.Found.Verdict))
	case f.Def.MustHave:
		return "none"
	}
	return "off"
}

func (l *look) leak() *LeakView {
	leak := l.st.Leak
	if !leak.Known {
		return nil
	}
	v := &LeakView{Pressure: l.unit.DutyPressure.In(l.Units), Viscosity: l.unit.Viscosity.In(l.Units),
		Flow: l.Show(leak.Flow, quantity.Flow), Much: leak.Share > 0.1,
		Plot: l.leakPlot(), Density: l.st.Duty.Density}
	if leak.HasGood {
		v.Good = l.Show(leak.Good, quantity.Flow)
	}
	if leak.Share != 0 {
		v.Share = fmt.Sprintf("%.1f %%", 100*leak.Share)
	}
	for _, path := range leak.Paths {
		v.Paths = append(v.Paths, PathRow{path.Name, l.Show(path.Gap, quantity.Length),
			l.Show(path.Flow, quantity.Flow)})
	}
	return v
}

func (l *look) leakPlot() template.HTML {
	theory := l.st.Found.Theoretical()
	if theory <= 0 {
		return ""
	}
	plot := draw.FlowPlot{Theory: theory, Duty: l.st.Duty.Pressure, System: l.Units, Band: report.Band(l.st)}
	plot.Curves = []draw.Curve{{Class: "found", Label: "as it is now", Flow: l.st.Found.Deliver}}
	return template.HTML(plot.SVG())
}

func (l *look) shim() *ShimView {
	sh := l.st.Shims
	if sh == nil {
		return nil
	}
	length := draw.Length(l.Units)
	v := &ShimView{Fault: sh.Fault, Possible: sh.Choice.Possible, Measured: length(sh.Measured),
		Result: length(sh.Choice.Resulting), Lower: length(sh.Lower), Upper: length(sh.Upper)}
	for _, t := range sh.Choice.Pack {
		v.Pack = append(v.Pack, length(t))
	}
	if sh.Output != nil {
		v.Steps = sh.Output.Steps
	}
	return v
}
