package proof_test

import (
	"testing"

	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// read is a step as it was noted.
func read(t *testing.T, word string, figures map[string]string) *unit.Point {
	p := &unit.Point{Word: word}
	for code, text := range figures {
		f, known := family.FigureByCode(code)
		require.True(t, known, code)
		q, err := quantity.Parse(text, f.Dim)
		require.NoError(t, err, code)
		p.Put(code, q)
	}
	return p
}

// press is a pump of 32 cc/rev at 1450 rpm and 175 bar: 46.4 L/min in theory.
func press() proof.Rules {
	return proof.Rules{
		Accept: family.Accept{EfficiencyFree: 0.97, EfficiencyDuty: 0.90, ReliefLow: 1.05, ReliefHigh: 1.2},
		Duty: proof.Duty{Displacement: 32e-6, Speed: 1450, Pressure: 175e5, Viscosity: 0.04, HasDisplacement: true,
			HasSpeed: true, HasPressure: true, HasViscosity: true},
		Level: func(at family.Tight) (float64, string) {
			if at == family.AtHighest { // its relief lets 1.2 times duty come
				return 210e5, ""
			}
			return 175e5, ""
		},
	}
}

func shared(t *testing.T, code string) *family.Test {
	lib, err := family.Shipped()
	require.NoError(t, err)
	for _, f := range []string{"axial_piston_pump", "axial_piston_motor"} {
		if step, ok := lib[f].TestByCode(code); ok {
			return step
		}
	}
	t.Fatalf("neither has the step %s", code)
	return nil
}

func warm(pressure string) map[string]string {
	return map[string]string{"pressure": pressure, "temperature": "50 C"}
}

func at175(flow, speed string) map[string]string {
	return map[string]string{"pressure": "175 bar", "flow": flow, "speed": speed, "temperature": "50 C"}
}

// Each way of judging a figure, with figures worked by hand.
func TestStepsAreJudged(t *testing.T) {
	twin := &family.Test{Reads: []family.Read{{Figure: "outlet_a"},
		{Figure: "outlet_b", By: family.ByTwin, Most: "0.03"}}}
	ratio := &family.Test{Reads: []family.Read{{Figure: "supply"},
		{Figure: "pressure", By: family.ByRatio, Least: "18", Most: "22"}}}
	for _, c := range []struct {
		name    string
		step    *family.Test
		word    string
		figures map[string]string
		want    metrology.Verdict
	}{
		{"44.0 of 46.4 is 94.8 %", shared(t, "p100"), "",
			at175("44.0 L/min", "1450 rpm"), metrology.In},
		{"41.9 of 46.4 is 90.3 %, the meter is good for 1 %", shared(t, "p100"), "",
			at175("41.9 L/min", "1450 rpm"), metrology.Undecided},
		{"39.0 of 46.4 is 84.1 %", shared(t, "p100"), "",
			map[string]string{"pressure": "175 bar", "flow": "39.0 L/min"}, metrology.Out},
		{"160 bar is no 175", shared(t, "p100"), "", map[string]string{"pressure": "160 bar", "flow": "46.0 L/min"},
			metrology.Out},
		{"the speed that was read counts: 42 of 44.8", shared(t, "p100"), "",
			at175("42.0 L/min", "1400 rpm"), metrology.In},
		{"no flow, no verdict", shared(t, "p100"), "", map[string]string{"pressure": "175 bar"}, ""},
		{"dry at duty", shared(t, "leak_watch"), "dry", warm("210 bar"), metrology.In},
		{"dry, nobody read at what", shared(t, "leak_watch"), "dry", nil, ""},
		{"dry at half of it", shared(t, "leak_watch"), "dry", warm("90 bar"), metrology.Out},
		{"dry at duty is not at the highest", shared(t, "leak_watch"), "dry", warm("175 bar"), metrology.Out},
		{"drips, whatever else", shared(t, "leak_watch"), "drips", nil, metrology.Out},
		{"4.64 of 46.4 L/min from the case", shared(t, "case_flow"), "",
			map[string]string{"pressure": "175 bar", "case_flow": "4.64 L/min"}, metrology.Out},
		{"slip 3.6 of 46.4", shared(t, "slip_cw"), "",
			map[string]string{"pressure": "175 bar", "flow": "50.0 L/min", "speed": "1450 rpm"}, metrology.In},
		{"slip 6.6 of 46.4", shared(t, "slip_cw"), "",
			map[string]string{"pressure": "175 bar", "flow": "53.0 L/min", "speed": "1450 rpm"}, metrology.Out},
		{"3.2 L/min at 100 rpm is its 32 cc", shared(t, "displacement"), "",
			map[string]string{"flow": "3.20 L/min", "speed": "100 rpm"}, metrology.In},
		// 175 bar on 32 cc/rev is 89.1 N·m.
		{"70 of 89 N·m at the start", shared(t, "start_torque"), "",
			map[string]string{"pressure": "175 bar", "start_torque": "70 N·m"}, metrology.In},
		{"50 of 89 N·m at the start", shared(t, "start_torque"), "",
			map[string]string{"pressure": "175 bar", "start_torque": "50 N·m"}, metrology.Out},
		{"20 to 1", ratio, "", map[string]string{"supply": "6.0 bar", "pressure": "120 bar"}, metrology.In},
		{"14 to 1", ratio, "", map[string]string{"supply": "6.0 bar", "pressure": "84 bar"}, metrology.Out},
		{"outlets 0.5 % apart", twin, "", map[string]string{"outlet_a": "20.0 L/min", "outlet_b": "20.1 L/min"},
			metrology.In},
		{"outlets 10 % apart", twin, "", map[string]string{"outlet_a": "20.0 L/min", "outlet_b": "22.1 L/min"},
			metrology.Out},
		{"no limit: a figure and no verdict", shared(t, "standby"), "", map[string]string{"standby": "22 bar"},
			metrology.Undecided},
	} {
		assert.Equal(t, c.want, proof.JudgeStep(c.step, read(t, c.word, c.figures), press()).Verdict, c.name)
	}
	unknown := press()
	unknown.Duty.HasDisplacement = false
	j := proof.JudgeStep(shared(t, "p100"), read(t, "", map[string]string{"pressure": "175 bar",
		"flow": "44.0 L/min"}), unknown)
	assert.Equal(t, "displacement", j.Figure("flow").Needs, "what is missing is named")
}

// A booster of 2 L at 100 bar over 25 minutes: what is called a leak is what is left after
// temperature, and within 1 K of each thermometer (0.33 bar) nothing can be told.
//
//	96.013 bar · 303.15/299.15 K − 1.013 = 96.28 → 3.7 bar lost, of 100: 3.7 %
//	96.013 · 303.15/288.15 − 1.013 = 100.0 → nothing lost
//	96.013 · 303.15/290.15 − 1.013 = 99.30 → 0.70 ± 0.33 bar against 1.0: cannot be told
func TestAHoldIsJudgedBesideItsTemperature(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	hold, ok := lib["gas_booster"].TestByCode("hold")
	require.True(t, ok)
	thermometer := proof.Gauge{}
	judge := func(end, t1, t2 string, own *unit.StepLimit) metrology.Verdict {
		figures := map[string]string{"pressure": "100.0 bar", "pressure_end": end, "shut_in": "2 L"}
		if t1 != "" {
			figures["temperature"], figures["temperature_end"] = t1, t2
		}
		r := proof.Rules{Own: func(_, figure string) *unit.StepLimit {
			if figure == "pressure_end" {
				return own
			}
			return nil
		}, Gauge: func(figure string, _ quantity.Quantity) proof.Gauge {
			if figure == "temperature" {
				return thermometer
			}
			return proof.Gauge{}
		}}
		j := proof.JudgeStep(hold, read(t, "holds", figures), r)
		return j.Figure("pressure_end").Verdict
	}
	assert.Equal(t, metrology.Out, judge("95.0 bar", "30 °C", "26 °C", nil))
	assert.Equal(t, metrology.In, judge("95.0 bar", "30 °C", "15 °C", nil))
	assert.Equal(t, metrology.Undecided, judge("95.0 bar", "30 °C", "17 °C", nil))
	// A thermometer of class 0.1 of 100 °C is off by 0.12 K: 0.04 bar beside the 0.12 of the gauge.
	thermometer = proof.Gauge{Name: "probe 3", Resolution: 0.01, Class: 0.1, FullScale: 100}
	assert.Equal(t, metrology.In, judge("95.0 bar", "30 °C", "17 °C", nil), "0.70 ± 0.16 against 1.0")
	thermometer = proof.Gauge{Name: "probe 4", Resolution: 0.01}
	assert.Equal(t, metrology.Undecided, judge("95.0 bar", "30 °C", "17 °C", nil), "fine digits alone prove nothing")
	thermometer = proof.Gauge{}
	assert.Equal(t, metrology.Out, judge("95.0 bar", "", "", nil), "10 K of cooling make 3.4 of the 5 bar at most")
	assert.Equal(t, metrology.Undecided, judge("97.0 bar", "", "", nil))
	assert.Equal(t, metrology.In, judge("100.0 bar", "", "", nil))
	least, err := quantity.Parse("94 bar", quantity.Pressure)
	require.NoError(t, err)
	assert.Equal(t, metrology.In, judge("95.0 bar", "30 °C", "26 °C", &unit.StepLimit{Least: least}),
		"the customer's own limit wins: 96.3 bar at the start's temperature")
}

// The unit's own limit wins over guidance and is held against the figure as it was read.
func TestTheUnitsOwnLimitWins(t *testing.T) {
	most, err := quantity.Parse("2 L/min", quantity.Flow)
	require.NoError(t, err)
	r := press()
	r.Own = func(step, figure string) *unit.StepLimit {
		if figure != "case_flow" {
			return nil
		}
		return &unit.StepLimit{Code: step + "." + figure, Most: most, Source: "sheet 7-02"}
	}
	point := read(t, "", map[string]string{"pressure": "175 bar", "case_flow": "2.3 L/min"})
	judge := func() proof.Figured {
		j := proof.JudgeStep(shared(t, "case_flow"), point, r)
		return *j.Figure("case_flow")
	}
	own := judge()
	assert.Equal(t, metrology.Out, own.Verdict)
	assert.Equal(t, "sheet 7-02", own.From)
	r.Own = nil
	assert.Equal(t, metrology.In, judge().Verdict, "2.3 of 46.4 is 5 %")
}

// A gauge of class 1.6 and 400 bar may be 6.4 bar off: (2/√3)·6.4 = 7.4 bar.
func TestTheGaugeEnters(t *testing.T) {
	q, err := quantity.Parse("190 bar", quantity.Pressure)
	require.NoError(t, err)
	coarse := proof.Gauge{Class: 1.6, FullScale: 400e5, Resolution: 5e5}
	assert.InDelta(t, 7.93e5, coarse.Uncertainty(q), 0.01e5, "√(7.39² + 2.89²)")
	assert.InDelta(t, 0.577e5, proof.Gauge{}.Uncertainty(q), 0.001e5, "one bar, its last digit")

	relief := &family.Test{Reads: []family.Read{{Figure: "pressure", By: family.BySetting}}}
	r := press() // 183.75 to 210 bar
	point := read(t, "", map[string]string{"pressure": "190 bar"})
	assert.Equal(t, metrology.In, proof.JudgeStep(relief, point, r).Verdict)
	r.Gauge = func(string, quantity.Quantity) proof.Gauge { return coarse }
	assert.Equal(t, metrology.Undecided, proof.JudgeStep(relief, point, r).Verdict)
}

// How far two outlets may differ is what the machine asks, where it was told.
func TestOutletsAreHeldAgainstWhatIsAsked(t *testing.T) {
	twin := &family.Test{
		Reads: []family.Read{{Figure: "outlet_a"}, {Figure: "outlet_b", By: family.ByTwin, Most: "0.10"}},
	}
	point := read(t, "", map[string]string{"outlet_a": "20.0 L/min", "outlet_b": "21.0 L/min"}) // 4.9 % apart
	assert.Equal(t, metrology.In, proof.JudgeStep(twin, point, press()).Verdict)
	r := press()
	r.Need = func(of string) (float64, string) {
		if of == "need_apart" {
			return 0.02, ""
		}
		return 0, of
	}
	assert.Equal(t, metrology.Out, proof.JudgeStep(twin, point, r).Verdict)
}

// Oil that is half as thick at the test leaks twice as much: 10 % of leak are 5 at duty.
func TestFlowIsBroughtToTheViscosityAtDuty(t *testing.T) {
	r := press()
	r.Viscosity = func(*unit.Point) (float64, bool) { return 0.02, true }
	point := read(t, "", map[string]string{"pressure": "175 bar", "flow": "41.76 L/min", "temperature": "60 °C"})
	j := proof.JudgeStep(shared(t, "p100"), point, r)
	flow := j.Figure("flow")
	assert.InDelta(t, 0.95, flow.Value, 1e-9)
	assert.Equal(t, metrology.In, flow.Verdict)
	assert.Contains(t, flow.Note, "90.0 % as read")

	held := read(t, "", map[string]string{"pressure": "175 bar", "flow": "0.5 L/min", "temperature": "60 °C"})
	j = proof.JudgeStep(shared(t, "p100"), held, r)
	assert.InDelta(t, 0.5/46.4, j.Figure("flow").Value, 1e-9, "what a relief lets go is no leak: nothing is corrected")
	assert.Equal(t, metrology.Out, j.Verdict)
}

func flowOf(t *testing.T, text string) quantity.Quantity { return sized(t, text, quantity.Flow) }
func pressureOf(t *testing.T, text string) quantity.Quantity {
	return sized(t, text, quantity.Pressure)
}

func sized(t *testing.T, text string, d quantity.Dimension) quantity.Quantity {
	q, err := quantity.Parse(text, d)
	require.NoError(t, err)
	return q
}
