package document

import (
	"encoding/json"
	"fmt"
	"time"
)

// frozen is a paper as data: what it says and how it is laid out, without the addresses of the
// page that showed it.
type frozen struct {
	Shop    Shop
	Tag     string
	Kind    string
	Title   string
	Printed time.Time
	Opens   string
	Foot    string
	Layout  string
	Blocks  []frozenBlock
}

type frozenBlock struct {
	Kind string
	Says json.RawMessage
}

// MarshalJSON writes the paper as data.
func (d Document) MarshalJSON() ([]byte, error) {
	f := frozen{d.Shop, d.Tag, d.Kind, d.Title, d.Printed, d.Opens, d.Foot, d.Layout, nil}
	for _, b := range d.Blocks {
		says, err := json.Marshal(b)
		if err != nil {
			return nil, err
		}
		f.Blocks = append(f.Blocks, frozenBlock{b.kind(), says})
	}
	return json.Marshal(f)
}

// UnmarshalJSON reads what MarshalJSON wrote; it refuses a block that it does not know.
func (d *Document) UnmarshalJSON(text []byte) error {
	var f frozen
	if err := json.Unmarshal(text, &f); err != nil {
		return err
	}
	*d = Document{Shop: f.Shop, Tag: f.Tag, Kind: f.Kind, Title: f.Title, Printed: f.Printed, Opens: f.Opens,
		Foot: f.Foot, Layout: f.Layout}
	for _, b := range f.Blocks {
		read := readers[b.Kind]
		if read == nil {
			return fmt.Errorf("a paper with a block of the kind %q", b.Kind)
		}
		block, err := read(b.Says)
		if err != nil {
			return fmt.Errorf("a paper with a %s: %w", b.Kind, err)
		}
		d.Blocks = append(d.Blocks, block)
	}
	return nil
}

// readers read each kind of block.
var readers = map[string]func([]byte) (Block, error){}

func init() {
	reads[Heading]()
	reads[Text]()
	reads[Lines]()
	reads[Banner]()
	reads[Big]()
	reads[Facts]()
	reads[Table]()
	reads[Drawing]()
	reads[Pictures]()
	reads[Boxes]()
	reads[Checks]()
	reads[Signs]()
	reads[Seal]()
	reads[Code]()
	reads[Small]()
}

func reads[B Block]() {
	var none B
	readers[none.kind()] = func(text []byte) (Block, error) {
		var b B
		err := json.Unmarshal(text, &b)
		return b, err
	}
}

// Sealed is the paper with another seal in the place of its own: papers are signed off after
// they were made.
func (d Document) Sealed(by Seal) Document {
	blocks := make([]Block, len(d.Blocks))
	for i, b := range d.Blocks {
		if _, is := b.(Seal); is {
			b = by
		}
		blocks[i] = b
	}
	d.Blocks = blocks
	return d
}
