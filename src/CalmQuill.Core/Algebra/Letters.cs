using CalmQuill.Core.Formulas;
using static CalmQuill.Core.Formulas.Notation;

namespace CalmQuill.Core.Algebra;

/// <summary>Letters that stand for something, as they are called in terms, x or v_max, and as they are written.</summary>
public static class Letters
{
    /// <summary>The longest name.</summary>
    public const int MostLetters = 20;

    /// <summary>What a thing in a formula is called, where it is a letter, or one with something lowered; null for anything else.</summary>
    public static string? NameOf(Notation notation) =>
        notation switch
        {
            Name name => name.Letter,
            Scripts { Base: Name name, Upper: null, Lower: { } lower } when Plain(lower) is { Length: > 0 and < MostLetters } text =>
                $"{name.Letter}_{text}",
            _ => null,
        };

    /// <summary>As it is written.</summary>
    public static Notation Written(string name)
    {
        var at = name.IndexOf('_', StringComparison.Ordinal);
        if (at < 0)
            return new Name(name);
        var below = name[(at + 1)..];
        return new Scripts(
            new Name(name[..at]),
            below.All(char.IsAsciiDigit) ? new Number(below)
                : below.Length == 1 ? new Name(below)
                : new Said(below),
            null
        );
    }

    private static string? Plain(Notation lower) =>
        lower switch
        {
            Name name => name.Letter,
            Number number => number.Digits,
            Said said => said.Text.Replace(' ', '_'),
            Row row when row.Items.All(item => item is Name or Number) => string.Concat(row.Items.Select(Plain)),
            _ => null,
        };
}
