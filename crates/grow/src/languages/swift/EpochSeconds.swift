import Foundation

/// A point in time that JSON has as the seconds since 1970.
public struct EpochSeconds: Codable, Hashable, Sendable {
    public let seconds: Int64

    public var date: Date {
        Date(timeIntervalSince1970: Double(seconds))
    }

    public init(_ date: Date) {
        seconds = Int64(date.timeIntervalSince1970.rounded())
    }

    public init(from decoder: any Decoder) throws {
        seconds = try decoder.singleValueContainer().decode(Int64.self)
    }
    // <encode>

    public func encode(to encoder: any Encoder) throws {
        var container = encoder.singleValueContainer()
        try container.encode(seconds)
    }
    // </encode>
}
