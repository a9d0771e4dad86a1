// Grown by Jar Sprout.

struct Reading: Codable, Hashable, Sendable {
    let t: Int
    let limit: Int
}
