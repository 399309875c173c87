namespace CalmQuill.Core.Planner;

/// <summary>What a page of a planner is for.</summary>
public enum PlannerKind : byte
{
    Year = 1,
    Term = 2,
    Month = 3,
    Week = 4,
    Day = 5,
    Notes = 6,

    /// <summary>The note page of one calendar entry.</summary>
    Entry = 7,
}
