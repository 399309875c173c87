namespace CalmQuill.Core.Papers;

/// <summary>What is printed on a sheet.</summary>
public enum Ruling : byte
{
    Blank = 0,
    Ruled = 1,
    Squared = 2,
}
