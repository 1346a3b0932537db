package store

import (
	"context"
	"errors"
	"fmt"
	"reflect"
	"slices"
	"strings"
	"time"

	"corvek/core/stock"
	"corvek/core/unit"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// Content is what a picture consists of.
type Content struct {
	Bytes, Thumb []byte
}

// Change is what a writer made of a job.
type Change struct {
	Job      *unit.Job       // as it is now
	Entries  []unit.Entry    // what goes into the record
	Contents map[int]Content // of new pictures, by number
	Papers   []Paper         // to be kept as they are now
	Results  []Result        // what a hand-over came to
	Lots     []NewLot        // of the stock, that pieces of the job are put to
	Unbooked []stock.Booking // of the stock, promised pieces that were taken
	Who      string          // may take it back; "" where nobody may
}

// ErrUnchanged is returned by a writer that found nothing to write; the store
// then keeps everything as it is.
var ErrUnchanged = errors.New("nothing was changed")

// errNoLine says that a job was changed without a line of the record that tells of it.
var errNoLine = errors.New("a change that no line of the record tells of is not written")

// Update lets f change a job. Writers of one job are put in order by its row,
// which also steps its version; f gets a copy of its own and says in the Change
// what became of it. Only the rows that differ are written. History answers
// questions about the record within the same transaction.
func (s *Store) Update(ctx context.Context, tag string, f func(*unit.Job, History) (*Change, error)) error {
	var kept *unit.Job
	err := s.transaction(ctx, func(db *gorm.DB) error {
		head, err := step(db, tag)
		if err != nil {
			return err
		}
		before, ok := s.cache.Get(tag)
		if !ok || before.Version != head.Version-1 {
			if before, err = load(db, tag); err != nil {
				return err
			}
		}
		next := before.Clone()
		next.Version = head.Version
		c, err := f(next, History{db, before})
		if err != nil {
			return err
		}
		c.Job.Order()
		changed := changes(before, c.Job)
		if len(changed) > 0 && len(c.Entries) == 0 {
			return errNoLine
		}
		if err := saveHead(db, before, c.Job, changed); err != nil {
			return err
		}
		if err := save(db, c, changed); err != nil {
			return err
		}
		if err := takeOfStock(db, before, c); err != nil {
			return err
		}
		if err := keepAct(db, c, changed); err != nil {
			return err
		}
		kept = c.Job
		if err := keepPapers(db, head.ID, c.Papers); err != nil {
			return err
		}
		if err := keepResults(db, head.ID, c.Results); err != nil {
			return err
		}
		return record(db, head.ID, c.Job, c.Entries)
	})
	if errors.Is(err, ErrUnchanged) {
		return nil
	}
	if err == nil {
		s.cache.Add(tag, kept)
	}
	return err
}

// step takes the next version of a job, and with it the turn among its writers.
func step(db *gorm.DB, tag string) (*unit.Job, error) {
	head := &unit.Job{}
	done := db.Model(head).Where("tag = ?", tag).Clauses(
		clause.Set{{Column: clause.Column{Name: "version"}, Value: gorm.Expr("version + 1")},
			{Column: clause.Column{Name: "updated_at"}, Value: gorm.Expr("now()")}},
		clause.Returning{Columns: []clause.Column{{Name: "id"}, {Name: "version"}}}).UpdateColumns(head)
	if done.Error == nil && done.RowsAffected == 0 {
		return nil, ErrNotFound
	}
	return head, done.Error
}

// save writes the rows in which a job differs from what was kept: what is gone first, children
// before their parents, then all that is new or another, parents first.
func save(db *gorm.DB, c *Change, changed []change) error {
	for _, k := range slices.Backward(kinds) {
		if err := remove(db, k, changed); err != nil {
			return err
		}
	}
	for _, k := range kinds {
		var rows []reflect.Value
		for _, ch := range changed {
			if ch.kind == k && ch.after.IsValid() {
				rows = append(rows, ch.after)
			}
		}
		if err := put(db, k, rows); err != nil {
			return err
		}
	}
	return keepContents(db, c, changed)
}

// remove takes the rows of a kind away that are gone.
func remove(db *gorm.DB, k *kind, changed []change) error {
	var gone []reflect.Value
	for _, ch := range changed {
		if ch.kind == k && !ch.after.IsValid() {
			gone = append(gone, ch.before)
		}
	}
	if len(gone) == 0 {
		return nil
	}
	if err := db.Delete(k.slice(gone)).Error; err != nil {
		return fmt.Errorf("%s: %w", k.Table, err)
	}
	return nil
}

// batch is how many rows are written at once.
const batch = 200

// put writes rows of a kind, whether they are there already or not.
func put(db *gorm.DB, k *kind, rows []reflect.Value) error {
	if len(rows) == 0 {
		return nil
	}
	there := clause.OnConflict{UpdateAll: true}
	for _, f := range k.PrimaryFields {
		there.Columns = append(there.Columns, clause.Column{Name: f.DBName})
	}
	err := db.Clauses(there).Omit(clause.Associations).CreateInBatches(k.slice(rows), batch).Error
	if err != nil {
		return fmt.Errorf("%s: %w", k.Table, err)
	}
	return nil
}

// slice is a list of rows as gorm takes them.
func (k *kind) slice(rows []reflect.Value) any {
	out := reflect.MakeSlice(reflect.SliceOf(reflect.PointerTo(k.ModelType)), len(rows), len(rows))
	for i, r := range rows {
		out.Index(i).Set(r.Addr())
	}
	return out.Interface()
}

// pictureContent is what a picture consists of, beside its row: it is large.
type pictureContent struct {
	unit.OfPicture
	Content, Thumb []byte
}

// keepContents keeps what new pictures consist of, one by one.
func keepContents(db *gorm.DB, c *Change, changed []change) error {
	for _, ch := range changed {
		if !ch.after.IsValid() || ch.before.IsValid() {
			continue
		}
		p, is := ch.after.Addr().Interface().(*unit.Picture)
		if !is {
			continue
		}
		content, there := c.Contents[p.Number]
		if !there {
			return fmt.Errorf("picture %d consists of nothing", p.Number)
		}
		row := &pictureContent{Content: content.Bytes, Thumb: content.Thumb}
		row.OfJob, row.Picture = p.OfJob, p.Number
		if err := db.Create(row).Error; err != nil {
			return fmt.Errorf("the content of picture %d: %w", p.Number, err)
		}
	}
	return nil
}

// saveHead writes what is another in the job's own row.
func saveHead(db *gorm.DB, before, now *unit.Job, changed []change) error {
	var columns []string
	for _, ch := range changed {
		if ch.kind == jobKind {
			for _, f := range ch.fields {
				columns = append(columns, f.DBName)
			}
		}
	}
	if now.Station != before.Station {
		columns = append(columns, "station")
	}
	if len(columns) > 0 {
		if err := db.Model(now).Select(columns).Omit(clause.Associations).Updates(now).Error; err != nil {
			return err
		}
	}
	if searchText(now) != searchText(before) {
		return findable(db, now)
	}
	return nil
}

// findable keeps the text in which a job is looked for.
func findable(db *gorm.DB, j *unit.Job) error {
	return db.Model(j).UpdateColumn("search", searchText(j)).Error
}

// Create keeps a new job, giving it a tag when it has none.
func (s *Store) Create(ctx context.Context, c *Change) error {
	j := c.Job
	if len(c.Entries) == 0 {
		return errNoLine
	}
	return s.transaction(ctx, func(db *gorm.DB) error {
		if err := giveTag(db, j); err != nil {
			return err
		}
		if err := giveCustomer(db, j); err != nil {
			return err
		}
		j.Version = 1
		j.Order()
		if err := db.Omit(clause.Associations).Create(j).Error; err != nil {
			if taken(err) {
				return ErrTagTaken
			}
			return err
		}
		if err := findable(db, j); err != nil {
			return err
		}
		if err := save(db, c, changes(&unit.Job{}, j)); err != nil {
			return err
		}
		if err := keepPapers(db, j.ID, c.Papers); err != nil {
			return err
		}
		if err := keepResults(db, j.ID, c.Results); err != nil {
			return err
		}
		if err := noteResult(ctx, db, j.Tag); err != nil {
			return err
		}
		return record(db, j.ID, j, c.Entries)
	})
}

// giveCustomer finds the customer by his name, or keeps a new one; what is known of him stays.
func giveCustomer(db *gorm.DB, j *unit.Job) error {
	c := j.Customer
	known := clause.OnConflict{Columns: []clause.Column{{Name: "name"}},
		DoUpdates: clause.AssignmentColumns([]string{"name"})}
	if err := db.Clauses(known).Create(&c).Error; err != nil {
		return err
	}
	j.CustomerID, j.Customer.ID = c.ID, c.ID
	return nil
}

// jobID gives the number under which a job is kept.
func jobID(db *gorm.DB, tag string) (int64, error) {
	j := &unit.Job{}
	err := db.Select("id").Where("tag = ?", tag).Take(j).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return 0, ErrNotFound
	}
	return j.ID, err
}

