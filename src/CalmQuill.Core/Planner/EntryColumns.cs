namespace CalmQuill.Core.Planner;

/// <summary>Lays entries that overlap in time side by side.</summary>
/// <remarks>
/// Entries that touch each other directly or through others form a cluster; within it each takes the first column that is free when it begins, which needs
/// no more columns than ever happen at once (greedy colouring of an interval graph in the order of starts).
/// </remarks>
public static class EntryColumns
{
    /// <summary>What has no length still takes so many minutes on paper.</summary>
    public const int LeastMinutes = 30;

    /// <param name="Entry">The entry.</param>
    /// <param name="Column">Its column, from 0.</param>
    /// <param name="Columns">How many columns its cluster has.</param>
    public readonly record struct Laid(CalendarEntry Entry, int Column, int Columns);

    public static List<Laid> Lay(IEnumerable<CalendarEntry> entries)
    {
        var laid = new List<Laid>();
        var cluster = new List<(CalendarEntry Entry, int Column)>();
        var ends = new List<DateTime>();
        void Flush()
        {
            laid.AddRange(cluster.Select(one => new Laid(one.Entry, one.Column, ends.Count)));
            cluster.Clear();
            ends.Clear();
        }

        foreach (var entry in entries.OrderBy(entry => entry.Start).ThenByDescending(entry => entry.End).ThenBy(entry => entry.Id))
        {
            if (ends.Count > 0 && ends.TrueForAll(end => end <= entry.Start))
                Flush();
            var column = ends.FindIndex(end => end <= entry.Start);
            if (column < 0)
            {
                column = ends.Count;
                ends.Add(default);
            }

            ends[column] = EndOf(entry);
            cluster.Add((entry, column));
        }

        Flush();
        return laid;
    }

    /// <summary>When an entry ends on paper.</summary>
    public static DateTime EndOf(CalendarEntry entry) =>
        entry.End < entry.Start.AddMinutes(LeastMinutes) ? entry.Start.AddMinutes(LeastMinutes) : entry.End;
}
