namespace CalmQuill.Core.Ordering;

/// <summary>Where a thing goes among its siblings: its own key, and fresh ones for those about it where keys have become long or were the same.</summary>
/// <param name="Order">Its key.</param>
/// <param name="Laid">The siblings that are laid anew, in their order, with their keys; mostly none.</param>
public sealed record Neighbourhood(string Order, IReadOnlyList<(Guid Id, string Order)> Laid)
{
    /// <summary>So many are laid anew at once at most.</summary>
    public const int MostLaid = 2_048;

    private const int LeastLaid = 8;

    /// <param name="siblings">Those that are there, in order of their keys and, where these are the same, of their ids.</param>
    /// <param name="index">How many of them come before it.</param>
    /// <param name="device">A number of whoever puts it there.</param>
    public static Neighbourhood Of(IReadOnlyList<(Guid Id, string Order)> siblings, int index, ulong device)
    {
        var before = index > 0 ? siblings[index - 1].Order : null;
        var after = index < siblings.Count ? siblings[index].Order : null;
        if (before is null || after is null || string.CompareOrdinal(before, after) < 0)
        {
            var order = OrderKey.Between(before, after, device);
            if (order.Length <= OrderKey.LongLength)
                return new Neighbourhood(order, []);
        }

        return Anew(siblings, index, device);
    }

    /// <summary>Lays the siblings about a place anew: as many as it takes until the keys are short again, at most <see cref="MostLaid"/>.</summary>
    private static Neighbourhood Anew(IReadOnlyList<(Guid Id, string Order)> siblings, int index, ulong device)
    {
        for (var width = LeastLaid; ; width *= 2)
        {
            var (first, last) = (FirstLaid(siblings, index, width), LastLaid(siblings, index, width));
            var isMost = (first == 0 && last == siblings.Count) || width * 4 >= MostLaid;
            var before = first > 0 ? siblings[first - 1].Order : null;
            var after = last < siblings.Count ? siblings[last].Order : null;
            if (before is not null && after is not null && string.CompareOrdinal(before, after) >= 0)
            {
                // So many of one key: they, and what is put among them, go ahead of it.
                if (isMost)
                    before = null;
                else
                    continue;
            }

            var laid = Row(siblings, index, first, last, before, after, device);
            if (isMost || Math.Max(laid.Order.Length, laid.Laid.Max(one => one.Order.Length)) <= OrderKey.LongLength / 2)
                return laid;
        }
    }

    /// <summary>The first to be laid anew: behind the shortest key within reach, which the new ones go on from.</summary>
    private static int FirstLaid(IReadOnlyList<(Guid Id, string Order)> siblings, int index, int width)
    {
        if (index <= width)
            return 0;
        var end = index - width - 1;
        for (var i = end; i >= Math.Max(0, index - width * 2); i--)
        {
            if (siblings[i].Order.Length < siblings[end].Order.Length)
                end = i;
        }

        return end + 1;
    }

    /// <summary>Behind the last to be laid anew, in the same way.</summary>
    private static int LastLaid(IReadOnlyList<(Guid Id, string Order)> siblings, int index, int width)
    {
        if (index + width >= siblings.Count)
            return siblings.Count;
        var end = index + width;
        for (var i = end; i < Math.Min(siblings.Count, index + width * 2); i++)
        {
            if (siblings[i].Order.Length < siblings[end].Order.Length)
                end = i;
        }

        return end;
    }

    private static Neighbourhood Row(
        IReadOnlyList<(Guid Id, string Order)> siblings,
        int index,
        int first,
        int last,
        string? before,
        string? after,
        ulong device
    )
    {
        var laid = new List<(Guid, string)>(last - first);
        var order = "";
        for (var i = first; i <= last; i++)
        {
            if (i == index)
                before = order = OrderKey.Between(before, after, device);
            if (i == last)
                break;
            before = OrderKey.Between(before, after, device);
            laid.Add((siblings[i].Id, before));
        }

        return new Neighbourhood(order, laid);
    }
}
