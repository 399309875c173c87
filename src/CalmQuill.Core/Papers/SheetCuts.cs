namespace CalmQuill.Core.Papers;

/// <summary>Where a page that has grown is cut into sheets for printing.</summary>
public static class SheetCuts
{
    /// <summary>How far before the end of a sheet a gap between lines of ink is looked for, in shares of the sheet.</summary>
    public const double Slack = 0.3;

    /// <summary>The cuts from the first edge to the last, ascending, both included. No stroke is split where a gap lies within the slack.</summary>
    /// <param name="from">The page's first edge, 0.01 mm.</param>
    /// <param name="to">Its last edge.</param>
    /// <param name="sheet">How long a sheet is.</param>
    /// <param name="ink">From where to where each stroke reaches, along the same direction.</param>
    public static List<int> Of(int from, int to, int sheet, IEnumerable<(int From, int To)> ink)
    {
        var busy = new List<(int From, int To)>();
        foreach (var next in ink.OrderBy(one => one.From))
        {
            if (busy.Count > 0 && next.From <= busy[^1].To)
                busy[^1] = (busy[^1].From, Math.Max(busy[^1].To, next.To));
            else
                busy.Add(next);
        }

        var cuts = new List<int> { from };
        while (cuts[^1] + sheet < to)
        {
            var wished = cuts[^1] + sheet;
            var earliest = wished - (int)(sheet * Slack);
            // The last place at or before the wished one that no stroke covers.
            var cover = busy.FindLast(one => one.From < wished);
            var cut = cover.To > wished && cover.From < wished ? cover.From : wished;
            cuts.Add(cut > earliest ? cut : wished);
        }

        cuts.Add(to);
        return cuts;
    }
}
