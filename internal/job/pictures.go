package job

import (
	"context"
	"fmt"
	"strings"

	"corvek/core/field"
	"corvek/internal/picture"
	"corvek/internal/store"
)

// Picture is an evidence picture with what was said of it.
type Picture struct {
	*picture.Taken
	Part           uint
	Name, Caption  string
	BeforeCleaning bool
}

// mostPictures a job holds.
const mostPictures = 400

// AddPicture keeps an evidence picture with the job.
func (s *Service) AddPicture(ctx context.Context, who Actor, tag string, unit int, p Picture) (id uint, err error) {
	err = s.do(ctx, who, RoleTechnician, tag, unit, func(tx *store.Tx, st *State) (string, error) {
		if len(st.Job.Attachments) >= mostPictures {
			return "", field.Errorf("picture", "cannot be added: the job holds %d already", mostPictures)
		}
		a := store.Attachment{JobID: st.Job.ID, Name: p.Name + p.Ext, MediaType: p.MediaType, Caption: strings.TrimSpace(p.Caption), BeforeCleaning: p.BeforeCleaning,
			Content: p.Content, Thumb: p.Thumb, Width: p.Width, Height: p.Height}
		if st.ByID[p.Part] != nil {
			a.PartID = &p.Part
		}
		err := tx.DB.Create(&a).Error
		id = a.ID
		return "picture: " + a.Name, err
	})
	return id, err
}

func (st *State) picture(id uint) *store.Attachment {
	return find(st.Job.Attachments, func(a store.Attachment) bool { return a.ID == id })
}

// AddMark puts the next number on a picture at a share of its width and height,
// tied to a part or to a mark of the evidence board.
func (s *Service) AddMark(ctx context.Context, who Actor, tag string, unit int, id uint, m store.PictureMark) error {
	if !(m.X >= 0 && m.X <= 1 && m.Y >= 0 && m.Y <= 1) {
		return field.Errorf("place", "tap the picture where the mark belongs")
	}
	return s.do(ctx, who, RoleTechnician, tag, unit, func(tx *store.Tx, st *State) (string, error) {
		a := st.picture(id)
		if a == nil {
			return "", store.ErrNotFound
		}
		m.Note = strings.TrimSpace(m.Note)
		if m.Evidence != "" {
			if _, ok := st.Knowledge.EvidenceByCode(m.Evidence); !ok {
				return "", field.Errorf("evidence", "is not on this unit's board")
			}
		}
		if m.PartID != nil && st.ByID[*m.PartID] == nil {
			return "", field.Errorf("part", "is not a part of this unit")
		}
		if m.Note == "" && m.Evidence == "" && m.PartID == nil {
			return "", field.Errorf("note", "say what is seen there, or tie it to a part or to evidence")
		}
		m.ID, m.AttachmentID, m.Number = 0, id, 1
		for _, old := range a.Marks {
			m.Number = max(m.Number, old.Number+1)
		}
		return fmt.Sprintf("mark %d on %s", m.Number, a.Name), tx.DB.Create(&m).Error
	})
}

// DropMark takes a mark off a picture; the record keeps that it was there.
func (s *Service) DropMark(ctx context.Context, who Actor, tag string, unit int, id uint, number int) error {
	return s.do(ctx, who, RoleTechnician, tag, unit, func(tx *store.Tx, st *State) (string, error) {
		a := st.picture(id)
		if a == nil {
			return "", store.ErrNotFound
		}
		m := find(a.Marks, func(m store.PictureMark) bool { return m.Number == number })
		if m == nil {
			return "", field.Errorf("number", "is on no mark of this picture any more")
		}
		return fmt.Sprintf("took mark %d off %s: %s", number, a.Name, m.Note), tx.DB.Where("attachment_id = ? AND number = ?", id, number).Delete(&store.PictureMark{}).Error
	})
}

// MarkWords says what a mark on a picture shows: its part, its evidence, its note.
func (st *State) MarkWords(m store.PictureMark) string {
	var parts []string
	if m.PartID != nil && st.ByID[*m.PartID] != nil {
		parts = append(parts, st.ByID[*m.PartID].Name)
	}
	if e, ok := st.Knowledge.EvidenceByCode(m.Evidence); ok {
		parts = append(parts, e.Text)
	}
	if m.Note != "" {
		parts = append(parts, m.Note)
	}
	return strings.Join(parts, ": ")
}
