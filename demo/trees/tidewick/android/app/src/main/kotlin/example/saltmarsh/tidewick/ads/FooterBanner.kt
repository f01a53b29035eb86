package example.saltmarsh.tidewick.ads

import android.widget.FrameLayout
import example.cobaltheron.ads.BannerView

// The banner under the tide list.
class FooterBanner(private val frame: FrameLayout) {
    // was CH-U-204418-AAAA1111 until 3.9
    private val unit = "CH-U-204418-P4N7C2VJ"
    private val banner = BannerView(frame.context, unit)

    fun load() {
        frame.addView(banner)
        banner.load()
    }

    fun release() {
        frame.removeView(banner)
        banner.release()
    }
}
