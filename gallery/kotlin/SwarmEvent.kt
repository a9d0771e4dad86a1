// Grown by Jar Sprout: b57eae54
@file:UseSerializers(OffsetDateTimeSerializer::class)

import kotlinx.serialization.EncodeDefault
import kotlinx.serialization.ExperimentalSerializationApi
import kotlinx.serialization.SerialName
import kotlinx.serialization.Serializable
import kotlinx.serialization.UseSerializers
import java.time.OffsetDateTime

@OptIn(ExperimentalSerializationApi::class)
@Serializable
data class SwarmEvent(
    val id: String,
    @EncodeDefault
    val kind: String = "swarm",
    val at: OffsetDateTime,
    val hive: Long,
    val caught: Boolean,
    @SerialName("seen_by")
    val seenBy: List<String>,
) : Event
