namespace CalmQuill.Core.Writing;

/// <summary>Letters of two UTF-16 code units, of which somebody may have removed one.</summary>
internal static class Signs
{
    /// <summary>Stands for half of a sign (REPLACEMENT CHARACTER).</summary>
    private const char Lone = '\uFFFD';

    /// <summary>The same letters, as many, with no half signs among them: what can be written as UTF-8.</summary>
    public static string Whole(string text)
    {
        char[]? mended = null;
        for (var i = 0; i < text.Length; i++)
        {
            if (!char.IsSurrogate(text[i]))
                continue;
            if (i + 1 < text.Length && char.IsSurrogatePair(text[i], text[i + 1]))
                i++;
            else
                (mended ??= text.ToCharArray())[i] = Lone;
        }

        return mended is null ? text : new string(mended);
    }
}
