package order

import "slices"

// Strip proposes an order in which all that is on a unit comes off: as it is wished where that can be, but what is
// soft as soon as it is free, so that it is the last to be touched when the unit is built the other way round. What
// is not wished for anywhere comes as it is listed.
func (o *Order) Strip(on Set, wish []string, soft func(code string) bool) (out []string) {
	return o.takenOff(on, func(string) bool { return false }, wish, soft)
}

// Build proposes an order in which what is missing goes in beside what is in: an order of taking it off the whole
// unit, turned round. What has been closed out comes last, though it cannot go in.
func (o *Order) Build(in Set, wish []string, soft func(code string) bool) []string {
	back := slices.Clone(wish)
	slices.Reverse(back)
	kept := func(code string) bool { return in[code] }
	out := o.takenOff(o.all(), kept, back, soft)
	slices.Reverse(out)
	for _, code := range o.Codes() {
		if !in[code] && !slices.Contains(out, code) {
			out = append(out, code)
		}
	}
	return out
}

func (o *Order) takenOff(on Set, kept func(string) bool, wish []string, soft func(string) bool) (out []string) {
	left := Set{}
	for c, is := range on {
		left[c] = is
	}
	var by []string
	for _, c := range append(slices.Clone(wish), o.Codes()...) {
		if o.Has(c) && !slices.Contains(by, c) {
			by = append(by, c)
		}
	}
	for {
		next := ""
		for _, c := range by {
			if !left[c] || kept(c) || !o.free(left, c) {
				continue
			}
			if soft(c) {
				next = c
				break
			}
			if next == "" {
				next = c
			}
		}
		if next == "" {
			return out
		}
		delete(left, next)
		out = append(out, next)
	}
}
