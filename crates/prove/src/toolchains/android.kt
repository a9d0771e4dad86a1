// What the plugin for parcels asks of Android.
package android.os

interface Parcelable {
    interface Creator<T>
}

class Parcel {
    fun readString(): String? = null

    fun writeString(text: String?) {
        check(text != null)
    }
}
