// Package people is who may do what in the shop: names, passwords, codes and
// badges, how they are tried, and how a lead changes them.
package people

import (
	"regexp"
	"strconv"
	"strings"
	"time"
	"unicode"

	"corvek/core/field"
	"corvek/core/practice"
	"corvek/internal/store"
)

// Bounds of what is typed for a person, in letters; bcrypt reads no more bytes of
// a password.
const (
	leastPassword = 8
	mostPassword  = 72
	mostName      = 80
	mostInitials  = 4
	leastBadge    = 6
	mostBadge     = 200
)

var (
	signInShape = regexp.MustCompile(`^[\p{L}\p{N}][\p{L}\p{N}._-]{0,39}$`)
	codeShape   = regexp.MustCompile(`^[0-9]{4}$`)
)

// SignInName is a name to sign in with as it is kept: capitals make no other name.
func SignInName(typed string) string { return strings.ToLower(strings.TrimSpace(typed)) }

func cleanSignIn(typed string) (string, error) {
	name := SignInName(typed)
	if !signInShape.MatchString(name) {
		return "", field.Errorf("sign_in", "is one word of letters and figures, at most 40")
	}
	return name, nil
}

// Initials are the first letters of the words of a name.
func Initials(name string) string {
	var out []rune
	for _, word := range strings.Fields(name) {
		for _, r := range word {
			if unicode.IsLetter(r) {
				out = append(out, unicode.ToUpper(r))
				break
			}
		}
	}
	return string(out[:min(len(out), mostInitials)])
}

func cleanName(typed string) (string, error) {
	name := strings.Join(strings.Fields(typed), " ")
	switch {
	case Initials(name) == "":
		return "", field.Errorf("name", "is the person's full name")
	case len([]rune(name)) > mostName:
		return "", field.Errorf("name", "is longer than %d letters", mostName)
	}
	return name, nil
}

func cleanInitials(typed, name string) (string, error) {
	out := strings.ToUpper(strings.TrimSpace(typed))
	if out == "" {
		return Initials(name), nil
	}
	for _, r := range out {
		if !unicode.IsLetter(r) && !unicode.IsDigit(r) {
			return "", field.Errorf("initials", "are letters and figures, like IB")
		}
	}
	if len([]rune(out)) > mostInitials {
		return "", field.Errorf("initials", "are at most %d letters", mostInitials)
	}
	return out, nil
}

// Roles from the least to the most.
var Roles = []string{RoleViewer, RoleTechnician, RoleLead}

func cleanRole(role string) (string, error) {
	for _, r := range Roles {
		if r == role {
			return role, nil
		}
	}
	return "", field.Errorf("role", "is one of technician, lead, viewer")
}

func checkPassword(name, password, signIn string) error {
	switch {
	case len([]rune(password)) < leastPassword:
		return field.Errorf(name, "has at least %d letters or figures", leastPassword)
	case len(password) > mostPassword:
		return field.Errorf(name, "is too long: at most %d letters", mostPassword)
	case strings.EqualFold(strings.TrimSpace(password), DemoPassword):
		return field.Errorf(name, "is the demo's and known to everybody; take another")
	case strings.EqualFold(strings.TrimSpace(password), signIn):
		return field.Errorf(name, "must not be the name to sign in with")
	}
	return nil
}

// Wait is how long after the last failed try the next one is heard. It grows
// with the tries, never beyond a few minutes, and nobody is ever locked out by
// it. From an address that the name has signed in from, only tries from there
// count, so that a stranger elsewhere cannot keep the right person waiting.
func Wait(t store.Tries) time.Duration {
	wait := grown(t.Pair - free)
	if !t.Known {
		wait = max(wait, grown(t.Strange-free), min(grown(t.Address-freeAddress), longestAddress))
	}
	return wait
}

// Tries that cost nothing: under one name, and from one address under any name,
// where a whole shop may sit behind one.
const (
	free        = 4
	freeAddress = 24
	longestWait = 5 * time.Minute
	// Behind an address a whole shop may sit, and before a bench everybody: what one of them tries
	// wrongly keeps the others waiting for a breath.
	longestAddress = 5 * time.Second
)

func grown(over int) time.Duration {
	if over < 0 {
		return 0
	}
	if over > 8 {
		return longestWait
	}
	return min(2*time.Second<<over, longestWait)
}

// cleanFirst reads how many units of practice come before a job of one's own.
func cleanFirst(typed string) (int, error) {
	typed = strings.TrimSpace(typed)
	if typed == "" {
		return 0, nil
	}
	n, err := strconv.Atoi(typed)
	if err != nil || n < 0 || n > practice.MostFirst {
		return 0, field.Errorf("first_cases", "is a whole number up to %d", practice.MostFirst)
	}
	return n, nil
}
