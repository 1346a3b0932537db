package mount_test

import (
	"testing"

	"corvek/core/metrology"
	"corvek/core/mount"
	"corvek/core/proof"

	"github.com/stretchr/testify/assert"
)

// A twentieth of 46.4 L/min at 175 bar: what is made up is as large at any size.
func TestWhatIsMadeUpIsLikeASoundPump(t *testing.T) {
	for _, cc := range []float64{1e-6, 32e-6, 500e-6} {
		m := proof.Model{Displacement: cc, Speed: 1450, Viscosity: 0.04}
		m.Paths = append(m.Paths, mount.InventedLeak(m, 175e5))
		assert.InDelta(t, 0.95, m.Efficiency(175e5), 1e-9)
	}
	assert.InDelta(t, 200e5, mount.InventedRelief(metrology.Between(190e5, 210e5)).Cracking, 1)
	assert.InDelta(t, 194e5, mount.InventedRelief(metrology.AtMost(200e5)).Cracking, 1)
	assert.InDelta(t, 206e5, mount.InventedRelief(metrology.AtLeast(200e5)).Cracking, 1)
}
