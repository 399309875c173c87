namespace CalmQuill.Core.Ink;

/// <summary>The character of a pen. The numbers are part of the stored form.</summary>
public enum PenKind : byte
{
    /// <summary>An even line, whatever the pressure.</summary>
    Ball = 1,

    /// <summary>A line that widens with pressure and has soft ends.</summary>
    Fountain = 2,
}
