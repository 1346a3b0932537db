package shop

import "slices"

// Same reports that two things are of the same one of an owner's shops, as far as both say of which; "" is anywhere.
func Same(a, b string) bool { return a == "" || b == "" || a == b }

// Known reports that a name is that of one of the owner's shops, or of none.
func Known(name string, sites []string) bool { return name == "" || slices.Contains(sites, name) }
