package site

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"maps"
	"net/http"
	"slices"
	"strings"

	"corvek/core/entry"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/store"

	"github.com/labstack/echo/v5"
)

// statusLeft is the status under which a request is told whose reader has left: nobody hears an answer.
const statusLeft = 499

// left reports that the reader went away, and what he asked for was given up because of that.
func left(c *echo.Context, err error) bool {
	return errors.Is(err, context.Canceled) && errors.Is(c.Request().Context().Err(), context.Canceled)
}

// statusOf maps what went wrong to a status.
func statusOf(err error) int {
	var fe *field.Error
	var conflict *job.Conflict
	var coder echo.HTTPStatusCoder
	switch {
	case err == nil:
		return 0
	case errors.Is(err, context.Canceled):
		return statusLeft
	case errors.As(err, &fe):
		return http.StatusUnprocessableEntity
	case errors.As(err, &conflict):
		return http.StatusConflict
	case errors.Is(err, store.ErrNotFound):
		return http.StatusNotFound
	case errors.Is(err, people.ErrForbidden):
		return http.StatusForbidden
	case store.UnfitText(err):
		return http.StatusBadRequest
	case store.Away(err), store.Full(err):
		return http.StatusServiceUnavailable
	case errors.As(err, &coder):
		return coder.StatusCode()
	}
	return http.StatusInternalServerError
}

// answered answers an error while the session can still be kept: what changed in
// it goes out with the answer. The error goes on to be logged.
func (s *Site) answered(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		err := next(c)
		var before *store.DoneBefore
		if errors.As(err, &before) {
			return doneBefore(c, before)
		}
		if err != nil {
			s.fail(c, err)
		}
		return err
	}
}

// fail answers an error: JSON to scripts, a page to people, never a panic's text.
func (s *Site) fail(c *echo.Context, err error) {
	if r, uerr := echo.UnwrapResponse(c.Response()); uerr == nil && r.Committed || left(c, err) {
		return
	}
	status := statusOf(err)
	body := map[string]any{"text": http.StatusText(status)}
	var fe *field.Error
	var conflict *job.Conflict
	var said *echo.HTTPError
	switch {
	case errors.As(err, &fe):
		body["field"], body["text"] = fe.Field, fe.Text
	case errors.As(err, &conflict):
		body["field"], body["theirs"] = conflict.Field, conflict.Theirs
		body["label"], body["text"] = conflictWords(conflict)
	case store.UnfitText(err):
		body["text"] = "There is a character in it that cannot be kept; type it again."
	case store.Full(err):
		body["text"] = storeFull
		c.Response().Header().Set("Retry-After", "30")
	case status == http.StatusServiceUnavailable:
		body["text"] = StoreAway
		c.Response().Header().Set("Retry-After", "2")
	case status == http.StatusNotFound:
		body["text"] = "There is nothing at this address."
	case errors.Is(err, errAskAgain):
		body["text"], body["confirm"] = errAskAgain.Message, true
	case errors.Is(err, people.ErrForbidden):
		body["text"] = "Your role does not allow this."
	case errors.As(err, &said) && said.Message != "" && status < 500:
		body["text"] = said.Message
	case status >= 500, status == statusLeft:
		body["text"] = "Something went wrong here. What you typed is kept; try again."
	}
	if wantsJSON(c) {
		_ = c.JSON(status, map[string]any{"error": body})
		return
	}
	page := FaultPage{Reader: s.Reader(c), Text: body["text"].(string)}
	if canBeSentAgain(status) && !errors.Is(err, people.ErrForbidden) {
		page.Action, page.Values = carried(c, "password", "own", "secret", "code", "badge")
	}
	if rerr := s.Render(c, status, "fault", http.StatusText(status), page); rerr != nil {
		_ = c.String(status, page.Text)
	}
}

// conflictWords say what somebody else made of a field meanwhile, and what was to be
// written over it.
func conflictWords(c *job.Conflict) (label, text string) {
	words := func(value string) string {
		if value == "" {
			return "nothing"
		}
		return "“" + ValueWords(c.Field, value) + "”"
	}
	label = c.Field
	if ref, err := unit.ParseRef(c.Field); err == nil {
		if f, known := entry.Find(ref.Scope, ref.Name); known {
			label = f.Label
		}
	}
	return label, fmt.Sprintf("%s set this to %s at %s; yours was %s", c.By, words(c.Theirs), c.At.Format("15:04"),
		words(c.Yours))
}

// FaultPage says what went wrong. A plain form that could not be taken just now
// stands on it with what was typed, to be sent again.
type FaultPage struct {
	Reader
	Text   string
	Action string // "" where there is nothing to send
	Values [][2]string
}

// canBeSentAgain tells faults that pass: of the store, of a session that ended or
// changed hands.
func canBeSentAgain(status int) bool {
	return status >= 500 || status == http.StatusUnauthorized || status == http.StatusForbidden
}

// carried is a plain form with what was typed into it, but for the session's token
// and the fields that are left out.
func carried(c *echo.Context, without ...string) (action string, values [][2]string) {
	r := c.Request()
	if r.Method != http.MethodPost || crossSite(r) {
		return "", nil
	}
	_ = r.ParseForm() // what cannot be read is not carried on
	for _, name := range slices.Sorted(maps.Keys(r.PostForm)) {
		if name == "csrf" || name == againName || slices.Contains(without, name) {
			continue
		}
		for _, value := range r.PostForm[name] {
			values = append(values, [2]string{name, value})
		}
	}
	return r.URL.Path, values
}

// StoreAway is what is said while the database does not answer.
const StoreAway = "The store is coming back. What you typed is kept."

// storeFull is what is said while there is no room for anything new.
const storeFull = "There is no room left on the store's disk; tell whoever looks after it. What you typed is kept."

// sessionFault answers when not even the session can be read: there is nobody to
// show a page to, so a plain one asks again by itself.
func (s *Site) sessionFault(w http.ResponseWriter, r *http.Request, err error) {
	if errors.Is(r.Context().Err(), context.Canceled) {
		return // the reader has left, and his session with him
	}
	status := http.StatusInternalServerError
	if store.Away(err) {
		status = http.StatusServiceUnavailable
		w.Header().Set("Retry-After", "2")
	}
	slog.Error("session", "status", status, "error", err)
	if r.Header.Get("X-Requested-With") == "corvek" {
		w.Header().Set("Content-Type", "application/json")
		w.WriteHeader(status)
		_, _ = w.Write([]byte(`{"error":{"text":"` + StoreAway + `"}}`))
		return
	}
	w.Header().Set("Content-Type", "text/html; charset=utf-8")
	w.Header().Set("Cache-Control", "no-store")
	w.WriteHeader(status)
	_ = s.Views.Sets["away"].ExecuteTemplate(w, "away", StoreAway)
}

func wantsJSON(c *echo.Context) bool {
	h := c.Request().Header
	return h.Get("X-Requested-With") == "corvek" || strings.HasPrefix(c.Path(), apiPath)
}

// ValueWords say a value as pages call it.
func ValueWords(address, value string) string {
	ref, err := unit.ParseRef(address)
	if err != nil || value == "" {
		return value
	}
	if f, known := entry.Find(ref.Scope, ref.Name); known && f.Kind == entry.Choice {
		return wording.Choice(ref.Scope, ref.Name, value)
	}
	return value
}
