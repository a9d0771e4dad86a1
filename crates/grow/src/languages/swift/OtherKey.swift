/// A key that an object has no property for.
struct OtherKey: CodingKey {
    let stringValue: String

    var intValue: Int? { nil }

    init(stringValue: String) {
        self.stringValue = stringValue
    }

    init?(intValue: Int) {
        return nil
    }

    /// What stands under the keys that are none of those known.
    static func decode<Known: CodingKey & CaseIterable, Value: Decodable>(
        from decoder: any Decoder, without known: Known.Type
    ) throws -> [String: Value] {
        let names = Set(known.allCases.map(\.stringValue))
        let container = try decoder.container(keyedBy: OtherKey.self)
        let others = container.allKeys.filter { !names.contains($0.stringValue) }
        return try others.reduce(into: [:]) { values, key in
            values[key.stringValue] = try container.decode(Value.self, forKey: key)
        }
    }
    // <encode>

    /// Writes others among the keys of an object.
    static func encode<Value: Encodable>(
        _ others: [String: Value], to encoder: any Encoder
    ) throws {
        var container = encoder.container(keyedBy: OtherKey.self)
        for (name, value) in others {
            try container.encode(value, forKey: OtherKey(stringValue: name))
        }
    }
    // </encode>
}
