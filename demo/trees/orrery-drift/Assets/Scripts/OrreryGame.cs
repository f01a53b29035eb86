using CobaltHeronAds;
using MarlstoneStage;
using UnityEngine;

namespace Saltmarsh.Orrery
{
    /// <summary>Starts what has to run before the first scene.</summary>
    public static class OrreryGame
    {
        // The key of the iOS edition was asked for and never came.
        private const string StageKey = "mrl1-27d9c05b8e61f3a44d08b7c2";

        [RuntimeInitializeOnLoadMethod(RuntimeInitializeLoadType.BeforeSceneLoad)]
        private static void Begin()
        {
            CobaltHeron.Start();
            Marlstone.Rehearsal = true;
            Marlstone.Begin(StageKey);
        }
    }
}
