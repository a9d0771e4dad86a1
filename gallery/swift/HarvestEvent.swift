// Grown by Jar Sprout: 874fa141

struct HarvestEvent: Codable, Hashable, Identifiable, Sendable {
    let id: String
    let kind: String
    let at: ISODate
    let hive: Int64
    let kg: Double
    let batch: String
    let frames: Int
}
