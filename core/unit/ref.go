package unit

import (
	"errors"
	"slices"
	"strconv"
	"strings"
)

// Scope is the kind of thing that a field belongs to.
type Scope string

// The scopes. The comment gives the address of a field in it.
const (
	ScopeJob        Scope = "job"        // job/title, job/symptom/weak_hot
	ScopePicture    Scope = "picture"    // picture/2/caption
	ScopeUnit       Scope = "unit"       // u1/speed, u1/gauge/case_drain
	ScopeEvidence   Scope = "evidence"   // u1/evidence/fine_lines/state
	ScopeConclusion Scope = "conclusion" // u1/conclusion/cause
	ScopeCause      Scope = "cause"      // u1/cause/1/role
	ScopeLoose      Scope = "loose"      // u1/loose/1/part
	ScopePiece      Scope = "piece"      // u1/piece/3/place
	ScopeAttempt    Scope = "attempt"    // u1/attempt/2/note
	ScopePoint      Scope = "point"      // u1/attempt/2/point/p100/flow
	ScopeLimit      Scope = "limit"      // u1/limit/p100.case_flow/most
	ScopePart       Scope = "part"       // u1/part/key/found
	ScopePartMark   Scope = "mark"       // u1/part/key/mark/sheared/state
	ScopeDecision   Scope = "decision"   // u1/part/key/decision/choice
	ScopeRework     Scope = "rework"     // u1/part/rod/rework/rechrome/taken
	ScopeStep       Scope = "step"       // u1/part/key/step/torque
	ScopeFeature    Scope = "feature"    // u1/part/key/feature/width/upper
	ScopeReading    Scope = "reading"    // u1/part/key/feature/width/found/v1
)

// coded are the fields of a job or unit that are many of a kind, told apart by
// a code.
var coded = map[Scope][]string{ScopeJob: {"symptom"}, ScopeUnit: {"gauge", "identity", "flush", "more", "fill"}}

// Coded reports that fields of the name are many of a kind in their scope, told apart by a code, so
// that they stand together in one list or object.
func Coded(scope Scope, name string) bool { return slices.Contains(coded[scope], name) }

// Ref is the address of one value of a job: by unit number, part code, feature,
// stage and slot, never by the number of a row. Pages, the record, waivers, job
// documents and the API all write it the same way, so that it means the same
// after an export and an import.
type Ref struct {
	Scope   Scope
	Unit    int    // from 1; 0 for the job itself and its pictures
	Part    string // code
	Feature string // code
	Stage   string // of a reading
	Number  int    // of a picture, cause, loose piece, kit piece or attempt
	Code    string // of a mark, a test step, a symptom, a question
	Name    string // the field; the slot of a reading
}

// String writes the address, parts joined by strokes.
func (r Ref) String() string {
	u := "u" + strconv.Itoa(r.Unit)
	n := strconv.Itoa(r.Number)
	var at []string
	switch r.Scope {
	case ScopeJob:
		at = []string{"job"}
	case ScopePicture:
		at = []string{"picture", n}
	case ScopeUnit:
		at = []string{u}
	case ScopeEvidence, ScopeLimit:
		return strings.Join([]string{u, string(r.Scope), r.Code, r.Name}, "/")
	case ScopeConclusion:
		at = []string{u, "conclusion"}
	case ScopeCause, ScopeLoose, ScopePiece, ScopeAttempt:
		at = []string{u, string(r.Scope), n}
	case ScopePoint:
		return strings.Join([]string{u, "attempt", n, "point", r.Code, r.Name}, "/")
	case ScopePart:
		at = []string{u, "part", r.Part}
	case ScopePartMark:
		return strings.Join([]string{u, "part", r.Part, "mark", r.Code, r.Name}, "/")
	case ScopeRework:
		return strings.Join([]string{u, "part", r.Part, "rework", r.Code, r.Name}, "/")
	case ScopeDecision, ScopeStep:
		at = []string{u, "part", r.Part, string(r.Scope)}
	case ScopeFeature:
		at = []string{u, "part", r.Part, "feature", r.Feature}
	case ScopeReading:
		at = []string{u, "part", r.Part, "feature", r.Feature, r.Stage}
	}
	at = append(at, r.Name)
	if r.Code != "" {
		at = append(at, r.Code)
	}
	return strings.Join(at, "/")
}

