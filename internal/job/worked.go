package job

import (
	"context"
	"encoding/json"
	"errors"

	"corvek/core/bench"
	"corvek/core/calc"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/filled"
	"corvek/core/unit"
	"corvek/internal/answer"
	"corvek/internal/people"
	"corvek/internal/store"
)

// MostWorked keeps a job's list of calculations readable.
const MostWorked = 200

// Working is a calculation that is put on a job: the calculator with its inputs as JSON, and what of the job it is
// about.
type Working struct {
	Calculator string
	Inputs     []byte
	Unit       int    // of the job, 1 where none is said
	About      string // a part or part.feature, "" of the whole unit
	Note       string
}

// PutFigure works a calculator out and keeps inputs and answer with the job, so
// that the figure on the report can be followed later. An input that stands as the unit has it keeps whence that is.
func (s *Service) PutFigure(ctx context.Context, who people.Actor, tag string, x Working) error {
	note, err := short("note", x.Note, "")
	if err != nil {
		return err
	}
	out, err := calc.Run(x.Calculator, x.Inputs)
	if err != nil {
		return err
	}
	var typed map[string]any
	if err := json.Unmarshal(x.Inputs, &typed); err != nil {
		return err
	}
	answered, err := json.Marshal(out)
	if err != nil {
		return err
	}
	err = s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		max(1, x.Unit),
		func(w *writing, u *unit.Unit, st *bench.State) (string, error) {
			if len(w.Job.Worked) >= MostWorked {
				return "", field.Errorf("job", "holds %d calculations already", MostWorked)
			}
			var whence map[string]string
			for _, in := range filled.Of(st, x.Calculator, x.About) {
				if answer.Typed(typed[in.Name]) == in.Text {
					if whence == nil {
						whence = map[string]string{}
					}
					whence[in.Name] = in.Whence
				}
			}
			about := x.About
			if code, _ := family.CutFeature(about); st.ByCode[about] == nil && st.ByCode[code] == nil {
				about = "" // of no part of this unit
			}
			w.Job.AddWorked(&unit.Worked{Calculator: x.Calculator, Note: note, Unit: st.Unit.Number, About: about,
				Inputs: string(x.Inputs), Whence: whence, Answer: string(answered), By: who.Name, At: s.moment()})
			return "put on the job: " + x.Calculator, nil
		},
	)
	if errors.Is(err, store.ErrNotFound) {
		return field.Errorf("job", "choose the job it belongs to")
	}
	return err
}
