// What the plugin for parcels asks of Android.
package android.os

interface Parcelable {
    fun describeContents(): Int

    fun writeToParcel(
        dest: Parcel,
        flags: Int,
    )

    interface Creator<T> {
        fun createFromParcel(source: Parcel): T

        fun newArray(size: Int): Array<T>
    }
}

class Parcel {
    fun readString(): String? = null

    fun writeString(text: String?) {}
}
