// Grown by Jar Sprout.

struct EventPage: Codable, Hashable, Sendable {
    let events: [Event]
    let cursor: String
    let more: Bool
}
