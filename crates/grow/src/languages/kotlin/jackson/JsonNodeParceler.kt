import android.os.Parcel
import com.fasterxml.jackson.databind.JsonNode
import com.fasterxml.jackson.databind.json.JsonMapper
import kotlinx.parcelize.Parceler

/** Takes any JSON along as its text. */
object JsonNodeParceler : Parceler<JsonNode> {
    override fun create(parcel: Parcel): JsonNode =
        JsonMapper().readTree(parcel.readString().orEmpty())

    override fun JsonNode.write(
        parcel: Parcel,
        flags: Int,
    ) {
        parcel.writeString(toString())
    }
}
