package store

import (
	"errors"

	"github.com/jackc/pgx/v5/pgconn"
)

// UnfitText reports that a write or a question failed because of a character
// that PostgreSQL keeps in no text: a zero byte, or bytes that are not UTF-8.
// Nobody types those; programs and broken files send them.
func UnfitText(err error) bool {
	const invalidBytes, untranslatable = "22021", "22P05" // PostgreSQL, appendix A
	var fault *pgconn.PgError
	return errors.As(err, &fault) && (fault.Code == invalidBytes || fault.Code == untranslatable)
}

// taken reports that a write failed because its key is there already.
func taken(err error) bool {
	const uniqueViolation = "23505" // PostgreSQL, appendix A
	var fault *pgconn.PgError
	return errors.As(err, &fault) && fault.Code == uniqueViolation
}
