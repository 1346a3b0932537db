package store

import (
	"context"

	"gorm.io/gorm"
)

// PartTie points a freshly stored row at a part of its unit by the part's code.
type PartTie struct {
	Unit       int // index in Job.Units
	Code       string
	Loose      *LooseItem
	Piece      *KitPiece
	Attachment *Attachment
	Mark       *PictureMark
}

// Tie sets the part of rows that were stored before the parts had numbers, and
// adds the record that came along.
func (s *Store) Tie(ctx context.Context, j *Job, ties []PartTie, record []RecordEntry) error {
	return s.db.WithContext(ctx).Transaction(func(db *gorm.DB) error {
		for _, t := range ties {
			var part *Part
			for i := range j.Units[t.Unit].Parts {
				if p := &j.Units[t.Unit].Parts[i]; p.Code == t.Code {
					part = p
				}
			}
			if part == nil {
				continue
			}
			var model any = &Attachment{}
			id := uint(0)
			switch {
			case t.Loose != nil:
				model, id = &LooseItem{}, t.Loose.ID
			case t.Piece != nil:
				model, id = &KitPiece{}, t.Piece.ID
			case t.Attachment != nil:
				id = t.Attachment.ID
			case t.Mark != nil:
				model, id = &PictureMark{}, t.Mark.ID
			}
			if err := db.Model(model).Where("id = ?", id).Update("part_id", part.ID).Error; err != nil {
				return err
			}
		}
		for i := range record {
			record[i].JobID = &j.ID
		}
		if len(record) == 0 {
			return nil
		}
		return db.CreateInBatches(&record, 500).Error
	})
}
