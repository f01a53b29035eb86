package example.saltmarsh.tidewick.tides

data class Station(
    val name: String,
    val latitude: Double,
    val longitude: Double,
)
