package trials

import com.squareup.moshi.JsonAdapter
import com.squareup.moshi.Moshi
import com.squareup.moshi.adapter
import com.squareup.moshi.kotlin.reflect.KotlinJsonAdapterFactory
import java.io.File

@PublishedApi
internal val moshi: Moshi = Moshi.Builder().withDatesAndBigIntegers().addLast(KotlinJsonAdapterFactory()).build()

/** Decodes a text, and encodes what came of it. */
@OptIn(ExperimentalStdlibApi::class)
internal inline fun <reified T> roundTrip(text: String): String = roundTrip(text, moshi.adapter<T>())

internal fun <T> roundTrip(
    text: String,
    adapter: JsonAdapter<T>,
): String = adapter.serializeNulls().run { toJson(fromJson(text)) }

/** Every line of standard input names a trial, a sample to read and a result to write, tabs between them. */
fun main() {
    for (line in generateSequence(::readlnOrNull)) {
        val (place, sample, result) = line.split('\t')
        try {
            File(result).writeText(roundTrip(place, File(sample).readText()))
        } catch (failure: Exception) {
            println("$place\t$sample\t${failure.toString().replace(Regex("\\s+"), " ")}")
        }
    }
}
