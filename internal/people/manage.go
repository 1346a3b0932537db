package people

import (
	"context"
	"fmt"
	"strings"

	"corvek/core/field"
	"corvek/internal/store"
)

// Form is a person as typed.
type Form struct {
	SignIn, Name, Initials, Role, Password string

	FirstCases string // units of practice that come before a job of his own; "" for none
}

// person checks the form of somebody new.
func (s *Service) person(f Form) (*store.Person, error) {
	name, err := cleanName(f.Name)
	if err != nil {
		return nil, err
	}
	signIn, err := cleanSignIn(f.SignIn)
	if err != nil {
		return nil, err
	}
	initials, err := cleanInitials(f.Initials, name)
	if err != nil {
		return nil, err
	}
	role, err := cleanRole(f.Role)
	if err != nil {
		return nil, err
	}
	first, err := cleanFirst(f.FirstCases)
	if err != nil {
		return nil, err
	}
	if err := checkPassword("password", f.Password, signIn); err != nil {
		return nil, err
	}
	hash, err := s.hash(f.Password)
	if err != nil {
		return nil, err
	}
	return &store.Person{SignIn: signIn, Name: name, Initials: initials, Role: role, PasswordHash: hash,
		FirstCases: first}, nil
}

// Add keeps a new person.
func (s *Service) Add(ctx context.Context, by Actor, f Form) error {
	if !by.May(RoleLead) {
		return ErrForbidden
	}
	p, err := s.person(f)
	if err != nil {
		return err
	}
	return fieldError(s.Store.AddPerson(ctx, p, by.Name, "added "+p.Name+", "+p.Role), "sign_in")
}

// Begin names an empty shop and keeps its first lead.
func (s *Service) Begin(ctx context.Context, shop string, f Form) error {
	shop, err := ShopName(shop)
	if err != nil {
		return err
	}
	f.Role = RoleLead
	p, err := s.person(f)
	if err != nil {
		return err
	}
	return fieldError(s.Store.FirstLead(ctx, shop, p), "sign_in")
}

// ShopName is a shop's name as it is kept.
func ShopName(typed string) (string, error) {
	name := strings.Join(strings.Fields(typed), " ")
	switch {
	case name == "":
		return "", field.Errorf("shop", "is what stands at the head of the papers")
	case len([]rune(name)) > mostName:
		return "", field.Errorf("shop", "is longer than %d letters", mostName)
	}
	return name, nil
}

// Change renews a person's name, initials, role and what comes before a job of his own.
func (s *Service) Change(ctx context.Context, by Actor, id uint, f Form) error {
	if !by.May(RoleLead) {
		return ErrForbidden
	}
	name, err := cleanName(f.Name)
	if err != nil {
		return err
	}
	initials, err := cleanInitials(f.Initials, name)
	if err != nil {
		return err
	}
	role, err := cleanRole(f.Role)
	if err != nil {
		return err
	}
	first, err := cleanFirst(f.FirstCases)
	if err != nil {
		return err
	}
	return s.change(ctx, id, by, func(p *store.Person) (string, error) {
		asked := ""
		if p.FirstCases != first {
			asked = fmt.Sprintf("asked %d units of practice of %s before a job of his own", first, name)
		}
		if first == 0 && asked != "" {
			asked = "let " + name + " off what was left of his first units of practice"
		}
		p.FirstCases = first
		if p.Name == name && p.Initials == initials && p.Role == role {
			return asked, nil
		}
		was := p.Name + ", " + p.Role
		if p.Role != role {
			p.Entry++ // what he has open was opened with other rights
		}
		p.Name, p.Initials, p.Role = name, initials, role
		return strings.TrimSuffix("changed "+was+" to "+name+", "+role+"; "+asked, "; "), nil
	})
}

// Lock keeps a person out, at once, or lets him in again.
func (s *Service) Lock(ctx context.Context, by Actor, id uint, lock bool) error {
	if !by.May(RoleLead) {
		return ErrForbidden
	}
	return s.change(ctx, id, by, func(p *store.Person) (string, error) {
		switch {
		case lock && p.LockedAt == nil:
			now := s.Now()
			p.LockedAt = &now
			p.Entry++
			return "locked " + p.Name, nil
		case !lock && p.LockedAt != nil:
			p.LockedAt = nil
			return "let " + p.Name + " in again", nil
		}
		return "", nil
	})
}

