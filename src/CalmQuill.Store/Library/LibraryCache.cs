using System.Collections.Concurrent;
using CalmQuill.Core.Library;

namespace CalmQuill.Store.Library;

/// <summary>The libraries written to last, as Core holds them, so that one more operation costs the work of one.</summary>
internal sealed class LibraryCache
{
    private const int Most = 64;
    private readonly ConcurrentDictionary<Guid, Held> held = new();

    /// <param name="Sequence">The number up to which operations are in it.</param>
    /// <param name="Library">The library.</param>
    /// <param name="Nodes">Its nodes as they stand in the projection.</param>
    public sealed record Held(long Sequence, LibraryDocument Library, Dictionary<Guid, LibraryNode> Nodes);

    /// <summary>Takes the library out when it is complete up to a number; whoever took it puts it back after the commit.</summary>
    public Held? Take(Guid space, long sequence) => held.TryRemove(space, out var found) && found.Sequence == sequence ? found : null;

    public void Put(Guid space, Held library)
    {
        if (held.Count >= Most && held.Keys.FirstOrDefault() is var one && one != Guid.Empty)
            held.TryRemove(one, out _);
        held[space] = library;
    }
}
