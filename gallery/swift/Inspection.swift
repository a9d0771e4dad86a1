// Grown by Jar Sprout: 92b73f57

struct Inspection: Codable, Hashable, Identifiable, Sendable {
    let id: String
    let date: ISODate
    let inspector: String
    let framesOfBrood: Int
    let mitesPer100: Int
    let temper: String
    let remarks: String?

    private enum CodingKeys: String, CodingKey {
        case id
        case date
        case inspector
        case framesOfBrood = "frames_of_brood"
        case mitesPer100 = "mites_per_100"
        case temper
        case remarks
    }
}
