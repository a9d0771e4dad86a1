/// Words that stand where there is no value; the first of them is written.
struct NothingWords: Sendable {
    let all: [String]

    init(_ all: String...) {
        self.all = all
    }
}

extension KeyedDecodingContainer {
    /// A value; nil where null or one of the words stands in its place.
    func decode<Value: Decodable>(
        _ type: Value.Type, forKey key: Key, or words: NothingWords
    ) throws -> Value? {
        if let text = try? decode(String.self, forKey: key), words.all.contains(text) {
            return nil
        }
        return try decodeNil(forKey: key) ? nil : decode(type, forKey: key)
    }

    /// The same of a key that may be missing.
    func decodeIfPresent<Value: Decodable>(
        _ type: Value.Type, forKey key: Key, or words: NothingWords
    ) throws -> Value? {
        contains(key) ? try decode(type, forKey: key, or: words) : nil
    }
}
    // <encode>

extension KeyedEncodingContainer {
    /// Writes a value; the first of the words where there is none.
    mutating func encode<Value: Encodable>(
        _ value: Value?, forKey key: Key, or words: NothingWords
    ) throws {
        if let value {
            try encode(value, forKey: key)
        } else {
            try encode(words.all[0], forKey: key)
        }
    }
}
    // </encode>
