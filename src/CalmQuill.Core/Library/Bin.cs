namespace CalmQuill.Core.Library;

/// <summary>For how long the bin keeps things.</summary>
public static class Bin
{
    public const int UsualDays = 30;

    /// <summary>After things left the bin for good, their data stays this long, for devices that put something back without a connection.</summary>
    public const int GraceDays = 7;
    private const long DayMilliseconds = 86_400_000;

    /// <summary>The choices, in days; 0 keeps things for ever.</summary>
    public static readonly int[] Choices = [7, 30, 90, 0];

    /// <summary>Whether a thing's time in the bin is over, so that it is no longer shown.</summary>
    public static bool IsOver(long binnedAt, int days, long now) => days > 0 && now >= binnedAt + days * DayMilliseconds;

    /// <summary>Whether the data of a thing may be removed.</summary>
    public static bool IsRemovable(long binnedAt, int days, long now) => days > 0 && now >= binnedAt + (days + GraceDays) * DayMilliseconds;

    /// <summary>Whether the data of something erased by hand may be removed.</summary>
    public static bool IsRemovable(long erasedAt, long now) => now >= erasedAt + GraceDays * DayMilliseconds;
}
