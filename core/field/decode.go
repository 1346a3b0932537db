package field

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strings"
)

// DecodeJSON reads the one JSON object of body into v, with nothing after it;
// strict refuses keys that v does not have. The error is in a reader's words and
// wants the name of what was read put before it.
func DecodeJSON(body []byte, v any, strict bool) error {
	dec := json.NewDecoder(bytes.NewReader(body))
	if strict {
		dec.DisallowUnknownFields()
	}
	if err := dec.Decode(v); err != nil {
		return jsonReason(err)
	}
	if _, err := dec.Token(); !errors.Is(err, io.EOF) {
		return errors.New("there is something after the end of the JSON object")
	}
	return nil
}

func jsonReason(err error) error {
	var syntax *json.SyntaxError
	var kind *json.UnmarshalTypeError
	switch {
	case errors.As(err, &syntax):
		return fmt.Errorf("%s at character %d", syntax.Error(), syntax.Offset)
	case errors.Is(err, io.EOF), errors.Is(err, io.ErrUnexpectedEOF):
		return errors.New("it ends too early")
	case errors.As(err, &kind) && kind.Field != "":
		return fmt.Errorf("%s cannot be a %s", kind.Field, kind.Value)
	case errors.As(err, &kind):
		return errors.New(`an object {"name": "value unit"} is wanted`)
	}
	return errors.New(strings.TrimPrefix(err.Error(), "json: "))
}
