using UIKit;

namespace Saltmarsh.Parcelgull;

public class Program
{
	static void Main(string[] args)
	{
		UIApplication.Main(args, null, typeof(AppDelegate));
	}
}
