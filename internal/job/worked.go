package job

import (
	"context"
	"encoding/json"
	"errors"
	"strings"

	"corvek/core/calc"
	"corvek/core/field"
	"corvek/internal/store"
)

// mostWorked keeps a job's list of calculations readable.
const mostWorked = 200

// PutFigure works a calculator out and keeps inputs and answer with the job, so
// that the figure on the report can be followed later.
func (s *Service) PutFigure(ctx context.Context, who Actor, tag, calculator string, inputs []byte, note string) error {
	note = strings.TrimSpace(note)
	if len(note) > 400 {
		return field.Errorf("note", "is longer than 400 letters")
	}
	out, err := calc.Run(calculator, inputs)
	if err != nil {
		return err
	}
	answer, err := json.Marshal(out)
	if err != nil {
		return err
	}
	err = s.do(ctx, who, RoleTechnician, tag, 1, func(tx *store.Tx, st *State) (string, error) {
		if len(st.Job.WorkedFigures) >= mostWorked {
			return "", field.Errorf("job", "holds %d calculations already", mostWorked)
		}
		row := store.WorkedFigure{JobID: st.Job.ID, Calculator: calculator, Note: note, Inputs: string(inputs), Answer: string(answer), ByName: who.Name, At: s.Now()}
		return "put on the job: " + calculator, tx.DB.Create(&row).Error
	})
	if errors.Is(err, store.ErrNotFound) {
		return field.Errorf("job", "choose the job it belongs to")
	}
	return err
}
