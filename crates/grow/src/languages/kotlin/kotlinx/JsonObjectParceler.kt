import android.os.Parcel
import kotlinx.parcelize.Parceler
import kotlinx.serialization.json.Json
import kotlinx.serialization.json.JsonObject
import kotlinx.serialization.json.jsonObject

/** Takes any JSON object along as its text. */
object JsonObjectParceler : Parceler<JsonObject> {
    override fun create(parcel: Parcel): JsonObject =
        Json.parseToJsonElement(parcel.readString().orEmpty()).jsonObject

    override fun JsonObject.write(
        parcel: Parcel,
        flags: Int,
    ) {
        parcel.writeString(toString())
    }
}
