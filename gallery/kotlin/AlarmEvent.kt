// Grown by Jar Sprout: 9e958a5a
@file:UseSerializers(OffsetDateTimeSerializer::class)

import kotlinx.serialization.EncodeDefault
import kotlinx.serialization.ExperimentalSerializationApi
import kotlinx.serialization.Serializable
import kotlinx.serialization.UseSerializers
import java.time.OffsetDateTime

@OptIn(ExperimentalSerializationApi::class)
@Serializable
data class AlarmEvent(
    val id: String,
    @EncodeDefault
    val kind: String = "alarm",
    val at: OffsetDateTime,
    val hive: Long,
    val sensor: String,
    val reading: Reading,
    val level: String,
) : Event
