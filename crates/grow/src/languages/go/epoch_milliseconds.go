import "strconv"
import "time"

// EpochMilliseconds is a point in time that JSON has as the milliseconds since 1970.
type EpochMilliseconds struct {
	time.Time
}

// MarshalJSON writes the milliseconds.
func (t EpochMilliseconds) MarshalJSON() ([]byte, error) {
	return strconv.AppendInt(nil, t.UnixMilli(), 10), nil
}

// UnmarshalJSON reads the milliseconds.
func (t *EpochMilliseconds) UnmarshalJSON(data []byte) error {
	number, err := strconv.ParseInt(string(data), 10, 64)
	if err != nil {
		return err
	}
	t.Time = time.UnixMilli(number).UTC()
	return nil
}
