package e2e

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"net/http/httptest"
	"strconv"
	"strings"
	"testing"
	"time"

	"corvek/internal/whole"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/cdp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// movedOn answers a question that the browser dropped because the page was
// replaced meanwhile as one put to a page that is gone. Rod asks such a question
// again of the new page; it knows one wording of the browser's for it, and the
// browser has four.
type movedOn struct{ rod.CDPClient }

func (c movedOn) Call(ctx context.Context, session, method string, params any) ([]byte, error) {
	answer, err := c.CDPClient.Call(ctx, session, method, params)
	var refused *cdp.Error
	if strings.HasPrefix(method, "Runtime.") && errors.As(err, &refused) && pageGone(refused.Message) {
		return nil, cdp.ErrCtxNotFound
	}
	return answer, err
}

func pageGone(message string) bool {
	for _, said := range []string{"Inspected target navigated or closed", "Execution context was destroyed",
		"Cannot find default execution context", "Could not find object with given id"} {
		if strings.HasPrefix(message, said) {
			return true
		}
	}
	return false
}

// still asks again when the page was replaced between finding and handing over
// what was asked for: the page that came instead may have it as well.
func still[T any](ask func() (T, error)) (T, error) {
	for {
		found, err := ask()
		if !errors.Is(err, cdp.ErrCtxNotFound) {
			return found, err
		}
	}
}

// patience is how long something is waited for before the test says what is missing.
const patience = 2 * time.Minute

// MustElement gives the element, of whichever page stands when it is found.
func (u *user) MustElement(selector string) *rod.Element {
	u.t.Helper()
	el, err := still(func() (*rod.Element, error) { return u.Timeout(patience).Element(selector) })
	require.NoError(u.t, err, selector)
	return el.CancelTimeout()
}

// MustElementR gives the element with these words.
func (u *user) MustElementR(selector, words string) *rod.Element {
	u.t.Helper()
	el, err := still(func() (*rod.Element, error) { return u.Timeout(patience).ElementR(selector, words) })
	require.NoError(u.t, err, "%s with %s", selector, words)
	return el.CancelTimeout()
}

// MustElements gives all elements.
func (u *user) MustElements(selector string) rod.Elements {
	u.t.Helper()
	all, err := still(func() (rod.Elements, error) { return u.Elements(selector) })
	require.NoError(u.t, err, selector)
	return all
}

// refusing is a browser that refuses every question in the same words.
type refusing struct {
	rod.CDPClient
	words string
}

func (r refusing) Call(context.Context, string, string, any) ([]byte, error) {
	return nil, &cdp.Error{Code: -32000, Message: r.words}
}

func TestRefusalsOfAPageThatIsGone(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	for _, c := range []struct {
		method, words string
		again         bool
	}{
		{"Runtime.callFunctionOn", "Inspected target navigated or closed", true},
		{"Runtime.evaluate", "Execution context was destroyed.", true},
		{"Runtime.evaluate", "Cannot find default execution context", true},
		{"Runtime.callFunctionOn", "Could not find object with given id", true},
		{"Runtime.callFunctionOn", "Argument should belong to the same JavaScript world as target object", false},
		{"Input.dispatchKeyEvent", "Inspected target navigated or closed", false}, // a key must not be struck twice
	} {
		_, err := movedOn{refusing{words: c.words}}.Call(context.Background(), "", c.method, nil)
		assert.Equal(t, c.again, errors.Is(err, cdp.ErrCtxNotFound), "%s: %s", c.method, c.words)
		if !c.again {
			assert.ErrorContains(t, err, c.words)
		}
	}
}

// A page that keeps replacing itself is asked all the while and always answers.
func TestQuestionsOutliveThePageTheyBeganOn(t *testing.T) {
	t.Parallel()
	srv := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		w.Header().Set("Content-Type", "text/html")
		n, _ := strconv.Atoi(r.URL.Query().Get("n"))
		fmt.Fprintf(w, `<!doctype html><p id="at">%d</p>`, n)
		if n < 40 {
			fmt.Fprintf(w, `<script>setTimeout(() => location.href = "/?n=%d", %d)</script>`, n+1, n%4*3)
		}
	}))
	t.Cleanup(srv.Close)
	page := chrome(t).MustIncognito().MustPage(srv.URL).Timeout(5 * time.Minute)
	t.Cleanup(func() { _ = page.Close() })
	for at := ""; at != "40"; {
		answer, err := page.Eval(`() => document.getElementById("at")?.innerText ?? ""`)
		require.NoError(t, err)
		at = answer.Value.String()
		_, err = still(func() (*rod.Element, error) { return page.Element("body") })
		require.NoError(t, err)
	}
}
