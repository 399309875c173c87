using System.Diagnostics;
using System.Globalization;
using System.Text;

namespace CalmQuill.Testing;

/// <summary>Poppler's programs, which read what we write and know nothing of ours.</summary>
public static class Poppler
{
    /// <summary>Runs one of them, which must neither fail nor complain, and returns what it said.</summary>
    public static string Run(string program, params string[] arguments)
    {
        using var process = Process.Start(
            new ProcessStartInfo(program, arguments) { RedirectStandardOutput = true, RedirectStandardError = true }
        )!;
        var said = process.StandardOutput.ReadToEnd();
        var complained = process.StandardError.ReadToEnd();
        process.WaitForExit();
        if (process.ExitCode != 0 || complained.Length > 0)
            throw new InvalidOperationException($"{program}: {complained}");
        return said;
    }

    /// <summary>A picture of greys as pdftoppm writes it (PGM, binary): row by row from above.</summary>
    public static (int Width, int Height, byte[] Pixels) ReadPgm(string file)
    {
        var bytes = File.ReadAllBytes(file);
        var parts = Encoding.Latin1.GetString(bytes, 0, 40).Split((char[])[' ', '\n'], 5);
        var head = parts.Take(4).Sum(part => part.Length + 1);
        return (int.Parse(parts[1], CultureInfo.InvariantCulture), int.Parse(parts[2], CultureInfo.InvariantCulture), bytes[head..]);
    }
}
