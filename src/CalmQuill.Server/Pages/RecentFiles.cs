using Microsoft.Extensions.Caching.Memory;

namespace CalmQuill.Server.Pages;

/// <summary>PDF files of which many pages are shown one after the other, kept for a moment, so that each is read once and not with every page.</summary>
public sealed class RecentFiles : IDisposable
{
    /// <summary>So many bytes are kept at once, and so long.</summary>
    private const long MostBytes = 192 * 1024 * 1024;

    private static readonly TimeSpan Kept = TimeSpan.FromMinutes(1);

    private readonly MemoryCache files = new(new MemoryCacheOptions { SizeLimit = MostBytes });

    /// <summary>A file that a space has, as far as it was just read.</summary>
    public byte[]? Find(Guid space, Guid asset) => files.TryGetValue((space, asset), out byte[]? file) ? file : null;

    public void Keep(Guid space, Guid asset, byte[] file) =>
        files.Set((space, asset), file, new MemoryCacheEntryOptions { Size = file.Length, AbsoluteExpirationRelativeToNow = Kept });

    public void Dispose() => files.Dispose();
}
