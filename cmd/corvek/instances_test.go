//go:build audit

package main

import (
	"os"
	"strconv"
	"testing"
	"time"

	"corvek/internal/pgserver"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Sixteen benches work on two instances over one database, and one after the other of the two is killed
// and comes back: no bench misses for more than two seconds what another wrote, and nothing that was
// answered for is lost. CORVEK_KILLS sets how often.
func TestSixteenBenchesOnTwoInstances(t *testing.T) {
	kills := 4
	if n, err := strconv.Atoi(os.Getenv("CORVEK_KILLS")); err == nil {
		kills = n
	}
	server, err := pgserver.Start(t.Context(), folder(t), false)
	require.NoError(t, err)
	t.Cleanup(server.Stop)
	env := []string{"DATABASE_URL=" + server.URL(), "CORVEK_OWNER_URL=" + server.OwnerURL()}
	_, errs, code := run(t, "", env, "migrate")
	require.Zero(t, code, errs)
	stockShop(t, env)
	instances := []*instance{{t: t, env: env}, {t: t, env: env}}
	for _, i := range instances {
		i.begin()
		defer i.stop()
	}
	s := &shopOfBenches{t: t, base: front(t, instances), database: server.OwnerURL}
	s.work(func() {
		for kill := range kills {
			time.Sleep(5 * time.Second)
			one := instances[kill%2]
			one.kill()
			time.Sleep(5 * time.Second)
			one.begin()
		}
		time.Sleep(3 * time.Second)
	})
	t.Logf("%d words answered for, an instance killed %d times; seen after %s at most", s.words(), kills, s.worst)
	assert.Empty(t, s.lost())
	assert.Empty(t, s.unseen())
	for _, late := range s.late {
		t.Error(late)
	}
}
