package exchange

import (
	"corvek/core/family"
	"corvek/core/metrology"
)

// fromThird brings a document of the third version to this one. A limit that had come from a family of that
// time was a size of no unit: it stays to be read, and judges nothing.
func (d *Document) fromThird() {
	for _, u := range objects(d.root["units"]) {
		for _, p := range objects(u["parts"]) {
			for _, f := range objects(p["features"]) {
				_, lower := f["lower"]
				_, upper := f["upper"]
				if f["standing"] == string(family.SourceGuidance) && (lower || upper) {
					f["standing"] = string(family.SourceEarlier)
				}
				if _, said := f["measured"]; !said && f["readings"] != nil {
					f["measured"] = string(metrology.Total) // which that version took for granted
				}
			}
		}
	}
	d.root["version"] = Version
}
