using System.Collections.Concurrent;

namespace CalmQuill.Core.Typesetting;

/// <summary>
/// The fonts that are at hand, and what shapes letters with them. There is one set of them for all: what a text looks like is a matter of the shipped
/// fonts, and not of a page. A server has them all from the start; in a browser they come when a text needs them.
/// </summary>
public static class Fonts
{
    private static readonly ConcurrentDictionary<string, Font> ByName = new();
    private static readonly ConcurrentDictionary<string, bool> Missing = new();
    private static Func<string, byte[]?>? source;
    private static int version;

    /// <summary>What shapes letters; null where nothing does, and each is as wide as another.</summary>
    public static IShaper? Shaper { get; private set; }

    /// <summary>Another number whenever there is a font more, so that texts are set anew.</summary>
    public static int Version => version;

    /// <summary>The fonts that a text asked for and that are not there.</summary>
    public static IEnumerable<string> Wanted => Missing.Keys;

    /// <param name="shaper">What shapes letters.</param>
    /// <param name="files">Where files of fonts are had from at once; null where they come later, by <see cref="Add"/>.</param>
    public static void Use(IShaper shaper, Func<string, byte[]?>? files = null)
    {
        (Shaper, source) = (shaper, files);
        Interlocked.Increment(ref version);
    }

    /// <summary>Takes a font in.</summary>
    /// <exception cref="InvalidDataException">It is no font.</exception>
    public static Font Add(string name, byte[] file)
    {
        var font = new Font(name, new FontFile(file));
        ByName[name] = font;
        Missing.TryRemove(name, out _);
        Interlocked.Increment(ref version);
        return font;
    }

    /// <summary>A font by its name; null while it is not there, and then it is <see cref="Wanted"/>.</summary>
    public static Font? Find(string name)
    {
        if (ByName.TryGetValue(name, out var font))
            return font;
        if (source?.Invoke(name) is { } file)
            return ByName.GetOrAdd(name, _ => new Font(name, new FontFile(file)));
        Missing[name] = true;
        return null;
    }
}
