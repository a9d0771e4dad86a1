// Grown by Jar Sprout: 1865d057

import kotlinx.serialization.Serializable

@Serializable
data class Reading(
    val t: Int,
    val limit: Int,
)
