// Grown by Jar Sprout: 6e6b4aaa
@file:UseSerializers(OffsetDateTimeSerializer::class)

import kotlinx.serialization.EncodeDefault
import kotlinx.serialization.ExperimentalSerializationApi
import kotlinx.serialization.Serializable
import kotlinx.serialization.UseSerializers
import java.time.OffsetDateTime

@OptIn(ExperimentalSerializationApi::class)
@Serializable
data class InspectionEvent(
    val id: String,
    @EncodeDefault
    val kind: String = "inspection",
    val at: OffsetDateTime,
    val hive: Long,
    val inspection: Inspection,
) : Event
