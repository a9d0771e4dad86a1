/// Holds a value apart, so that a type can contain itself.
final class Box<Value: Codable & Hashable & Sendable>: Codable, Hashable, Sendable {
    let value: Value

    init(_ value: Value) {
        self.value = value
    }

    init(from decoder: any Decoder) throws {
        value = try Value(from: decoder)
    }

    func encode(to encoder: any Encoder) throws {
        try value.encode(to: encoder)
    }

    static func == (left: Box, right: Box) -> Bool {
        left.value == right.value
    }

    func hash(into hasher: inout Hasher) {
        hasher.combine(value)
    }
}
