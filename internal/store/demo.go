package store

import "context"

// How far the made-up shop is loaded into a store.
const (
	DemoNone  = "" // the store is a shop's own, or empty
	DemoBegun = "begun"
	DemoDone  = "done"
)

// Demo tells how far the made-up shop is loaded: one of the Demo constants.
func (s *Store) Demo(ctx context.Context) (state string, err error) {
	err = s.db.WithContext(ctx).Table(shopTable).Select("demo").Take(&state).Error
	return state, err
}

// SaveDemo notes how far the made-up shop is loaded.
func (s *Store) SaveDemo(ctx context.Context, state string) error {
	return s.db.WithContext(ctx).Table(shopTable).Where("one").Update("demo", state).Error
}
