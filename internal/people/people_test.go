package people_test

import (
	"context"
	"errors"
	"strings"
	"sync"
	"testing"
	"time"

	"corvek/core/field"
	"corvek/internal/people"
	"corvek/internal/store"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/crypto/bcrypt"
)

func TestMain(m *testing.M) { storetest.Main(m) }

const password = "seven leaves"

var lead = people.Actor{Name: "Odd Renfeld", Role: people.RoleLead}

// shop gives a shop with the lead odd and the technician iva.
func shop(t *testing.T) (*people.Service, *store.Store, map[string]*store.Person) {
	t.Helper()
	s, ctx := storetest.New(t), context.Background()
	p := &people.Service{Store: s, Now: time.Now, Cost: bcrypt.MinCost}
	require.NoError(t, p.Begin(ctx, "Harbour Hydraulics", people.Form{SignIn: "Odd", Name: "Odd Renfeld",
		Password: password}))
	require.NoError(t, p.Add(ctx, lead, people.Form{SignIn: "iva", Name: "Iva Brask", Role: people.RoleTechnician,
		Password: password}))
	list, err := s.People(ctx)
	require.NoError(t, err)
	by := map[string]*store.Person{}
	for i := range list {
		by[list[i].SignIn] = &list[i]
	}
	return p, s, by
}

func TestInitials(t *testing.T) {
	for name, want := range map[string]string{
		"Iva Brask": "IB", "øyvind åse": "ØÅ", "  Nia  ": "N", "Jan van der Meer Olsen": "JVDM", "O'Neil Ann": "OA",
		"\"Bo\" Lund": "BL", "": "", "1 2": "", "Šárka Čapková": "ŠČ",
	} {
		assert.Equal(t, want, people.Initials(name), name)
	}
}

func TestWhatIsTypedForAPersonIsChecked(t *testing.T) {
	p, _, _ := shop(t)
	good := people.Form{SignIn: "nia", Name: "Nia Holt", Role: people.RoleViewer, Password: password}
	for name, c := range map[string]struct {
		change func(*people.Form)
		field  string
	}{
		"no name":           {func(f *people.Form) { f.Name = " " }, "name"},
		"long name":         {func(f *people.Form) { f.Name = strings.Repeat("n", 81) }, "name"},
		"two words":         {func(f *people.Form) { f.SignIn = "nia holt" }, "sign_in"},
		"control":           {func(f *people.Form) { f.SignIn = "nia\n" + "x" }, "sign_in"},
		"taken, capitals":   {func(f *people.Form) { f.SignIn = "IVA" }, "sign_in"},
		"king":              {func(f *people.Form) { f.Role = "king" }, "role"},
		"short password":    {func(f *people.Form) { f.Password = "1234567" }, "password"},
		"long password":     {func(f *people.Form) { f.Password = strings.Repeat("ø", 37) }, "password"},
		"the name itself":   {func(f *people.Form) { f.SignIn, f.Password = "niaholt12", "NiaHolt12" }, "password"},
		"odd initials":      {func(f *people.Form) { f.Initials = "<b>" }, "initials"},
		"initials too long": {func(f *people.Form) { f.Initials = "ABCDE" }, "initials"},
	} {
		f := good
		c.change(&f)
		var fe *field.Error
		require.ErrorAs(t, p.Add(t.Context(), lead, f), &fe, name)
		assert.Equal(t, c.field, fe.Field, name)
	}
	assert.NoError(t, p.Add(t.Context(), lead, good))
	assert.ErrorIs(t, p.Add(t.Context(), people.Actor{Role: people.RoleTechnician}, good), people.ErrForbidden)
}

func TestSignInByNameInAnyCase(t *testing.T) {
	p, s, by := shop(t)
	ctx := t.Context()
	got, err := p.SignIn(ctx, " IVA ", password, "192.0.2.1")
	require.NoError(t, err)
	assert.Equal(t, by["iva"].ID, got.ID)
	after, err := s.Person(ctx, got.ID)
	require.NoError(t, err)
	assert.WithinDuration(t, time.Now(), *after.LastSignIn, time.Minute)
	_, err = p.SignIn(ctx, "iva", "wrong", "192.0.2.1")
	assert.ErrorIs(t, err, people.ErrWrong)
	_, err = p.SignIn(ctx, "nobody", "wrong", "192.0.2.1")
	assert.ErrorIs(t, err, people.ErrWrong)
	failed, err := s.FailedSignIns(ctx)
	require.NoError(t, err)
	assert.Equal(t, map[string]int{"iva": 1}, failed)
	tries, err := s.SignIns(ctx, 10)
	require.NoError(t, err)
	require.Len(t, tries, 3)
	assert.Equal(t, "nobody", tries[0].Name)
	assert.True(t, tries[2].OK)
}

