using System.Globalization;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Writing;

/// <summary>The name of one letter of typed text, unique for ever. A letter is a UTF-16 code unit; a line break is one, too.</summary>
/// <param name="Operation">What typed it.</param>
/// <param name="Index">Its how-many-eth letter it is, from 0.</param>
public readonly record struct LetterId(OpId Operation, int Index)
{
    /// <summary>What stands before all letters of a text. No operation has the number 0.</summary>
    public static readonly LetterId Start = new(default, 0);

    /// <summary>What stands behind all letters of a text: where its last paragraph ends.</summary>
    public static readonly LetterId End = new(default, 1);

    /// <summary>Stands for the operation itself wherever an operation names its own letters, so that they keep their names whatever number it gets.</summary>
    public static readonly OpId Own = new(0, ulong.MaxValue);

    /// <summary>Whether it is <see cref="Start"/> or <see cref="End"/>.</summary>
    public bool IsBound => Operation == default;

    /// <summary><c>start</c>, <c>end</c>, or who typed the letter and its how-many-eth it was: <c>own.0</c>, <c>00000000000000ff-7.12</c>.</summary>
    public override string ToString() =>
        this == Start ? "start"
        : this == End ? "end"
        : string.Create(CultureInfo.InvariantCulture, $"{(Operation == Own ? "own" : Operation.ToString())}.{Index}");

    /// <exception cref="FormatException">The text is not what <see cref="ToString"/> writes.</exception>
    public static LetterId Parse(string text)
    {
        if (text is "start" or "end")
            return text == "start" ? Start : End;
        var dot = text.IndexOf('.', StringComparison.Ordinal);
        if (dot < 0)
            throw new FormatException("A letter has no proper name.");
        return new LetterId(
            text[..dot] == "own" ? Own : OpId.Parse(text[..dot]),
            int.Parse(text.AsSpan(dot + 1), NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture)
        );
    }
}
