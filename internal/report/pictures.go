package report

import (
	"fmt"

	"corvek/core/family"
	"corvek/internal/draw"
)

// Shot is a picture of the report with its numbered marks.
type Shot struct {
	Caption        string
	BeforeCleaning bool
	Drawing        string // SVG
	Marks          []ShotMark
}

// ShotMark is a mark in words.
type ShotMark struct {
	Number int
	Words  string
}

func (d *Data) pictures() {
	for _, a := range d.S.Job.Pictures {
		s := Shot{Caption: a.Caption, BeforeCleaning: a.BeforeCleaning}
		if s.Caption == "" {
			s.Caption = a.Name
		}
		s.Caption = fmt.Sprintf("Picture %d: %s", a.Number, s.Caption)
		if def, ok := family.PartMark(a.Mark); ok && d.S.ByCode[a.Part] != nil {
			s.Caption += ", " + d.S.ByCode[a.Part].Name + ": " + def.Text
		}
		var marks []draw.PicMark
		for _, m := range a.Marks {
			s.Marks = append(s.Marks, ShotMark{m.Number, d.S.MarkWords(m)})
			marks = append(marks, draw.PicMark{Number: m.Number, X: m.X, Y: m.Y, Label: m.Note})
		}
		s.Drawing = draw.Picture(PictureURL(d.S.Job.Tag, a.Number), a.Width, a.Height, marks, s.Caption, false)
		d.Pictures = append(d.Pictures, s)
	}
}

// PictureURL is where a picture of a job is served.
func PictureURL(tag string, number int) string {
	return fmt.Sprintf("/jobs/%s/pictures/%d/file", tag, number)
}
