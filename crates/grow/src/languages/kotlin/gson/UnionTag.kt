import com.google.gson.JsonElement

internal fun JsonElement.tag(key: String): String? =
    (this as? com.google.gson.JsonObject)?.get(key)?.takeIf { it.isJsonPrimitive }?.asString
