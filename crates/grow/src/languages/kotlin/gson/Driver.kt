package trials

import com.google.gson.GsonBuilder
import com.google.gson.reflect.TypeToken
import java.io.File

private val gson = GsonBuilder().serializeNulls().withDates().create()

/** Decodes a text, and encodes what came of it. */
internal inline fun <reified T> roundTrip(text: String): String = roundTrip(text, object : TypeToken<T>() {})

internal fun <T> roundTrip(
    text: String,
    type: TypeToken<T>,
): String = gson.toJson(gson.fromJson(text, type), type.type)

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
