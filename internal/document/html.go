package document

import (
	"bytes"
	"embed"
	"encoding/base64"
	"fmt"
	"html/template"
	"io"
	"net/http"
	"strings"

	"corvek/internal/draw"
)

//go:embed templates/document.html
var files embed.FS

var templates *template.Template

func init() {
	templates = template.Must(template.New("").Funcs(template.FuncMap{
		"part":        renderBlock,
		"defs":        func() template.HTML { return template.HTML(draw.Defs) },
		"drawing":     func(svg string) template.HTML { return template.HTML(svg) },
		"verdict":     func(v string) template.HTML { return template.HTML(draw.Verdict(v)) },
		"verdictWord": VerdictWord,
	}).ParseFS(files, "templates/document.html"))
}

// HTML writes the paper as a page.
func HTML(w io.Writer, d Document) error { return templates.ExecuteTemplate(w, "document", d) }

// renderBlock lays one block out by the template of its kind.
func renderBlock(d Document, block Block) (template.HTML, error) {
	var b bytes.Buffer
	var data any = block
	if _, is := block.(Code); is {
		data = d.CodeDrawing()
	}
	err := templates.ExecuteTemplate(&b, block.kind(), data)
	return template.HTML(b.String()), err
}

// VerdictWord writes a verdict for paper: what is out is loud.
func VerdictWord(verdict string) string {
	return map[string]string{"in": "in", "out": "OUT", "undecided": "undecided"}[verdict]
}

// AddressLines are the lines of the shop's address.
func (d Document) AddressLines() []string {
	if d.Shop.Address == "" {
		return nil
	}
	return strings.Split(d.Shop.Address, "\n")
}

// MarkAddress is the shop's mark, inside the page.
func (d Document) MarkAddress() template.URL {
	if len(d.Shop.Mark) == 0 {
		return ""
	}
	return template.URL("data:" + http.DetectContentType(d.Shop.Mark) + ";base64," +
		base64.StdEncoding.EncodeToString(d.Shop.Mark))
}

// CodeDrawing is the code that opens the job.
func (d Document) CodeDrawing() template.HTML { return template.HTML(codeSVG(d.Opens)) }

// HeadCode is the code at the head of the page, "" where it stands in the paper.
func (d Document) HeadCode() template.HTML {
	if !d.codeAtHead() {
		return ""
	}
	return d.CodeDrawing()
}

// Columns are the widths of the columns in percent.
func (t Table) Columns() []string {
	sum := 0.0
	for _, s := range t.Shares {
		sum += s
	}
	out := make([]string, len(t.Shares))
	for i, s := range t.Shares {
		out[i] = fmt.Sprintf("%.1f", 100*s/sum)
	}
	return out
}
