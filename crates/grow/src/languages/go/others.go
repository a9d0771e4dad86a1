import "encoding/json"
import "slices"

// decodeOthers reads the keys of an object that are none of those known.
func decodeOthers[T any](data []byte, others *map[string]T, known ...string) error {
	var all map[string]json.RawMessage
	if err := json.Unmarshal(data, &all); err != nil {
		return err
	}
	for key, raw := range all {
		if slices.Contains(known, key) {
			continue
		}
		var value T
		if err := json.Unmarshal(raw, &value); err != nil {
			return err
		}
		if *others == nil {
			*others = make(map[string]T)
		}
		(*others)[key] = value
	}
	return nil
}

// encodeOthers writes a record, and others among its keys.
func encodeOthers[T any](record any, others map[string]T) ([]byte, error) {
	data, err := json.Marshal(record)
	if err != nil || len(others) == 0 {
		return data, err
	}
	more, err := json.Marshal(others)
	if err != nil || len(data) == len("{}") {
		return more, err
	}
	data[len(data)-1] = ','
	return append(data, more[1:]...), nil
}
