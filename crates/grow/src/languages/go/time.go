import "time"

// Time is a date and a time of day with its offset from UTC.
type Time struct{ time.Time }

// MarshalJSON writes a date and a time with its offset.
func (t Time) MarshalJSON() ([]byte, error) {
	return []byte(t.Format(`"2006-01-02T15:04:05.999999999Z07:00"`)), nil
}

// UnmarshalJSON reads a date and a time with its offset.
func (t *Time) UnmarshalJSON(data []byte) error {
	if string(data) == "null" {
		return nil
	}
	read, err := time.Parse(`"2006-01-02T15:04:05.999999999Z07:00"`, string(data))
	t.Time = read
	return err
}
