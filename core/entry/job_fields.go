package entry

import (
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"

	"corvek/core/decide"
	"corvek/core/quantity"
	"corvek/core/shop"
	"corvek/core/unit"
)

// The codes of what a job can wait for, in the order of the Jobs board.
const (
	WaitTechnician = "technician"
	WaitStand      = "stand"
	WaitParts      = "parts"
	WaitSoak       = "soak"
	WaitOutside    = "outside"
	WaitCustomer   = "customer"
	WaitReady      = "ready"
)

// Waits are all of them in that order.
var Waits = []string{WaitTechnician, WaitStand, WaitParts, WaitSoak, WaitOutside, WaitCustomer, WaitReady}

var jobTable = table(unit.ScopeJob)

var jobFields = []*Field{
	jobTable.line("title", "Title", func(p *Place) *string { return &p.Job.Title }).required(),
	jobTable.area("complaint", "Complaint in the caller's words", func(p *Place) *string { return &p.Job.Complaint }),
	jobTable.line("caller", "Who said so, and when", func(p *Place) *string { return &p.Job.Caller }),
	jobTable.line("part_only", "Only a part is asked for", func(p *Place) *string { return &p.Job.PartOnly }),
	jobTable.line("valves_at", "Where the valves in drain and suction are, and how they stand",
		func(p *Place) *string { return &p.Job.ValvesAt }),
	{Scope: unit.ScopeJob, Name: "symptom", Label: "Symptom", Kind: Flag, get: getSymptom, set: setSymptom},
	jobTable.choice("policy", "Policy", offer(string(decide.OnCondition), string(decide.FullOverhaul)),
		func(p *Place) *string { return &p.Job.Policy }).required(),
	jobTable.choice("waiting", "Waiting for", offer(Waits...),
		func(p *Place) *string { return &p.Job.Waiting }).required().closing(),
	jobTable.line("waiting_note", "Note for the Jobs board", func(p *Place) *string { return &p.Job.WaitingNote }),
	jobTable.line("site", "Shop where it is done", func(p *Place) *string { return &p.Job.Site }).checked(isSite),
	jobTable.line("held_by", "Who has the job", func(p *Place) *string { return &p.Job.HeldBy }),
	jobTable.area("half_done", "What is half done", func(p *Place) *string { return &p.Job.HalfDone }),
	jobTable.day("received_on", "Received", func(p *Place) *unit.Date { return &p.Job.ReceivedOn }).derived(),
	jobTable.day("promised_on", "Promised for", func(p *Place) *unit.Date { return &p.Job.PromisedOn }).
		checked(promise).closing(),
	jobTable.flag(
		"stands",
		"The machine stands, with none in its place",
		func(p *Place) *bool { return &p.Job.Stands },
	),
	jobTable.day("told_day", "Ready on, as was told", func(p *Place) *unit.Date { return &p.Job.ToldDay }),
	jobTable.flag("warranty_hold", "Warranty hold", func(p *Place) *bool { return &p.Job.WarrantyHold }),
	jobTable.area("warranty_note", "Seals, tags, pictures taken",
		func(p *Place) *string { return &p.Job.WarrantyNote }),
	jobTable.size("parts_cost", "Kit of soft parts", quantity.Number,
		func(p *Place) *quantity.Quantity { return &p.Job.PartsCost }),
	jobTable.size("worked_hours", "Hours worked on it, in all", quantity.Time,
		func(p *Place) *quantity.Quantity { return &p.Job.WorkedHours }).bare("h").closing(),
	jobTable.size("labour_hours", "Hours to strip, build, test", quantity.Time,
		func(p *Place) *quantity.Quantity { return &p.Job.LabourHours }).bare("h"),
	jobTable.size("labour_rate", "Rate an hour", quantity.Number,
		func(p *Place) *quantity.Quantity { return &p.Job.LabourRate }),
	jobTable.size("outside_cost", "Outside work", quantity.Number,
		func(p *Place) *quantity.Quantity { return &p.Job.OutsideCost }),
	jobTable.size("rebuild_days", "Days at the bench", quantity.Number,
		func(p *Place) *quantity.Quantity { return &p.Job.RebuildDays }),
	jobTable.size("new_price", "New unit", quantity.Number,
		func(p *Place) *quantity.Quantity { return &p.Job.NewPrice }),
	jobTable.size("new_days", "Days to deliver", quantity.Number,
		func(p *Place) *quantity.Quantity { return &p.Job.NewDays }),
	jobTable.size("downtime_cost", "Downtime a day", quantity.Number,
		func(p *Place) *quantity.Quantity { return &p.Job.DowntimeCost }),
	jobTable.size("parts_days", "Days until the parts are here", quantity.Number,
		func(p *Place) *quantity.Quantity { return &p.Job.PartsDays }),
	jobTable.size("life_rebuild", "Life of the rebuild, of a new one's", quantity.Number,
		func(p *Place) *quantity.Quantity { return &p.Job.LifeRebuild }).checked(share),
	jobTable.size("life_overhaul", "Life of the overhaul, of a new one's", quantity.Number,
		func(p *Place) *quantity.Quantity { return &p.Job.LifeOverhaul }).checked(share),
	jobTable.day("quoted_on", "Offer given on", func(p *Place) *unit.Date { return &p.Job.Quote.GivenOn }),
	jobTable.choice("answer", "The customer's answer", offer(unit.Answers...),
		func(p *Place) *string { return &p.Job.Quote.Answer }).derived(),
	jobTable.size("agreed_sum", "Sum that he agreed to", quantity.Number,
		func(p *Place) *quantity.Quantity { return &p.Job.Quote.Agreed }).derived(),
	jobTable.line("answer_by", "Who said so", func(p *Place) *string { return &p.Job.Quote.Person }),
	jobTable.day("answer_on", "Answered on", func(p *Place) *unit.Date { return &p.Job.Quote.AnsweredOn }),
	jobTable.line("answer_note", "In his words", func(p *Place) *string { return &p.Job.Quote.Note }),
	jobTable.area("lesson", "What the next one should know of this variant",
		func(p *Place) *string { return &p.Job.Lesson }).closing(),
	jobTable.area("operator_note", "For the one who runs it: what is normal, and where he can do harm",
		func(p *Place) *string { return &p.Job.OperatorNote }).closing(),
	jobTable.choice("lesson_at", "It matters at", offer("receive", "strip", "measure", "explain", "decide", "kit",
		"build", "prove"), func(p *Place) *string { return &p.Job.LessonAt }).closing(),
	jobTable.line("collected_by", "Collected by", func(p *Place) *string { return &p.Job.CollectedBy }).
		closing(),
	jobTable.flag("gave_old_parts", "The old parts", func(p *Place) *bool { return &p.Job.GaveOldParts }).
		closing(),
	jobTable.flag("gave_springs", "The old springs", func(p *Place) *bool { return &p.Job.GaveSprings }).
		closing(),
	jobTable.flag("gave_card", "The start-up card", func(p *Place) *bool { return &p.Job.GaveCard }).closing(),
	jobTable.line("timer_note", "What is waited for", func(p *Place) *string { return &p.Job.TimerNote }),
	{Scope: unit.ScopeJob, Name: "timer_until", Label: "Ready in (0 ends it)", Kind: Timer,
		moment: func(p *Place) *time.Time { return &p.Job.TimerUntil }, check: timer},
	{Scope: unit.ScopeJob, Name: "handed_over_at", Label: "Handed over", Kind: Timer, Derived: true, Closing: true,
		moment: func(p *Place) *time.Time { return &p.Job.HandedOverAt }, check: timer},
	{Scope: unit.ScopeJob, Name: "withdrawn_at", Label: "Withdrawn", Kind: Timer, Derived: true,
		moment: func(p *Place) *time.Time { return &p.Job.WithdrawnAt }, check: timer},
	jobTable.line("withdrawn_by", "Withdrawn by", func(p *Place) *string { return &p.Job.WithdrawnBy }).derived(),
	jobTable.line("withdrawn_reason", "Withdrawn because",
		func(p *Place) *string { return &p.Job.WithdrawnReason }).derived(),
}

