// Grown by Jar Sprout: 00563281

export interface EventPage {
  events: Event[];
  cursor: string;
  more: boolean;
}

export type Event = InspectionEvent | HarvestEvent | SwarmEvent | AlarmEvent;

export interface InspectionEvent {
  id: string;
  kind: "inspection";
  at: string;
  hive: number;
  inspection: Inspection;
}

export interface Inspection {
  id: string;
  date: string;
  inspector: string;
  frames_of_brood: number;
  mites_per_100: number;
  temper: string;
  remarks?: string;
}

export interface HarvestEvent {
  id: string;
  kind: "harvest";
  at: string;
  hive: number;
  kg: number;
  batch: string;
  frames: number;
}

export interface SwarmEvent {
  id: string;
  kind: "swarm";
  at: string;
  hive: number;
  caught: boolean;
  seen_by: string[];
}

export interface AlarmEvent {
  id: string;
  kind: "alarm";
  at: string;
  hive: number;
  sensor: string;
  reading: Reading;
  level: string;
}

export interface Reading {
  t: number;
  limit: number;
}
