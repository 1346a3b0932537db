package store

import (
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"

	"corvek/core/quantity"
	"corvek/core/stock"
	"corvek/core/unit"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// How much of the stock is kept and read.
const (
	MostItems    = 20000
	mostBookings = 20000
	mostMoves    = 200
)

// StockVersion steps whenever lines, lots or bookings change.
func (s *Store) StockVersion(ctx context.Context) (version int64, err error) {
	err = s.db.WithContext(ctx).Table(shopTable).Select("stock_version").Take(&version).Error
	return version, err
}

// heldStock is the stock as of a version of it.
type heldStock struct {
	version int64
	stock   *stock.Stock
}

// Stock gives all lines by name, with the lots that have any left and what is promised to jobs in hand. It is held in
// memory, to be read only, until any of it changes.
func (s *Store) Stock(ctx context.Context) (*stock.Stock, error) {
	version, err := s.StockVersion(ctx)
	if err != nil {
		return nil, err
	}
	if kept := s.stock.Load(); kept != nil && kept.version == version {
		return kept.stock, nil
	}
	out := &stock.Stock{}
	err = withLots(s.db.WithContext(ctx)).Order("name, size, id").Limit(MostItems).Find(&out.Items).Error
	if err == nil {
		s.stock.Store(&heldStock{version, out})
	}
	return out, err
}

// SaveItem adds a line, or renews the one of its ID. A number that another line has is ErrNumberTaken.
func (s *Store) SaveItem(ctx context.Context, i *stock.Item, by, action string) error {
	return s.onShop(ctx, by, action, func(db *gorm.DB) error {
		err := db.Omit(clause.Associations).Save(i).Error
		if taken(err) {
			return ErrNumberTaken
		}
		return err
	})
}

// ErrNumberTaken says that another line of the stock has the number.
var ErrNumberTaken = errors.New("another line of the stock has this number")

// lotLetters are how many a code has: hundreds of millions, so that shops that share jobs never mean each other's.
const lotLetters = 6

// CodeOfLot draws the code of a lot.
func CodeOfLot() string {
	random := make([]byte, lotLetters)
	_, _ = rand.Read(random) // never fails
	return stock.Code(random)
}

// TakeIn puts what came into the stock, all of it or nothing, and gives each lot its code. A line without an ID is
// new; of none that came, only the line is kept.
func (s *Store) TakeIn(ctx context.Context, came []NewLot, by, why string) error {
	return s.onShop(ctx, by, fmt.Sprintf("%s: %d lines to the stock", why, len(came)), func(db *gorm.DB) error {
		for k := range came {
			count := came[k].Lot.Left
			if err := came[k].create(db, count > 0); err != nil {
				return err
			}
			if count == 0 {
				continue
			}
			m := &stock.Move{LotCode: came[k].Lot.Code, Delta: count, Why: why, ByName: by}
			if err := move(db, m); err != nil {
				return err
			}
		}
		return nil
	})
}

// create keeps a line where it is new, and its lot, empty.
func (l *NewLot) create(db *gorm.DB, withLot bool) error {
	if l.Item.ID == 0 {
		err := db.Omit(clause.Associations).Create(l.Item).Error
		if taken(err) {
			return ErrNumberTaken
		}
		if err != nil {
			return err
		}
	}
	if !withLot {
		return nil
	}
	if l.Lot.Code == "" {
		l.Lot.Code = CodeOfLot()
	}
	l.Lot.ItemID, l.Lot.Left = l.Item.ID, 0
	return db.Create(&l.Lot).Error
}

// Recount says how many of a lot are really there.
func (s *Store) Recount(ctx context.Context, code string, count int, by, why string) error {
	return s.transaction(ctx, func(db *gorm.DB) error { return recount(db, code, count, by, why) })
}

func recount(db *gorm.DB, code string, count int, by, why string) error {
	l, err := lockLot(db, code)
	if err != nil || l.Left == count {
		return err
	}
	return move(db, &stock.Move{LotCode: code, Delta: count - l.Left, Why: why, ByName: by})
}

// EmptyDrawer says that a drawer was found empty: nothing is left of any lot of its line.
func (s *Store) EmptyDrawer(ctx context.Context, item uint, by string) error {
	return s.transaction(ctx, func(db *gorm.DB) error {
		var codes []string
		err := db.Model(&stock.Lot{}).
			Where(`item_id = ? AND "left" > 0`, item).
			Order("code").
			Pluck("code", &codes).
			Error
		if err != nil {
			return err
		}
		for _, code := range codes {
			if err := recount(db, code, 0, by, stock.WhyEmpty); err != nil {
				return err
			}
		}
		return nil
	})
}

func lockLot(db *gorm.DB, code string) (*stock.Lot, error) {
	l := &stock.Lot{}
	err := db.Clauses(clause.Locking{Strength: "UPDATE"}).Take(l, "code = ?", code).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return nil, ErrNotFound
	}
	return l, err
}

// move writes what went in or out; a lot never holds fewer than none.
func move(db *gorm.DB, m *stock.Move) error {
	done := db.Model(&stock.Lot{}).Where(`code = ? AND "left" + ? >= 0`, m.LotCode, m.Delta).
		UpdateColumn("left", gorm.Expr(`"left" + ?`, m.Delta))
	if done.Error != nil {
		return done.Error
	}
	if done.RowsAffected == 0 {
		return &ErrLot{m.LotCode}
	}
	return db.Omit("At").Create(m).Error
}

// ErrLot says that a lot does not hold what is to be taken of it.
type ErrLot struct{ Code string }

