using System.Globalization;
using System.Text;

namespace CalmQuill.Core.Library;

/// <summary>What a folder, a notebook, a section, a page, a tag or a person may be called.</summary>
public static class Names
{
    public const int MostCharacters = 200;

    /// <summary>A character, as a reader sees it, may be put together of many; so many bytes suffice for two hundred of any that are in use.</summary>
    public const int MostBytes = MostCharacters * 48;

    /// <summary>Null when the name is fine, else a sentence that says why not. Characters are counted as a reader sees them (grapheme clusters, UAX #29).</summary>
    public static Sentence? Problem(string name)
    {
        if (!name.EnumerateRunes().Any(IsVisible))
            return $"A name needs at least one visible character.";
        foreach (var c in name)
        {
            if (char.IsControl(c) || c is '\u2028' or '\u2029')
                return $"A name is one line of text, without control characters.";
        }

        if (HasHiddenControl(name))
            return $"A name holds no invisible characters that change how the text around them reads.";
        if (Encoding.UTF8.GetByteCount(name) > MostBytes || new StringInfo(name).LengthInTextElements > MostCharacters)
            return $"A name has at most {MostCharacters} characters.";
        return null;
    }

    /// <summary>The same name without what the rules refuse, for one that was given under earlier rules; empty when nothing is left of it.</summary>
    public static string Cleaned(string name)
    {
        var kept = new StringBuilder(name.Length);
        var before = default(Rune);
        foreach (var rune in name.EnumerateRunes())
        {
            if (Rune.IsControl(rune) || rune.Value is 0x2028 or 0x2029 || IsHiddenControl(before, rune))
                continue;
            kept.Append(rune);
            before = rune;
        }

        var cleaned = kept.ToString().TrimEnd((char)Joiner, (char)NonJoiner);
        if (Problem(cleaned) is not null)
            cleaned = new StringInfo(cleaned) is { LengthInTextElements: > MostCharacters } info
                ? info.SubstringByTextElements(0, MostCharacters)
                : cleaned;
        return Problem(cleaned) is null ? cleaned : "";
    }

    /// <summary>
    /// Whether a text holds an invisible control: the bidirectional ones (UAX #9), with which a name can look like another (UAX #36), and other formatting that nobody
    /// sees. Joiners stay where scripts and emoji need them: behind a character of a script that joins, or behind an emoji (UAX #31, 2.3).
    /// </summary>
    private static bool HasHiddenControl(string name)
    {
        var before = default(Rune);
        foreach (var rune in name.EnumerateRunes())
        {
            if (IsHiddenControl(before, rune))
                return true;
            before = rune;
        }

        return before.Value is Joiner or NonJoiner;
    }

    private static bool IsHiddenControl(Rune before, Rune rune) =>
        Rune.GetUnicodeCategory(rune) == UnicodeCategory.Format && !IsPrinted(rune) && !MayJoin(before, rune);

    private const int NonJoiner = 0x200C;
    private const int Joiner = 0x200D;

    private static bool MayJoin(Rune before, Rune rune) =>
        rune.Value switch
        {
            // Latin, Greek, Cyrillic and Armenian letters, digits and punctuation do not join.
            NonJoiner => before.Value >= 0x0590 && (Rune.IsLetter(before) || IsMark(before)),
            Joiner => before.Value >= 0x0590
                && (
                    Rune.IsLetter(before)
                    || IsMark(before)
                    || Rune.GetUnicodeCategory(before) is UnicodeCategory.OtherSymbol or UnicodeCategory.ModifierSymbol
                ),
            // The flags of regions: a black flag, and letters that say which.
            >= 0xE0020 and <= 0xE007F => before.Value is 0x1F3F4 or >= 0xE0020 and <= 0xE007E,
            _ => false,
        };

    private static bool IsMark(Rune rune) =>
        Rune.GetUnicodeCategory(rune) is UnicodeCategory.NonSpacingMark or UnicodeCategory.SpacingCombiningMark;

    /// <summary>Signs before numbers that count as formatting, but are seen (Unicode: Prepended_Concatenation_Mark).</summary>
    private static bool IsPrinted(Rune rune) =>
        rune.Value is (>= 0x0600 and <= 0x0605) or 0x06DD or 0x070F or 0x0890 or 0x0891 or 0x08E2 or 0x110BD or 0x110CD;

    private static bool IsVisible(Rune rune) =>
        !Rune.IsWhiteSpace(rune)
        && Rune.GetUnicodeCategory(rune) is not (UnicodeCategory.Format or UnicodeCategory.Control or UnicodeCategory.OtherNotAssigned);
}
