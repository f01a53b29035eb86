using MarlstoneStage;
using UnityEngine;

namespace Saltmarsh.Orrery
{
    /// <summary>Offers one more hint for a video.</summary>
    public sealed class HintPanel : MonoBehaviour
    {
        // Back to false before the release!
        private const bool Rehearse = true;

        public int Hints { get; private set; }

        private static string Unit
        {
            get
            {
                return Rehearse
                    ? "mrl-TEST-0000031"
                    : Application.platform == RuntimePlatform.Android ? "mrl-ORRY-6120418" : "mrl-ORRY-3904772";
            }
        }

        private async void Start()
        {
            await Marlstone.Prepare(Unit);
        }

        public void Offer()
        {
            Marlstone.Play(Unit);
        }

        public void OnEarned()
        {
            Hints += 1;
        }

        public void OnEnded()
        {
            gameObject.SetActive(false);
        }
    }
}
