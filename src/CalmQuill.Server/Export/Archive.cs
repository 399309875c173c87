using System.IO.Compression;
using System.Text;

namespace CalmQuill.Server.Export;

/// <summary>A ZIP archive that is only ever written forwards, in which every name is good on every system and stands once.</summary>
internal sealed class Archive : IAsyncDisposable
{
    /// <summary>A path that is longer than this may not be unpacked everywhere; characters.</summary>
    private const int LongestPath = 200;

    private readonly HashSet<string> names = new(StringComparer.OrdinalIgnoreCase);
    private readonly List<(string Path, string Why)> leftOut = [];
    private readonly Outgoing outgoing = new();
    private readonly Stream to;
    private readonly ZipArchive zip;

    /// <param name="to">Where to. What is put in is in memory until it is passed on.</param>
    public Archive(Stream to)
    {
        this.to = to;
        zip = new ZipArchive(outgoing, ZipArchiveMode.Create, leaveOpen: true, Encoding.UTF8);
    }

    /// <summary>What could not be put in, and why.</summary>
    public IReadOnlyList<(string Path, string Why)> LeftOut => leftOut;

    public void LeaveOut(string path, string why) => leftOut.Add((path, why));

    /// <summary>A path that nothing has yet: in a folder, called as nearly as possible as it should be.</summary>
    public string Name(string folder, string wanted)
    {
        // A name of dots alone would lead out of its folder, and some systems drop those at an end.
        var name = ExportEndpoints.FileName(wanted.Trim()).Trim('.', ' ');
        // Too deep for some systems: it lies further up.
        var inside = folder.Length + name.Length > LongestPath ? folder.Split('/')[0] : folder;
        var path = (inside.Length > 0 ? inside + "/" : "") + (name.Length > 0 ? name : "Untitled");
        for (var n = 1; ; n++)
        {
            var tried = n == 1 ? path : $"{path} ({n})";
            // With the files that are called so, since another may be called like one of those.
            string[] all = [tried, tried + ".pdf", tried + ".svg", tried + ".json"];
            if (all.Any(names.Contains))
                continue;
            names.UnionWith(all);
            return tried;
        }
    }

    public Task PutText(string path, string text, CancellationToken cancel) => Put(path, Encoding.UTF8.GetBytes(text), cancel);

    public async Task Put(string path, byte[] bytes, CancellationToken cancel)
    {
        // What a PDF consists of is compressed already.
        var level = path.EndsWith(".pdf", StringComparison.Ordinal) ? CompressionLevel.NoCompression : CompressionLevel.Fastest;
        await using var entry = zip.CreateEntry(path, level).Open();
        await entry.WriteAsync(bytes, cancel);
    }

    /// <summary>Passes on what was put in, as fast as it is taken there.</summary>
    public Task PassOn(CancellationToken cancel) => outgoing.PassOn(to, cancel);

    /// <summary>Writes what is in it at its end, without which it is no archive: only for one that came to its end.</summary>
    public async Task Finish(CancellationToken cancel)
    {
        await zip.DisposeAsync();
        await PassOn(cancel);
    }

    public ValueTask DisposeAsync() => outgoing.DisposeAsync();

    /// <summary>Takes what is written and holds it until it is passed on. It cannot be gone back in.</summary>
    private sealed class Outgoing : Stream
    {
        private readonly MemoryStream held = new();

        public override bool CanRead => false;

        public override bool CanSeek => false;

        public override bool CanWrite => true;

        public override long Length => throw new NotSupportedException();

        public override long Position
        {
            get => throw new NotSupportedException();
            set => throw new NotSupportedException();
        }

        public async Task PassOn(Stream to, CancellationToken cancel)
        {
            await to.WriteAsync(held.GetBuffer().AsMemory(0, (int)held.Length), cancel);
            held.SetLength(0);
        }

        public override void Write(byte[] buffer, int offset, int count) => held.Write(buffer, offset, count);

        public override void Flush() { }

        public override int Read(byte[] buffer, int offset, int count) => throw new NotSupportedException();

        public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

        public override void SetLength(long value) => throw new NotSupportedException();
    }
}