var errShare = errors.New("is a share of a new one's life: between 0 and 100 %")

// share refuses a life longer than a new one's.
func share(_ *Place, text string) error {
	if q := quantity.Kept(text, quantity.Number, ""); text != "" && (q.SI <= 0 || q.SI > 1) {
		return errShare
	}
	return nil
}

// mostDays is how far from its receipt a job may be promised.
const mostDays = 3650

// isSite refuses a shop that the owner does not have.
func isSite(p *Place, text string) error {
	if shop.Known(text, p.Shop.Sites) {
		return nil
	}
	return fmt.Errorf("is none of the shops under Shop, Hands and places")
}

// promise refuses a day that lies before the unit came in, or years away.
func promise(p *Place, text string) error {
	received := p.Job.ReceivedOn
	switch {
	case text == "" || received == "":
	case unit.Date(text) < received:
		return fmt.Errorf("lies before the unit came in, on %s", received)
	case unit.Date(text) > received.Add(mostDays):
		return fmt.Errorf("lies more than ten years away")
	}
	return nil
}

func getSymptom(p *Place) string { return flagText(p.Job.HasSymptom(p.Ref.Code)) }

func setSymptom(p *Place, text string) error {
	j, code := p.Job, p.Ref.Code
	j.Symptoms = slices.DeleteFunc(j.Symptoms, func(s string) bool { return s == code })
	if text == Yes {
		j.Symptoms = append(j.Symptoms, code)
	}
	return nil
}

// timer refuses a moment that is no moment, as it is kept.
func timer(_ *Place, text string) error {
	if text == "" {
		return nil
	}
	if _, err := time.Parse(time.RFC3339, text); err != nil {
		return fmt.Errorf("is a moment like 2031-05-27T14:00:00Z")
	}
	return nil
}

// mostTimer is the longest that something drains or soaks.
const mostTimer = 60 * 24 * time.Hour

// Until reads how long something has still to drain or soak ("4 h", a bare
// figure in hours) as the moment it ends; "" and 0 end the timer.
func Until(text string, now time.Time) (string, error) {
	text = strings.TrimSpace(text)
	if text == "" {
		return "", nil
	}
	q, err := quantity.ParseDefault(text, quantity.Time, "h")
	if err != nil {
		return "", err
	}
	left := time.Duration(q.SI * float64(time.Second))
	if q.SI < 0 || q.SI > mostTimer.Seconds() {
		return "", fmt.Errorf("is a time from now, like 4 h, at most 60 days")
	}
	if left == 0 {
		return "", nil
	}
	return now.Add(left).UTC().Format(time.RFC3339), nil
}

var pictureTable = table(unit.ScopePicture)

var pictureFields = []*Field{
	pictureTable.line("caption", "What it shows", func(p *Place) *string { return &p.Picture.Caption }),
	pictureTable.flag("before_cleaning", "Taken before cleaning",
		func(p *Place) *bool { return &p.Picture.BeforeCleaning }),
}
