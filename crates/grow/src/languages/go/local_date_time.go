import "time"

// LocalDateTime is a date and a time of day with no offset from UTC.
type LocalDateTime struct{ time.Time }

// MarshalJSON writes a date and a time without an offset.
func (t LocalDateTime) MarshalJSON() ([]byte, error) {
	return []byte(t.Format(`"2006-01-02T15:04:05.999999999"`)), nil
}

// UnmarshalJSON reads a date and a time without an offset.
func (t *LocalDateTime) UnmarshalJSON(data []byte) error {
	if string(data) == "null" {
		return nil
	}
	read, err := time.Parse(`"2006-01-02T15:04:05.999999999"`, string(data))
	t.Time = read
	return err
}