// ErrTagTaken says that a job of this tag is here already.
var ErrTagTaken = errors.New("a job with this tag is here already")

// giveTag takes the next tag: above all that are here, so that a newer job never
// has the lower number, and above what the sequence has given out. Jobs that are
// opened at once take turns.
func giveTag(db *gorm.DB, j *unit.Job) error {
	if j.Tag != "" {
		return nil
	}
	if err := db.Exec("SELECT pg_advisory_xact_lock(hashtextextended('job tags', 0))").Error; err != nil {
		return err
	}
	var n int64
	err := db.Raw(`SELECT greatest(nextval('job_tags'), 1 + coalesce(max(substr(tag, 3)::bigint), 0)) FROM jobs
		WHERE tag ~ '^T-[0-9]{1,6}$'`).Scan(&n).Error
	// Numbers beyond that many digits are not counted, and may be taken.
	for free := false; err == nil && !free; n++ {
		j.Tag = fmt.Sprintf("T-%04d", n)
		err = db.Raw("SELECT NOT EXISTS (SELECT FROM jobs WHERE tag = ?)", j.Tag).Scan(&free).Error
	}
	return err
}

// searchText is the text in which a job is looked for.
func searchText(j *unit.Job) string {
	words := []string{j.Tag, j.Title, j.Customer.Name}
	for _, u := range j.Units {
		words = append(words, u.Name, u.Maker, u.Model, u.Serial)
		words = append(words, numbersOf(u)...)
	}
	return strings.ToLower(strings.Join(strings.Fields(strings.Join(words, " ")), " "))
}

