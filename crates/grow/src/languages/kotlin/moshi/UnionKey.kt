import com.squareup.moshi.JsonReader

internal fun JsonReader.has(key: String): Boolean {
    val ahead = peekJson()
    ahead.beginObject()
    while (ahead.hasNext()) {
        if (ahead.nextName() == key) {
            return true
        }
        ahead.skipValue()
    }
    return false
}
