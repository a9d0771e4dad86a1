// Grown by Jar Sprout: d89ed90c
@file:UseSerializers(LocalDateSerializer::class)

import kotlinx.serialization.SerialName
import kotlinx.serialization.Serializable
import kotlinx.serialization.UseSerializers
import java.time.LocalDate

@Serializable
data class Inspection(
    val id: String,
    val date: LocalDate,
    val inspector: String,
    @SerialName("frames_of_brood")
    val framesOfBrood: Int,
    @SerialName("mites_per_100")
    val mitesPer100: Int,
    val temper: String,
    val remarks: String? = null,
)
