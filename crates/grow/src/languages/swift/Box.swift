/// Holds a value apart, so that a type can contain itself.
public final class Box<Value: Codable & Hashable & Sendable>: Codable, Hashable, Sendable {
    public let value: Value

    public init(_ value: Value) {
        self.value = value
    }

    public init(from decoder: any Decoder) throws {
        value = try Value(from: decoder)
    }
    // <encode>

    public func encode(to encoder: any Encoder) throws {
        try value.encode(to: encoder)
    }
    // </encode>

    public static func == (left: Box, right: Box) -> Bool {
        left.value == right.value
    }

    public func hash(into hasher: inout Hasher) {
        hasher.combine(value)
    }
}
