namespace CalmQuill.Core.Library;

/// <summary>A set of tags by their ids; equal when it holds the same ones.</summary>
public readonly struct TagSet(Guid[] sorted) : IEquatable<TagSet>
{
    public static readonly TagSet None = new([]);
    private readonly Guid[]? ids = sorted;

    public Guid[] Ids => ids ?? [];

    public bool IsEmpty => Ids.Length == 0;

    public TagSet With(TagSet other) =>
        other.IsEmpty ? this
        : IsEmpty ? other
        : new([.. Ids.Union(other.Ids).Order()]);

    public bool Any(HashSet<Guid> wanted) => Array.Exists(Ids, wanted.Contains);

    public bool Equals(TagSet other) => Ids.AsSpan().SequenceEqual(other.Ids);

    public override bool Equals(object? obj) => obj is TagSet other && Equals(other);

    public override int GetHashCode() => Ids.Aggregate(Ids.Length, HashCode.Combine);

    public static bool operator ==(TagSet left, TagSet right) => left.Equals(right);

    public static bool operator !=(TagSet left, TagSet right) => !left.Equals(right);
}
