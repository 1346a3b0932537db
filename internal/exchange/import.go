package exchange

import (
	"archive/zip"
	"context"
	"errors"
	"fmt"
	"io"

	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/picture"
	"corvek/internal/store"
)

// ErrTagTaken says that a job of this tag is there already.
var ErrTagTaken = store.ErrTagTaken

// Files gives the content of an attachment by the name in the document.
type Files func(name string) ([]byte, error)

// OpenZip reads a zip written by Write.
func OpenZip(r io.ReaderAt, size int64) (*Document, Files, error) {
	z, err := zip.NewReader(r, size)
	if err != nil {
		return nil, nil, fmt.Errorf("this is not a zip file: %w", err)
	}
	if len(z.File) > maxFiles {
		return nil, nil, fmt.Errorf("the zip holds %d files; at most %d are read", len(z.File), maxFiles)
	}
	files := func(name string) ([]byte, error) { return readZip(z, name, MaxAttachment) }
	text, err := readZip(z, "job.json", MaxDocument)
	if err != nil {
		return nil, nil, err
	}
	d, err := Parse(text)
	return d, files, err
}

func readZip(z *zip.Reader, name string, most int64) ([]byte, error) {
	f, err := z.Open(name)
	if err != nil {
		return nil, fmt.Errorf("the zip has no %s", name)
	}
	defer f.Close()
	// Read one byte over the limit: a header may lie about the size.
	text, err := io.ReadAll(io.LimitReader(f, most+1))
	if err == nil && int64(len(text)) > most {
		err = fmt.Errorf("%s is larger than %d MB", name, most>>20)
	}
	return text, err
}

// Import stores the job of a document in one go. It is held to the same checks
// as typing; a *field.Error names the path of a value that is refused, and
// nothing of the job is kept then.
func Import(ctx context.Context, s *job.Service, d *Document, files Files, who string) error {
	taken, err := s.Store.TagTaken(ctx, d.Tag())
	if err != nil {
		return err
	}
	if taken {
		return fmt.Errorf("%s: %w", d.Tag(), ErrTagTaken)
	}
	shop, err := s.Shop(ctx, who)
	if err != nil {
		return err
	}
	j, record, sources, err := read(d, shop)
	if err != nil {
		return err
	}
	contents, size := map[int]store.Content{}, 0
	for i, p := range j.Pictures {
		content, err := files(sources[i])
		if err != nil {
			return field.Errorf(d.asWritten(fmt.Sprintf("pictures[%d].file", i)), "%s", err)
		}
		if size += len(content); size > maxPictures {
			return field.Errorf(d.asWritten(fmt.Sprintf("pictures[%d].file", i)), "makes more than %d MB of pictures",
				maxPictures>>20)
		}
		if contents[p.Number], err = takePicture(p, content); err != nil {
			return field.Errorf(d.asWritten(fmt.Sprintf("pictures[%d]", i)), "%s: %s", sources[i], err)
		}
	}
	return s.BringIn(ctx, who, j, record, contents)
}

// takePicture looks that a picture is one and takes its size. A drawn picture is
// served so that it can run nothing.
func takePicture(p *unit.Picture, content []byte) (c store.Content, err error) {
	c.Bytes = content
	switch p.MediaType {
	case "image/svg+xml":
		return c, nil
	case "image/jpeg", "image/png", "image/webp":
		p.Width, p.Height, c.Thumb, err = picture.Look(content)
		return c, err
	}
	return c, errors.New("pictures are JPEG, PNG, WebP or SVG")
}
