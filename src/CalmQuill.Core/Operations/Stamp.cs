namespace CalmQuill.Core.Operations;

/// <summary>The total order of operations: the later clock wins, the id breaks ties.</summary>
public readonly record struct Stamp(Hlc Time, OpId Id) : IComparable<Stamp>
{
    public int CompareTo(Stamp other)
    {
        var byTime = Time.CompareTo(other.Time);
        return byTime != 0 ? byTime : Id.CompareTo(other.Id);
    }

    public static bool operator <(Stamp left, Stamp right) => left.CompareTo(right) < 0;

    public static bool operator >(Stamp left, Stamp right) => left.CompareTo(right) > 0;
}
