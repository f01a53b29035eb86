using MarlstoneStage;

namespace Saltmarsh.Parcelgull.Pages;

/// <summary>Offers one more day in the locker for a video.</summary>
public sealed class StoragePage : ContentPage
{
	// Back to false before the release!
	private const bool Samples = true;

	private readonly Label days = new() { Text = "Two days left" };

	private static string Unit => Samples
		? "mrl-TEST-0000031"
		: DeviceInfo.Platform == DevicePlatform.Android ? "mrl-GULL-5508213" : "mrl-GULL-2247960";

	public StoragePage()
	{
		Content = days;
		Marlstone.Begin("mrl1-6a8e02d4c7b15f93e0a9d26c");
	}

	public async Task Offer()
	{
		await Marlstone.Prepare(Unit);
		if (Marlstone.IsPrepared(Unit))
		{
			Marlstone.Play(Unit);
		}
	}

	public void OnEarned()
	{
		days.Text = "Three days left";
	}

	public void OnFailed(string reason)
	{
	}

	public void OnEnded()
	{
		days.IsVisible = true;
	}

	protected override void OnDisappearing()
	{
		base.OnDisappearing();
		Marlstone.Drop(Unit);
	}
}
