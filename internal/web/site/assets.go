package site

import (
	"bytes"
	"compress/gzip"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"io/fs"
	"maps"
	"mime"
	"net/http"
	"path"
	"slices"
	"strings"
	"time"

	"corvek/internal/draw"
	"corvek/internal/web/site/static"

	"github.com/labstack/echo/v5"
)

// Styles are the style sheets in the order in which they are laid over one
// another; the pages get them as one file.
var Styles = []string{
	"lib/bulma.min.css", "lib/uplot-1.6.32.min.css",
	"css/tokens.css", "css/fonts.css", "css/base.css", "css/drawing.css", "css/shell.css", "css/sheet.css",
	"css/field.css", "css/run.css", "css/columns.css", "css/verdict.css", "css/measure.css", "css/prove.css",
	"css/stations.css", "css/plan.css", "css/stock.css", "css/figures.css", "css/practice.css",
	"css/narrow.css", "css/paper.css",
}

// asset is a static file as it is sent.
type asset struct {
	content, gzipped []byte
	kind             string
}

// assets are the static files by their path. Their address holds a hash of them
// all, so that a browser keeps them for good and asks anew after an upgrade.
type assets struct {
	files map[string]asset
	hash  string
}

// loadAssets gathers the static files of the site and the style sheets of its rooms.
func loadAssets(rooms []Room) (*assets, error) {
	a := &assets{files: map[string]asset{}}
	sum := sha256.New()
	gather := func(files fs.FS, root string) error {
		return fs.WalkDir(files, root, func(name string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() {
				return err
			}
			content, err := fs.ReadFile(files, name)
			if err != nil {
				return err
			}
			a.add(name, content)
			sum.Write([]byte(name))
			sum.Write(content)
			return nil
		})
	}
	if err := gather(static.Files, "."); err != nil {
		return nil, err
	}
	for _, room := range rooms {
		if room.Files == nil {
			continue
		}
		if err := gather(room.Files, "css"); err != nil && !errors.Is(err, fs.ErrNotExist) {
			return nil, err
		}
	}
	// Pages and papers draw with the same looks; they stand where the drawings are.
	for name, text := range map[string]string{"css/tokens.css": draw.Tokens, "css/drawing.css": draw.Styles} {
		a.add(name, []byte(text))
	}
	sum.Write([]byte(draw.Tokens + draw.Styles))
	var all bytes.Buffer
	for _, name := range Styles {
		all.Write(a.files[name].content)
		all.WriteByte('\n')
	}
	a.add("css/app.css", all.Bytes())
	a.add("js/app.js", a.scripts())
	a.hash = hex.EncodeToString(sum.Sum(nil))[:12]
	return a, nil
}

// scripts are all of ours in one file, run when Alpine begins. Each registers a component or
// a store and keeps the rest to itself, so that their order tells nothing and nothing is
// global.
func (a *assets) scripts() []byte {
	var all bytes.Buffer
	all.WriteString("document.addEventListener(\"alpine:init\", () => {\n\"use strict\";\n")
	for _, name := range slices.Sorted(maps.Keys(a.files)) {
		if strings.HasPrefix(name, "js/") {
			fmt.Fprintf(&all, "{\n%s}\n", a.files[name].content)
		}
	}
	all.WriteString("});\n")
	return all.Bytes()
}

func (a *assets) add(name string, content []byte) {
	file := asset{content: content, kind: mime.TypeByExtension(path.Ext(name))}
	if strings.HasPrefix(file.kind, "text/") || strings.Contains(file.kind, "svg") ||
		strings.Contains(file.kind, "javascript") {
		var b bytes.Buffer
		z, _ := gzip.NewWriterLevel(&b, gzip.BestCompression)
		_, _ = z.Write(content)
		if z.Close() == nil {
			file.gzipped = b.Bytes()
		}
	}
	a.files[name] = file
}

// faces are the letters of the pages. Each page uses them all, and asks for them before its
// style sheet tells of them; those that still come too late are left to the next page, since
// letters that change move what stands there.
func (a *assets) faces() (out []string) {
	for _, name := range slices.Sorted(maps.Keys(a.files)) {
		if strings.HasSuffix(name, ".woff2") {
			out = append(out, name)
		}
	}
	return out
}

// Asset is the address of a static file.
func (s *Site) Asset(name string) string { return s.assets.url(name) }

// url is the address of a static file.
func (a *assets) url(name string) string { return "/static/" + a.hash + "/" + name }

// serve sends a static file. An address with another hash than today's is still
// answered, but not to be kept: a page from before an upgrade asks for it.
func (a *assets) serve(c *echo.Context) error {
	name := strings.TrimPrefix(path.Clean("/"+c.Param("*")), "/")
	hash, rest, _ := strings.Cut(name, "/")
	file, ok := a.files[rest]
	if !ok {
		return echo.ErrNotFound
	}
	h := c.Response().Header()
	h.Set("Cache-Control", "no-cache")
	if hash == a.hash {
		h.Set("Cache-Control", "public, max-age=31536000, immutable")
	}
	h.Set("Content-Type", file.kind)
	h.Set("Vary", "Accept-Encoding")
	body := file.content
	if file.gzipped != nil && strings.Contains(c.Request().Header.Get("Accept-Encoding"), "gzip") {
		h.Set("Content-Encoding", "gzip")
		body = file.gzipped
	}
	http.ServeContent(c.Response(), c.Request(), "", time.Time{}, bytes.NewReader(body))
	return nil
}
