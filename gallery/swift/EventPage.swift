// Grown by Jar Sprout: fede56c2

struct EventPage: Codable, Hashable, Sendable {
    let events: [Event]
    let cursor: String
    let more: Bool
}
