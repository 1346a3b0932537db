package job

import (
	"context"
	"encoding/json"
	"errors"

	"corvek/core/bench"
	"corvek/core/calc"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/people"
	"corvek/internal/store"
)

// MostWorked keeps a job's list of calculations readable.
const MostWorked = 200

// PutFigure works a calculator out and keeps inputs and answer with the job, so
// that the figure on the report can be followed later.
func (s *Service) PutFigure(
	ctx context.Context,
	who people.Actor,
	tag, calculator string,
	inputs []byte,
	note string,
) error {
	note, err := short("note", note, "")
	if err != nil {
		return err
	}
	out, err := calc.Run(calculator, inputs)
	if err != nil {
		return err
	}
	answer, err := json.Marshal(out)
	if err != nil {
		return err
	}
	err = s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		1,
		func(w *writing, u *unit.Unit, st *bench.State) (string, error) {
			if len(w.Job.Worked) >= MostWorked {
				return "", field.Errorf("job", "holds %d calculations already", MostWorked)
			}
			w.Job.AddWorked(&unit.Worked{Calculator: calculator, Note: note, Inputs: string(inputs),
				Answer: string(answer), By: who.Name, At: s.moment()})
			return "put on the job: " + calculator, nil
		},
	)
	if errors.Is(err, store.ErrNotFound) {
		return field.Errorf("job", "choose the job it belongs to")
	}
	return err
}
