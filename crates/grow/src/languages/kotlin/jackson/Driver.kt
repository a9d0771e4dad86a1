package trials

import com.fasterxml.jackson.databind.DeserializationFeature
import com.fasterxml.jackson.module.kotlin.jsonMapper
import com.fasterxml.jackson.module.kotlin.kotlinModule
import com.fasterxml.jackson.module.kotlin.readValue
import java.io.File

@PublishedApi
internal val mapper =
    jsonMapper {
        addModule(kotlinModule()).withDates()
        disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
    }

/** Decodes a text, and encodes what came of it. */
internal inline fun <reified T> roundTrip(text: String): String = mapper.writeValueAsString(mapper.readValue<T>(text))

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
