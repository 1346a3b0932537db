package family

import (
	"fmt"
	"slices"
	"strings"

	"corvek/core/quantity"
)

// Symptom is a complaint in the shop's own vocabulary, and how it is called up again
// when the rebuilt unit is tested: under the condition in which it was complained of, which is read.
type Symptom struct {
	Code, Text, Again string
	Reads             []string // figures of the condition; pressure and temperature where it names none
}

// Symptoms is the vocabulary of complaints, in the order they are offered.
var Symptoms = []Symptom{
	{"no_pressure", "No pressure", "raised to duty pressure against a closed line", []string{"pressure"}},
	{"low_flow", "Low flow", "flow taken at duty pressure and duty speed", nil},
	{"slow", "Slow", "the whole stroke or the flow timed, warm", []string{"time", "temperature"}},
	{"weak_hot", "Weak when hot", "at duty pressure with the oil as hot as on the machine", nil},
	{"weak", "Weak pull", "under its full load, warm, at the pressure of the machine", nil},
	{"hard_start", "Hard to start", "started cold under its load, after standing as long as on the machine",
		[]string{"pressure", "temperature"}},
	{"moves_alone", "Drifts by itself", "left alone in neutral, loaded and unloaded, as long as on the machine",
		[]string{"time"}},
	{"shudders_turn", "Shudders once a turn", "turned slowly under load, one place of the shaft marked",
		[]string{"pressure", "speed"}},
	{"shudders_stroke", "Shudders with every piston", "turned slowly under load, the shudders of a turn counted",
		[]string{"pressure", "speed"}},
	{"drifts", "Drifts under load", "under its load, shut in, as long as on the machine", nil},
	{"chatters", "Chatters", "at the load and the speed at which it chattered", []string{"pressure"}},
	{"noisy", "Noisy", "at duty speed and pressure, with the air bled out", []string{"pressure", "speed"}},
	{
		"vibrates",
		"Vibrates",
		"at duty speed and pressure, bolted down as on the machine",
		[]string{"pressure", "speed"},
	},
	{"hot", "Runs hot", "at duty until the temperature stands still", nil},
	{
		"leak_shaft",
		"Leaks at the shaft",
		"turning, warm, with the case pressure of the machine",
		[]string{"pressure", "temperature"},
	},
	{"leak_joint", "Leaks at a joint", "wiped dry, then warm at the highest pressure it sees", nil},
	{"cross_leak", "Two fluids mixed", "each side under pressure in turn, the other open to the eye", nil},
	{
		"first_stroke_dead",
		"First stroke dead, then pumps up",
		"the first stroke after it stood overnight",
		[]string{"strokes"},
	},
	{"springy", "Springy rod", "held against its load, with the air bled out", []string{"pressure"}},
	{"one_stroke", "One stroke, then stops", "stroke after stroke, the supply left alone", []string{"strokes"}},
	{
		"drive_stiff",
		"Drive starts hard",
		"started cold, and again against standing pressure",
		[]string{"temperature"},
	},
	{"seized", "Shaft will not turn", "turned by hand cold, then driven until it is warm", []string{"temperature"}},
	{"turns_dry", "Shaft turns, nothing pumps", "from empty, with the suction lift of the machine", []string{"time"}},
	{"creeps", "Creeps in neutral", "in neutral under its load, warm", nil},
	{"sticks", "Sticks", "shifted slowly and fast, cold and warm", []string{"temperature"}},
	{
		"pressure_low",
		"Holds less pressure than set",
		"brought to its setting three times, rising and falling",
		[]string{"pressure"},
	},
	{
		"sump_rises",
		"A sump rises by itself",
		"run at duty, the level of both sumps marked before and after",
		[]string{"volume"},
	},
}

// SymptomByCode finds a symptom.
func SymptomByCode(code string) (Symptom, bool) {
	for _, s := range Symptoms {
		if s.Code == code {
			return s, true
		}
	}
	return Symptom{}, false
}

// condition is what is read of the condition in which it was complained of.
func (s Symptom) condition() []string {
	if s.Reads == nil {
		return []string{"pressure", "temperature"}
	}
	return s.Reads
}

// SymptomText gives the words of a symptom code.
func SymptomText(code string) (string, bool) {
	s, known := SymptomByCode(code)
	return s.Text, known
}

// SymptomWords are the symptoms in words, as they are told one after the other.
func SymptomWords(codes []string) string {
	var out []string
	for _, code := range codes {
		if s, known := SymptomByCode(code); known {
			out = append(out, strings.ToLower(s.Text))
		}
	}
	return strings.Join(out, ", ")
}

