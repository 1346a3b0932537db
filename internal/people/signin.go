package people

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"net/netip"
	"strings"
	"time"

	"corvek/core/field"
	"corvek/internal/store"

	"golang.org/x/crypto/bcrypt"
)

// Service lets people in and keeps who they are.
type Service struct {
	Store *store.Store
	Now   func() time.Time
	Cost  int // of hashing a secret, as bcrypt counts it; 0 for the usual one
	Demo  bool
}

// DemoPassword opens every sign-in of the demo, which is served on loopback. In a shop of its own
// it opens nothing: it is told to everybody.
const DemoPassword = "tarnholm"

// ErrPublic says that a password which is told to everybody opens nothing here.
var ErrPublic = errors.New("this password is the demo's and known to everybody; a lead gives you another, " +
	"or \"corvek person\" where there is none")

// TooEarly says that a try comes too soon after ones that failed.
type TooEarly struct{ Wait time.Duration }

func (e *TooEarly) Error() string {
	wait := e.Wait.Round(time.Second)
	if wait < time.Minute {
		return fmt.Sprintf("Too many tries that failed; try again in %d seconds.",
			int(max(wait, time.Second).Seconds()))
	}
	return fmt.Sprintf("Too many tries that failed; try again in %d minutes.", int((wait + 59*time.Second).Minutes()))
}

// ErrWrong says that a try failed, and not why.
var ErrWrong = errors.New("name and password do not go together")

// Hash makes the stored form of a password or a code.
func Hash(secret string) (string, error) { return hashed(secret, 0) }

func (s *Service) hash(secret string) (string, error) { return hashed(secret, s.Cost) }

func hashed(secret string, cost int) (string, error) {
	if cost == 0 {
		cost = bcrypt.DefaultCost
	}
	h, err := bcrypt.GenerateFromPassword([]byte(secret), cost)
	return string(h), err
}

// badgeHash is the stored form of a badge. A badge is looked for by it, so it
// cannot be salted; it is long and not chosen by people.
func badgeHash(text string) string {
	sum := sha256.Sum256([]byte(strings.TrimSpace(text)))
	return hex.EncodeToString(sum[:])
}

func fits(hash, secret string) bool {
	return bcrypt.CompareHashAndPassword([]byte(hash), []byte(secret)) == nil
}

// network is an address as tries are counted by: of the newer kind a subscriber
// has a whole range.
func network(address string) string {
	a, err := netip.ParseAddr(address)
	if err != nil {
		return address
	}
	a = a.Unmap().WithZone("")
	if a.Is6() {
		p, err := a.Prefix(64)
		if err == nil {
			return p.String()
		}
	}
	return a.String()
}

// try counts a try under a name, hears it unless it is too early, and notes how
// it went. look gives the person whom the secret is to open, and the stored form.
func (s *Service) try(ctx context.Context, name, address, secret string,
	look func() (*store.Person, string, error)) (*store.Person, error) {
	at, err := s.Store.BeginTry(ctx, name, network(address), func(t store.Tries) error {
		if left := time.Until(t.Last.Add(Wait(t))); left > 0 {
			return &TooEarly{left}
		}
		return nil
	})
	if err != nil {
		return nil, err
	}
	p, hash, err := look()
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return nil, err
	}
	if err != nil || hash == "" || p.LockedAt != nil {
		// As much work as for a name that is known: the time taken does not tell which
		// names there are.
		_, _ = s.hash(secret)
		return nil, ErrWrong
	}
	if !fits(hash, secret) {
		return nil, ErrWrong
	}
	if secret == DemoPassword && !s.Demo {
		return nil, ErrPublic
	}
	return p, s.Store.EndTry(ctx, at, p.ID)
}

// SignIn lets a person in by name and password.
func (s *Service) SignIn(ctx context.Context, typed, password, address string) (*store.Person, error) {
	name := SignInName(typed)
	if !signInShape.MatchString(name) || len(password) > mostPassword {
		return nil, ErrWrong
	}
	return s.try(ctx, name, address, password, func() (*store.Person, string, error) {
		p, err := s.Store.PersonBySignIn(ctx, name)
		if err != nil {
			return nil, "", err
		}
		return p, p.PasswordHash, nil
	})
}

// CodeAtBench lets the person of a number take over a bench, or say that it is
// still him, by his code or his password. Tries count apart from signing in.
func (s *Service) CodeAtBench(ctx context.Context, id uint, secret, address string) (*store.Person, error) {
	p, err := s.Store.Person(ctx, id)
	if err != nil {
		return nil, ErrWrong
	}
	hash, kind := p.PasswordHash, ""
	if codeShape.MatchString(secret) {
		hash, kind = p.CodeHash, "code "
	}
	return s.try(ctx, kind+p.SignIn, address, secret, func() (*store.Person, string, error) { return p, hash, nil })
}

// BadgeAtBench lets the owner of a scanned badge take over a bench.
func (s *Service) BadgeAtBench(ctx context.Context, scanned, address string) (*store.Person, error) {
	at, err := s.Store.BeginTry(ctx, "badge", network(address), func(t store.Tries) error {
		if left := time.Until(t.Last.Add(min(grown(t.Pair-free), longestAddress))); left > 0 {
			return &TooEarly{left}
		}
		return nil
	})
	if err != nil {
		return nil, err
	}
	p, err := s.Store.PersonByBadge(ctx, badgeHash(scanned))
	if errors.Is(err, store.ErrNotFound) || err == nil && p.LockedAt != nil {
		return nil, ErrWrong
	}
	if err != nil {
		return nil, err
	}
	return p, s.Store.EndTry(ctx, at, p.ID)
}

// fieldError gives words of the store's own faults at the field they are about.
func fieldError(err error, taken string) error {
	switch {
	case errors.Is(err, store.ErrTaken):
		return field.Errorf(taken, "somebody has this already")
	case errors.Is(err, store.ErrLastLead):
		return field.Errorf("role", "is needed: this is the last lead who can sign in; make another person lead first")
	}
	return err
}
