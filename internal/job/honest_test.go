package job_test

import (
	"testing"
	"time"

	"corvek/core/proof"
	"corvek/internal/job/jobtest"
	"corvek/internal/whole"

	"github.com/stretchr/testify/assert"
)

// Of every family an honest test of a sound build gives PROVED, and nothing was waived for it.
func TestAnHonestTestProvesEveryFamily(t *testing.T) {
	t.Parallel() // hundreds of writes, in a store of its own
	s := emptyShop(t)
	now := time.Date(2031, 5, 20, 9, 0, 0, 0, time.UTC)
	s.Now = func() time.Time { return now }
	for _, f := range whole.Of(t, s.Families().List()) {
		t.Run(f.Code, func(t *testing.T) {
			tag := jobtest.Built(t, s, f.Code)
			jobtest.Test(t, s, tag, &now)
			st := load(t, s, tag)
			claim, missing := st.Claim()
			assert.Equal(t, proof.Proved, claim, missing)
			assert.Empty(t, st.Job.Waivers)
		})
	}
}
