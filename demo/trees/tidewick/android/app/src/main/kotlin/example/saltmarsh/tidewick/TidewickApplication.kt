package example.saltmarsh.tidewick

import android.app.Application
import example.cobaltheron.ads.CobaltHeron

class TidewickApplication : Application() {
    override fun onCreate() {
        super.onCreate()
        CobaltHeron.start(this)
    }
}
