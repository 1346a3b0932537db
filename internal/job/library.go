package job

import (
	"context"
	"fmt"
	"maps"
	"regexp"
	"strings"
	"sync/atomic"

	"corvek/core/family"
	"corvek/core/field"
	"corvek/internal/store"
)

// catalog is the families that hold now: the shipped ones, with the shop's own
// versions over them.
type catalog struct {
	newest uint // of the shop's versions that are in it
	lib    family.Library
	own    map[string]bool
}

// shelf keeps the catalog; several instances of the application see one
// another's changes because each asks the store for the newest version.
type shelf struct {
	shipped family.Library
	now     atomic.Pointer[catalog]
	tools   atomic.Pointer[map[string]store.Instrument]
	counts  atomic.Pointer[map[string]map[string]int] // concluded causes of closed jobs, by family
}

// Families are the families that hold now.
func (s *Service) Families() family.Library { return s.shelf.now.Load().lib }

// OwnFamily reports that the shop wrote its own version of a family.
func (s *Service) OwnFamily(code string) bool { return s.shelf.now.Load().own[code] }

// RefreshFamilies takes up what the shop changed in the Library and among its
// measuring tools. A version that
// can no longer be read is passed over, so that an upgrade never stops a shop.
func (s *Service) RefreshFamilies(ctx context.Context) error {
	if err := s.loadInstruments(ctx); err != nil {
		return err
	}
	counts, err := s.Store.ConcludedCauses(ctx)
	if err != nil {
		return err
	}
	s.shelf.counts.Store(&counts)
	newest, err := s.Store.NewestFamily(ctx)
	if err != nil {
		return err
	}
	if newest == s.shelf.now.Load().newest {
		return nil
	}
	versions, err := s.Store.FamiliesNow(ctx)
	if err != nil {
		return err
	}
	c := &catalog{newest: newest, lib: maps.Clone(s.shelf.shipped), own: map[string]bool{}}
	for _, v := range versions {
		if f, err := family.Load(v.Code+".yaml", []byte(v.Text)); err == nil {
			c.lib[v.Code], c.own[v.Code] = f, true
		}
	}
	s.shelf.now.Store(c)
	return nil
}

var familyCode = regexp.MustCompile(`^[a-z][a-z0-9_]{2,39}$`)

// SaveFamily keeps a new version of a family, or a new family. The text must
// load; the error names its line.
func (s *Service) SaveFamily(ctx context.Context, who Actor, code, text, reason string) error {
	if !who.May(RoleLead) {
		return ErrForbidden
	}
	reason = strings.TrimSpace(reason)
	switch {
	case !familyCode.MatchString(code):
		return field.Errorf("code", "is small letters, figures and _, like small_gear_pump")
	case len(text) > 1<<20:
		return field.Errorf("text", "is longer than 1 MB")
	case reason == "":
		return field.Errorf("reason", "say what was changed and why")
	}
	f, err := family.Load(code+".yaml", []byte(text))
	if err != nil {
		return field.Errorf("text", "%s", err)
	}
	if f.Code != code {
		return field.Errorf("text", "%s.yaml:1: the code in the text is %q; it must be %q", code, f.Code, code)
	}
	now := s.Now()
	if err := s.Store.SaveFamily(ctx, &store.FamilyVersion{Code: code, Text: text, Reason: reason, ByName: who.Name, At: now}); err != nil {
		return err
	}
	return s.RefreshFamilies(ctx)
}

// FamilyText is a family as it is written now.
func (s *Service) FamilyText(ctx context.Context, code string) (string, error) {
	history, err := s.Store.FamilyHistory(ctx, code)
	if err != nil {
		return "", err
	}
	if len(history) > 0 {
		return history[0].Text, nil
	}
	text, err := family.ShippedText(code)
	if err != nil {
		return "", fmt.Errorf("%w: %s", store.ErrNotFound, code)
	}
	return text, nil
}

// concluded is how often the shop's closed jobs ended with each cause.
func (s *Service) concluded(code string) map[string]int {
	if counts := s.shelf.counts.Load(); counts != nil {
		return (*counts)[code]
	}
	return nil
}
