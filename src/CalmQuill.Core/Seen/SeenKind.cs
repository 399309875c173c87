namespace CalmQuill.Core.Seen;

/// <summary>What a stretch of typed words says that something can be done with.</summary>
public enum SeenKind : byte
{
    /// <summary>Leads somewhere: an address of the web that was typed, or wherever words lead that were made a link.</summary>
    Link = 1,

    /// <summary>An address to which mail can be sent.</summary>
    Mail = 2,

    Phone = 3,

    /// <summary>A day of the calendar.</summary>
    Day = 4,

    /// <summary>A time of day.</summary>
    Time = 5,

    /// <summary>Numbers that can be reckoned.</summary>
    Sum = 6,
}
