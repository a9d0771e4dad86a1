import "encoding/json"
import "slices"

// OrNothing is a value, nil where a word stands for nothing.
type OrNothing[T any, W Words] struct {
	Value *T
}

// MarshalJSON writes the value, or the word.
func (o OrNothing[T, W]) MarshalJSON() ([]byte, error) {
	if o.Value == nil {
		var w W
		return json.Marshal(w.Words()[0])
	}
	return json.Marshal(o.Value)
}

// UnmarshalJSON reads a value, or nothing where null or a word stands.
func (o *OrNothing[T, W]) UnmarshalJSON(data []byte) error {
	var text string
	var w W
	if json.Unmarshal(data, &text) == nil && slices.Contains(w.Words(), text) {
		o.Value = nil
		return nil
	}
	return json.Unmarshal(data, &o.Value)
}
