using System.Globalization;

namespace CalmQuill.Core.Operations;

/// <summary>The name of one operation, unique for ever: which replica made it, and its how-many-eth it was.</summary>
/// <param name="Replica">A random 64-bit number that one open application draws once.</param>
/// <param name="Counter">Counts from 1 within the replica.</param>
public readonly record struct OpId(ulong Replica, ulong Counter) : IComparable<OpId>
{
    public int CompareTo(OpId other)
    {
        var byReplica = Replica.CompareTo(other.Replica);
        return byReplica != 0 ? byReplica : Counter.CompareTo(other.Counter);
    }

    /// <summary>Sixteen hexadecimal digits of the replica, a dash, the counter: <c>00000000000000ff-7</c>.</summary>
    public override string ToString() => string.Create(CultureInfo.InvariantCulture, $"{Replica:x16}-{Counter}");

    /// <exception cref="FormatException">The text is not what <see cref="ToString"/> writes.</exception>
    public static OpId Parse(string text) =>
        TryParse(text, out var id)
            ? id
            : throw new FormatException($"“{(text.Length > 40 ? text[..40] : text)}” is not the id of an operation.");

    /// <summary>False where the text is not what <see cref="ToString"/> writes.</summary>
    public static bool TryParse(string text, out OpId id)
    {
        id = default;
        if (
            text.Length <= 17
            || text[16] != '-'
            || !ulong.TryParse(text.AsSpan(0, 16), NumberStyles.HexNumber, CultureInfo.InvariantCulture, out var replica)
            || !ulong.TryParse(text.AsSpan(17), NumberStyles.None, CultureInfo.InvariantCulture, out var counter)
        )
            return false;
        id = new OpId(replica, counter);
        return true;
    }
}
