using System.Diagnostics;
using System.Text.Json;
using CalmQuill.Testing;

namespace CalmQuill.Bench;

/// <summary>A reference that runs on Node.</summary>
internal static class Reference
{
    /// <summary>What a script of <c>bench/</c> prints, as JSON.</summary>
    public static JsonElement Of(string script, params string[] arguments)
    {
        using var node = Process.Start(
            new ProcessStartInfo("node", [Path.Combine(Repository.Root, "bench", script), .. arguments]) { RedirectStandardOutput = true }
        )!;
        return JsonDocument.Parse(node.StandardOutput.ReadToEnd()).RootElement;
    }
}
