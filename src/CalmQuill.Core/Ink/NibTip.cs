namespace CalmQuill.Core.Ink;

/// <summary>The ends of a highlighter's line. The numbers are part of the stored form.</summary>
public enum NibTip : byte
{
    Round = 0,
    Square = 1,
}
