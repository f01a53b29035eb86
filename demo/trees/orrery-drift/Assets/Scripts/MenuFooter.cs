using CobaltHeronAds;
using UnityEngine;

namespace Saltmarsh.Orrery
{
    /// <summary>The banner below the menu.</summary>
    public sealed class MenuFooter : MonoBehaviour
    {
#if UNITY_ANDROID
        private const string Unit = "CH-U-204418-ODB3M7TN";
#else
        private const string Unit = "CH-U-204418-ODB3M7TN";
#endif

        private HeronBanner banner;

        // Was CH-U-204418-OLD00001 before the menu had a footer.
        private async void OnGUI()
        {
            banner = await HeronBanner.LoadAsync(Unit);
        }

        private void Hide()
        {
            banner?.Release();
        }
    }
}
