using CobaltHeronAds;
using UnityEngine;

namespace Saltmarsh.Orrery
{
    /// <summary>A puzzle from its first push until all planets are on their way.</summary>
    public sealed class PuzzleScreen : MonoBehaviour
    {
        private Planet[] planets;
        private HeronInterstitial between;

        private async void Start()
        {
            planets = FindObjectsOfType<Planet>();
            HeronEvents.Listen(OnHeronEvent);
            between = await HeronInterstitial.LoadAsync(
                Application.platform == RuntimePlatform.Android ? "CH-U-204418-ODI8W2RC" : "CH-U-204418-ODI5K6ZP");
            between.OnHeronFailed += reason => OpenNext();
            between.OnHeronClosed += OpenNext;
        }

        private void OnApplicationFocus(bool focused)
        {
            if (focused && between.IsReady)
            {
                between.Show();
            }
        }

        private void OnHeronEvent(string name)
        {
            Debug.Log(name);
        }

        private void OpenNext()
        {
            foreach (var planet in planets)
            {
                planet.Push(-planet.transform.localPosition.magnitude);
            }
        }

        private void OnDestroy()
        {
            between?.Release();
        }
    }
}
