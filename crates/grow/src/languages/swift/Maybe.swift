/// A value, null, or nothing at all: what is absent is left alone.
public enum Maybe<Value> {
    case absent
    case null
    case value(Value)
}

extension Maybe: Sendable where Value: Sendable {}

extension Maybe: Equatable where Value: Equatable {}

extension Maybe: Hashable where Value: Hashable {}

extension Maybe: Decodable where Value: Decodable {
    public init(from decoder: any Decoder) throws {
        let container = try decoder.singleValueContainer()
        self = try container.decodeNil() ? .null : .value(container.decode(Value.self))
    }
}

extension Maybe: Encodable where Value: Encodable {
    public func encode(to encoder: any Encoder) throws {
        var container = encoder.singleValueContainer()
        if case .value(let value) = self {
            try container.encode(value)
        } else {
            try container.encodeNil()
        }
    }
}

extension KeyedDecodingContainer {
    /// The compiler's own code calls this one: a key that is absent is no error.
    func decode<Value: Decodable>(
        _ type: Maybe<Value>.Type,
        forKey key: Key
    ) throws -> Maybe<Value> {
        try decodeIfPresent(type, forKey: key) ?? missing(type, forKey: key)
    }

    private func missing<Value>(_: Maybe<Value>.Type, forKey key: Key) -> Maybe<Value> {
        contains(key) ? .null : .absent
    }
}

extension KeyedEncodingContainer {
    /// The compiler's own code calls this one: what is absent is not written.
    mutating func encode<Value: Encodable>(_ maybe: Maybe<Value>, forKey key: Key) throws {
        switch maybe {
        case .absent: break
        case .null: try encodeNil(forKey: key)
        case .value(let value): try encode(value, forKey: key)
        }
    }
}
