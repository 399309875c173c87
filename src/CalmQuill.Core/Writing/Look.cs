namespace CalmQuill.Core.Writing;

/// <summary>How letters look, or the paragraph that begins with them: what was said of each trait last.</summary>
public sealed class Look : IEquatable<Look>
{
    public static readonly Look Usual = new([]);

    /// <summary>By the traits' numbers; what is usual is not among them.</summary>
    private readonly SortedList<Trait, string> values;

    private Look(SortedList<Trait, string> values) => this.values = values;

    /// <summary>What is other than usual.</summary>
    public IEnumerable<KeyValuePair<Trait, string>> Values => values;

    /// <summary>What stands of a trait; empty for what is usual.</summary>
    public string this[Trait trait] => values.GetValueOrDefault(trait, "");

    /// <param name="formats">What reaches over the letters, the latest last.</param>
    internal static Look Of(IReadOnlyList<StandingFormat> formats)
    {
        var values = new SortedList<Trait, string>();
        foreach (var format in formats)
        {
            if (format.Active)
                values[format.Trait] = format.Value;
        }

        for (var i = values.Count - 1; i >= 0; i--)
        {
            if (values.Values[i].Length == 0)
                values.RemoveAt(i);
        }

        return values.Count == 0 ? Usual : new Look(values);
    }

    /// <summary>The same, but for one trait.</summary>
    public Look With(Trait trait, string value)
    {
        var others = new SortedList<Trait, string>(values) { [trait] = value };
        if (value.Length == 0)
            others.Remove(trait);
        return new Look(others);
    }

    public bool Equals(Look? other) => other is not null && (ReferenceEquals(this, other) || values.SequenceEqual(other.values));

    public override bool Equals(object? obj) => Equals(obj as Look);

    public override int GetHashCode() => values.Aggregate(values.Count, HashCode.Combine);
}