// The wait by hand: four tries are free, then 2, 4, 8 … seconds up to five minutes;
// a known address answers for itself alone.
func TestWaitGrows(t *testing.T) {
	for _, c := range []struct {
		t    store.Tries
		want time.Duration
	}{
		{store.Tries{}, 0}, {store.Tries{Pair: 3}, 0}, {store.Tries{Pair: 4}, 2 * time.Second},
		{store.Tries{Pair: 5}, 4 * time.Second}, {store.Tries{Pair: 10}, 128 * time.Second},
		{store.Tries{Pair: 11}, 256 * time.Second}, {store.Tries{Pair: 12}, 5 * time.Minute},
		{store.Tries{Pair: 100000}, 5 * time.Minute},
		{store.Tries{Strange: 6}, 8 * time.Second}, {store.Tries{Strange: 1000, Known: true}, 0},
		{store.Tries{Address: 23}, 0}, {store.Tries{Address: 25}, 4 * time.Second},
		{store.Tries{Address: 500, Known: true}, 0}, {store.Tries{Address: 500}, 5 * time.Second},
	} {
		assert.Equal(t, c.want, people.Wait(c.t), "%+v", c.t)
	}
}

// A stranger who tries a name from elsewhere waits longer and longer; the person
// comes in from his own bench all the same.
func TestAStrangerDelaysHimselfAndNotThePerson(t *testing.T) {
	p, _, _ := shop(t)
	ctx := t.Context()
	_, err := p.SignIn(ctx, "iva", password, "192.0.2.1")
	require.NoError(t, err)
	var early *people.TooEarly
	for i := range 20 {
		// Another address each time does not help him.
		_, err = p.SignIn(ctx, "iva", "guess", "198.51.100."+string(rune('1'+i%9)))
		if errors.As(err, &early) {
			break
		}
		require.ErrorIs(t, err, people.ErrWrong)
	}
	require.NotNil(t, early, "twenty wrong tries were all heard")
	assert.Greater(t, early.Wait, time.Second)
	assert.Contains(t, early.Error(), "try again in")
	_, err = p.SignIn(ctx, "iva", password, "203.0.113.9")
	require.ErrorAs(t, err, &early, "nor does the right password from there")
	_, err = p.SignIn(ctx, "iva", password, "192.0.2.1")
	assert.NoError(t, err, "from her own bench she comes in")
}

// Forty guesses at once are no way round the count.
func TestManyTriesAtOnceAreCountedOneByOne(t *testing.T) {
	p, _, _ := shop(t)
	var heard, refused int
	var mu sync.Mutex
	var wg sync.WaitGroup
	for range 40 {
		wg.Go(func() {
			_, err := p.SignIn(context.Background(), "iva", "guess", "198.51.100.7")
			mu.Lock()
			defer mu.Unlock()
			var early *people.TooEarly
			switch {
			case errors.As(err, &early):
				refused++
			case errors.Is(err, people.ErrWrong):
				heard++
			default:
				t.Error(err)
			}
		})
	}
	wg.Wait()
	assert.Equal(t, 40, heard+refused)
	assert.LessOrEqual(t, heard, 8, "more were heard than the waits allow")
}

