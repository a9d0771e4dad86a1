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

    /// A point in time, written in UTC.
    public init(_ date: Date) {
        self.date = date
        self.text = ISO8601DateFormatter().string(from: date)
    }

    /// The day that it is somewhere, written without a time.
    public init(dayOf date: Date, in timeZone: TimeZone = .current) {
        let formatter = ISO8601DateFormatter()
        formatter.formatOptions = .withFullDate
        formatter.timeZone = timeZone
        self.date = date
        self.text = formatter.string(from: date)
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
        let parts = text.split(separator: "T", maxSplits: 1, omittingEmptySubsequences: false)
        guard let days = days(parts[0]) else { return nil }
        let midnight = Double(days * 86_400)
        guard parts.count == 2 else { return Date(timeIntervalSince1970: midnight) }
        let zone = parts[1].firstIndex { "Z+-".contains($0) } ?? parts[1].endIndex
        guard let clock = clock(parts[1][..<zone]), let ahead = ahead(parts[1][zone...])
        else { return nil }
        return Date(timeIntervalSince1970: midnight + clock - Double(ahead))
    }

    /// The days since 1970 of `2026-05-11`.
    private static func days(_ text: Substring) -> Int? {
        guard let parts = numbers(text, [4, 2, 2], between: "-"), parts[0] > 0
        else { return nil }
        let (year, month, day) = (parts[0], parts[1], parts[2])
        let isLeap = year % 4 == 0 && (year % 100 != 0 || year % 400 == 0)
        let february = isLeap ? 29 : 28
        let lengths = [31, february, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31]
        guard 1...12 ~= month, 1...lengths[month - 1] ~= day else { return nil }
        let before = year - 1
        let leapDays = before / 4 - before / 100 + before / 400
        let inYear = lengths[..<(month - 1)].reduce(0, +) + day
        return before * 365 + leapDays + inYear - 719_163
    }

    /// The seconds since midnight of `10:00:00.25`.
    private static func clock(_ text: Substring) -> Double? {
        let parts = text.split(separator: ".", maxSplits: 1, omittingEmptySubsequences: false)
        guard let time = numbers(parts[0], [2, 2, 2], between: ":"),
            time[0] < 24, time[1] < 60, time[2] <= 60
        else { return nil }
        let seconds = Double(time[0] * 3600 + time[1] * 60 + time[2])
        guard parts.count == 2 else { return seconds }
        let isFraction = !parts[1].isEmpty && parts[1].utf8.allSatisfy { 48...57 ~= $0 }
        return isFraction ? Double("0.\(parts[1])").map { seconds + $0 } : nil
    }

    /// The seconds by which `+02:00`, `+0200` or `+02` is ahead of UTC.
    private static func ahead(_ text: Substring) -> Int? {
        guard let sign = text.first, text != "Z" else { return 0 }
        var digits = text.dropFirst()
        if digits.utf8.count == 4 {
            digits = "\(digits.prefix(2)):\(digits.suffix(2))"
        }
        let widths = digits.utf8.count > 2 ? [2, 2] : [2]
        guard let parts = numbers(digits, widths, between: ":") else { return nil }
        let seconds = parts[0] * 3600 + (parts.count > 1 ? parts[1] * 60 : 0)
        return sign == "-" ? -seconds : seconds
    }

    /// Numbers of so many digits each.
    private static func numbers(
        _ text: Substring,
        _ widths: [Int],
        between separator: Character
    ) -> [Int]? {
        let parts = text.split(separator: separator, omittingEmptySubsequences: false)
        guard parts.count == widths.count else { return nil }
        let isNumber = zip(parts, widths).allSatisfy { part, width in
            part.utf8.count == width && part.utf8.allSatisfy { 48...57 ~= $0 }
        }
        return isNumber ? parts.compactMap { Int($0) } : nil
    }
}
