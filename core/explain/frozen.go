package explain

import "encoding/json"

// frozen is knowledge with all that it answers by, but how far one unit has come.
type frozen struct {
	Family   string
	Evidence []Evidence
	Causes   []Cause
	Together float64
	Counts   map[string]int    `json:",omitempty"`
	Alias    map[string]string `json:",omitempty"`
}

// MarshalJSON writes the knowledge so that UnmarshalJSON gives one that answers the same.
func (k *Knowledge) MarshalJSON() ([]byte, error) {
	return json.Marshal(frozen{k.Family, k.Evidence, k.Causes, k.Together, k.counts, k.alias})
}

// UnmarshalJSON reads what MarshalJSON wrote. What a later version added is not there then.
func (k *Knowledge) UnmarshalJSON(text []byte) error {
	var f frozen
	if err := json.Unmarshal(text, &f); err != nil {
		return err
	}
	*k = Knowledge{Family: f.Family, Evidence: f.Evidence, Causes: f.Causes, Together: f.Together, counts: f.Counts,
		alias: f.Alias}
	return nil
}
