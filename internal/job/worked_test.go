package job_test

import (
	"context"
	"testing"

	"corvek/core/field"
	"corvek/internal/job"
	"corvek/internal/people"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A calculation is kept with what was given and what it answered; one that
// cannot be worked out is refused by its field and nothing is kept.
func TestPutFigure(t *testing.T) {
	s, tag := press(t), "T-0388"
	ctx := context.Background()
	require.NoError(t, s.PutFigure(ctx, iva, tag, job.Working{Calculator: "gap_ratio",
		Inputs: []byte(`{"before":"0.05 mm","after":"0.10 mm"}`), Note: " twice the gap "}))
	st, err := s.Load(ctx, tag, 1)
	require.NoError(t, err)
	require.Len(t, st.Job.Worked, 1)
	w := st.Job.Worked[0]
	assert.Equal(t, "twice the gap", w.Note)
	assert.Contains(t, w.Answer, `"flow_ratio":{"value":8`)
	assert.Equal(t, iva.Name, w.By)

	var fe *field.Error
	require.ErrorAs(t, s.PutFigure(ctx, iva, tag, job.Working{Calculator: "gap_ratio",
		Inputs: []byte(`{"before":"0.05 bar","after":"0.10 mm"}`), Note: ""}), &fe)
	assert.Equal(t, "before", fe.Field)
	require.ErrorAs(t, s.PutFigure(ctx, iva, "T-none", job.Working{Calculator: "gap_ratio",
		Inputs: []byte(`{"before":"1 mm","after":"1 mm"}`), Note: ""}),
		&fe)
	assert.Equal(t, "job", fe.Field)
	assert.ErrorIs(t, s.PutFigure(ctx, tove, tag, job.Working{Calculator: "gap_ratio",
		Inputs: []byte(`{"before":"1 mm","after":"1 mm"}`), Note: ""}),
		people.ErrForbidden)
	st, err = s.Load(ctx, tag, 1)
	require.NoError(t, err)
	assert.Len(t, st.Job.Worked, 1)
}
