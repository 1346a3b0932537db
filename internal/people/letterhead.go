package people

import (
	"context"
	"errors"
	"io"
	"net/url"
	"strings"

	"corvek/core/field"
	"corvek/core/shop"
	"corvek/internal/picture"
)

// Bounds of a letterhead.
const (
	mostAddressLines   = 6
	mostAddressLetters = 300
	mostSite           = 200
	mostMark           = 1 << 20 // bytes as it is sent
)

// SaveLetterhead changes what stands at the head of the papers. mark is a new mark, nil keeps
// the one there is; drop takes it away.
func (s *Service) SaveLetterhead(ctx context.Context, by Actor, h shop.Letterhead, mark io.Reader, drop bool,
) error {
	if !by.May(RoleLead) {
		return ErrForbidden
	}
	was, err := s.Store.Letterhead(ctx)
	if err != nil {
		return err
	}
	if h.Name, err = ShopName(h.Name); err != nil {
		return err
	}
	if h.Address, err = address(h.Address); err != nil {
		return err
	}
	if h.Site, err = site(h.Site); err != nil {
		return err
	}
	if h.Sheet != "a4" && h.Sheet != "letter" {
		return field.Errorf("sheet", "is A4 or Letter")
	}
	h.Mark = was.Mark
	switch {
	case drop:
		h.Mark = nil
	case mark != nil:
		if h.Mark, err = picture.Mark(io.LimitReader(mark, mostMark+1)); err != nil {
			return field.Errorf("mark", "%s", err)
		}
	}
	return s.Store.SaveLetterhead(ctx, h, by.Name)
}

// address tidies the lines of an address.
func address(typed string) (string, error) {
	var lines []string
	for _, line := range strings.Split(typed, "\n") {
		if line = strings.Join(strings.Fields(line), " "); line != "" {
			lines = append(lines, line)
		}
	}
	out := strings.Join(lines, "\n")
	if len(lines) > mostAddressLines || len([]rune(out)) > mostAddressLetters {
		return "", field.Errorf("address", "is longer than %d lines or %d letters", mostAddressLines,
			mostAddressLetters)
	}
	return out, nil
}

// errSite says what an address of the pages looks like.
var errSite = errors.New("is an address like https://corvek.tarn.example, without anything behind")

// site tidies the address at which the pages are opened.
func site(typed string) (string, error) {
	typed = strings.TrimRight(strings.TrimSpace(typed), "/")
	if typed == "" {
		return "", nil
	}
	u, err := url.Parse(typed)
	if err != nil || len(typed) > mostSite || u.Scheme != "http" && u.Scheme != "https" || u.Host == "" ||
		u.Path != "" || u.RawQuery != "" || u.Fragment != "" || u.User != nil {
		return "", field.Errorf("site", "%s", errSite)
	}
	return typed, nil
}
