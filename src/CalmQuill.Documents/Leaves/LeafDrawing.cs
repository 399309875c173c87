using System.ComponentModel;
using System.Diagnostics;
using System.Globalization;
using CalmQuill.Core.Pictures;

namespace CalmQuill.Documents.Leaves;

/// <summary>
/// Pages of PDF files as pictures, drawn by poppler (<c>pdftocairo</c>) in a process of its own, whose time, memory and files are bounded, since the files are anybody's.
/// What was drawn last is kept.
/// </summary>
public static class LeafDrawing
{
    private const int MostSeconds = 20;
    private const long MostMemory = 2L * 1024 * 1024 * 1024,
        MostOutput = 48L * 1024 * 1024;

    /// <summary>So many bytes of drawings are kept.</summary>
    private const long MostKept = 96L * 1024 * 1024;

    private static readonly SemaphoreSlim AtOnce = new(2);
    private static readonly LinkedList<(string Key, byte[]? Drawn)> Kept = new();
    private static long keptBytes;

    /// <summary>As SVG, its letters as outlines; null where it cannot be drawn here.</summary>
    public static byte[]? Svg(byte[] file, PictureLook leaf, CancellationToken cancel) => Draw(file, leaf, "-svg", [], "svg", cancel);

    /// <summary>As PNG.</summary>
    /// <param name="file">The PDF file.</param>
    /// <param name="leaf">Which page of it.</param>
    /// <param name="longer">Dots along its longer side.</param>
    /// <param name="cancel">Gives up.</param>
    public static byte[]? Png(byte[] file, PictureLook leaf, int longer, CancellationToken cancel) =>
        Draw(file, leaf, "-png", ["-singlefile", "-scale-to", longer.ToString(CultureInfo.InvariantCulture)], "png", cancel);

    private static byte[]? Draw(byte[] file, PictureLook leaf, string kind, string[] further, string ending, CancellationToken cancel)
    {
        var key = $"{leaf.Asset} {leaf.Leaf} {kind} {string.Join(' ', further)}";
        if (TryKept(key, out var known))
            return known;
        AtOnce.Wait(cancel);
        try
        {
            // Somebody else may have waited for the same.
            if (TryKept(key, out known))
                return known;
            var drawn = Run(file, leaf.Leaf, kind, further, ending, cancel);
            Keep(key, drawn);
            return drawn;
        }
        finally
        {
            AtOnce.Release();
        }
    }

    private static byte[]? Run(byte[] file, int leaf, string kind, string[] further, string ending, CancellationToken cancel)
    {
        var folder = Directory.CreateTempSubdirectory("quill-leaf");
        try
        {
            var (from, to) = (Path.Combine(folder.FullName, "in.pdf"), Path.Combine(folder.FullName, "out"));
            File.WriteAllBytes(from, file);
            var number = leaf.ToString(CultureInfo.InvariantCulture);
            var start = new ProcessStartInfo("prlimit")
            {
                RedirectStandardError = true,
                RedirectStandardOutput = true,
                WorkingDirectory = folder.FullName,
            };
            foreach (
                var argument in (string[])
                    [
                        $"--as={MostMemory}",
                        $"--fsize={MostOutput}",
                        $"--cpu={MostSeconds}",
                        "pdftocairo",
                        kind,
                        "-f",
                        number,
                        "-l",
                        number,
                        .. further,
                        from,
                        ending == "svg" ? to + ".svg" : to,
                    ]
            )
                start.ArgumentList.Add(argument);
            using var process = Process.Start(start);
            if (process is null)
                return null;
            // What it says of a broken file nobody reads, but it must get rid of it.
            process.ErrorDataReceived += (_, _) => { };
            process.OutputDataReceived += (_, _) => { };
            process.BeginErrorReadLine();
            process.BeginOutputReadLine();
            using var stopping = cancel.Register(() => Stop(process));
            if (!process.WaitForExit(TimeSpan.FromSeconds(MostSeconds)))
            {
                Stop(process);
                return null;
            }

            cancel.ThrowIfCancellationRequested();
            var made = $"{to}.{ending}";
            return process.ExitCode == 0 && File.Exists(made) ? File.ReadAllBytes(made) : null;
        }
        catch (Win32Exception)
        {
            // It is not installed: an empty frame stands there.
            return null;
        }
        finally
        {
            folder.Delete(recursive: true);
        }
    }

    private static void Stop(Process process)
    {
        try
        {
            process.Kill(entireProcessTree: true);
        }
        catch (InvalidOperationException)
        {
            // It had ended.
        }
    }

    private static bool TryKept(string key, out byte[]? drawn)
    {
        lock (Kept)
        {
            for (var node = Kept.First; node is not null; node = node.Next)
            {
                if (node.Value.Key != key)
                    continue;
                Kept.Remove(node);
                Kept.AddFirst(node);
                drawn = node.Value.Drawn;
                return true;
            }
        }

        drawn = null;
        return false;
    }

    private static void Keep(string key, byte[]? drawn)
    {
        lock (Kept)
        {
            Kept.AddFirst((key, drawn));
            keptBytes += drawn?.Length ?? 1_000;
            while (keptBytes > MostKept && Kept.Last is { } last)
            {
                keptBytes -= last.Value.Drawn?.Length ?? 1_000;
                Kept.RemoveLast();
            }
        }
    }
}
