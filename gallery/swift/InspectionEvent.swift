// Grown by Jar Sprout: 4717f694

struct InspectionEvent: Codable, Hashable, Identifiable, Sendable {
    let id: String
    let kind: String
    let at: ISODate
    let hive: Int64
    let inspection: Inspection
}
