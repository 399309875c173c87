using System.Text;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Typesetting;

/// <summary>Sets one paragraph.</summary>
/// <param name="content">Its letters.</param>
/// <param name="style">How it is set.</param>
/// <param name="number">Its number in a list; 0 for none.</param>
/// <param name="measure">How long lines may be, 0.01 mm.</param>
/// <param name="ruling">How far apart the lines are that it stands on, 0.01 mm; 0 for free spacing.</param>
internal sealed class ParagraphSetter(Paragraph content, ParagraphStyle style, int number, int measure, int ruling)
{
    /// <summary>Narrower than this no line gets, however far it is set in, 0.01 mm.</summary>
    private const int Narrowest = 500;

    /// <summary>Distance of the places that a tab leads to, 0.01 mm.</summary>
    private const int Tab = 1_000;

    private const char LineEnd = '\u2028',
        ParagraphEnd = '\u2029';

    private readonly int width = measure * Lengths.PerUnit;
    private readonly int room = Math.Max(measure - style.Indent - style.Hang, Narrowest) * Lengths.PerUnit;
    private readonly List<SetLine> lines = [];
    private string text = "";
    private LetterStyle[] styles = [];

    /// <summary>For each letter the first of those around it that look alike: these are compared, and not how they look.</summary>
    private int[] alike = [];
    private byte[] levels = [];
    private bool fromRight;
    private string? eastern;
    private int ownFrom = -1;
    private Font? ownFont;
    private int y;

    /// <summary>A piece before it has a place on a line.</summary>
    /// <param name="Start">Its first letter.</param>
    /// <param name="Shape">Its glyphs; of a tab none.</param>
    /// <param name="Style">How it looks.</param>
    private sealed record Loose(int Start, ShapedPiece Shape, LetterStyle Style)
    {
        public int End => Start + Shape.Text.Length;

        public bool IsTab => Shape.Text == "\t";

        public int Width => Lengths.OfFont(Shape.Advance, Style.OwnSize, Shape.UnitsPerEm);
    }

    public SetParagraph Set()
    {
        text = Signs.Whole(content.Text);
        (styles, alike) = (new LetterStyle[text.Length], new int[text.Length]);
        var at = 0;
        foreach (var span in content.Spans)
        {
            var look = LetterStyle.Of(style, span.Look);
            Array.Fill(styles, look, at, span.Text.Length);
            Array.Fill(alike, at > 0 && styles[at - 1].Equals(look) ? alike[at - 1] : at, at, span.Text.Length);
            at += span.Text.Length;
        }

        (levels, fromRight) = Bidi.LevelsOf(text, style.FromRight);
        Fill();
        return new SetParagraph(content, style, lines, Sign());
    }

    /// <summary>Lays piece by piece on lines.</summary>
    private void Fill()
    {
        var breaks = LineBreaks.Of(text);
        var line = new List<Loose>();
        int used = 0,
            start = 0;
        while (start < text.Length)
        {
            var end = start + 1;
            while (end < text.Length && breaks[end] == LineBreak.None)
                end++;
            var unit = Pieces(start, end);
            var isForced = breaks[end] == LineBreak.Must && (end < text.Length || text[^1] is LineEnd or ParagraphEnd);
            var needed = WidthOf(unit.Take(Inked(unit)), used);
            if (line.Count > 0 && used + needed > room)
                Break(start);
            foreach (var piece in unit)
                Put(piece);
            if (isForced)
                Break(end, true);
            start = end;
        }

        End(text.Length, line, true);

        void Break(int end, bool isForced = false)
        {
            End(end, line, isForced);
            (line, used) = ([], 0);
        }

        // A word that is longer than a line goes on on the next, letter by letter.
        void Put(Loose piece)
        {
            while (!piece.Shape.IsSpace && used + piece.Width > room)
            {
                var has = (long)(room - used) * piece.Shape.UnitsPerEm * 36 / (piece.Style.OwnSize * 127L * Lengths.PerUnit);
                var some = piece.Shape.Fitting(has);
                // At least one stands on each line.
                if (some == 0 && line.Count == 0)
                    some = piece.Shape.EndOf(0);
                if (some >= piece.Shape.Text.Length)
                    break;
                if (some > 0)
                    Add(Part(piece, 0, some));
                Break(piece.Start + some);
                piece = Part(piece, some, piece.Shape.Text.Length);
            }

            Add(piece);
        }

        void Add(Loose piece)
        {
            line.Add(piece);
            used += WidthOf([piece], used);
        }
    }

    /// <summary>How many pieces there are but for the spaces at the end.</summary>
    private static int Inked(List<Loose> pieces) => pieces.FindLastIndex(piece => !piece.Shape.IsSpace) + 1;

    private static Loose Part(Loose piece, int from, int to) =>
        from == to
            ? piece
            : piece with
            {
                Start = piece.Start + from,
                Shape = Shaping.Of(piece.Shape.Font, piece.Shape.Text[from..to], piece.Shape.FromRight),
            };

    /// <summary>How much room pieces take behind what stands on the line already; a tab leads to the next of its places.</summary>
    private static int WidthOf(IEnumerable<Loose> pieces, int used)
    {
        const int step = Tab * Lengths.PerUnit;
        var width = 0;
        foreach (var piece in pieces)
            width += piece.IsTab ? step - (used + width) % step : piece.Width;
        return width;
    }

