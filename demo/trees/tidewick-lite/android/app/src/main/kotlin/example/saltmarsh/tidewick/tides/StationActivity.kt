package example.saltmarsh.tidewick.tides

import android.app.Activity

class StationActivity : Activity()
