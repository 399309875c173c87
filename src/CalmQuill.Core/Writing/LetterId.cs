using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Writing;

/// <summary>The name of one letter of typed text, unique for ever. A letter is a UTF-16 code unit; a line break is one, too.</summary>
/// <param name="Operation">What typed it.</param>
/// <param name="Index">Its how-many-eth letter it is, from 0.</param>
public readonly record struct LetterId(OpId Operation, int Index) : IComparable<LetterId>
{
    /// <summary>What stands before all letters of a text. No operation has the number 0.</summary>
    public static readonly LetterId Start = new(default, 0);

    /// <summary>What stands behind all letters of a text: where its last paragraph ends.</summary>
    public static readonly LetterId End = new(default, 1);

    /// <summary>Whether it is <see cref="Start"/> or <see cref="End"/>.</summary>
    public bool IsBound => Operation == default;

    public int CompareTo(LetterId other)
    {
        var byOperation = Operation.CompareTo(other.Operation);
        return byOperation != 0 ? byOperation : Index.CompareTo(other.Index);
    }
}
