import UIKit

final class TideListViewController: UITableViewController {
    private let footer = FooterBanner()

    override func viewDidLoad() {
        super.viewDidLoad()
        title = "Tidewick"
        tableView.tableFooterView = footer.view
        footer.load()
    }
}
