namespace CalmQuill.Core.Typesetting;

/// <summary>Shapes pieces of text and remembers them: words come again and again.</summary>
internal static class Shaping
{
    /// <summary>So many pieces are remembered; then it begins anew.</summary>
    private const int MostKept = 30_000;

    /// <summary>Longer pieces do not come again.</summary>
    private const int LongestKept = 40;

    private static readonly Dictionary<(Font? Font, string Text, bool FromRight), ShapedPiece> Kept = [];
    private static readonly Lock Gate = new();
    private static int version;

    public static ShapedPiece Of(Font? font, string text, bool fromRight)
    {
        if (text.Length > LongestKept)
            return ShapedPiece.Of(font, text, fromRight);
        lock (Gate)
        {
            if (version != Fonts.Version || Kept.Count > MostKept)
            {
                Kept.Clear();
                version = Fonts.Version;
            }

            if (!Kept.TryGetValue((font, text, fromRight), out var piece))
                Kept[(font, text, fromRight)] = piece = ShapedPiece.Of(font, text, fromRight);
            return piece;
        }
    }
}
