package example.saltmarsh.tidewick

import android.app.Application

class TidewickApplication : Application()
