// Grown by Jar Sprout: 54e6fc1a

enum Event: Codable, Hashable, Sendable {
    case inspection(InspectionEvent)
    case harvest(HarvestEvent)
    case swarm(SwarmEvent)
    case alarm(AlarmEvent)
    /// A kind that is not known yet.
    case unknown(JSONValue)

    private enum TagKey: String, CodingKey {
        case tag = "kind"
    }

    init(from decoder: any Decoder) throws {
        let container = try decoder.container(keyedBy: TagKey.self)
        let tag = try container.decodeIfPresent(String.self, forKey: .tag)
        switch tag ?? "" {
        case "inspection":
            self = .inspection(try InspectionEvent(from: decoder))
        case "harvest":
            self = .harvest(try HarvestEvent(from: decoder))
        case "swarm":
            self = .swarm(try SwarmEvent(from: decoder))
        case "alarm":
            self = .alarm(try AlarmEvent(from: decoder))
        default:
            self = .unknown(try JSONValue(from: decoder))
        }
    }

    func encode(to encoder: any Encoder) throws {
        switch self {
        case .inspection(let value):
            try value.encode(to: encoder)
        case .harvest(let value):
            try value.encode(to: encoder)
        case .swarm(let value):
            try value.encode(to: encoder)
        case .alarm(let value):
            try value.encode(to: encoder)
        case .unknown(let value):
            try value.encode(to: encoder)
        }
    }
}
