import "encoding/json"
import "slices"

// LettersOrNothing is a value in letters, nil where a word stands for nothing.
type LettersOrNothing[T any, W Words] struct {
	Value *T
}

// MarshalJSON writes the value in letters, or the word.
func (l LettersOrNothing[T, W]) MarshalJSON() ([]byte, error) {
	if l.Value == nil {
		var w W
		return json.Marshal(w.Words()[0])
	}
	text, err := json.Marshal(l.Value)
	if err != nil {
		return nil, err
	}
	return json.Marshal(string(text))
}

// UnmarshalJSON reads a value in letters, or nothing where null or a word stands.
func (l *LettersOrNothing[T, W]) UnmarshalJSON(data []byte) error {
	var text *string
	if err := json.Unmarshal(data, &text); err != nil {
		return err
	}
	var w W
	if text == nil || slices.Contains(w.Words(), *text) {
		l.Value = nil
		return nil
	}
	return json.Unmarshal([]byte(*text), &l.Value)
}
