package entry

import (
	"fmt"
	"strings"

	"corvek/core/kit"
)

// ofThisBuild refuses a kit that belongs to another build of the unit.
func ofThisBuild(p *Place, came string) error {
	var all []kit.Build
	var own kit.Build
	names := map[string]string{}
	for _, v := range p.Family.VariantRules {
		b := kit.Build{Variant: v.Code, Kit: v.Kit}
		all = append(all, b)
		names[v.Code] = v.Name
		if p.Unit.Variant == v.Code || strings.EqualFold(p.Unit.Variant, v.Name) {
			own = b
		}
	}
	other, is := kit.OfAnother(came, own, all)
	if !is {
		return nil
	}
	return fmt.Errorf("belongs to %s; this one is %s and takes %s", strings.ToLower(names[other.Variant]),
		strings.ToLower(names[own.Variant]), own.Kit)
}