// numbersOf are the part numbers and lots of the pieces of a unit, each once.
func numbersOf(u *unit.Unit) []string {
	var out []string
	for _, k := range u.Kit {
		out = append(out, k.Code, k.Seal.MakerNo, k.Lot)
	}
	for _, p := range u.Parts {
		out = append(out, p.Seal.MakerNo)
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// History is a job's record within a transaction.
type History struct {
	db *gorm.DB
	// Before is the job as it was. Others read it too, so that nobody may change it.
	Before *unit.Job
}

// Last gives who changed a field last; ok is false where nobody did.
func (h History) Last(field string) (who string, at time.Time, ok bool, err error) {
	var last []struct {
		Who string
		At  time.Time
	}
	err = h.db.Table("record_entries").
		Where("job_id = ? AND field = ?", h.Before.ID, field).
		Order("place DESC").
		Limit(1).
		Find(&last).
		Error
	if err != nil || len(last) == 0 {
		return "", time.Time{}, false, err
	}
	return last[0].Who, last[0].At, true, nil
}

// Job loads a job. It comes from memory when it has not changed since; nobody
// may change what is returned.
func (s *Store) Job(ctx context.Context, tag string) (*unit.Job, error) {
	var version int64
	err := s.db.WithContext(ctx).Model(&unit.Job{}).Where("tag = ?", tag).Select("version").Scan(&version).Error
	if err != nil {
		return nil, err
	}
	return s.JobAt(ctx, tag, version)
}

// JobAt is Job for a version that was just asked for; 0 is no job.
func (s *Store) JobAt(ctx context.Context, tag string, version int64) (*unit.Job, error) {
	if version == 0 {
		return nil, ErrNotFound
	}
	if j, ok := s.cache.Get(tag); ok && j.Version == version {
		return j, nil
	}
	j, err := s.Read(ctx, tag)
	if err != nil {
		return nil, err
	}
	s.cache.Add(tag, j)
	return j, nil
}

// Held are the jobs that are in memory, the last used ones last, to be read only.
func (s *Store) Held() []*unit.Job { return s.cache.Values() }

// Read loads a job from the tables, whatever is in memory.
func (s *Store) Read(ctx context.Context, tag string) (j *unit.Job, err error) {
	err = s.atOneMoment(ctx, func(db *gorm.DB) error {
		j, err = load(db, tag)
		return err
	})
	return j, err
}

// JobsAt gives jobs of versions that were just asked for, by tag, as Job does; those that changed since come as they
// are now, and those that are gone do not come. What is not in memory is read in one go, and not held there.
func (s *Store) JobsAt(ctx context.Context, tags []string, versions []int64) (map[string]*unit.Job, error) {
	out := map[string]*unit.Job{}
	var missing []string
	for i, tag := range tags {
		if j, ok := s.cache.Peek(tag); ok && j.Version == versions[i] {
			out[tag] = j
			continue
		}
		missing = append(missing, tag)
	}
	if len(missing) == 0 {
		return out, nil
	}
	err := s.atOneMoment(ctx, func(db *gorm.DB) error {
		jobs, err := loadAll(db, missing)
		for _, j := range jobs {
			out[j.Tag] = j
		}
		return err
	})
	return out, err
}

// Picture gives what a picture consists of, with its media type.
func (s *Store) Picture(ctx context.Context, tag string, number int) (c Content, mediaType string, err error) {
	var row struct {
		Content, Thumb []byte
		MediaType      string
	}
	err = s.db.WithContext(ctx).Raw(`SELECT c.content, c.thumb, a.media_type
		FROM attachments a JOIN jobs j ON j.id = a.job_id
			JOIN picture_contents c ON c.job_id = a.job_id AND c.picture = a.number
		WHERE j.tag = ? AND a.number = ?`, tag, number).Scan(&row).Error
	if err == nil && row.MediaType == "" {
		err = ErrNotFound
	}
	return Content{row.Content, row.Thumb}, row.MediaType, err
}
