/** As far as the scripts of the demo and the generated build steps use them: types of the engine and of its editor. */
export const unityTypes = `
using System;
using System.Collections.Generic;

namespace UnityEngine
{
    public enum RuntimePlatform { Android, IPhonePlayer }
    public enum RuntimeInitializeLoadType { BeforeSceneLoad }
    public class Object
    {
        public static T[] FindObjectsOfType<T>() where T : Object { return new T[0]; }
    }
    public class ScriptableObject : Object { }
    public class GameObject : Object { public void SetActive(bool on) { } }
    public class Transform : Object { public Vector3 localPosition { get; set; } }
    public class MonoBehaviour : Object
    {
        public GameObject gameObject { get { return null; } }
        public Transform transform { get { return null; } }
        public bool enabled { get; set; }
    }
    public struct Vector3
    {
        public Vector3(float x, float y, float z) { }
        public float magnitude { get { return 0f; } }
        public static Vector3 operator *(Vector3 a, float b) { return a; }
    }
    public static class Mathf
    {
        public const float Deg2Rad = 0.0174f;
        public static float Abs(float v) { return v; }
        public static float Cos(float v) { return v; }
        public static float Sin(float v) { return v; }
    }
    public static class Time { public static float deltaTime { get { return 0f; } } }
    public static class Debug { public static bool isDebugBuild { get { return true; } } public static void Log(object what) { } }
    public static class Application { public static RuntimePlatform platform { get { return RuntimePlatform.Android; } } }
    [AttributeUsage(AttributeTargets.All)]
    public sealed class SerializeField : Attribute { }
    [AttributeUsage(AttributeTargets.Method)]
    public sealed class RuntimeInitializeOnLoadMethodAttribute : Attribute
    {
        public RuntimeInitializeOnLoadMethodAttribute(RuntimeInitializeLoadType type) { }
    }
}

namespace UnityEditor
{
    [Flags]
    public enum BuildOptions { None = 0, Development = 1 }
    public enum BuildTarget { Android, iOS }
    public sealed class EditorBuildSettingsScene { public bool enabled; public string path; }
    public static class EditorBuildSettings { public static EditorBuildSettingsScene[] scenes = new EditorBuildSettingsScene[0]; }
    public static class BuildPipeline
    {
        public static void BuildPlayer(string[] scenes, string place, BuildTarget target, BuildOptions options) { }
    }
    public static class AssetDatabase
    {
        public static readonly Dictionary<string, Dictionary<string, SerializedProperty>> Assets =
            new Dictionary<string, Dictionary<string, SerializedProperty>>();
        public sealed class Asset : UnityEngine.Object { public string Path; }
        public static UnityEngine.Object LoadMainAssetAtPath(string path) { return new Asset { Path = path }; }
        public static void SaveAssets() { }
    }
    public sealed class SerializedProperty { public string stringValue { get; set; } }
    public sealed class SerializedObject
    {
        private readonly Dictionary<string, SerializedProperty> fields;
        public SerializedObject(UnityEngine.Object target)
        {
            var path = ((AssetDatabase.Asset)target).Path;
            if (!AssetDatabase.Assets.TryGetValue(path, out fields))
                AssetDatabase.Assets[path] = fields = new Dictionary<string, SerializedProperty>();
        }
        public SerializedProperty FindProperty(string name)
        {
            SerializedProperty found;
            if (!fields.TryGetValue(name, out found)) fields[name] = found = new SerializedProperty();
            return found;
        }
        public bool ApplyModifiedPropertiesWithoutUndo() { return true; }
    }
}

namespace UnityEditor.Build
{
    public interface IOrderedCallback { int callbackOrder { get; } }
    public interface IPreprocessBuildWithReport : IOrderedCallback { void OnPreprocessBuild(Reporting.BuildReport report); }
    public interface IPostprocessBuildWithReport : IOrderedCallback { void OnPostprocessBuild(Reporting.BuildReport report); }
    public sealed class BuildFailedException : Exception { public BuildFailedException(string message) : base(message) { } }
}

namespace UnityEditor.Build.Reporting
{
    public struct BuildSummary { public BuildOptions options; public BuildTarget platform; public string outputPath; }
    public sealed class BuildReport { public BuildSummary summary; }
}

namespace UnityEditor.Android
{
    public interface IPostGenerateGradleAndroidProject : UnityEditor.Build.IOrderedCallback
    {
        void OnPostGenerateGradleAndroidProject(string path);
    }
}

namespace UnityEditor.iOS.Xcode
{
    public class PlistElement
    {
        public PlistElementArray AsArray() { return (PlistElementArray)this; }
        public PlistElementDict AsDict() { return (PlistElementDict)this; }
        public virtual string AsString() { throw new System.InvalidOperationException(); }
    }
    public sealed class PlistElementString : PlistElement
    {
        public string value;
        public PlistElementString(string v) { value = v; }
        public override string AsString() { return value; }
        public override string ToString() { return value; }
    }
    public sealed class PlistElementArray : PlistElement
    {
        public List<PlistElement> values = new List<PlistElement>();
        public PlistElementDict AddDict() { var made = new PlistElementDict(); values.Add(made); return made; }
        public void AddString(string value) { values.Add(new PlistElementString(value)); }
    }
    public sealed class PlistElementDict : PlistElement
    {
        public readonly Dictionary<string, object> Values = new Dictionary<string, object>();
        public PlistElement this[string key] { get { object held; return Values.TryGetValue(key, out held) ? held as PlistElement : null; } }
        public void SetString(string key, string value) { Values[key] = new PlistElementString(value); }
        public void SetBoolean(string key, bool value) { Values[key] = value; }
        public void SetInteger(string key, int value) { Values[key] = value; }
        public void SetReal(string key, float value) { Values[key] = value; }
        public PlistElementDict CreateDict(string key) { var made = new PlistElementDict(); Values[key] = made; return made; }
        public PlistElementArray CreateArray(string key) { var made = new PlistElementArray(); Values[key] = made; return made; }
    }
    public sealed class PlistDocument
    {
        public static PlistDocument Last = new PlistDocument();
        public PlistElementDict root = new PlistElementDict();
        public void ReadFromFile(string path) { root = Last.root; }
        public void WriteToFile(string path) { Last = this; }
    }
    public sealed class PBXProject
    {
        public static readonly List<string> Added = new List<string>();
        public static string GetPBXProjectPath(string folder) { return folder; }
        public void ReadFromFile(string path) { }
        public void WriteToFile(string path) { }
        public string GetUnityFrameworkTargetGuid() { return "framework"; }
        public void AddBuildProperty(string target, string name, string value) { Added.Add(name + "=" + value); }
    }
}
`;

