import "encoding/json"

// decodeKeys reads keys that no struct tag can name.
func decodeKeys(data []byte, fields map[string]any) error {
	var values map[string]json.RawMessage
	if err := json.Unmarshal(data, &values); err != nil {
		return err
	}
	for key, field := range fields {
		if value, ok := values[key]; ok {
			if err := json.Unmarshal(value, field); err != nil {
				return err
			}
		}
	}
	return nil
}

// encodeKeys writes a record, and with it keys that no struct tag can name.
func encodeKeys(record any, fields map[string]any) ([]byte, error) {
	data, err := json.Marshal(record)
	if err != nil {
		return nil, err
	}
	values := make(map[string]any, len(fields))
	var tagged map[string]json.RawMessage
	if err := json.Unmarshal(data, &tagged); err != nil {
		return nil, err
	}
	for key, value := range tagged {
		values[key] = value
	}
	for key, field := range fields {
		values[key] = field
	}
	return json.Marshal(values)
}
