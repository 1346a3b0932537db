package job

import (
	"context"
	"fmt"
	"maps"
	"regexp"
	"slices"
	"strings"
	"sync"
	"sync/atomic"

	"corvek/core/bench"
	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/shop"
	"corvek/core/unit"
	"corvek/internal/people"
	"corvek/internal/store"

	lru "github.com/hashicorp/golang-lru/v2"
)

// catalog is what the shop keeps beside its jobs as it stands now: the families, the shipped
// ones with the shop's own versions over them, its tools, and what its closed jobs teach.
type catalog struct {
	bench.Catalog
	own    map[string]bool // families that the shop wrote a version of
	sheets []store.SheetVersion
	sites  []string // shops of one owner
	of     *catalog // of a bench of practice: the shop's

	units *lru.Cache[asUnit, *family.Family] // families as they are for units, by what makes them so
}

// asUnit is what makes a unit's family another than the plain one.
type asUnit struct{ family, variant, more, rotation string }

// keptUnits is how many families of single units are held in memory.
const keptUnits = 256

func newCatalog(lib family.Library) *catalog {
	units, _ := lru.New[asUnit, *family.Family](keptUnits) // refuses no size above zero
	c := &catalog{Catalog: bench.Catalog{Plain: lib}, units: units}
	c.Families = c.familyOf
	return c
}

// familyOf is the family as it is for one unit: with its variant, and with the
// assemblies that it has more of. Nil where the library has no such family.
func (c *catalog) familyOf(u *unit.Unit) *family.Family {
	plain := c.Plain[u.Family]
	if plain == nil {
		return nil
	}
	if plain.VariantNamed(u.Variant) == nil && len(u.More) == 0 && plain.Turning(u.Rotation) == plain {
		return plain
	}
	key := asUnit{u.Family, u.Variant, "", u.Rotation}
	for _, code := range slices.Sorted(maps.Keys(u.More)) {
		key.more += code + "=" + u.More[code] + " "
	}
	if f, ok := c.units.Get(key); ok {
		return f
	}
	f, err := plain.As(u.Variant, u.MoreOf())
	if err != nil { // the shop's family was changed under it
		return plain.Turning(u.Rotation)
	}
	f = f.Turning(u.Rotation)
	c.units.Add(key, f)
	return f
}

// shelf keeps the catalog. Several instances of the application see one
// another's changes because each asks for the shop's version with every request.
type shelf struct {
	shipped family.Library
	now     atomic.Pointer[catalog]
	fill    sync.Mutex
}

// catalog is what is known now. On a bench of practice that is what the shop knows, without its tools, its sheets and
// its name: what is measured there is not measured with them, and what is printed is not its word.
func (s *Service) catalog() *catalog {
	now := s.shelf.now.Load()
	if s.of == nil {
		return now
	}
	if own := s.bench.Load(); own != nil && own.of == now {
		return own
	}
	own := *now
	own.of, own.Tools, own.sheets, own.Lessons = now, shop.Instruments{}, nil, nil
	own.Head = shop.Letterhead{Practice: true, Name: "PRACTICE",
		Address: "made up; this is no unit of a customer, and nothing here stands for one"}
	s.bench.Store(&own)
	return &own
}

// Families are the families that hold now.
func (s *Service) Families() family.Library { return s.catalog().Plain }

// OwnFamily reports that the shop wrote its own version of a family.
func (s *Service) OwnFamily(code string) bool { return s.catalog().own[code] }

// Known is what a shop knows beside its jobs now.
type Known struct {
	Catalog *bench.Catalog
	Entry   *entry.Shop // to write in somebody's name
}

// Known gives it.
func (s *Service) Known(ctx context.Context, who string) (Known, error) {
	if err := s.Refresh(ctx); err != nil {
		return Known{}, err
	}
	c := s.catalog()
	return Known{&c.Catalog, s.shop(c, who)}, nil
}

// Refresh takes up what the shop changed in the Library and among its tools.
func (s *Service) Refresh(ctx context.Context) error {
	if s.of != nil {
		return s.of.Refresh(ofNoJob(ctx))
	}
	if g, ok := ctx.Value(glanceKey{}).(store.Glance); ok {
		return s.refresh(ctx, g.Shop)
	}
	version, err := s.Store.ShopVersion(ctx)
	if err != nil {
		return err
	}
	return s.refresh(ctx, version)
}

// refresh reads the catalog anew when the shop's version is another. A family
// version that can no longer be read is passed over, so that an upgrade never
// stops a shop.
func (s *Service) refresh(ctx context.Context, version int64) error {
	if s.of != nil {
		return s.Refresh(ctx)
	}
	if s.shelf.now.Load().Version == version {
		return nil
	}
	s.shelf.fill.Lock()
	defer s.shelf.fill.Unlock()
	if s.shelf.now.Load().Version >= version {
		return nil
	}
	c := newCatalog(maps.Clone(s.shelf.shipped))
	c.Version, c.own, c.Tools = version, map[string]bool{}, shop.Instruments{}
	var err error
	if c.Head, err = s.Store.Letterhead(ctx); err != nil {
		return err
	}
	versions, err := s.Store.FamiliesNow(ctx)
	if err != nil {
		return err
	}
	for _, v := range versions {
		if strings.Contains(v.Code, "/") {
			continue
		}
		text, _ := family.WithoutSizes([]byte(v.Text)) // one of an earlier version had some
		if f, err := family.Load(v.Code+".yaml", text); err == nil {
			c.Plain[v.Code], c.own[v.Code] = f, true
		}
	}
	c.addVariants(versions)
	tools, err := s.Store.Instruments(ctx)
	if err != nil {
		return err
	}
	for _, t := range tools {
		c.Tools[strings.ToLower(t.Name)] = t
	}
	if c.sites, err = s.Store.Sites(ctx); err != nil {
		return err
	}
	if c.sheets, err = s.Store.SheetsNow(ctx); err != nil {
		return err
	}
	if c.Lessons, err = s.Store.Lessons(ctx); err != nil {
		return err
	}
	if c.Concluded, err = s.Store.ConcludedCauses(ctx); err != nil {
		return err
	}
	s.shelf.now.Store(c)
	return nil
}

var familyCodeForm = regexp.MustCompile(`^[a-z][a-z0-9_]{2,39}$`)

// SaveFamily keeps a new version of a family, or a new family. The text must
// load; the error names its line.
func (s *Service) SaveFamily(ctx context.Context, who people.Actor, code, text, reason string) error {
	if !who.May(people.RoleLead) {
		return people.ErrForbidden
	}
	reason = strings.TrimSpace(reason)
	switch {
	case !familyCodeForm.MatchString(code):
		return field.Errorf("code", "is small letters, figures and _, like small_gear_pump")
	case len(text) > family.MostText:
		return field.Errorf("text", "is longer than %d kB", family.MostText>>10)
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
	return s.keepVersion(ctx, &store.FamilyVersion{Code: code, Text: text, Reason: reason, ByName: who.Name,
		At: s.moment()})
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