// ComplaintTest is the code of the step that calls the complaint up again. Every family
// has it, written anew for each job from what was told.
const ComplaintTest = "complaint"

// anyComplaint is the step of a complaint that can be any.
var anyComplaint = func() Test {
	var all []string
	for _, s := range Symptoms {
		all = append(all, s.Code)
	}
	t, _ := OfComplaint(all, "")
	t.Name, t.How, t.Pressure = "The complaint", "", 0
	for i := range t.Reads {
		t.Reads[i].May = true
	}
	return t
}()

// The answers of the complaint's step.
const (
	ComplaintGone  = "gone"
	ComplaintStill = "still there"
)

// OfComplaint writes the step that repeats the complaint's own condition from the
// symptoms and the words that were told; ok is false where nobody complained.
func OfComplaint(symptoms []string, words string) (t Test, ok bool) {
	t = Test{Code: ComplaintTest, Words: []string{ComplaintGone, ComplaintStill}, Good: []string{ComplaintGone},
		At: AtComplaint, Seen: true}
	var again []string
	must := map[string]bool{}
	for _, code := range symptoms {
		if s, known := SymptomByCode(code); known {
			again = append(again, s.Again)
			for _, figure := range s.condition() {
				must[figure] = true
			}
		}
	}
	if len(again) == 0 {
		must = map[string]bool{"pressure": true, "temperature": true}
	}
	for _, g := range Figures {
		if may := g.Code == "pressure" || g.Code == "temperature"; may || must[g.Code] {
			t.Reads = append(t.Reads, Read{Figure: g.Code, May: !must[g.Code]})
		}
	}
	if must["pressure"] {
		t.Pressure = 1
	}
	words = strings.TrimSpace(words)
	switch {
	case len(again) > 0:
		t.Name, t.How = "The complaint: "+SymptomWords(symptoms), strings.Join(again, "; ")
	case words != "":
		t.Name, t.How = "The complaint", "as it was told: “"+clipped(words)+"”"
	default:
		return t, false
	}
	return t, true
}

// atWork are the conditions that an operator tries at his machine another way than a stand does: never
// against a closed line, never with more than its own work.
var atWork = map[string]string{
	"no_pressure":  "at its usual work, the pressure read at the machine's own port",
	"low_flow":     "at its usual work, the slowest movement timed",
	"leak_joint":   "wiped dry, then looked at after an hour's work",
	"leak_shaft":   "wiped dry, then looked at after an hour's work",
	"cross_leak":   "the levels of both fluids, before and after a day's work",
	"pressure_low": "at its usual work, the pressure read at the machine's own port",
}

// AtWork says how what was complained of is tried on the machine, by who runs it; "" where nothing was
// tapped.
func AtWork(symptoms []string) string {
	var out []string
	for _, code := range symptoms {
		s, known := SymptomByCode(code)
		if !known {
			continue
		}
		words := s.Again
		if own := atWork[code]; own != "" {
			words = own
		}
		if !slices.Contains(out, words) {
			out = append(out, words)
		}
	}
	return strings.Join(out, "; ")
}

// Condition is under what it was complained of, as far as it was told; each is zero where it was not.
type Condition struct{ Pressure, Temperature, Time quantity.Quantity }

// NearKelvin is how near an oil comes to a temperature that was told to count for it.
const NearKelvin = 5

// Under asks of the complaint's step what was told of its own condition: the pressure reached, the oil as
// warm or as cold as it was, and held as long as it took to come.
func (t Test) Under(c Condition) Test {
	must := func(figure string, with func(*Read)) {
		t.Reads = slices.Clone(t.Reads)
		for i := range t.Reads {
			if r := &t.Reads[i]; r.Figure == figure {
				r.May = false
				with(r)
			}
		}
	}
	if !c.Pressure.IsZero() {
		t.Pressure = 1
		must("pressure", func(*Read) {})
	}
	if !c.Temperature.IsZero() {
		must("temperature", func(r *Read) {
			r.Least = fmt.Sprintf("%.1f °C", c.Temperature.SI-NearKelvin)
			r.Most = fmt.Sprintf("%.1f °C", c.Temperature.SI+NearKelvin)
		})
	}
	if !c.Time.IsZero() {
		t.Hold = c.Time.Typed
	}
	return t
}

// clipped is the beginning of a long text, cut between words.
func clipped(text string) string {
	const most = 120
	runes := []rune(text)
	if len(runes) <= most {
		return text
	}
	cut := string(runes[:most])
	if at := strings.LastIndex(cut, " "); at > most/2 {
		cut = cut[:at]
	}
	return cut + " …"
}
