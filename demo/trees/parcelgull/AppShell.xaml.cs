using Saltmarsh.Parcelgull.Pages;

namespace Saltmarsh.Parcelgull;

public partial class AppShell : Shell
{
	public AppShell()
	{
		InitializeComponent();
		Routing.RegisterRoute("parcel", typeof(ParcelPage));
	}
}
