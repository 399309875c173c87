namespace CalmQuill.Core.Library;

/// <summary>For how long the bin keeps things.</summary>
public static class Bin
{
    public const int UsualDays = 30;

    /// <summary>After things left the bin for good, their data stays this long, for devices that put something back without a connection.</summary>
    public const int GraceDays = 7;

    /// <summary>The choices, in days; 0 keeps things for ever.</summary>
    public static readonly int[] Choices = [7, 30, 90, 0];
}
