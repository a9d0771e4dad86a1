import "time"

// LocalTime is a time of day.
type LocalTime struct{ time.Time }

// MarshalJSON writes a time of day.
func (t LocalTime) MarshalJSON() ([]byte, error) {
	return []byte(t.Format(`"15:04:05.999999999"`)), nil
}

// UnmarshalJSON reads a time of day.
func (t *LocalTime) UnmarshalJSON(data []byte) error {
	if string(data) == "null" {
		return nil
	}
	read, err := time.Parse(`"15:04:05.999999999"`, string(data))
	t.Time = read
	return err
}
