package job_test

import (
	"context"
	"testing"

	"corvek/core/field"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMarksOnPictures(t *testing.T) {
	s, ctx := press(t), context.Background()
	st := load(t, s, "T-0417")
	id := st.Job.Pictures[1].Number
	part := st.Parts[0].Code
	require.NoError(t, s.AddMark(ctx, iva, "T-0417", 1, id,
		unit.PictureMark{X: .5, Y: .25, Note: "bright", Part: part, Evidence: st.Knowledge.Evidence[0].Code}))
	require.NoError(t, s.AddMark(ctx, iva, "T-0417", 1, id, unit.PictureMark{X: 1, Y: 0, Note: "edge"}))
	st = load(t, s, "T-0417")
	require.Len(t, st.Job.Pictures[1].Marks, 2)
	assert.Equal(t, 2, st.Job.Pictures[1].Marks[1].Number)
	assert.Equal(t, st.Parts[0].Name+": "+st.Knowledge.Evidence[0].Text+": bright",
		st.MarkWords(st.Job.Pictures[1].Marks[0]))
	var fe *field.Error
	for _, bad := range []unit.PictureMark{{X: -1, Y: 0, Note: "off"}, {X: .5, Y: 1.2, Note: "off"}, {X: .5, Y: .5},
		{X: .5, Y: .5, Evidence: "no_such"}} {
		require.ErrorAs(t, s.AddMark(ctx, iva, "T-0417", 1, id, bad), &fe)
	}
	require.NoError(t, s.DropMark(ctx, iva, "T-0417", 1, id, 1))
	assert.Len(t, load(t, s, "T-0417").Job.Pictures[1].Marks, 1)
}
