package unit

// What every row of a job is kept under, beside its own number or code: the thing that it hangs
// off. The store fills these in as it writes; a value that was never kept has none, and no rule
// asks for them.

// OfJob is the key of what hangs off a job.
type OfJob struct {
	JobID int64 `json:"-" gorm:"primaryKey;autoIncrement:false"`
}

// OfUnit is the key of what hangs off a unit.
type OfUnit struct {
	OfJob `json:"-"`
	Unit  int `json:"-" gorm:"primaryKey"`
}

// OfPart is the key of what hangs off a part.
type OfPart struct {
	OfUnit `json:"-"`
	Part   string `json:"-" gorm:"primaryKey"`
}

// OfFeature is the key of a reading.
type OfFeature struct {
	OfPart  `json:"-"`
	Feature string `json:"-" gorm:"primaryKey"`
}

// OfAttempt is the key of a step of a test.
type OfAttempt struct {
	OfUnit  `json:"-"`
	Attempt int `json:"-" gorm:"primaryKey"`
}

// OfPicture is the key of a mark on a picture.
type OfPicture struct {
	OfJob   `json:"-"`
	Picture int `json:"-" gorm:"primaryKey"`
}

// Tables whose rows are not called as their type is.

// TableName of a picture without what it consists of.
func (Picture) TableName() string { return "attachments" }

// TableName of a stop that was waived.
func (Waiver) TableName() string { return "stop_passes" }

// TableName of a calculation that was put on a job.
func (Worked) TableName() string { return "worked_figures" }

// TableName of what was found loose.
func (Loose) TableName() string { return "loose_items" }

// TableName of a piece of the kit.
func (Piece) TableName() string { return "kit_pieces" }

// TableName of a mark looked for on the unit.
func (UnitMark) TableName() string { return "evidence" }

// TableName of one of several causes.
func (NamedCause) TableName() string { return "causes" }

// TableName of the fitting of a part.
func (Step) TableName() string { return "build_steps" }
