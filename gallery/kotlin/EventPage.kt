// Grown by Jar Sprout.

import kotlinx.serialization.Serializable

@Serializable
data class EventPage(
    val events: List<Event>,
    val cursor: String,
    val more: Boolean,
)
