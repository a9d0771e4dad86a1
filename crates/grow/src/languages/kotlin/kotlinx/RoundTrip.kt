package trials

import kotlinx.serialization.encodeToString
import kotlinx.serialization.json.Json

@PublishedApi
internal val json = Json { ignoreUnknownKeys = true }

/** Decodes a text, and encodes what came of it. */
inline fun <reified T> roundTrip(text: String): String = json.encodeToString(json.decodeFromString<T>(text))
