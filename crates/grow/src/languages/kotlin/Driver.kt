package trials

import java.io.File

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
