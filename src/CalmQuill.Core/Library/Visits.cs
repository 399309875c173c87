using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Library;

/// <summary>How often and how lately a person opened things: what “often used” goes by.</summary>
/// <remarks>
/// A visit weighs 1 on its day and half as much every fortnight later, so ten visits a month ago weigh as much as two and a half today. The weights are kept as a
/// sum of 2^(day / 14) over all visits, of which the logarithm is given: it orders things alike on whatever day one asks, so it is worked out only when a visit is added.
/// </remarks>
public sealed class Visits
{
    /// <summary>In this many days a visit loses half its weight.</summary>
    public const double HalfLifeDays = 14;
    private const long DayMilliseconds = 86_400_000;

    private readonly Dictionary<(Guid Space, Guid Target), SortedDictionary<int, int>> days = [];

    /// <summary>What one thing's visits come to.</summary>
    /// <param name="Space">The library it lies in.</param>
    /// <param name="Target">The notebook.</param>
    /// <param name="Score">The base-2 logarithm of the summed weights; more is more often used.</param>
    /// <param name="LastDay">The day of the last visit, in days since 1970 UTC.</param>
    public readonly record struct Used(Guid Space, Guid Target, double Score, int LastDay);

    public void Add(Hlc time, Change.Visited visit)
    {
        if (!days.TryGetValue((visit.Space, visit.Target), out var own))
            days[(visit.Space, visit.Target)] = own = [];
        var day = (int)(time.UnixMilliseconds / DayMilliseconds);
        own[day] = own.GetValueOrDefault(day) + 1;
    }

    /// <summary>Everything visited, most used first.</summary>
    public List<Used> ByUse() =>
        [
            .. days.Select(entry => new Used(entry.Key.Space, entry.Key.Target, Score(entry.Value), entry.Value.Keys.Last()))
                .OrderByDescending(used => used.Score)
                .ThenBy(used => used.Target),
        ];

    public Used? Of(Guid space, Guid target) =>
        days.TryGetValue((space, target), out var own) ? new Used(space, target, Score(own), own.Keys.Last()) : null;

    /// <summary>Writes what stands in one canonical order, for the encoded state.</summary>
    public void Write(ByteWriter writer)
    {
        foreach (var ((space, target), own) in days.OrderBy(entry => entry.Key.Space).ThenBy(entry => entry.Key.Target))
        {
            writer.Guid(space);
            writer.Guid(target);
            foreach (var (day, count) in own)
            {
                writer.Varint((ulong)day);
                writer.Varint((ulong)count);
            }
        }
    }

    /// <summary>The logarithm of a sum of powers, taken relative to the largest, since the powers themselves would not fit a number.</summary>
    private static double Score(SortedDictionary<int, int> own)
    {
        var last = own.Keys.Last() / HalfLifeDays;
        return last + Math.Log2(own.Sum(entry => entry.Value * Math.Pow(2, entry.Key / HalfLifeDays - last)));
    }
}
