namespace CalmQuill.Core.Formulas;

/// <summary>Letters of formulas, and the room between what stands side by side.</summary>
internal static class MathLetters
{
    /// <summary>The leaning form of a letter, from “Mathematical Alphanumeric Symbols” (The Unicode Standard, 22.2); the letter itself where it has none.</summary>
    public static int Leaning(int code) =>
        code switch
        {
            // The place of the small h is empty there, since it was a sign of its own before.
            'h' => 0x210E,
            >= 'a' and <= 'z' => 0x1D44E + code - 'a',
            >= 'A' and <= 'Z' => 0x1D434 + code - 'A',
            >= 'α' and <= 'ω' => 0x1D6FC + code - 'α',
            'ϑ' => 0x1D717,
            'ϱ' => 0x1D71A,
            _ => code,
        };

    /// <summary>Room between two things, in eighteenths of the type (Knuth, “The TeXbook”, chapter 18).</summary>
    /// <param name="left">What stands on the left.</param>
    /// <param name="right">What stands on the right.</param>
    /// <param name="isSmall">Whether both are raised or lowered.</param>
    public static int Between(SignClass left, SignClass right, bool isSmall)
    {
        const int thin = 3,
            medium = 4,
            thick = 5;
        if (left == SignClass.Operator || right == SignClass.Operator)
        {
            if (left is SignClass.Opening || right is SignClass.Opening or SignClass.Closing or SignClass.Punctuation)
                return left == SignClass.Punctuation && !isSmall ? thin : 0;
            if (left != SignClass.Relation && right != SignClass.Relation && left != SignClass.Binary && right != SignClass.Binary)
                return thin;
        }

        if (isSmall)
            return 0;
        if (left == SignClass.Relation && right == SignClass.Relation)
            return 0;
        if (left == SignClass.Relation || right == SignClass.Relation)
            return left is SignClass.Opening or SignClass.Punctuation || right is SignClass.Closing or SignClass.Punctuation ? 0 : thick;
        if (left == SignClass.Binary || right == SignClass.Binary)
            return medium;
        return left == SignClass.Punctuation && right != SignClass.Punctuation ? thin : 0;
    }
}
