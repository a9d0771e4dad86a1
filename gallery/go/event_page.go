// Grown by Jar Sprout: 01b94a41

package models

import (
	"encoding/json"
	"time"
)

type EventPage struct {
	Events []Event `json:"events"`
	Cursor string  `json:"cursor"`
	More   bool    `json:"more"`
}

// Event has one of its fields set; a kind that is not known yet is kept in Other.
type Event struct {
	Inspection *InspectionEvent
	Harvest    *HarvestEvent
	Swarm      *SwarmEvent
	Alarm      *AlarmEvent
	Other      json.RawMessage
}

// UnmarshalJSON chooses the case by its tag.
func (e *Event) UnmarshalJSON(data []byte) error {
	*e = Event{}
	var kind struct {
		Value string `json:"kind"`
	}
	if err := json.Unmarshal(data, &kind); err != nil {
		return err
	}
	switch kind.Value {
	case "inspection":
		return json.Unmarshal(data, &e.Inspection)
	case "harvest":
		return json.Unmarshal(data, &e.Harvest)
	case "swarm":
		return json.Unmarshal(data, &e.Swarm)
	case "alarm":
		return json.Unmarshal(data, &e.Alarm)
	default:
		return json.Unmarshal(data, &e.Other)
	}
}

// MarshalJSON writes the case that is set.
func (e Event) MarshalJSON() ([]byte, error) {
	switch {
	case e.Inspection != nil:
		return json.Marshal(e.Inspection)
	case e.Harvest != nil:
		return json.Marshal(e.Harvest)
	case e.Swarm != nil:
		return json.Marshal(e.Swarm)
	case e.Alarm != nil:
		return json.Marshal(e.Alarm)
	default:
		return json.Marshal(e.Other)
	}
}

type InspectionEvent struct {
	ID         string     `json:"id"`
	Kind       string     `json:"kind"`
	At         time.Time  `json:"at"`
	Hive       int64      `json:"hive"`
	Inspection Inspection `json:"inspection"`
}

type Inspection struct {
	ID            string  `json:"id"`
	Date          Date    `json:"date"`
	Inspector     string  `json:"inspector"`
	FramesOfBrood int     `json:"frames_of_brood"`
	MitesPer100   int     `json:"mites_per_100"`
	Temper        string  `json:"temper"`
	Remarks       *string `json:"remarks,omitempty"`
}

type HarvestEvent struct {
	ID     string    `json:"id"`
	Kind   string    `json:"kind"`
	At     time.Time `json:"at"`
	Hive   int64     `json:"hive"`
	Kg     float64   `json:"kg"`
	Batch  string    `json:"batch"`
	Frames int       `json:"frames"`
}

type SwarmEvent struct {
	ID     string    `json:"id"`
	Kind   string    `json:"kind"`
	At     time.Time `json:"at"`
	Hive   int64     `json:"hive"`
	Caught bool      `json:"caught"`
	SeenBy []string  `json:"seen_by"`
}

type AlarmEvent struct {
	ID      string    `json:"id"`
	Kind    string    `json:"kind"`
	At      time.Time `json:"at"`
	Hive    int64     `json:"hive"`
	Sensor  string    `json:"sensor"`
	Reading Reading   `json:"reading"`
	Level   string    `json:"level"`
}

type Reading struct {
	T     int `json:"t"`
	Limit int `json:"limit"`
}

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
