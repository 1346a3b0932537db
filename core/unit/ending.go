package unit

// How a job ends for one of its units.
const (
	EndRebuilt   = "" // rebuilt and tested, unless something else is said
	EndReplaced  = "replaced"
	EndCondemned = "condemned"
	EndReturned  = "returned" // unopened, to the maker or under warranty
	EndFindings  = "findings" // opened for what it shows, and not rebuilt
	EndNoFault   = "no_fault" // nothing was found wrong
)

// Opened reports that something was taken off the unit.
func (u *Unit) Opened() bool {
	for _, p := range u.Parts {
		if p.Off && p.OnUnit() {
			return true
		}
	}
	return false
}

// Owes reports that the unit's ending asks for the work of a station.
func (u *Unit) Owes(station string) bool {
	switch u.Ending {
	case EndReplaced, EndCondemned, EndFindings:
		switch station {
		case "decide", "kit", "build", "prove":
			return false
		case "strip", "measure":
			return u.Ending == EndFindings || u.Opened()
		}
	case EndReturned:
		return station == "receive" || station == "handover" || station == "strip" && u.Opened()
	case EndNoFault:
		switch station {
		case "strip", "measure", "decide", "kit", "build":
			return u.Opened()
		}
	}
	return true
}

// GoesBack reports that the unit goes back to its owner to be run: somebody takes it then.
func (u *Unit) GoesBack() bool { return u.Ending == EndRebuilt || u.Ending == EndNoFault }