func TestLockingChangingAndTheLastLead(t *testing.T) {
	p, s, by := shop(t)
	ctx, odd, iva := t.Context(), by["odd"].ID, by["iva"].ID
	var fe *field.Error
	require.ErrorAs(t, p.Lock(ctx, lead, odd, true), &fe)
	assert.Contains(t, fe.Text, "last lead")
	require.ErrorAs(t, p.Change(ctx, lead, odd, people.Form{Name: "Odd Renfeld", Role: people.RoleViewer}), &fe)
	require.NoError(t, p.Lock(ctx, lead, iva, true))
	_, err := p.SignIn(ctx, "iva", password, "192.0.2.1")
	assert.ErrorIs(t, err, people.ErrWrong, "a locked person is told no more than anybody")
	require.NoError(t, p.Lock(ctx, lead, iva, false))
	was, err := s.Person(ctx, iva)
	require.NoError(t, err)
	require.NoError(t, p.Change(ctx, lead, iva, people.Form{Name: "Iva Brask", Role: people.RoleLead}))
	is, err := s.Person(ctx, iva)
	require.NoError(t, err)
	assert.Equal(t, was.Entry+1, is.Entry, "sessions with the old role end")
	require.NoError(t, p.Change(ctx, lead, odd, people.Form{Name: "Odd Renfeld", Role: people.RoleViewer}))
	assert.ErrorIs(t, p.Lock(ctx, lead, 999, true), store.ErrNotFound)
	lines, err := s.ShopEntries(ctx, 20)
	require.NoError(t, err)
	assert.Equal(t, "changed Odd Renfeld, lead to Odd Renfeld, viewer", lines[0].Action)
	assert.Equal(t, "Odd Renfeld", lines[0].Who)
}

// Two leads who lock each other at the same moment leave one.
func TestTwoLeadsCannotLockEachOther(t *testing.T) {
	p, s, by := shop(t)
	ctx := t.Context()
	require.NoError(t, p.Change(ctx, lead, by["iva"].ID, people.Form{Name: "Iva Brask", Role: people.RoleLead}))
	var wg sync.WaitGroup
	for _, id := range []uint{by["odd"].ID, by["iva"].ID} {
		wg.Go(func() { _ = p.Lock(context.Background(), lead, id, true) })
	}
	wg.Wait()
	list, err := s.People(ctx)
	require.NoError(t, err)
	open := 0
	for _, x := range list {
		if x.LockedAt == nil {
			open++
		}
	}
	assert.Equal(t, 1, open)
}

func TestOwnPassword(t *testing.T) {
	p, _, by := shop(t)
	ctx, iva := t.Context(), by["iva"].ID
	self := people.Actor{ID: iva, Name: "Iva Brask", Role: people.RoleTechnician}
	var fe *field.Error
	require.ErrorAs(t, p.NewPassword(ctx, self, iva, "not it", "eight leaves"), &fe)
	assert.Equal(t, "own", fe.Field)
	require.NoError(t, p.NewPassword(ctx, self, iva, password, "eight leaves"))
	assert.ErrorIs(t, p.NewPassword(ctx, self, by["odd"].ID, "", "eight leaves"), people.ErrForbidden)
	_, err := p.SignIn(ctx, "iva", password, "192.0.2.1")
	require.ErrorIs(t, err, people.ErrWrong)
	_, err = p.SignIn(ctx, "iva", "eight leaves", "192.0.2.1")
	assert.NoError(t, err)
}

func TestCodesAndBadges(t *testing.T) {
	p, _, by := shop(t)
	ctx, iva := t.Context(), by["iva"].ID
	for _, c := range []struct{ code, badge, field string }{
		{"", "", "code"}, {"12", "", "code"}, {"12a4", "", "code"}, {"1111", "", "code"}, {"3456", "", "code"},
		{"9876", "", "code"},
		{"", "short", "badge"}, {"", "1234", "badge"}, {"", strings.Repeat("b", 201), "badge"},
	} {
		var fe *field.Error
		require.ErrorAs(t, p.QuickEntry(ctx, lead, iva, c.code, c.badge), &fe, "%+v", c)
		assert.Equal(t, c.field, fe.Field)
	}
	require.NoError(t, p.QuickEntry(ctx, lead, iva, "2601", "BR-00417-X"))
	var fe *field.Error
	require.ErrorAs(t, p.QuickEntry(ctx, lead, by["odd"].ID, "", "BR-00417-X"), &fe)
	assert.Equal(t, "badge", fe.Field, "a badge is one person's")
	for _, secret := range []string{"2601", password} {
		got, err := p.CodeAtBench(ctx, iva, secret, "192.0.2.1")
		require.NoError(t, err, secret)
		assert.Equal(t, iva, got.ID)
	}
	_, err := p.CodeAtBench(ctx, iva, "2602", "192.0.2.1")
	assert.ErrorIs(t, err, people.ErrWrong)
	_, err = p.CodeAtBench(ctx, by["odd"].ID, "2601", "192.0.2.1")
	assert.ErrorIs(t, err, people.ErrWrong)
	got, err := p.BadgeAtBench(ctx, " BR-00417-X\n", "192.0.2.1")
	require.NoError(t, err)
	assert.Equal(t, iva, got.ID)
	require.NoError(t, p.QuickEntry(ctx, lead, iva, "2605", ""))
	_, err = p.BadgeAtBench(ctx, "BR-00417-X", "192.0.2.1")
	require.NoError(t, err, "a new code leaves the badge alone")
	require.NoError(t, p.NoQuickEntry(ctx, lead, iva))
	_, err = p.BadgeAtBench(ctx, "BR-00417-X", "192.0.2.1")
	assert.ErrorIs(t, err, people.ErrWrong)
	_, err = p.CodeAtBench(ctx, iva, "2605", "192.0.2.1")
	assert.ErrorIs(t, err, people.ErrWrong)
}

