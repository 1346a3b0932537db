package jobpages

import (
	"errors"
	"net/http"
	"path/filepath"
	"strconv"
	"strings"

	"corvek/core/bench"
	"corvek/core/field"
	"corvek/internal/job"
	"corvek/internal/picture"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

func (s *Pages) addPicture(c *echo.Context) error {
	head, err := c.FormFile("picture")
	if err != nil {
		return field.Errorf("picture", "choose a picture")
	}
	if head.Size > picture.MaxBytes {
		return field.Errorf("picture", "%s", picture.ErrTooBig)
	}
	f, err := head.Open()
	if err != nil {
		return err
	}
	defer f.Close()
	taken, err := picture.Take(f)
	if err != nil {
		for _, known := range []error{picture.ErrTooBig, picture.ErrKind, picture.ErrPixels, picture.ErrDamaged} {
			if errors.Is(err, known) {
				return field.Errorf("picture", "%s", err)
			}
		}
		return err
	}
	name := clippedName(strings.TrimSuffix(filepath.Base(head.Filename), filepath.Ext(head.Filename)))
	number, err := s.Jobs.AddPicture(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c),
		job.Picture{Taken: taken, Part: c.FormValue("part"), Mark: c.FormValue("mark"), Name: name,
			Caption: c.FormValue("caption"), BeforeCleaning: c.FormValue("before_cleaning") == "yes"})
	if err != nil {
		return err
	}
	return site.OK(c, map[string]any{"go": "/jobs/" + c.Param("tag") + "/pictures/" + strconv.Itoa(number)})
}

// pictureNo is the number of the picture in the address.
func pictureNo(c *echo.Context) (int, error) {
	n, err := strconv.Atoi(c.Param("number"))
	if err != nil {
		return 0, echo.ErrNotFound
	}
	return n, nil
}

// picture serves one picture; ?thumb gives the small one where there is one.
func (s *Pages) picture(c *echo.Context) error {
	id, err := pictureNo(c)
	if err != nil {
		return err
	}
	content, mediaType, err := s.Store.Picture(c.Request().Context(), c.Param("tag"), id)
	if err != nil {
		return err
	}
	h := c.Response().Header()
	h.Set("Cache-Control", "private, max-age=86400")
	// A drawn picture could carry script when it is opened by itself.
	h.Set("Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'; sandbox")
	if c.QueryParam("thumb") != "" && len(content.Thumb) > 0 {
		return c.Blob(http.StatusOK, "image/jpeg", content.Thumb)
	}
	return c.Blob(http.StatusOK, mediaType, content.Bytes)
}

// PicturesPage is all pictures of a job.
type PicturesPage struct {
	JobPage
	Pictures []*PictureView
	Parts    []*bench.Part
}

func (s *Pages) pictures(c *echo.Context) error {
	l, err := s.look(c, "handover")
	if err != nil {
		return err
	}
	return s.renderBeside(c, "pictures", "Pictures", l, PicturesPage{l.page(), l.pictures(), l.st.Parts})
}
