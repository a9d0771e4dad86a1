import com.squareup.moshi.JsonReader

internal fun JsonReader.tag(key: String): String? {
    val ahead = peekJson()
    ahead.beginObject()
    while (ahead.hasNext()) {
        if (ahead.nextName() == key && ahead.peek() == JsonReader.Token.STRING) {
            return ahead.nextString()
        }
        ahead.skipValue()
    }
    return null
}
