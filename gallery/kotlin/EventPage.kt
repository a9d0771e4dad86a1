// Grown by Jar Sprout: 44c3554c

import kotlinx.serialization.Serializable

@Serializable
data class EventPage(
    val events: List<Event>,
    val cursor: String,
    val more: Boolean,
)
