import "strconv"
import "time"

// EpochSeconds is a point in time that JSON has as the seconds since 1970.
type EpochSeconds struct {
	time.Time
}

// MarshalJSON writes the seconds.
func (t EpochSeconds) MarshalJSON() ([]byte, error) {
	return strconv.AppendInt(nil, t.Unix(), 10), nil
}

// UnmarshalJSON reads the seconds.
func (t *EpochSeconds) UnmarshalJSON(data []byte) error {
	number, err := strconv.ParseInt(string(data), 10, 64)
	if err != nil {
		return err
	}
	t.Time = time.Unix(number, 0).UTC()
	return nil
}
