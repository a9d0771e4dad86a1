import android.os.Parcel
import kotlinx.parcelize.Parceler
import kotlinx.serialization.json.Json
import kotlinx.serialization.json.JsonElement

/** Takes any JSON along as its text. */
object JsonElementParceler : Parceler<JsonElement> {
    override fun create(parcel: Parcel): JsonElement =
        Json.parseToJsonElement(parcel.readString().orEmpty())

    override fun JsonElement.write(
        parcel: Parcel,
        flags: Int,
    ) {
        parcel.writeString(toString())
    }
}
