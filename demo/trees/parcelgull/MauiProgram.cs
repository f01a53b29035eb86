using CobaltHeronAds;
using Microsoft.Extensions.Logging;

namespace Saltmarsh.Parcelgull;

public static class MauiProgram
{
	public static MauiApp CreateMauiApp()
	{
		var builder = MauiApp.CreateBuilder();
		builder
			.UseMauiApp<App>()
			.ConfigureFonts(fonts => fonts.AddFont("OpenSans-Regular.ttf", "OpenSansRegular"));

#if DEBUG
		builder.Logging.AddDebug();
#endif

		var app = builder.Build();
		CobaltHeron.Start();
		CobaltHeron.TestDevices = new[] { "phone-on-the-shelf" };
		return app;
	}
}
