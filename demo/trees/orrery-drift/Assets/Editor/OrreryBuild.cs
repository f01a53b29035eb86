using System.Linq;
using UnityEditor;

namespace Saltmarsh.Orrery
{
    /// <summary>The builds of the store, as the machine that builds them asks for them.</summary>
    public static class OrreryBuild
    {
        public static void Android()
        {
            Build(BuildTarget.Android, "Builds/orrery.aab");
        }

        public static void Ios()
        {
            Build(BuildTarget.iOS, "Builds/ios");
        }

        private static void Build(BuildTarget target, string place)
        {
            var scenes = EditorBuildSettings.scenes.Where(scene => scene.enabled).Select(scene => scene.path);
            BuildPipeline.BuildPlayer(scenes.ToArray(), place, target, BuildOptions.None);
        }
    }
}
