using System.Globalization;

namespace CalmQuill.Core.Seen;

/// <summary>Digits, letters, or one other sign: what words are read from.</summary>
/// <param name="Start">Where it begins in its line.</param>
/// <param name="Text">Its letters.</param>
internal readonly record struct Word(int Start, string Text)
{
    public int End => Start + Text.Length;

    public bool IsNumber => char.IsAsciiDigit(Text[0]);

    public bool IsName => char.IsLetter(Text[0]);

    public bool IsBlank => char.IsWhiteSpace(Text[0]);

    /// <summary>Its value; only of digits, at most nine of them.</summary>
    public int Number => int.Parse(Text, CultureInfo.InvariantCulture);

    public bool Is(string sign) => Text == sign;

    /// <summary>Whether it is a number of so many digits.</summary>
    public bool IsDigits(int least, int most) => IsNumber && Text.Length >= least && Text.Length <= most;

    /// <summary>Cuts a line up.</summary>
    public static List<Word> Of(string line)
    {
        var words = new List<Word>();
        for (var at = 0; at < line.Length; )
        {
            var start = at++;
            Func<char, bool>? more =
                char.IsAsciiDigit(line[start]) ? char.IsAsciiDigit
                : char.IsLetter(line[start]) ? char.IsLetter
                : null;
            while (more is not null && at < line.Length && more(line[at]))
                at++;
            words.Add(new Word(start, line[start..at]));
        }

        return words;
    }
}
