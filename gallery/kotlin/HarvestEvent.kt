// Grown by Jar Sprout: 3e80c5a6
@file:UseSerializers(OffsetDateTimeSerializer::class)

import kotlinx.serialization.EncodeDefault
import kotlinx.serialization.ExperimentalSerializationApi
import kotlinx.serialization.Serializable
import kotlinx.serialization.UseSerializers
import java.time.OffsetDateTime

@OptIn(ExperimentalSerializationApi::class)
@Serializable
data class HarvestEvent(
    val id: String,
    @EncodeDefault
    val kind: String = "harvest",
    val at: OffsetDateTime,
    val hive: Long,
    val kg: Double,
    val batch: String,
    val frames: Int,
) : Event
