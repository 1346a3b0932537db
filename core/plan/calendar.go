package plan

import "sort"

// Span is from a minute to another, the last one not in it.
type Span struct{ From, To Minute }

// Calendar is when somebody or something is there: spans in order that do not touch. It is read only.
type Calendar struct {
	spans []Span
	done  []Minute // work before each span
	at    []int    // by day: the first span that ends after its midnight
	long  Minute   // the longest span
}

// Hours makes a calendar of spans in any order; what overlaps or touches becomes one.
func Hours(spans []Span) *Calendar {
	sorted := append([]Span(nil), spans...)
	sort.Slice(sorted, func(a, b int) bool { return sorted[a].From < sorted[b].From })
	c := &Calendar{}
	for _, s := range sorted {
		if s.To <= s.From || s.To <= 0 {
			continue
		}
		s.From = max(s.From, 0)
		if n := len(c.spans); n > 0 && s.From <= c.spans[n-1].To {
			c.spans[n-1].To = max(c.spans[n-1].To, s.To)
			continue
		}
		c.spans = append(c.spans, s)
	}
	c.index()
	return c
}

func (c *Calendar) index() {
	total := 0
	for i, s := range c.spans {
		c.done = append(c.done, total)
		total += s.To - s.From
		c.long = max(c.long, s.To-s.From)
		for len(c.at)*day < s.To {
			c.at = append(c.at, i)
		}
	}
}

// Spans are the hours between two minutes.
func (c *Calendar) Spans(from, to Minute) (out []Span) {
	for i := c.first(from); i < len(c.spans) && c.spans[i].From < to; i++ {
		out = append(out, Span{max(from, c.spans[i].From), min(to, c.spans[i].To)})
	}
	return out
}

// first is the index of the first span that ends after t.
func (c *Calendar) first(t Minute) int {
	t = max(t, 0)
	d := t / day
	if d >= len(c.at) {
		return len(c.spans)
	}
	i := c.at[d]
	for i < len(c.spans) && c.spans[i].To <= t {
		i++
	}
	return i
}

// never is the end of what finds no hour.
const never Minute = 1 << 40

// place finds the first time from t on at which so much work fits: all in one span, or where it may be cut, over as
// many as it takes. It gives never where the hours end before.
func (c *Calendar) place(t, work Minute, cut bool) (start, end Minute) {
	if c == nil {
		return t, t + work
	}
	i := c.first(t)
	if !cut {
		if work > c.long {
			return never, never
		}
		for ; i < len(c.spans); i++ {
			start = max(t, c.spans[i].From)
			if c.spans[i].To-start >= work {
				return start, start + work
			}
		}
		return never, never
	}
	if i == len(c.spans) {
		return never, never
	}
	start = max(t, c.spans[i].From)
	if start+work <= c.spans[i].To {
		return start, start + work
	}
	until := c.done[i] + start - c.spans[i].From + work // work done since the calendar began, at its end
	last := len(c.spans) - 1
	for i < last && c.done[i+1] < until {
		i++
	}
	end = c.spans[i].From + until - c.done[i]
	if end > c.spans[i].To {
		return never, never
	}
	return start, end
}

// both is when two calendars have hours together; nil is always.
func both(a, b *Calendar) *Calendar {
	if a == nil || a == b {
		return b
	}
	if b == nil {
		return a
	}
	c := &Calendar{}
	for i, j := 0, 0; i < len(a.spans) && j < len(b.spans); {
		s := Span{max(a.spans[i].From, b.spans[j].From), min(a.spans[i].To, b.spans[j].To)}
		if s.From < s.To {
			c.spans = append(c.spans, s)
		}
		if a.spans[i].To < b.spans[j].To {
			i++
		} else {
			j++
		}
	}
	c.index()
	return c
}
