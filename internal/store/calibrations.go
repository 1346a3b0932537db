package store

import (
	"context"
	"database/sql"

	"corvek/core/shop"
	"corvek/core/unit"

	"gorm.io/gorm"
)

// Instrument gives one by its number.
func (s *Store) Instrument(ctx context.Context, id uint) (*shop.Instrument, error) {
	var out []shop.Instrument
	err := s.db.WithContext(ctx).Where("id = ?", id).Limit(1).Find(&out).Error
	if err == nil && len(out) == 0 {
		err = ErrNotFound
	}
	if err != nil {
		return nil, err
	}
	return &out[0], nil
}

// Calibrate keeps what a calibration found; the instrument is good until its day, and found where it was lost.
func (s *Store) Calibrate(ctx context.Context, c *shop.Calibration, action string) error {
	return s.onShop(ctx, c.ByName, action, func(db *gorm.DB) error {
		if err := db.Omit("At").Create(c).Error; err != nil {
			return err
		}
		return db.Model(&shop.Instrument{}).Where("id = ?", c.InstrumentID).
			Select("DueOn", "LostOn").Updates(&shop.Instrument{DueOn: c.DueOn}).Error
	})
}

// Lost keeps since when an instrument is not found, "" for found again.
func (s *Store) Lost(ctx context.Context, id uint, since unit.Date, by, action string) error {
	return s.onShop(ctx, by, action, func(db *gorm.DB) error {
		tool := shop.Instrument{}
		if since != "" {
			on := since.Time()
			tool.LostOn = &on
		}
		return db.Model(&shop.Instrument{}).Where("id = ?", id).Select("LostOn").Updates(&tool).Error
	})
}

// mostCalibrations of one instrument are listed.
const mostCalibrations = 100

// Calibrations are those of an instrument, newest first.
func (s *Store) Calibrations(ctx context.Context, id uint) (out []shop.Calibration, err error) {
	err = s.db.WithContext(ctx).Where("instrument_id = ?", id).Order("on_day DESC, id DESC").Limit(mostCalibrations).
		Find(&out).Error
	return out, err
}

// ReadWith is a job in which something was read with an instrument.
type ReadWith struct {
	Tag, Title string
	HandedOver bool
}

// mostReadWith are listed.
const mostReadWith = 200

// ReadWith are the jobs that came in after a day, or went out after it, in which something was read with an
// instrument as it is called: a feature, or a figure of a test.
func (s *Store) ReadWith(ctx context.Context, name string, after unit.Date) (out []ReadWith, err error) {
	err = s.db.WithContext(ctx).Raw(`SELECT j.tag, j.title, j.handed_over_at IS NOT NULL AS handed_over FROM jobs j
		WHERE j.withdrawn_at IS NULL AND (j.handed_over_at IS NULL OR j.handed_over_at >= @after)
			AND (EXISTS (SELECT FROM features f WHERE f.job_id = j.id AND lower(trim(f.instrument)) = lower(@name))
				OR EXISTS (SELECT FROM attempts a WHERE a.job_id = j.id
					AND lower(@name) IN (lower(trim(a.pressure_gauge)), lower(trim(a.flow_meter)),
						lower(trim(a.thermometer)))))
		ORDER BY j.handed_over_at DESC NULLS FIRST, j.tag LIMIT @most`,
		sql.Named("name", name), sql.Named("after", after.Time()), sql.Named("most", mostReadWith)).Scan(&out).Error
	return out, err
}