// NewPassword gives a person another password, which ends all his sessions. own
// is his present one where he does it himself; a lead needs none for others.
func (s *Service) NewPassword(ctx context.Context, by Actor, id uint, own, password string) error {
	self := by.ID == id
	if !self && !by.May(RoleLead) {
		return ErrForbidden
	}
	return s.change(ctx, id, by, func(p *store.Person) (string, error) {
		if self && !fits(p.PasswordHash, own) {
			return "", field.Errorf("own", "is not your present password")
		}
		if err := checkPassword("password", password, p.SignIn); err != nil {
			return "", err
		}
		hash, err := s.hash(password)
		if err != nil {
			return "", err
		}
		p.PasswordHash = hash
		p.Entry++
		return "gave " + p.Name + " another password", nil
	})
}

// QuickEntry sets what a person takes over a bench with: a code of four digits, a
// badge as scanned. What is empty stays as it is.
func (s *Service) QuickEntry(ctx context.Context, by Actor, id uint, code, badge string) error {
	if by.ID != id && !by.May(RoleLead) {
		return ErrForbidden
	}
	code, badge = strings.TrimSpace(code), strings.TrimSpace(badge)
	switch {
	case code == "" && badge == "":
		return field.Errorf("code", "or a badge is missing")
	case code != "" && !codeShape.MatchString(code):
		return field.Errorf("code", "is four digits")
	case code != "" && plain(code):
		return field.Errorf("code", "is too easy to guess; take other digits")
	case badge != "" && len([]rune(badge)) < leastBadge:
		return field.Errorf("badge", "reads too short to be a badge: at least %d letters or figures", leastBadge)
	case len(badge) > mostBadge:
		return field.Errorf("badge", "reads longer than %d letters", mostBadge)
	case codeShape.MatchString(badge):
		return field.Errorf("badge", "is four digits, which is a code")
	}
	codeHash := ""
	if code != "" {
		var err error
		if codeHash, err = s.hash(code); err != nil {
			return err
		}
	}
	return s.change(ctx, id, by, func(p *store.Person) (string, error) {
		if badge != "" {
			p.BadgeHash = badgeHash(badge)
		}
		if code != "" {
			p.CodeHash = codeHash
		}
		switch {
		case badge == "":
			return "gave " + p.Name + " a code", nil
		case code == "":
			return "gave " + p.Name + " a badge", nil
		}
		return "gave " + p.Name + " a code and a badge", nil
	})
}

// NoQuickEntry takes code and badge away from a person.
func (s *Service) NoQuickEntry(ctx context.Context, by Actor, id uint) error {
	if by.ID != id && !by.May(RoleLead) {
		return ErrForbidden
	}
	return s.change(ctx, id, by, func(p *store.Person) (string, error) {
		p.CodeHash, p.BadgeHash = "", ""
		return "took code and badge from " + p.Name, nil
	})
}

// plain are codes of one digit, or that count up or down.
func plain(code string) bool {
	step := int(code[1]) - int(code[0])
	if step < -1 || step > 1 {
		return false
	}
	for i := 1; i < len(code); i++ {
		if int(code[i])-int(code[i-1]) != step {
			return false
		}
	}
	return true
}

func (s *Service) change(ctx context.Context, id uint, by Actor, f func(*store.Person) (string, error)) error {
	return fieldError(s.Store.ChangePerson(ctx, id, by.Name, f), "badge")
}

// FromShell adds a person, or renews name, role and password of one, without
// anybody being signed in: whoever runs the command holds the store anyway.
func (s *Service) FromShell(ctx context.Context, f Form) error {
	p, err := s.person(f)
	if err != nil {
		return err
	}
	const by = "the command line"
	was, err := s.Store.PersonBySignIn(ctx, p.SignIn)
	if err != nil {
		return fieldError(s.Store.AddPerson(ctx, p, by, "added "+p.Name+", "+p.Role), "sign_in")
	}
	return fieldError(s.Store.ChangePerson(ctx, was.ID, by, func(now *store.Person) (string, error) {
		now.Name, now.Initials, now.Role, now.PasswordHash = p.Name, p.Initials, p.Role, p.PasswordHash
		now.LockedAt = nil
		now.Entry++
		return "renewed " + p.Name + ", " + p.Role, nil
	}), "sign_in")
}
