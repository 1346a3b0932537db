package job_test

import (
	"context"
	"corvek/core/quantity"
	"corvek/internal/job/jobtest"
	"testing"
	"time"

	"corvek/core/handover"
	"corvek/core/unit"
	"corvek/internal/people"
	"corvek/internal/store"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What one job learned is shown at the next one of its variant, at the station where it
// matters, and nowhere else.
func TestALessonIsShownAtTheNextJob(t *testing.T) {
	s := press(t)
	jobtest.HandOver(t, s, "T-0388")
	sister := load(t, s, "T-0417")
	lessons := sister.Lessons("measure")
	require.Len(t, lessons, 1)
	assert.Equal(t, "T-0388", lessons[0].Tag)
	assert.Contains(t, lessons[0].Text, "relief spring")
	assert.Empty(t, sister.Lessons("build"))
	assert.Empty(t, load(t, s, "T-0388").Lessons("measure"), "not at its own job")
	put(t, s, "T-0417", "u1/variant", "")
	put(t, s, "T-0417", "u1/model", "another")
	assert.Empty(t, load(t, s, "T-0417").Lessons("measure"), "another model has not learned it")
}

// What is asked back is answered on a job that was handed over, once, and is due on its day.
func TestFollowUpsAfterAHandOver(t *testing.T) {
	s, ctx := press(t), context.Background()
	assert.ErrorContains(t, s.AskBack(ctx, iva, "T-0388", 1, "weather", ""), "kind")
	assert.ErrorContains(t, s.AskBack(ctx, iva, "T-0388", 1, handover.AskRefit, "soon"), "due_on")
	assert.ErrorIs(t, s.AskBack(ctx, tove, "T-0388", 1, handover.AskRefit, ""), people.ErrForbidden)
	require.NoError(t, s.AskBack(ctx, iva, "T-0388", 1, handover.AskRefit, "2031-06-01"))
	list := load(t, s, "T-0388").Job.FollowUps
	require.Len(t, list, 2, "the demo asks one already")
	due := func(day unit.Date) int {
		list, err := s.Store.FollowUpsDue(ctx, day)
		require.NoError(t, err)
		return len(list)
	}
	assert.Equal(t, 1, due("2031-05-31"))
	assert.Equal(t, 2, due("2031-06-01"))
	assert.ErrorContains(t, s.AnswerBack(ctx, iva, "T-0388", list[1].Number, "perhaps", ""), "result")
	assert.ErrorIs(t, s.AnswerBack(ctx, iva, "T-0417", list[1].Number, "good", ""), store.ErrNotFound,
		"it belongs to another job")
	require.NoError(t, s.AnswerBack(ctx, iva, "T-0388", list[1].Number, "came_again", "after two hours, hot"))
	assert.Error(t, s.AnswerBack(ctx, iva, "T-0388", list[1].Number, "good", ""), "once")
	assert.Equal(t, 1, due("2031-06-01"))
	assert.Equal(t, "after two hours, hot", load(t, s, "T-0388").Job.FollowUps[1].Note)
}

// A complaint that could not be tried at the stand is asked back by itself at the hand-over.
func TestAnUntriedComplaintIsAskedBack(t *testing.T) {
	s, ctx := press(t), context.Background()
	asked := func(tag string) (out []string) {
		for _, f := range load(t, s, tag).Job.FollowUps[1:] { // the first is the demo's own
			out = append(out, f.Kind)
		}
		return out
	}
	jobtest.HandOver(t, s, "T-0388")
	assert.Empty(t, asked("T-0388"), "there it was tried, and gone")

	require.NoError(t, s.Reopen(ctx, odd, "T-0388", "the complaint was not tried after all", unit.TouchesPapers))
	require.NoError(t, s.Store.Update(ctx, "T-0388", func(j *unit.Job, _ store.History) (*store.Change, error) {
		p := j.Units[0].Attempt(2).Point("complaint")
		*p = unit.Point{OfAttempt: p.OfAttempt, Code: p.Code, Skipped: "only on the machine"}
		return &store.Change{Job: j, Entries: []unit.Entry{{Who: "x", At: time.Now(), Action: "untried"}}}, nil
	}))
	jobtest.HandOver(t, s, "T-0388")
	assert.Equal(t, []string{handover.AskComplaint}, asked("T-0388"))
	require.NoError(t, s.Reopen(ctx, odd, "T-0388", "once more", unit.TouchesPapers))
	jobtest.HandOver(t, s, "T-0388")
	assert.Len(t, asked("T-0388"), 1, "asked once")
}

// What runs where its cause was not cured is asked after on the next day, and so is a sump that had
// gained; once each.
func TestAnUncuredCauseIsAskedBack(t *testing.T) {
	s, ctx := press(t), context.Background()
	require.NoError(t, s.Store.Update(ctx, "T-0388", func(j *unit.Job, _ store.History) (*store.Change, error) {
		u := j.Units[0]
		c := u.Conclusions[0]
		c.Cause, c.Cured, c.Action, c.Owner = "contamination", "", "flush the tank", "the mill"
		u.GainedElsewhere, u.OtherSump = quantity.Kept("4 L", quantity.Volume, ""), "drained and filled"
		return &store.Change{Job: j, Entries: []unit.Entry{{Who: "x", At: time.Now(), Action: "another cause"}}}, nil
	}))
	jobtest.HandOver(t, s, "T-0388")
	due := map[string]unit.Date{}
	for _, f := range load(t, s, "T-0388").Job.FollowUps[1:] {
		due[f.Kind] = f.DueOn
	}
	require.Contains(t, due, handover.AskCause)
	require.Contains(t, due, handover.AskSump)
	assert.Equal(t, unit.DateOf(s.Now().UTC().AddDate(0, 0, 1)), due[handover.AskCause], "tomorrow")
	require.NoError(t, s.Reopen(ctx, odd, "T-0388", "once more", unit.TouchesPapers))
	jobtest.HandOver(t, s, "T-0388")
	assert.Len(t, load(t, s, "T-0388").Job.FollowUps, 1+len(due))
}