// All codes of four digits cannot be tried out: soon each costs minutes.
func TestCodesCannotBeTriedOut(t *testing.T) {
	p, _, by := shop(t)
	require.NoError(t, p.QuickEntry(t.Context(), lead, by["iva"].ID, "2601", ""))
	var early *people.TooEarly
	for i := 0; early == nil && i < 20; i++ {
		_, err := p.CodeAtBench(t.Context(), by["iva"].ID, "2604", "192.0.2.1")
		errors.As(err, &early)
	}
	require.NotNil(t, early)
}

func TestTheFirstLeadIsTheOnlyFirst(t *testing.T) {
	s := storetest.New(t)
	p := &people.Service{Store: s, Now: time.Now, Cost: bcrypt.MinCost}
	var wg sync.WaitGroup
	var mu sync.Mutex
	went := 0
	for _, name := range []string{"ada", "bea", "cid", "dov"} {
		wg.Go(func() {
			if p.Begin(context.Background(), "Shop of "+name, people.Form{SignIn: name, Name: "Lead " + name,
				Password: password}) == nil {
				mu.Lock()
				went++
				mu.Unlock()
			}
		})
	}
	wg.Wait()
	assert.Equal(t, 1, went)
	list, err := s.People(t.Context())
	require.NoError(t, err)
	require.Len(t, list, 1)
	head, err := s.Letterhead(t.Context())
	require.NoError(t, err)
	assert.Equal(t, "Shop of "+list[0].SignIn, head.Name)
	assert.Equal(t, people.RoleLead, list[0].Role)
}

// Nobody can choose what keeps a shop from being opened: the demo's password, told to everybody,
// opens nothing in a shop of its own, however it came there.
func TestTheDemoPasswordOpensNothing(t *testing.T) {
	p, s, by := shop(t)
	hash, err := bcrypt.GenerateFromPassword([]byte(people.DemoPassword), bcrypt.MinCost)
	require.NoError(t, err)
	require.NoError(t, s.ChangePerson(t.Context(), by["iva"].ID, "test", func(p *store.Person) (string, error) {
		p.PasswordHash = string(hash)
		return "gave the demo's password", nil
	}))
	_, err = p.SignIn(t.Context(), "iva", people.DemoPassword, "10.0.0.1")
	require.ErrorIs(t, err, people.ErrPublic)
	_, err = p.CodeAtBench(t.Context(), by["iva"].ID, people.DemoPassword, "10.0.0.1")
	require.ErrorIs(t, err, people.ErrPublic)
	err = p.NewPassword(t.Context(), lead, by["iva"].ID, "", people.DemoPassword)
	require.ErrorContains(t, err, "known to everybody")
	require.NoError(t, p.NewPassword(t.Context(), lead, by["iva"].ID, "", "quite another"))
	_, err = p.SignIn(t.Context(), "iva", "quite another", "10.0.0.1")
	require.NoError(t, err)
	p.Demo = true
	_, err = p.SignIn(t.Context(), "iva", people.DemoPassword, "10.0.0.1")
	require.ErrorIs(t, err, people.ErrWrong)
	require.NoError(t, s.DropOldTries(t.Context()))
}
