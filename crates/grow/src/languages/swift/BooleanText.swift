/// A truth that JSON has in letters.
public struct BooleanText: Codable, Hashable, Sendable {
    public let flag: Bool

    public init(_ flag: Bool) {
        self.flag = flag
    }

    public init(from decoder: any Decoder) throws {
        let container = try decoder.singleValueContainer()
        let text = try container.decode(String.self)
        guard let flag = Bool(text) else {
            throw DecodingError.dataCorruptedError(
                in: container,
                debugDescription: "neither true nor false: \(text)"
            )
        }
        self.flag = flag
    }
    // <encode>

    public func encode(to encoder: any Encoder) throws {
        var container = encoder.singleValueContainer()
        try container.encode(String(flag))
    }
    // </encode>
}
