namespace CalmQuill.Core.Spots;

/// <summary>What a spot of a page is for. The numbers are part of the stored form.</summary>
public enum SpotKind : byte
{
    /// <summary>A small sign: To do, Ask, Look up, Key point, or one of people's own.</summary>
    Mark = 1,

    /// <summary>Leads somewhere.</summary>
    Link = 2,

    /// <summary>An entry of the notebook's contents.</summary>
    Heading = 3,

    /// <summary>A cloth over a part of the page, lifted to check oneself; its note is the question on it.</summary>
    Curtain = 4,
}
