using Android.App;
using Android.Content.PM;

namespace Saltmarsh.Parcelgull;

[Activity(Theme = "@style/Maui.SplashTheme", MainLauncher = true, LaunchMode = LaunchMode.SingleTop)]
[MetaData("example.cobaltheron.ads.APP_ID", Value = "CH-A-204418-PGL5T8NC")]
public class MainActivity : MauiAppCompatActivity
{
}
