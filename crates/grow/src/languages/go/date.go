import "time"

// Date is a day of the calendar.
type Date struct{ time.Time }

// MarshalJSON writes a date as year, month and day.
func (t Date) MarshalJSON() ([]byte, error) {
	return []byte(t.Format(`"2006-01-02"`)), nil
}

// UnmarshalJSON reads a date as year, month and day.
func (t *Date) UnmarshalJSON(data []byte) error {
	if string(data) == "null" {
		return nil
	}
	read, err := time.Parse(`"2006-01-02"`, string(data))
	t.Time = read
	return err
}
