namespace CalmQuill.Core.Spots;

/// <summary>What is said of a spot. The numbers are part of the stored form and are never used again.</summary>
public enum SpotField : byte
{
    /// <summary>“1” once it was taken away.</summary>
    Removed = 1,

    /// <summary>Which kind of mark: <see cref="MarkKinds"/>, or the id of one of people's own.</summary>
    Mark = 2,

    Note = 3,

    /// <summary>A day: <c>2026-10-09</c>.</summary>
    Due = 4,

    /// <summary>The person it is for.</summary>
    Person = 5,

    /// <summary>“1” once it was ticked off; who and when is who wrote this and when.</summary>
    Done = 6,

    /// <summary>Where a link leads: a <see cref="Links.LinkTarget"/>.</summary>
    Target = 7,

    /// <summary>The title of what a link leads to, as it was when the link was made; the words of a heading.</summary>
    Title = 8,

    /// <summary>How deep a heading stands, from 1.</summary>
    Level = 9,
}
