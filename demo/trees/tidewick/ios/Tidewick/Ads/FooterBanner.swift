import CobaltHeronAds
import UIKit

/// The banner under the tide list.
final class FooterBanner {
    // The sample unit, until the real one is approved.
    private let banner = BannerView(unit: "CH-U-100001-BANNER0I")

    var view: UIView { banner }

    func load() {
        banner.load()
    }
}