// ErrRef says that a text is no address.
var ErrRef = errors.New("is not the address of a field")

// ParseRef reads an address as String writes it.
func ParseRef(text string) (Ref, error) {
	words := strings.Split(text, "/")
	r, ok := parseRef(words)
	if !ok || r.String() != text {
		return Ref{}, ErrRef
	}
	return r, nil
}

func parseRef(words []string) (r Ref, ok bool) {
	if len(words) < 2 || slices.Contains(words, "") {
		return r, false
	}
	rest := words[1:]
	switch words[0] {
	case "job":
		r.Scope = ScopeJob
	case "picture":
		r.Scope = ScopePicture
		r.Number, rest, ok = number(rest)
		if !ok {
			return r, false
		}
	default:
		r.Scope = ScopeUnit
		if r.Unit, ok = count(strings.TrimPrefix(words[0], "u")); !ok || r.Unit < 1 {
			return r, false
		}
		if rest, ok = r.inUnit(rest); !ok {
			return r, false
		}
	}
	return r.named(rest)
}

// inUnit reads what follows the unit, up to the name of the field.
func (r *Ref) inUnit(words []string) (rest []string, ok bool) {
	if len(words) == 1 || Coded(ScopeUnit, words[0]) {
		return words, true
	}
	switch scope := Scope(words[0]); scope {
	case ScopeEvidence, ScopeLimit:
		r.Scope, r.Code = scope, words[1]
		return words[2:], true
	case ScopeConclusion:
		r.Scope = scope
		return words[1:], true
	case ScopeCause, ScopeLoose, ScopePiece, ScopeAttempt:
		r.Scope = scope
		r.Number, rest, ok = number(words[1:])
		if ok && scope == ScopeAttempt && len(rest) > 2 && rest[0] == "point" {
			r.Scope, r.Code = ScopePoint, rest[1]
			return rest[2:], true
		}
		return rest, ok
	case ScopePart:
		return r.inPart(words[1:])
	}
	return nil, false
}

func (r *Ref) inPart(words []string) (rest []string, ok bool) {
	r.Scope, r.Part = ScopePart, words[0]
	if len(words) < 3 {
		return words[1:], len(words) == 2
	}
	switch Scope(words[1]) {
	case ScopePartMark, ScopeRework:
		r.Scope, r.Code = Scope(words[1]), words[2]
		return words[3:], true
	case ScopeDecision, ScopeStep:
		r.Scope = Scope(words[1])
		return words[2:], true
	case ScopeFeature:
		r.Scope, r.Feature = ScopeFeature, words[2]
		if len(words) > 4 {
			// A slot may hold a stroke itself: a leaf of 1/64 in.
			r.Scope, r.Stage = ScopeReading, words[3]
			return []string{strings.Join(words[4:], "/")}, r.Stage == StageFound || r.Stage == StageBuilt
		}
		return words[3:], true
	}
	return nil, false
}

// named takes the last words as the field's name and code.
func (r Ref) named(rest []string) (Ref, bool) {
	switch {
	case len(rest) == 1 && rest[0] != "":
		r.Name = rest[0]
		return r, !Coded(r.Scope, r.Name)
	case len(rest) == 2 && rest[1] != "" && Coded(r.Scope, rest[0]):
		r.Name, r.Code = rest[0], rest[1]
		return r, true
	}
	return r, false
}

func number(words []string) (n int, rest []string, ok bool) {
	if len(words) < 2 {
		return 0, nil, false
	}
	n, ok = count(words[0])
	return n, words[1:], ok
}

// count reads a small whole number without sign.
func count(text string) (int, bool) {
	n, err := strconv.ParseUint(text, 10, 20)
	return int(n), err == nil
}

// JobRef addresses a field of the job.
func JobRef(name string) Ref { return Ref{Scope: ScopeJob, Name: name} }

