package report

import (
	"fmt"
	"html/template"

	"corvek/internal/draw"
)

// Shot is a picture of the report with its numbered marks.
type Shot struct {
	Caption        string
	BeforeCleaning bool
	Drawing        template.HTML
	Marks          []ShotMark
}

// ShotMark is a mark in words.
type ShotMark struct {
	Number int
	Words  string
}

func (d *Data) pictures() {
	for _, a := range d.S.Job.Attachments {
		s := Shot{Caption: a.Caption, BeforeCleaning: a.BeforeCleaning}
		if s.Caption == "" {
			s.Caption = a.Name
		}
		var marks []draw.PicMark
		for _, m := range a.Marks {
			s.Marks = append(s.Marks, ShotMark{m.Number, d.S.MarkWords(m)})
			marks = append(marks, draw.PicMark{Number: m.Number, X: m.X, Y: m.Y, Label: m.Note})
		}
		s.Drawing = template.HTML(draw.Picture(fmt.Sprintf("/pictures/%d", a.ID), a.Width, a.Height, marks, s.Caption, false))
		d.Pictures = append(d.Pictures, s)
	}
}
