import UIKit

final class TideListViewController: UITableViewController {
    override func viewDidLoad() {
        super.viewDidLoad()
        title = "Tidewick Lite"
    }
}
