package trials

import com.google.gson.GsonBuilder
import com.google.gson.reflect.TypeToken

private val gson = GsonBuilder().serializeNulls().withDates().create()

/** Decodes a text, and encodes what came of it. */
internal inline fun <reified T> roundTrip(text: String): String = roundTrip(text, object : TypeToken<T>() {})

internal fun <T> roundTrip(
    text: String,
    type: TypeToken<T>,
): String = gson.toJson(gson.fromJson(text, type), type.type)
