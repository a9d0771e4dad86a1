// Grown by Jar Sprout: 1222684f

struct SwarmEvent: Codable, Hashable, Identifiable, Sendable {
    let id: String
    let kind: String
    let at: ISODate
    let hive: Int64
    let caught: Bool
    let seenBy: [String]

    private enum CodingKeys: String, CodingKey {
        case id
        case kind
        case at
        case hive
        case caught
        case seenBy = "seen_by"
    }
}
