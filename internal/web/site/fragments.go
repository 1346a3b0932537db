package site

import (
	"bytes"
	"fmt"
	"hash/fnv"
	"strings"
)

// A page is made of fragments: elements that carry data-fragment, none within another.
// A browser that shows the page says by hasHeader which of them it has, each by its sum,
// and is sent those that are another now.
const (
	HasHeader  = "X-Corvek-Has"  // head:1f2e main:77aa
	PageHeader = "X-Corvek-Page" // the address of the page that shows, at a write
)

// fragment is one of them: where it begins in the page and ends, and the sum of its content.
type fragment struct {
	name       string
	begin, end int
	sum        string
}

// fresh is what a browser lays over the page that it shows.
type fresh struct {
	Title     string            `json:"title"`
	Here      string            `json:"here"`
	Version   int64             `json:"version"` // of the job
	Fragments map[string]string `json:"fragments"`
}

var fragmentMark = []byte(` data-fragment="`)

// fragmentsOf finds the fragments of a page as our templates write it: in text and
// attributes every < is escaped, so that one in the page begins a tag.
func fragmentsOf(page []byte) (list []fragment) {
	at := 0
	for {
		i := bytes.Index(page[at:], fragmentMark)
		if i < 0 {
			return list
		}
		mark := at + i
		begin := bytes.LastIndexByte(page[:mark], '<')
		named := mark + len(fragmentMark)
		quote := bytes.IndexByte(page[named:], '"')
		if begin < 0 || quote < 0 {
			return list
		}
		end := closing(page, begin)
		if end < 0 {
			return list
		}
		list = append(list, fragment{string(page[named : named+quote]), begin, end, sumOf(page[begin:end])})
		at = end
	}
}

// closing is where the element that begins at a place ends, behind its own end tag.
func closing(page []byte, begin int) int {
	tag := page[begin+1:]
	tag = tag[:bytes.IndexAny(tag, " \n>")]
	opened, closed := append([]byte("<"), tag...), fmt.Appendf(nil, "</%s>", tag)
	depth, at := 0, begin
	for {
		end := bytes.Index(page[at:], closed)
		if end < 0 {
			return -1
		}
		for next := at; ; {
			i := bytes.Index(page[next:at+end], opened)
			if i < 0 {
				break
			}
			next += i + len(opened)
			if next < len(page) && strings.IndexByte(" \n>", page[next]) >= 0 {
				depth++
			}
		}
		at += end + len(closed)
		if depth--; depth == 0 {
			return at
		}
	}
}

var onceMark = []byte(`name="` + onceName + `" value="`)

// onceLength is the length of a form's own token, as rand.Text makes it.
const onceLength = 26

// sumOf tells whether a fragment is another than before. The tokens of its forms are
// new in every page and count for nothing.
func sumOf(html []byte) string {
	h := fnv.New64a()
	for {
		i := bytes.Index(html, onceMark)
		if i < 0 {
			break
		}
		_, _ = h.Write(html[:i])
		html = html[min(len(html), i+len(onceMark)+onceLength):]
	}
	_, _ = h.Write(html)
	return fmt.Sprintf("%x", h.Sum64())
}

// summed writes each fragment's sum into its element, where a browser reads it.
func summed(page []byte, list []fragment) []byte {
	out := make([]byte, 0, len(page)+len(list)*40)
	at := 0
	for _, f := range list {
		out = append(out, page[at:f.begin]...)
		out = append(out, withSum(page, f)...)
		at = f.end
	}
	return append(out, page[at:]...)
}

func withSum(page []byte, f fragment) []byte {
	html := page[f.begin:f.end]
	i := bytes.Index(html, fragmentMark)
	return fmt.Appendf(nil, `%s data-sum="%s"%s`, html[:i], f.sum, html[i:])
}

// freshOf gives what another page than the browser's has, by what the browser says it has.
func freshOf(page []byte, list []fragment, has string, shell Shell) *fresh {
	shown := map[string]string{}
	for _, pair := range strings.Fields(has) {
		name, sum, _ := strings.Cut(pair, ":")
		shown[name] = sum
	}
	out := &fresh{Title: shell.Title, Here: shell.Here, Version: shell.Version(), Fragments: map[string]string{}}
	for _, f := range list {
		if shown[f.name] != f.sum {
			out.Fragments[f.name] = string(withSum(page, f))
		}
		delete(shown, f.name)
	}
	for name := range shown {
		out.Fragments[name] = "" // it is on the page no more
	}
	return out
}
