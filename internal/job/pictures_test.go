package job_test

import (
	"context"
	"testing"

	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/report"

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

// A picture of a mark on a part is found from the part, and so is a place marked on a
// picture of the whole.
func TestPicturesShowMarksOnParts(t *testing.T) {
	s, ctx := press(t), context.Background()
	st := load(t, s, "T-0417")
	put(t, s, "T-0417", "u1/part/key/mark/sheared/state", unit.MarkSeen)
	assert.Empty(t, st.Showing("key", "sheared"))
	id := st.Job.Pictures[0].Number
	assert.ErrorContains(t, s.AddMark(ctx, iva, "T-0417", 1, id, unit.PictureMark{X: .5, Y: .5, Mark: "sheared"}),
		"part that is named")
	assert.ErrorContains(t, s.AddMark(ctx, iva, "T-0417", 1, id,
		unit.PictureMark{X: .5, Y: .5, Part: "key", Mark: "tired"}), "part that is named")
	require.NoError(t, s.AddMark(ctx, iva, "T-0417", 1, id,
		unit.PictureMark{X: .5, Y: .5, Part: "key", Mark: "sheared"}))
	st = load(t, s, "T-0417")
	assert.Equal(t, []int{id}, st.Showing("key", "sheared"))
	assert.Equal(t, "Key: sheared", st.MarkWords(st.Job.Pictures[0].Marks[len(st.Job.Pictures[0].Marks)-1]))
	assert.Contains(t, report.Seen(st), "Key: sheared (picture 1)")
}
