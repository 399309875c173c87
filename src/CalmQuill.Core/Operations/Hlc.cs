namespace CalmQuill.Core.Operations;

/// <summary>A hybrid logical clock stamp (Kulkarni et al. 2014): physical milliseconds since 1970 UTC in the upper 48 bits, a logical counter in the lower 16.</summary>
public readonly record struct Hlc(ulong Value) : IComparable<Hlc>
{
    public static Hlc At(long unixMilliseconds, int logical = 0) => new(((ulong)unixMilliseconds << 16) | (ushort)logical);

    public long UnixMilliseconds => (long)(Value >> 16);

    public int Logical => (int)(Value & 0xFFFF);

    public int CompareTo(Hlc other) => Value.CompareTo(other.Value);

    public static bool operator <(Hlc left, Hlc right) => left.Value < right.Value;

    public static bool operator >(Hlc left, Hlc right) => left.Value > right.Value;

    public static bool operator <=(Hlc left, Hlc right) => left.Value <= right.Value;

    public static bool operator >=(Hlc left, Hlc right) => left.Value >= right.Value;
}
