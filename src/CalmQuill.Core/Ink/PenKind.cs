namespace CalmQuill.Core.Ink;

/// <summary>The character of a pen. The numbers are part of the stored form.</summary>
public enum PenKind : byte
{
    /// <summary>An even line, whatever the pressure.</summary>
    Ball = 1,

    /// <summary>A line that widens with pressure and has soft ends.</summary>
    Fountain = 2,

    /// <summary>A line that swells with pressure, thins with speed, and tapers at both ends.</summary>
    Brush = 3,

    /// <summary>Threads of graphite on the paper's grain; leaning the pencil makes them broader and lighter.</summary>
    Pencil = 4,

    /// <summary>A flat nib held at an angle: the width depends on the direction.</summary>
    Calligraphy = 5,

    /// <summary>A broad, clear line that lies behind ink.</summary>
    Highlighter = 6,
}
