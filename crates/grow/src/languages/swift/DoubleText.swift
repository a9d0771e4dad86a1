/// A number that JSON has in letters; how it was written is kept.
public struct DoubleText: Codable, Hashable, Sendable {
    public let number: Double
    public let text: String

    public init?(_ text: String) {
        guard let number = Double(text) else { return nil }
        self.number = number
        self.text = text
    }

    public init(from decoder: any Decoder) throws {
        let container = try decoder.singleValueContainer()
        let text = try container.decode(String.self)
        guard let number = Double(text) else {
            throw DecodingError.dataCorruptedError(
                in: container,
                debugDescription: "not a number: \(text)"
            )
        }
        self.number = number
        self.text = text
    }

    public func encode(to encoder: any Encoder) throws {
        var container = encoder.singleValueContainer()
        try container.encode(text)
    }
}
