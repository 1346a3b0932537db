package store_test

import (
	"context"
	"errors"
	"fmt"
	"io"
	"testing"

	"corvek/internal/store"

	"github.com/jackc/pgx/v5/pgconn"
	"github.com/stretchr/testify/assert"
)

// What the database says is sorted into what a person is told: it is away and comes
// back, it is full, or what was typed cannot be kept.
func TestFaultsOfTheDatabase(t *testing.T) {
	code := func(c string) error { return fmt.Errorf("writing: %w", &pgconn.PgError{Code: c}) }
	for _, c := range []struct {
		err               error
		away, full, unfit bool
	}{
		{nil, false, false, false},
		{code("57P01"), true, false, false}, {code("57014"), true, false, false}, {code("08006"), true, false, false},
		{code("53300"), true, false, false}, {io.ErrUnexpectedEOF, true, false, false},
		{context.DeadlineExceeded, true, false, false}, {errors.New("conn closed"), true, false, false},
		{code("53100"), false, true, false}, {code("53200"), false, true, false}, {code("53400"), false, true, false},
		{code("22021"), false, false, true}, {code("22P05"), false, false, true},
		{code("23505"), false, false, false}, {errors.New("else"), false, false, false},
	} {
		assert.Equal(t, c.away, store.Away(c.err), "%v", c.err)
		assert.Equal(t, c.full, store.Full(c.err), "%v", c.err)
		assert.Equal(t, c.unfit, store.UnfitText(c.err), "%v", c.err)
	}
}
