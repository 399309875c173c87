namespace CalmQuill.Core.Library;

/// <summary>What a folder, a notebook, a page or a person may be called.</summary>
public static class Names
{
    public const int MostCharacters = 200;

    /// <summary>Null when the name is fine, else a sentence that says why not. Characters are counted as a reader sees them (grapheme clusters, UAX #29).</summary>
    public static string? Problem(string name)
    {
        if (string.IsNullOrWhiteSpace(name)) return "A name needs at least one visible character.";
        foreach (var c in name)
        {
            if (char.IsControl(c)) return "A name is one line of text, without control characters.";
        }

        if (name.Length > MostCharacters * 16 || new System.Globalization.StringInfo(name).LengthInTextElements > MostCharacters)
            return $"A name has at most {MostCharacters} characters.";
        return null;
    }
}
