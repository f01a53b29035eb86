# Tide stations are read by reflection.
-keep class example.saltmarsh.tidewick.tides.Station { *; }
