import Foundation

/// A value that stands as JSON in a text.
public struct JSONText<Value: Codable & Hashable & Sendable>: Codable, Hashable, Sendable {
    public let value: Value

    public init(_ value: Value) {
        self.value = value
    }

    public init(from decoder: any Decoder) throws {
        let text = try decoder.singleValueContainer().decode(String.self)
        value = try JSONDecoder().decode(Value.self, from: Data(text.utf8))
    }
    // <encode>

    public func encode(to encoder: any Encoder) throws {
        var container = encoder.singleValueContainer()
        try container.encode(String(decoding: JSONEncoder().encode(value), as: UTF8.self))
    }
    // </encode>
}
