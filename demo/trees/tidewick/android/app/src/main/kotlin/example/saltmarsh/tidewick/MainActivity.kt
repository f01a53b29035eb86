package example.saltmarsh.tidewick

import android.app.Activity
import android.os.Bundle
import android.widget.FrameLayout
import example.saltmarsh.tidewick.ads.FooterBanner

class MainActivity : Activity() {
    private lateinit var footer: FooterBanner

    override fun onCreate(savedInstanceState: Bundle?) {
        super.onCreate(savedInstanceState)
        setContentView(R.layout.activity_main)
        footer = FooterBanner(findViewById<FrameLayout>(R.id.footer))
        footer.load()
    }

    override fun onDestroy() {
        footer.release()
        super.onDestroy()
    }
}
