package job

import (
	"context"
	"strings"

	"corvek/core/family"
	"corvek/core/field"
	"corvek/internal/people"
	"corvek/internal/store"
)

// The shop's own variant of a family is kept among the versions of families, under
// the family's code and its own.
func ownVariant(familyCode, code string) string { return familyCode + "/" + code }

// addVariants puts the shop's own variants beside those of their families. One that
// no longer fits its family is passed over, so that an upgrade never stops a shop.
func (c *catalog) addVariants(versions []store.FamilyVersion) {
	for _, v := range versions {
		of, _, own := strings.Cut(v.Code, "/")
		f := c.Plain[of]
		if !own || f == nil || v.Text == "" {
			continue
		}
		if with, _, err := f.WithVariant(v.Code, []byte(v.Text)); err == nil {
			c.Plain[of] = with
		}
	}
}

// SaveVariant keeps a new version of a variant of the shop's own; an empty text takes
// it out of use.
func (s *Service) SaveVariant(ctx context.Context, who people.Actor, familyCode, code, text, reason string) error {
	if !who.May(people.RoleLead) {
		return people.ErrForbidden
	}
	f := s.Families()[familyCode]
	reason, text = strings.TrimSpace(reason), strings.TrimSpace(text)
	switch {
	case f == nil:
		return store.ErrNotFound
	case !familyCodeForm.MatchString(code):
		return field.Errorf("code", "is small letters, figures and _, like long_shaft")
	case len(text) > family.MostText:
		return field.Errorf("text", "is longer than %d kB", family.MostText>>10)
	case reason == "":
		return field.Errorf("reason", "say what was changed and why")
	}
	if text != "" {
		_, is, err := f.WithVariant(code, []byte(text))
		if err != nil {
			return field.Errorf("text", "%s", err)
		}
		if is != code {
			return field.Errorf("text", "the code in the text must be %q", code)
		}
	}
	return s.keepVersion(ctx, &store.FamilyVersion{Code: ownVariant(familyCode, code), Text: text, Reason: reason,
		ByName: who.Name, At: s.moment()})
}

func (s *Service) keepVersion(ctx context.Context, v *store.FamilyVersion) error {
	if err := s.Store.SaveFamily(ctx, v); err != nil {
		return err
	}
	version, err := s.Store.ShopVersion(ctx)
	if err != nil {
		return err
	}
	return s.refresh(ctx, version)
}