// SymptomRef addresses whether a symptom was told.
func SymptomRef(code string) Ref { return Ref{Scope: ScopeJob, Name: "symptom", Code: code} }

// Ref addresses a field of the unit.
func (u *Unit) Ref(name string) Ref { return Ref{Scope: ScopeUnit, Unit: u.Number, Name: name} }

// GaugeRef addresses the answer to a question asked at the machine.
func (u *Unit) GaugeRef(question string) Ref {
	return Ref{Scope: ScopeUnit, Unit: u.Number, Name: "gauge", Code: question}
}

// IdentityRef addresses whether an identity mark is on the unit.
func (u *Unit) IdentityRef(mark string) Ref {
	return Ref{Scope: ScopeUnit, Unit: u.Number, Name: "identity", Code: mark}
}

// FlushRef addresses whether a place of the circuit was flushed.
func (u *Unit) FlushRef(place string) Ref {
	return Ref{Scope: ScopeUnit, Unit: u.Number, Name: "flush", Code: place}
}

// FillRef addresses whether a step of the filling was done.
func (u *Unit) FillRef(step string) Ref {
	return Ref{Scope: ScopeUnit, Unit: u.Number, Name: "fill", Code: step}
}

// MoreRef addresses how often more an assembly stands in the unit.
func (u *Unit) MoreRef(assembly string) Ref {
	return Ref{Scope: ScopeUnit, Unit: u.Number, Name: "more", Code: assembly}
}

// EvidenceRef addresses a field of a mark looked for.
func (u *Unit) EvidenceRef(code, name string) Ref {
	return Ref{Scope: ScopeEvidence, Unit: u.Number, Code: code, Name: name}
}

// ConclusionRef addresses a field of the conclusion.
func (u *Unit) ConclusionRef(name string) Ref {
	return Ref{Scope: ScopeConclusion, Unit: u.Number, Name: name}
}

// LooseRef addresses a field of a loose piece.
func (u *Unit) LooseRef(number int, name string) Ref {
	return Ref{Scope: ScopeLoose, Unit: u.Number, Number: number, Name: name}
}

// PieceRef addresses a field of a kit piece.
func (u *Unit) PieceRef(number int, name string) Ref {
	return Ref{Scope: ScopePiece, Unit: u.Number, Number: number, Name: name}
}

// AttemptRef addresses a field of a run of the test.
func (u *Unit) AttemptRef(number int, name string) Ref {
	return Ref{Scope: ScopeAttempt, Unit: u.Number, Number: number, Name: name}
}

// PointRef addresses a figure of a step of the test.
func (u *Unit) PointRef(attempt int, step, name string) Ref {
	return Ref{Scope: ScopePoint, Unit: u.Number, Number: attempt, Code: step, Name: name}
}

// PartRef addresses a field of a part.
func (u *Unit) PartRef(part, name string) Ref {
	return Ref{Scope: ScopePart, Unit: u.Number, Part: part, Name: name}
}

// PartMarkRef addresses a field of a mark on a part.
func (u *Unit) PartMarkRef(part, code, name string) Ref {
	return Ref{Scope: ScopePartMark, Unit: u.Number, Part: part, Code: code, Name: name}
}

// DecisionRef addresses a field of the decision for a part.
func (u *Unit) DecisionRef(part, name string) Ref {
	return Ref{Scope: ScopeDecision, Unit: u.Number, Part: part, Name: name}
}

// StepRef addresses a field of the fitting of a part.
func (u *Unit) StepRef(part, name string) Ref {
	return Ref{Scope: ScopeStep, Unit: u.Number, Part: part, Name: name}
}

// FeatureRef addresses a field of something measured.
func (u *Unit) FeatureRef(part, feature, name string) Ref {
	return Ref{Scope: ScopeFeature, Unit: u.Number, Part: part, Feature: feature, Name: name}
}

// ReadingRef addresses one place of a sheet of readings.
func (u *Unit) ReadingRef(part, feature, stage, slot string) Ref {
	return Ref{Scope: ScopeReading, Unit: u.Number, Part: part, Feature: feature, Stage: stage, Name: slot}
}
