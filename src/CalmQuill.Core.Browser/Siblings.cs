using CalmQuill.Core.Ordering;

namespace CalmQuill.Core.Browser;

/// <summary>The order key of a thing that is put among its siblings.</summary>
internal static class Siblings
{
    /// <param name="siblings">Those that are there, in order.</param>
    /// <param name="after">The sibling after which it goes; “first” for the head, empty for the end.</param>
    /// <param name="random">Keeps keys apart that two people make at the same place.</param>
    public static string KeyAfter(IReadOnlyList<(Guid Id, string Order)> siblings, string after, ulong random)
    {
        if (after == "first")
            return OrderKey.Between(null, siblings.Count > 0 ? siblings[0].Order : null, random);
        var index = after.Length > 0 ? siblings.ToList().FindIndex(sibling => sibling.Id == Guid.Parse(after)) : siblings.Count - 1;
        if (index < 0)
            index = siblings.Count - 1;
        var before = index < 0 ? null : siblings[index].Order;
        // Two siblings can have got the same key at the same time; the next one that is greater then stands behind both.
        var next = siblings
            .Skip(index + 1)
            .Select(sibling => sibling.Order)
            .FirstOrDefault(order => string.CompareOrdinal(order, before) > 0);
        return OrderKey.Between(before, next, random);
    }
}
