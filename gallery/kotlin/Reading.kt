// Grown by Jar Sprout.

import kotlinx.serialization.Serializable

@Serializable
data class Reading(
    val t: Int,
    val limit: Int,
)
