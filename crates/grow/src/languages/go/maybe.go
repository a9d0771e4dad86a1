import "encoding/json"

// Maybe is a value, null where it is nil, or nothing at all: what is not set is left alone.
type Maybe[T any] struct {
	IsSet bool
	Value *T
}

// IsZero says that nothing is written.
func (m Maybe[T]) IsZero() bool {
	return !m.IsSet
}

// MarshalJSON writes the value, or null.
func (m Maybe[T]) MarshalJSON() ([]byte, error) {
	return json.Marshal(m.Value)
}

// UnmarshalJSON reads a value, or null.
func (m *Maybe[T]) UnmarshalJSON(data []byte) error {
	m.IsSet = true
	return json.Unmarshal(data, &m.Value)
}
