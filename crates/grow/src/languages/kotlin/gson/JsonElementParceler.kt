import android.os.Parcel
import com.google.gson.JsonElement
import com.google.gson.JsonParser
import kotlinx.parcelize.Parceler

/** Takes any JSON along as its text. */
object JsonElementParceler : Parceler<JsonElement> {
    override fun create(parcel: Parcel): JsonElement =
        JsonParser.parseString(parcel.readString().orEmpty())

    override fun JsonElement.write(
        parcel: Parcel,
        flags: Int,
    ) {
        parcel.writeString(toString())
    }
}
