package unit

import (
	"strings"
	"time"
)

// Event is an act that somebody answers for, or that papers look for again, as data: what the
// record says of it in words is printed from it and never read back. Who did it, in which role
// and when stands on its line of the record.
type Event struct {
	Kind     string `json:"kind"`                // one of the Event constants
	Unit     int    `json:"unit,omitempty"`      // the unit it is about, 0 for the job as a whole
	HandOver int    `json:"hand_over,omitempty"` // which hand-over, from 1

	Lines int       `json:"lines,omitempty"` // how long the record was that was signed for
	Head  string    `json:"head,omitempty"`  // the fingerprint of its last line
	State string    `json:"state,omitempty"` // the fingerprint of what the papers rested on
	On    time.Time `json:"on,omitzero"`     // when an earlier version wrote it, where it was taken over

	Name   string `json:"name,omitempty"`   // of a paper or a picture
	Sum    string `json:"sum,omitempty"`    // SHA-256 of a paper
	Asked  string `json:"asked,omitempty"`  // what is asked back, one of core/handover
	Due    Date   `json:"due,omitempty"`    // until when
	Result string `json:"result,omitempty"` // what came of it, one of core/handover
	Words  string `json:"words,omitempty"`  // in his words: why, or what
}

// The kinds of events.
const (
	EventReceived    = "received"     // opened here, or brought in
	EventRestOff     = "rest_off"     // the rest was taken off, not counted
	EventPicture     = "picture"      // a picture was added
	EventSignedOff   = "signed_off"   // a lead answers for the papers of a unit
	EventHandedOver  = "handed_over"  // the job was closed
	EventPaperKept   = "paper_kept"   // a paper of that day
	EventAskedBack   = "asked_back"   // something is to be asked back
	EventCameBack    = "came_back"    // its answer
	EventOpenedAgain = "opened_again" // a hand-over was taken back
	EventWithdrawn   = "withdrawn"    // off the board: it should not be
	EventPutBack     = "put_back"     // the withdrawal was taken back
	EventTakenOver   = "taken_over"   // the state that an earlier version left was fingerprinted
)

// EventOfWords is the event that a line of an earlier version tells of, which had words only; nil
// for most. It knows those that papers show, and none that anybody answers for: words can be
// anybody's.
func EventOfWords(action string) *Event {
	name, picture := strings.CutPrefix(action, "picture: ")
	switch {
	case action == "created" || action == "imported":
		return &Event{Kind: EventReceived}
	case action == "took off the rest, not counted":
		return &Event{Kind: EventRestOff}
	case picture:
		return &Event{Kind: EventPicture, Name: name}
	}
	return nil
}
