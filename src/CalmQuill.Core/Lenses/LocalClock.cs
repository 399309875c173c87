namespace CalmQuill.Core.Lenses;

/// <summary>The clock of the place where somebody is: what it shows now, and when every day begins there, also across changes to summer time and back.</summary>
/// <remarks>The device says when its clock changes; so every answer goes by the same rules, whatever is known of time zones where it is worked out.</remarks>
public sealed class LocalClock
{
    /// <summary>So many changes are taken; forty years have eighty.</summary>
    public const int MostChanges = 500;

    /// <summary>The clock minus UTC is at most so much, in minutes.</summary>
    public const int MostMinutes = 16 * 60;

    private readonly (long Since, int Minutes)[] changes;
    private readonly long now;

    /// <param name="now">UTC, milliseconds since 1970.</param>
    /// <param name="changes">From when on the clock is how many minutes ahead of UTC, in order; the first holds before as well.</param>
    public LocalClock(long now, IReadOnlyList<(long Since, int Minutes)> changes) =>
        (this.now, this.changes) = (now, changes.Count > 0 ? [.. changes] : [(0, 0)]);

    /// <summary>A clock that never changes.</summary>
    public static implicit operator LocalClock(DateTimeOffset now) =>
        new(now.ToUnixTimeMilliseconds(), [(0, (int)now.Offset.TotalMinutes)]);

    /// <summary>Whether changes are well formed.</summary>
    public static bool AreGood(IReadOnlyList<(long Since, int Minutes)> changes) =>
        changes.Count <= MostChanges
        && changes.All(change => Math.Abs((long)change.Minutes) <= MostMinutes)
        && changes.Zip(changes.Skip(1)).All(pair => pair.First.Since < pair.Second.Since);

    /// <summary>The day it is there now.</summary>
    public DateOnly Today
    {
        get
        {
            var last = Math.Max(0, Array.FindLastIndex(changes, change => change.Since <= now));
            return DateOnly.FromDateTime(DateTimeOffset.FromUnixTimeMilliseconds(now).UtcDateTime.AddMinutes(changes[last].Minutes));
        }
    }

    /// <summary>The first moment of a day, UTC milliseconds since 1970; where the clock is put forward at midnight, the moment after that.</summary>
    public long BeginningOf(DateOnly day)
    {
        var midnight = new DateTimeOffset(day.ToDateTime(TimeOnly.MinValue), TimeSpan.Zero).ToUnixTimeMilliseconds();
        for (var i = 0; ; i++)
        {
            var since = i == 0 ? long.MinValue : changes[i].Since;
            var moment = Math.Max(since, midnight - changes[i].Minutes * 60_000L);
            if (i + 1 == changes.Length || moment < changes[i + 1].Since)
                return moment;
        }
    }
}
