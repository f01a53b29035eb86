using Saltmarsh.Parcelgull.Models;

namespace Saltmarsh.Parcelgull.Pages;

public partial class LockerListPage : ContentPage
{
	public LockerListPage()
	{
		InitializeComponent();
		Lockers.ItemsSource = new[]
		{
			new Locker("Harbour", "Quay Street 4", "PG-20418"),
			new Locker("Station", "Platform 2", null),
		};
	}
}
