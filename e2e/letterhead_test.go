package e2e

import (
	"image"
	"image/png"
	"os"
	"path/filepath"
	"testing"

	"corvek/internal/whole"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A lead writes the letterhead once; a wrong address is told at its field and stays
// as it was typed; the papers begin with it.
func TestHeadOfThePapersIsWritten(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	u := enter(t, serve(t), "odd", false)
	mark := filepath.Join(t.TempDir(), "mark.png")
	f, err := os.Create(mark)
	require.NoError(t, err)
	require.NoError(t, png.Encode(f, image.NewGray(image.Rect(0, 0, 60, 40))))
	require.NoError(t, f.Close())

	u.open("/shop/letterhead")
	u.MustElement("#in-site").MustInput("corvek.quay")
	u.press(u.MustElementR("form button", "^Save$"))
	u.MustElementR("[data-err=site]", "https://")
	assert.Equal(t, "corvek.quay", u.MustElement("#in-site").MustProperty("value").Str())

	u.MustElement("#in-site").MustSelectAllText().MustInput("https://corvek.quay.example")
	u.MustElement("#in-address").MustSelectAllText().MustInput("1 Slip Street\nTarnholm")
	u.MustElement("#in-sheet").MustSelect("Letter")
	u.MustElement("#in-mark").MustSetFiles(mark)
	u.press(u.MustElementR("form button", "^Save$"))
	u.MustElementR(".letterhead p", "1 Slip Street")
	u.open("/jobs/T-0388/certificate")
	u.MustElementR(".ph-shop", "7 Netmakers' Quay") // what went out keeps the head of its day
	u.open("/jobs/T-0417/certificate")
	u.MustElementR(".ph-shop", "1 Slip Street")
	u.MustElement(".ph-mark")
	u.MustElement("body.sheet-letter .ph-code svg")
	u.quiet()
}
