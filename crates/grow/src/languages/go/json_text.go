import "encoding/json"

// JSONText is a value that stands as JSON in a text.
type JSONText[T any] struct {
	Value T
}

// MarshalJSON writes the value's JSON as a text.
func (t JSONText[T]) MarshalJSON() ([]byte, error) {
	text, err := json.Marshal(t.Value)
	if err != nil {
		return nil, err
	}
	return json.Marshal(string(text))
}

// UnmarshalJSON reads the JSON in a text.
func (t *JSONText[T]) UnmarshalJSON(data []byte) error {
	var text string
	if err := json.Unmarshal(data, &text); err != nil {
		return err
	}
	return json.Unmarshal([]byte(text), &t.Value)
}
