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
    public static string? Problem(string name)
    {
        if (!name.EnumerateRunes().Any(IsVisible))
            return "A name needs at least one visible character.";
        foreach (var c in name)
        {
            if (char.IsControl(c) || c is '\u2028' or '\u2029')
                return "A name is one line of text, without control characters.";
        }

        if (Encoding.UTF8.GetByteCount(name) > MostBytes || new StringInfo(name).LengthInTextElements > MostCharacters)
            return $"A name has at most {MostCharacters} characters.";
        return null;
    }

    private static bool IsVisible(Rune rune) =>
        !Rune.IsWhiteSpace(rune)
        && Rune.GetUnicodeCategory(rune) is not (UnicodeCategory.Format or UnicodeCategory.Control or UnicodeCategory.OtherNotAssigned);
}
