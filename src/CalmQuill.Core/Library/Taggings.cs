using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Library;

/// <summary>Which tags are on what: a register for each pair, the later stamp wins.</summary>
public sealed class Taggings
{
    private readonly Dictionary<Guid, SortedDictionary<Guid, (Stamp Stamp, bool On)>> byTarget = [];

    public void Write(Stamp stamp, Change.TagSet change)
    {
        if (!byTarget.TryGetValue(change.Target, out var tags))
            byTarget[change.Target] = tags = [];
        if (!tags.TryGetValue(change.Tag, out var standing) || standing.Stamp < stamp)
            tags[change.Tag] = (stamp, change.On);
    }

    /// <summary>The tags on one thing, as they were put there, in the order of their ids.</summary>
    public TagSet On(Guid target) =>
        byTarget.TryGetValue(target, out var tags) ? new TagSet([.. tags.Where(tag => tag.Value.On).Select(tag => tag.Key)]) : TagSet.None;

    /// <summary>Writes what stands in one canonical order, for the encoded state.</summary>
    public void Write(ByteWriter writer)
    {
        foreach (var (target, tags) in byTarget.OrderBy(entry => entry.Key))
        {
            writer.Guid(target);
            foreach (var (tag, (_, on)) in tags)
            {
                writer.Guid(tag);
                writer.Byte(on ? (byte)1 : (byte)0);
            }
        }
    }
}
