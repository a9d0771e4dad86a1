package trials

import com.fasterxml.jackson.databind.DeserializationFeature
import com.fasterxml.jackson.module.kotlin.jsonMapper
import com.fasterxml.jackson.module.kotlin.kotlinModule
import com.fasterxml.jackson.module.kotlin.readValue

@PublishedApi
internal val mapper =
    jsonMapper {
        addModule(kotlinModule()).withDates()
        disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
    }

/** Decodes a text, and encodes what came of it. */
internal inline fun <reified T> roundTrip(text: String): String = mapper.writeValueAsString(mapper.readValue<T>(text))
