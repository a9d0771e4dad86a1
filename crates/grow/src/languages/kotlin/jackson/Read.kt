import com.fasterxml.jackson.core.JsonParser
import com.fasterxml.jackson.module.kotlin.jacksonTypeRef

internal inline fun <reified T> JsonParser.read(): T = readValueAs(jacksonTypeRef<T>())
