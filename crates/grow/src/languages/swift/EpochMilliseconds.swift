import Foundation

/// A point in time that JSON has as the milliseconds since 1970.
public struct EpochMilliseconds: Codable, Hashable, Sendable {
    public let milliseconds: Int64

    public var date: Date {
        Date(timeIntervalSince1970: Double(milliseconds) / 1000)
    }

    public init(_ date: Date) {
        milliseconds = Int64((date.timeIntervalSince1970 * 1000).rounded())
    }

    public init(from decoder: any Decoder) throws {
        milliseconds = try decoder.singleValueContainer().decode(Int64.self)
    }
    // <encode>

    public func encode(to encoder: any Encoder) throws {
        var container = encoder.singleValueContainer()
        try container.encode(milliseconds)
    }
    // </encode>
}
