// Grown by Jar Sprout: 935f2bf7

struct AlarmEvent: Codable, Hashable, Identifiable, Sendable {
    let id: String
    let kind: String
    let at: ISODate
    let hive: Int64
    let sensor: String
    let reading: Reading
    let level: String
}
