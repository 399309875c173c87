namespace CalmQuill.Core.Ink;

/// <summary>Whether a line is drawn through. The numbers are part of the stored form.</summary>
public enum LineStyle : byte
{
    Solid = 0,
    Dashed = 1,
    Dotted = 2,
}
