import Foundation

/// A date, with or without a time and an offset, as ISO 8601 writes it.
///
/// The text is kept, since `Date` forgets the offset. Without an offset, `date` is in UTC.
public struct ISODate: Codable, Hashable, Sendable {
    public let date: Date
    public let text: String

    public init?(_ text: String) {
        guard let date = Self.parse(text) else { return nil }
        self.date = date
        self.text = text
    }

    public init(from decoder: any Decoder) throws {
        let container = try decoder.singleValueContainer()
        let text = try container.decode(String.self)
        guard let date = Self.parse(text) else {
            throw DecodingError.dataCorruptedError(
                in: container,
                debugDescription: "not an ISO 8601 date: \(text)"
            )
        }
        self.date = date
        self.text = text
    }

    public func encode(to encoder: any Encoder) throws {
        var container = encoder.singleValueContainer()
        try container.encode(text)
    }

    private static func parse(_ text: String) -> Date? {
        let time = text.firstIndex(of: "T") ?? text.endIndex
        let offset = text[time...].firstIndex { "Z+-".contains($0) } ?? text.endIndex
        let parts = text[..<offset].split { !$0.isNumber }
        let numbers = parts.prefix(6).compactMap { Int($0) }
        guard numbers.count == 3 || numbers.count == 6 else { return nil }
        var components = DateComponents()
        components.year = numbers[0]
        components.month = numbers[1]
        components.day = numbers[2]
        if numbers.count == 6 {
            components.hour = numbers[3]
            components.minute = numbers[4]
            components.second = numbers[5]
        }
        components.timeZone = TimeZone(secondsFromGMT: 0)
        let calendar = Calendar(identifier: .gregorian)
        guard let whole = calendar.date(from: components) else { return nil }
        let fraction = parts.count > 6 ? Double("0.\(parts[6])") ?? 0 : 0
        let minutes = text[offset...].split { !$0.isNumber }.compactMap { Int($0) }
        let seconds = minutes.reduce(0) { $0 * 60 + $1 } * 60
        let sign = text[offset...].hasPrefix("-") ? -1 : 1
        return whole.addingTimeInterval(fraction - Double(sign * seconds))
    }
}
