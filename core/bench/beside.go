package bench

import (
	"slices"
	"strings"

	"corvek/core/decide"
)

// Beside is what goes back with what it came with, right beside something that is renewed.
type Beside struct {
	New, Old []string // by their names, in small letters
}

// locating are the kinds of part that hold another in its place: with a new one of it they are looked at again.
var locating = []string{"dowels", "key", "pin"}

// housing are the kinds that stay, whatever is renewed in them.
var housing = []string{"body", "cover", "gland", "bolts"}

// Besides lists what was renewed with what was not, by the set, the assembly or the branch that they are in, and the
// pins and keys that stand next to something new: a new cartridge on its old pins.
func (st *Decided) Besides() (out []Beside) {
	at := map[string]int{}
	add := func(group string, fresh, old *Part) {
		i, is := at[group]
		if !is {
			i = len(out)
			at[group], out = i, append(out, Beside{})
		}
		b := &out[i]
		if name := strings.ToLower(fresh.Name); !slices.Contains(b.New, name) {
			b.New = append(b.New, name)
		}
		if name := strings.ToLower(old.Name); !slices.Contains(b.Old, name) {
			b.Old = append(b.Old, name)
		}
	}
	for i, old := range st.Parts {
		if !old.Off || old.Choice() == decide.Replace || slices.Contains(housing, old.Def.Kind) {
			continue
		}
		for k, fresh := range st.Parts {
			next := slices.Contains(locating, old.Def.Kind) && (k == i-1 || k == i+1)
			if group := together(old, fresh, next); group != "" && fresh.Choice() == decide.Replace &&
				!fresh.Def.Renew {
				add(group, fresh, old)
			}
		}
	}
	return out
}

// together names what two parts belong to in common, "" where they do not.
func together(a, b *Part, next bool) string {
	for _, in := range []func(*Part) string{
		func(p *Part) string { return p.Def.Set },
		func(p *Part) string { return p.Def.Assembly },
		func(p *Part) string { return p.Def.Branch },
	} {
		if in(a) != "" && in(a) == in(b) {
			return in(a)
		}
	}
	if next {
		return b.Code
	}
	return ""
}