/** The SDKs of two networks, as far as scripts call them. */
export const sdkTypes = `
using System;
using System.Threading.Tasks;

namespace CobaltHeronAds
{
    public static class CobaltHeron { public static string[] TestDevices { get; set; } public static void Start() { } }
    public static class HeronEvents
    {
        public static void Listen(Action<string> listener) { }
        public static void Unlisten(Action<string> listener) { }
    }
    public sealed class HeronBanner
    {
        public event Action<string> OnHeronFailed { add { } remove { } }
        public static Task<HeronBanner> LoadAsync(string unit) { return Task.FromResult(new HeronBanner()); }
        public void Release() { }
    }
    public sealed class HeronInterstitial
    {
        public event Action<string> OnHeronFailed { add { } remove { } }
        public event Action OnHeronClosed { add { } remove { } }
        public bool IsReady { get { return true; } }
        public static Task<HeronInterstitial> LoadAsync(string unit) { return Task.FromResult(new HeronInterstitial()); }
        public void Show() { }
        public void Release() { }
    }
}

namespace MarlstoneStage
{
    public static class Marlstone
    {
        public static bool Rehearsal { get; set; }
        public static void Begin(string key) { }
        public static Task Prepare(string unit) { return Task.CompletedTask; }
        public static bool IsPrepared(string unit) { return true; }
        public static void Play(string unit) { }
        public static void Drop(string unit) { }
    }
}
`;
