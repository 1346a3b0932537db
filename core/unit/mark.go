package unit

// Mark is something looked for on the unit or on one of its parts: seen, absent,
// or not said.
type Mark struct {
	Round  int    `json:"round,omitempty" gorm:"primaryKey"`
	Code   string `json:"code,omitempty" gorm:"primaryKey"`
	State  string `json:"state,omitempty"`  // seen or absent
	Grade  string `json:"grade,omitempty"`  // of a mark on a part: light, clear or heavy
	Origin string `json:"origin,omitempty"` // found_so, made_by_us or unknown
	Note   string `json:"note,omitempty"`
	How    string `json:"found_how,omitempty" gorm:"column:found_how"` // before or after freeing or wiping
	Age    string `json:"age,omitempty"`
}

// The states and origins of a mark.
const (
	MarkSeen      = "seen"
	MarkAbsent    = "absent"
	OriginFound   = "found_so"
	OriginBench   = "made_by_us"
	OriginUnknown = "unknown"
)

// UnitMark is a mark looked for on the unit.
type UnitMark struct {
	OfUnit `json:"-"`
	Mark
}

// PartMark is a mark on one of its parts.
type PartMark struct {
	OfPart `json:"-"`
	Mark
}

// marked is a mark, wherever it is.
type marked interface{ said() *Mark }

func (m *Mark) said() *Mark { return m }

// Conclusion is what was found to be the cause.
type Conclusion struct {
	OfUnit `json:"-"`

	Round       int    `json:"round,omitempty" gorm:"primaryKey"`
	Cause       string `json:"cause,omitempty"` // a code, or CauseNotFound
	Statement   string `json:"statement,omitempty"`
	Action      string `json:"action,omitempty"`
	Owner       string `json:"owner,omitempty"`
	Blamed      string `json:"blamed,omitempty"`       // a part outside the unit that is blamed
	BlamedFound string `json:"blamed_found,omitempty"` // what was measured on it
	Cured       string `json:"cured,omitempty"`        // what was done before another unit ran there
}

// CauseNotFound concludes that the cause was looked for and not found.
const CauseNotFound = "not_found"

// CauseNone concludes that there was nothing to explain: no complaint, and nothing found.
const CauseNone = "no_finding"

// Conclusion is the newest conclusion; the zero one when there is none.
func (u *Unit) Conclusion() Conclusion {
	if c := latest(u.Conclusions, func(c *Conclusion) int { return c.Round }); c != nil {
		return *c
	}
	return Conclusion{}
}

// LastSaid is what was last said of a mark. Of one nobody spoke of it is that
// it would be found so.
func (u *Unit) LastSaid(code string) Mark {
	return lastSaid(u.Marks, code)
}

func lastSaid[T marked](marks []T, code string) Mark {
	said := Mark{Code: code}
	for _, m := range marks {
		if m := m.said(); m.Code == code && m.Round >= said.Round {
			said = *m
		}
	}
	if said.Origin == "" {
		said.Origin = OriginFound
	}
	return said
}
