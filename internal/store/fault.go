package store

import (
	"context"
	"errors"
	"io"
	"net"
	"strings"

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

// Full reports that the disk of the database, or its memory, has no room left.
// Nothing half-written stays; the same can be asked again when there is room.
func Full(err error) bool {
	const diskFull, outOfMemory, limitExceeded = "53100", "53200", "53400" // PostgreSQL, appendix A
	var fault *pgconn.PgError
	return errors.As(err, &fault) &&
		(fault.Code == diskFull || fault.Code == outOfMemory || fault.Code == limitExceeded)
}

// Away reports that the database does not answer: it is gone, starting or
// overloaded. Nothing is lost by that; the same can be asked again.
func Away(err error) bool {
	var connect *pgconn.ConnectError
	var network net.Error
	var fault *pgconn.PgError
	switch {
	case err == nil:
		return false
	case errors.As(err, &fault):
		// PostgreSQL, appendix A: connection exceptions, shutdowns, a statement that took too long.
		return strings.HasPrefix(fault.Code, "08") || strings.HasPrefix(fault.Code, "57P") ||
			fault.Code == "57014" || fault.Code == "53300"
	case errors.As(err, &connect), errors.As(err, &network):
		return true
	}
	return errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) || errors.Is(err, context.DeadlineExceeded) ||
		strings.Contains(err.Error(), "conn closed") || strings.Contains(err.Error(), "closed pool")
}