    /// <summary>What stands between two places where a line may end, cut wherever font, look or direction change, and before the spaces at its end.</summary>
    private List<Loose> Pieces(int from, int to)
    {
        var pieces = new List<Loose>();
        int start = from,
            at = from;
        Font? font = null;
        while (at < to)
        {
            var rune = Rune.GetRuneAt(text, at);
            var own = IsJoined(rune) && at > start ? font : FontAt(rune, at);
            var isOther =
                at > start
                && (
                    own != font
                    || levels[at] != levels[start]
                    || alike[at] != alike[start]
                    || text[at] == '\t'
                    || text[start] == '\t'
                    || char.IsWhiteSpace(text[at]) != char.IsWhiteSpace(text[at - 1])
                );
            if (isOther)
            {
                Add(at);
                start = at;
            }

            font = own;
            at += rune.Utf16SequenceLength;
        }

        Add(to);
        return pieces;

        void Add(int end)
        {
            // What ends a line shows nothing.
            if (end > start)
                pieces.Add(
                    new Loose(
                        start,
                        Shaping.Of(font, text[start..end].Replace(LineEnd, ' ').Replace(ParagraphEnd, ' '), levels[start] % 2 == 1),
                        styles[start]
                    )
                );
        }
    }

    private Font? FontAt(Rune rune, int at)
    {
        var style = styles[at];
        if (alike[at] != ownFrom)
            (ownFrom, ownFont) = (alike[at], Fonts.Find(Families.NameOf(style.Family, style.Bold, style.Italic)));
        // Mostly the family itself has it.
        if (rune.Value < Families.Near && ownFont is not null && ownFont.File.GlyphOf(rune.Value) != 0)
            return ownFont;
        eastern ??= EasternFonts.LanguageIn(text);
        return Families.FontOf(rune.Value, style.Family, style.Bold, style.Italic, eastern);
    }

    /// <summary>Whether a sign goes with the one before: combining marks, joiners, and what chooses between pictures.</summary>
    private static bool IsJoined(Rune rune) =>
        SignTable.Of(rune.Value).Break is BreakClass.CM or BreakClass.ZWJ || rune.Value is >= 0x1F3FB and <= 0x1F3FF;

    /// <summary>A line is full, or the paragraph ends.</summary>
    /// <param name="end">Behind its last letter.</param>
    /// <param name="line">What stands on it.</param>
    /// <param name="isForced">Whether it ends here for another reason than want of room.</param>
    private void End(int end, List<Loose> line, bool isForced)
    {
        var start = lines.Count == 0 ? 0 : lines[^1].End;
        var size = line.Count > 0 ? line.Max(piece => piece.Style.Size) : LetterStyle.Of(style, content.Look).Size;
        y += Typesetter.Distance(size, lines.Count == 0 ? style.Above : 0, style.Leading, ruling);
        var inked = Inked(line);
        var inner = WidthOf(line.Take(inked), 0);
        var isJustified = style.Align == "justified" && !isForced;
        var spaces = isJustified
            ? line.Take(inked).Where(piece => piece.Shape.IsSpace && !piece.IsTab).Sum(piece => piece.Shape.Text.Length)
            : 0;
        var extra = spaces > 0 ? Math.Max(0, room - inner) : 0;

        // L1: spaces at the end run as the paragraph does.
        var own = (byte)(fromRight ? 1 : 0);
        byte[] order = [.. line.Select((piece, i) => i < inked ? levels[piece.Start] : own)];
        var widths = Widths(line, inked, spaces, extra);
        var left = LeftOf(inner + extra, widths.Skip(inked).Sum());
        var pieces = new List<SetPiece>();
        var x = left.All;
        foreach (var i in Bidi.Order(order))
        {
            pieces.Add(new SetPiece(line[i].Start, line[i].Shape, line[i].Style, x, widths[i]));
            x += widths[i];
        }

        lines.Add(new SetLine(start, end, y, left.Ink, inner + extra, size, fromRight, spaces > 0 ? extra / spaces : 0, pieces));
    }

    /// <summary>How wide each piece is; what is left of a justified line goes to its spaces, one bit after the other where it does not go even.</summary>
    private static int[] Widths(List<Loose> line, int inked, int spaces, int extra)
    {
        var widths = new int[line.Count];
        int used = 0,
            seen = 0;
        for (var i = 0; i < line.Count; i++)
        {
            widths[i] = WidthOf([line[i]], used);
            used += widths[i];
            if (spaces == 0 || i >= inked || !line[i].Shape.IsSpace || line[i].IsTab)
                continue;
            var some = line[i].Shape.Text.Length;
            widths[i] += (int)((long)extra * (seen + some) / spaces - (long)extra * seen / spaces);
            seen += some;
        }

        return widths;
    }

    /// <summary>Where the line begins: all of it, and what is seen of it. Spaces that hang do so on the side where it ends.</summary>
    private (int All, int Ink) LeftOf(int inner, int hanging)
    {
        var indent = (style.Indent + style.Hang) * Lengths.PerUnit;
        var align = style.Align switch
        {
            "centre" => 1,
            "right" => 2,
            _ => fromRight ? 2 : 0,
        };
        var left = fromRight ? width - indent - room : indent;
        var ink = left + (room - inner) * align / 2;
        return (fromRight ? ink - hanging : ink, ink);
    }

    /// <summary>The dot or number before a paragraph of a list.</summary>
    private SetPiece? Sign()
    {
        var sign = Numbering.SignOf(style, number);
        if (sign.Length == 0)
            return null;
        var look =
            styles.Length > 0
                ? styles[0] with
                {
                    Underline = false,
                    Struck = false,
                    Marker = 0,
                    Link = "",
                }
                : LetterStyle.Of(style, content.Look);
        var font = Families.FontOf(Rune.GetRuneAt(sign, 0).Value, look.Family, look.Bold, look.Italic);
        var shape = Shaping.Of(font, sign, false);
        var size = Lengths.OfFont(shape.Advance, look.OwnSize, shape.UnitsPerEm);
        var indent = style.Indent * Lengths.PerUnit;
        return new SetPiece(0, shape, look, fromRight ? width - indent - size : indent, size);
    }
}
