package family

import "encoding/json"

// plain is a family without methods.
type plain Family

// frozen is a family put together, with what stands in its file, from which its variants are
// put together.
type frozen struct {
	*plain
	Written *plain `json:",omitempty"`
}

// MarshalJSON writes the family as it was put together, so that it does not change with the
// assemblies and kinds it came from.
func (f *Family) MarshalJSON() ([]byte, error) {
	return json.Marshal(frozen{(*plain)(f), (*plain)(f.written)})
}

// UnmarshalJSON reads what MarshalJSON wrote. What a later version added is not there then.
func (f *Family) UnmarshalJSON(text []byte) error {
	x := frozen{plain: &plain{}}
	if err := json.Unmarshal(text, &x); err != nil {
		return err
	}
	*f = Family(*x.plain)
	f.written = (*Family)(x.Written)
	return nil
}
