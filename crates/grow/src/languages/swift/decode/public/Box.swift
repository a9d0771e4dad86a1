/// Holds a value apart, so that a type can contain itself.
public final class Box<Value: Decodable & Hashable & Sendable>: Decodable, Hashable, Sendable {
    public let value: Value

    public init(_ value: Value) {
        self.value = value
    }

    public init(from decoder: any Decoder) throws {
        value = try Value(from: decoder)
    }

    public static func == (left: Box, right: Box) -> Bool {
        left.value == right.value
    }

    public func hash(into hasher: inout Hasher) {
        hasher.combine(value)
    }
}
