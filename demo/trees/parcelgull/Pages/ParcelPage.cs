using CobaltHeronAds;

namespace Saltmarsh.Parcelgull.Pages;

/// <summary>A parcel, from the locker's door until it is collected.</summary>
public sealed class ParcelPage : ContentPage
{
	private readonly Button open = new() { Text = "Open the door" };
	private HeronInterstitial? collected;

	public ParcelPage()
	{
		Content = open;
		open.Clicked += async (_, _) => await Shell.Current.GoToAsync("..");
	}

	private async Task Load()
	{
		collected = await HeronInterstitial.LoadAsync(
			DeviceInfo.Platform == DevicePlatform.Android ? "CH-U-204418-PGI9W3LT" : "CH-U-204418-PGI2D8VM");
		collected.OnHeronFailed += _ => open.IsEnabled = true;
		collected.OnHeronClosed += () => open.IsEnabled = true;
	}

	protected override async void OnAppearing()
	{
		base.OnAppearing();
		await Load();
		if (collected!.IsReady)
		{
			collected.Show();
		}
	}

	private void Forget()
	{
		collected?.Release();
	}
}
