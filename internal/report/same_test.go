package report_test

import (
	"bytes"
	"context"
	"fmt"
	"reflect"
	"strings"
	"testing"

	"corvek/core/quantity"
	"corvek/demo"
	"corvek/internal/document"
	"corvek/internal/document/documenttest"
	"corvek/internal/job"
	"corvek/internal/report"
	"corvek/internal/whole"

	"github.com/stretchr/testify/require"
	"golang.org/x/net/html"
)

// said are all texts of a paper: drawings are compared as drawings.
func said(v reflect.Value, name string) (out []string) {
	switch v.Kind() {
	case reflect.String:
		switch {
		case v.String() == "" || name == "SVG" || name == "Drawing" || name == "Tone":
		case name == "Verdict":
			return []string{document.VerdictWord(v.String())}
		default:
			return []string{v.String()}
		}
	case reflect.Slice:
		for i := range v.Len() {
			out = append(out, said(v.Index(i), name)...)
		}
	case reflect.Interface:
		return said(v.Elem(), name)
	case reflect.Struct:
		for i := range v.NumField() {
			if t, is := v.Interface().(document.Table); is && len(t.Rows) > 0 && v.Type().Field(i).Name == "None" {
				continue // it stands only where there are no rows
			}
			out = append(out, said(v.Field(i), v.Type().Field(i).Name)...)
		}
	}
	return out
}

func pageText(t *testing.T, d document.Document) string {
	t.Helper()
	var b bytes.Buffer
	require.NoError(t, document.HTML(&b, d))
	root, err := html.Parse(&b)
	require.NoError(t, err)
	var text strings.Builder
	var walk func(n *html.Node)
	walk = func(n *html.Node) {
		if n.Type == html.TextNode {
			text.WriteString(n.Data)
		}
		for c := n.FirstChild; c != nil; c = c.NextSibling {
			walk(c)
		}
	}
	walk(root)
	return documenttest.Squeezed(text.String())
}

// pdfText is what a PDF says, with the foot and the head of each page left out.
func pdfText(t *testing.T, d document.Document) string {
	t.Helper()
	var b bytes.Buffer
	require.NoError(t, document.PDF(&b, d))
	pages := documenttest.Pages(t, b.Bytes())
	require.NotEmpty(t, pages)
	var text strings.Builder
	for i, page := range pages {
		for _, away := range []string{d.Foot, fmt.Sprintf("page %d of %d", i+1, len(pages)),
			strings.Join([]string{d.Tag, d.Kind, d.Title}, "  ·  ")} {
			page = strings.Replace(page, documenttest.Squeezed(away), "", 1)
		}
		text.WriteString(page)
	}
	return text.String()
}

// papers are all papers of a job.
func allPapers(t *testing.T, s *job.Service, tag string) []document.Document {
	t.Helper()
	states, err := s.LoadAll(context.Background(), tag)
	require.NoError(t, err)
	d := data(t, s, tag)
	d.Record = report.Record{Lines: 3, Head: "ab12"}
	d.Opens = "https://corvek.example/jobs/" + tag
	dispute, err := report.Dispute(d, s.Store.Lines(context.Background(), tag))
	require.NoError(t, err)
	return []document.Document{report.Findings(d), report.Certificate(d), report.Card(d), dispute,
		report.NewQuote(states, d, quantity.Metric).Paper(), report.NewBuildSheet(d, quantity.Metric).Paper(),
		report.NewPartsList(states, d).Paper(), report.ToteTag(d)}
}

// Page and PDF say the same, word for word, for every paper of every demo job, on both sheets.
func TestPageAndPDFSayTheSame(t *testing.T) {
	s := service(t)
	docs, err := demo.Documents()
	require.NoError(t, err)
	for i, job := range whole.Of(t, docs) {
		for _, d := range allPapers(t, s, job.Tag()) {
			d.Shop.Size = document.Sizes[i%len(document.Sizes)]
			page, pdf := pageText(t, d), pdfText(t, d)
			texts := said(reflect.ValueOf(d.Blocks), "")
			require.NotEmpty(t, texts)
			for _, text := range append(texts, d.Title, d.Shop.Name, d.Kind) {
				want := documenttest.Squeezed(text)
				if !strings.Contains(page, want) {
					t.Errorf("%s %s: the page lacks %q", d.Tag, d.Kind, text)
				}
				if !strings.Contains(pdf, want) {
					t.Errorf("%s %s: the PDF lacks %q", d.Tag, d.Kind, text)
				}
			}
		}
	}
}
