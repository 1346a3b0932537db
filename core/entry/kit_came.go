package entry

import (
	"fmt"
	"strings"

	"corvek/core/kit"
)

// ofThisBuild refuses a kit that belongs to another build of the unit.
func ofThisBuild(p *Place, came string) error {
	var all []kit.Build
	names := map[string]string{}
	for _, v := range p.Family.VariantRules {
		all = append(all, kit.Build{Variant: v.Code, Kit: v.Kit})
		names[v.Code] = v.Name
	}
	var own kit.Build
	if v := p.Family.VariantNamed(p.Unit.Variant); v != nil {
		own = kit.Build{Variant: v.Code, Kit: v.Kit}
	}
	other, is := kit.OfAnother(came, own, all)
	if !is {
		return nil
	}
	return fmt.Errorf("belongs to %s; this one is %s and takes %s", strings.ToLower(names[other.Variant]),
		strings.ToLower(names[own.Variant]), own.Kit)
}
