namespace CalmQuill.Core.Typesetting;

/// <summary>A line as it is set. Lengths are in bits; see <see cref="Lengths"/>.</summary>
/// <param name="Start">The first of its letters in the paragraph.</param>
/// <param name="End">Behind the last one; a break that ends the line is behind it.</param>
/// <param name="Y">How far below the line before the paragraph it stands.</param>
/// <param name="Left">Where it begins, from the box's left edge.</param>
/// <param name="Width">How wide it is, without spaces at its end.</param>
/// <param name="Size">Height of its largest type, 0.1 pt.</param>
/// <param name="FromRight">Whether its paragraph runs from right to left.</param>
/// <param name="Stretch">How much wider each space is than usual, as an average; 0 where lines are not justified.</param>
/// <param name="Pieces">What stands on it, from left to right.</param>
public sealed record SetLine(
    int Start,
    int End,
    int Y,
    int Left,
    int Width,
    int Size,
    bool FromRight,
    int Stretch,
    IReadOnlyList<SetPiece> Pieces
)
{
    /// <summary>How far letters reach above and below their line, in hundredths of the type: for boxes and carets, whatever the font.</summary>
    private const int Above = 95,
        Below = 30;

    public int Ascent => Lengths.OfType(Size * Above) / 100;

    public int Descent => Lengths.OfType(Size * Below) / 100;

    /// <summary>Where the caret before a letter stands, from the box's left edge.</summary>
    /// <param name="letter">The letter, or <see cref="End"/>.</param>
    public int CaretAt(int letter)
    {
        foreach (var piece in Pieces)
        {
            if (letter >= piece.Start && letter < piece.End)
                return piece.EdgeBefore(letter);
        }

        // Behind all: where what is typed on would stand.
        var last = Pieces.FirstOrDefault(piece => piece.End == letter);
        return last is not null ? last.EdgeBefore(letter)
            : FromRight ? Left + Width
            : Left;
    }

    /// <summary>The letter before which a press would set the caret.</summary>
    /// <param name="x">Where, from the box's left edge.</param>
    public int LetterAt(int x)
    {
        int best = End,
            least = Math.Abs(CaretAt(End) - x);
        foreach (var piece in Pieces)
        {
            for (var letter = piece.Start; letter < piece.End; letter++)
            {
                var distance = Math.Abs(piece.EdgeBefore(letter) - x);
                if (distance < least && !char.IsLowSurrogate(piece.Shape.Text[letter - piece.Start]))
                    (best, least) = (letter, distance);
            }
        }

        return best;
    }
}
