namespace CalmQuill.Core.Items;

/// <summary>What may be done to the size and direction of a thing, from the least to the most.</summary>
public enum Reshaping : byte
{
    /// <summary>It lies where it is put, and is as large and upright as it was made.</summary>
    MovedOnly,

    /// <summary>It may be larger, smaller, turned and mirrored, and its sides keep their proportion.</summary>
    InProportion,

    /// <summary>Each of its sides goes its own way.</summary>
    Freely,
}
