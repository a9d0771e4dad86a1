package trials

import com.squareup.moshi.JsonAdapter
import com.squareup.moshi.Moshi
import com.squareup.moshi.adapter
import com.squareup.moshi.kotlin.reflect.KotlinJsonAdapterFactory

@PublishedApi
internal val moshi: Moshi = Moshi.Builder().withDatesAndBigIntegers().addLast(KotlinJsonAdapterFactory()).build()

/** Decodes a text, and encodes what came of it. */
@OptIn(ExperimentalStdlibApi::class)
internal inline fun <reified T> roundTrip(text: String): String = roundTrip(text, moshi.adapter<T>())

internal fun <T> roundTrip(
    text: String,
    adapter: JsonAdapter<T>,
): String = adapter.serializeNulls().run { toJson(fromJson(text)) }
