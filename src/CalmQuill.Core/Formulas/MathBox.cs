using CalmQuill.Core.Typesetting;

namespace CalmQuill.Core.Formulas;

/// <summary>A piece of a formula as it is set. Lengths are 0.01 mm; it begins at 0 and stands at 0, y runs down.</summary>
/// <param name="Width">How wide it is.</param>
/// <param name="Ascent">How far it reaches up.</param>
/// <param name="Descent">How far it reaches down.</param>
/// <param name="Letters">What is written.</param>
/// <param name="Bars">What is filled: left, top, right and bottom edges.</param>
internal sealed record MathBox(
    double Width,
    double Ascent,
    double Descent,
    IReadOnlyList<(Label Label, double X, double Y)> Letters,
    IReadOnlyList<(double Left, double Top, double Right, double Bottom)> Bars
)
{
    public static MathBox Empty { get; } = new(0, 0, 0, [], []);

    /// <summary>What it is to its neighbours on the left.</summary>
    public SignClass Left { get; init; }

    /// <summary>And on the right.</summary>
    public SignClass Right { get; init; }

    /// <summary>How far it leans over its right edge at its top.</summary>
    public double Slant { get; init; }

    /// <summary>Over where in it a mark is centred.</summary>
    public double Peak { get; init; } = Width / 2;

    /// <summary>Whether it is one sign, whose scripts stand at heights of their own.</summary>
    public bool IsSign { get; init; }

    public double Height => Ascent + Descent;

    public MathBox As(SignClass both) => this with { Left = both, Right = both };

    public static MathBox Bar(double width, double bottom, double thickness) =>
        new(width, bottom + thickness, -bottom, [], [(0, -bottom - thickness, width, -bottom)]);

    /// <summary>Boxes where they lie beside and over each other; as wide as they reach.</summary>
    public static MathBox Of(params IReadOnlyList<(MathBox Box, double X, double Y)> parts) =>
        parts.Count == 0
            ? Empty
            : new MathBox(
                parts.Max(part => part.X + part.Box.Width),
                parts.Max(part => part.Box.Ascent - part.Y),
                parts.Max(part => part.Box.Descent + part.Y),
                [.. parts.SelectMany(part => part.Box.Letters.Select(one => (one.Label, one.X + part.X, one.Y + part.Y)))],
                [
                    .. parts.SelectMany(part =>
                        part.Box.Bars.Select(bar => (bar.Left + part.X, bar.Top + part.Y, bar.Right + part.X, bar.Bottom + part.Y))
                    ),
                ]
            );
}
