// Grown by Jar Sprout: e436880a

struct Reading: Codable, Hashable, Sendable {
    let t: Int
    let limit: Int
}
