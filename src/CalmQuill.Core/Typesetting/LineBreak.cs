namespace CalmQuill.Core.Typesetting;

/// <summary>Whether a line ends at a place.</summary>
public enum LineBreak : byte
{
    /// <summary>Not here.</summary>
    None,

    /// <summary>Where there is no more room.</summary>
    May,

    /// <summary>Always.</summary>
    Must,
}
