package job

import (
	"context"
	"fmt"
	"slices"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/people"
	"corvek/internal/picture"
	"corvek/internal/store"
)

// Picture is an evidence picture with what was said of it.
type Picture struct {
	*picture.Taken
	Part           string // code
	Mark           string // code of the mark on it
	Name, Caption  string
	BeforeCleaning bool
}

// What a job and a picture hold at most.
const (
	MostPictures = 400
	MostMarks    = 99
)

// AddPicture keeps an evidence picture with the job and gives its number.
func (s *Service) AddPicture(ctx context.Context, who people.Actor, tag string, unitNo int, p Picture) (number int,
	err error) {
	caption, err := short("caption", p.Caption, "")
	if err != nil {
		return 0, err
	}
	err = s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		unitNo,
		func(w *writing, u *unit.Unit, st *bench.State) (string, error) {
			if len(w.Job.Pictures) >= MostPictures {
				return "", field.Errorf("picture", "cannot be added: the job holds %d already", MostPictures)
			}
			row := &unit.Picture{
				Name: p.Name + p.Ext, MediaType: p.MediaType, Caption: caption, BeforeCleaning: p.BeforeCleaning,
				Width: p.Width, Height: p.Height, Unit: u.Number,
			}
			if st.ByCode[p.Part] != nil {
				row.Part = p.Part
				if _, known := family.PartMark(p.Mark); known {
					row.Mark = p.Mark
				}
			}
			number = w.Job.AddPicture(row).Number
			w.contents = map[int]store.Content{number: {Bytes: p.Content, Thumb: p.Thumb}}
			w.happened(unit.Event{Kind: unit.EventPicture, Unit: u.Number, Name: row.Name})
			return "", nil
		},
	)
	return number, err
}

// AddMark puts the next number on a picture at a share of its width and height,
// tied to a part or to a mark of the evidence board.
func (s *Service) AddMark(
	ctx context.Context,
	who people.Actor,
	tag string,
	unitNo, number int,
	m unit.PictureMark,
) error {
	if !(m.X >= 0 && m.X <= 1 && m.Y >= 0 && m.Y <= 1) {
		return field.Errorf("place", "tap the picture where the mark belongs")
	}
	note, err := short("note", m.Note, "")
	if err != nil {
		return err
	}
	m.Note = note
	return s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		unitNo,
		func(w *writing, u *unit.Unit, st *bench.State) (string, error) {
			p := w.Job.Picture(number)
			if p == nil {
				return "", store.ErrNotFound
			}
			if _, known := st.Knowledge.EvidenceByCode(m.Evidence); m.Evidence != "" && !known {
				return "", field.Errorf("evidence", "is not on this unit's board")
			}
			if m.Part != "" && st.ByCode[m.Part] == nil {
				return "", field.Errorf("part", "is not a part of this unit")
			}
			if _, known := family.PartMark(m.Mark); m.Mark != "" && (!known || m.Part == "") {
				return "", field.Errorf("mark", "is a mark of a part that is named")
			}
			if m.Note == "" && m.Evidence == "" && m.Part == "" {
				return "", field.Errorf("note", "say what is seen there, or tie it to a part or to evidence")
			}
			if len(p.Marks) >= MostMarks {
				return "", field.Errorf("note", "the picture bears %d marks already", MostMarks)
			}
			return fmt.Sprintf("mark %d on %s", p.AddMark(&m).Number, p.Name), nil
		},
	)
}

// DropMark takes a mark off a picture; the record keeps that it was there.
func (s *Service) DropMark(ctx context.Context, who people.Actor, tag string, unitNo, number, mark int) error {
	return s.onUnit(
		ctx,
		who,
		people.RoleTechnician,
		tag,
		unitNo,
		func(w *writing, u *unit.Unit, st *bench.State) (string, error) {
			p := w.Job.Picture(number)
			if p == nil {
				return "", store.ErrNotFound
			}
			i := slices.IndexFunc(p.Marks, func(m *unit.PictureMark) bool { return m.Number == mark })
			if i < 0 {
				return "", field.Errorf("number", "is on no mark of this picture any more")
			}
			note := p.Marks[i].Note
			p.Marks = slices.Delete(p.Marks, i, i+1)
			return fmt.Sprintf("took mark %d off %s: %s", mark, p.Name, note), nil
		},
	)
}