func (e *ErrLot) Error() string { return "lot " + e.Code + " does not hold so many" }

// Moves are what went into the lots of a line and out of them, newest first.
func (s *Store) Moves(ctx context.Context, item uint) (out []stock.Move, err error) {
	lots := s.db.Model(&stock.Lot{}).Select("code").Where("item_id = ?", item)
	err = s.db.WithContext(ctx).Where("lot_code IN (?)", lots).Order("id DESC").Limit(mostMoves).Find(&out).Error
	return out, err
}

// ItemOfLot is the line that a lot is of, empty ones too.
func (s *Store) ItemOfLot(ctx context.Context, code string) (item uint, err error) {
	l := &stock.Lot{}
	err = s.db.WithContext(ctx).Take(l, "code = ?", strings.ToUpper(strings.TrimSpace(code))).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return 0, ErrNotFound
	}
	return l.ItemID, err
}

// LotPrices are what a piece costs of each lot that a job holds pieces of, where its line says so.
func (s *Store) LotPrices(ctx context.Context, j *unit.Job) (map[string]float64, error) {
	lots := slices.Collect(maps.Keys(heldOf(j)))
	if len(lots) == 0 {
		return nil, nil
	}
	var rows []struct{ Code, Price string }
	err := s.db.WithContext(ctx).Table("stock_lots").Select("stock_lots.code, stock_items.price").
		Joins("JOIN stock_items ON stock_items.id = stock_lots.item_id").
		Where("stock_lots.code IN ?", lots).Scan(&rows).Error
	out := map[string]float64{}
	for _, r := range rows {
		if q, err := quantity.Parse(r.Price, quantity.Number); r.Price != "" && err == nil {
			out[r.Code] = q.SI
		}
	}
	return out, err
}

// Book promises pieces of a line to a place of a unit; what it was promised before is written over.
func (s *Store) Book(ctx context.Context, b *stock.Booking) error {
	return s.db.WithContext(ctx).Omit("At").Clauses(clause.OnConflict{UpdateAll: true}).Create(b).Error
}

// Unbook takes a promise back.
func (s *Store) Unbook(ctx context.Context, tag string, number int, part string) error {
	return s.db.WithContext(ctx).Delete(&stock.Booking{Tag: tag, Unit: number, Part: part}).Error
}

// unbook ends promises of pieces that were taken.
func unbook(db *gorm.DB, done []stock.Booking) error {
	if len(done) == 0 {
		return nil
	}
	return db.Delete(&done).Error
}

// newLots keeps lots that a job's rest goes to, empty: what is put there is counted with the job.
func newLots(db *gorm.DB, c *Change) error {
	for k := range c.Lots {
		if err := c.Lots[k].create(db, true); err != nil {
			return err
		}
	}
	return nil
}

// NewLot is a lot that begins with what a job puts there, and its line; one without an ID is new too.
type NewLot struct {
	Item *stock.Item
	Lot  stock.Lot
}

// takeOfStock writes what a change of a job took of the stock and put there, whatever act it was, taking back too:
// what is left of a lot always agrees with the pieces that jobs hold.
func takeOfStock(db *gorm.DB, before *unit.Job, c *Change) error {
	if err := newLots(db, c); err != nil {
		return err
	}
	if err := unbook(db, c.Unbooked); err != nil {
		return err
	}
	now := c.Job
	was, is := heldOf(before), heldOf(now)
	for code := range was {
		if _, there := is[code]; !there {
			is[code] = 0
		}
	}
	for _, code := range slices.Sorted(maps.Keys(is)) { // in one order, so that two jobs never wait for each other
		delta := was[code] - is[code]
		if delta == 0 {
			continue
		}
		_, err := lockLot(db, code)
		if errors.Is(err, ErrNotFound) { // of a shop that the job came from
			continue
		}
		if err != nil {
			return err
		}
		m := &stock.Move{LotCode: code, Delta: delta, Tag: now.Tag, ByName: c.Entries[0].Who,
			Why: c.Entries[0].Action}
		if err := move(db, m); err != nil {
			return fmt.Errorf("%s: %w", now.Tag, err)
		}
	}
	return nil
}

// heldOf is how many pieces a job holds of each lot.
func heldOf(j *unit.Job) map[string]int {
	held := map[string]int{}
	for _, u := range j.Units {
		for _, k := range u.Kit {
			if k.Lot != "" {
				held[k.Lot] += k.Count
			}
			if k.ToLot != "" {
				held[k.ToLot] -= k.Count
			}
		}
	}
	return held
}

// Lot gives a lot of the stock with its line, that with its lots and what is promised of it; nobody else takes of the
// lot until the write is over.
func (h History) Lot(code string) (*stock.Item, *stock.Lot, error) {
	l, err := lockLot(h.db, code)
	if err != nil {
		return nil, nil, err
	}
	i := &stock.Item{}
	return i, l, withLots(h.db).Take(i, l.ItemID).Error
}

// withLots reads lines with the lots that have any left and what is promised to jobs in hand: what was promised to
// a job that went out since is free.
func withLots(db *gorm.DB) *gorm.DB {
	const inHand = "tag IN (SELECT tag FROM jobs WHERE handed_over_at IS NULL AND withdrawn_at IS NULL)"
	return db.
		Preload("Lots", func(db *gorm.DB) *gorm.DB { return db.Where(`"left" > 0`).Order("came_on, code") }).
		Preload("Bookings", func(db *gorm.DB) *gorm.DB {
			return db.Where(inHand).Order("at, tag, unit, part").Limit(mostBookings)
		})
}
