using System.Runtime.CompilerServices;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Core.Browser;

/// <summary>
/// A text ready to be painted, as a part of a <see cref="RenderPacket"/>: paragraph by paragraph, and of those that the surface has only where they
/// stand.
/// </summary>
/// <remarks>
/// Where its box lies (six singles: x' = a·x + c·y + e, y' = b·x + d·y + f; 0.01 mm); how many paragraphs from the beginning are as the surface has them,
/// how many from the end, and how far down those moved (a single, 0.01 mm); the number of those between; for each its number, how far below the
/// first line of the text the line before it stands (a single, 0.01 mm), 1 when the surface has it, and its number of runs; where the surface does not have it, the
/// box in which its letters lie, from the beginning of the line before it (four singles, 0.01 mm); for each run its colour
/// (0xRRGGBBAA), and where the surface does not have it, the number of its font, the size of a unit of the font and how far that leans to the right for
/// each unit down (singles, 0.01 mm), the number of its glyphs, and for each its number in the font, x and y (singles, 0.01 mm).
/// </remarks>
internal static class LetterPacket
{
    private static readonly ConditionalWeakTable<SetParagraph, Numbered> Known = [];
    private static uint last;

    /// <summary>A paragraph's number, and its glyphs by how they look.</summary>
    private sealed record Numbered(uint Number, IReadOnlyList<IReadOnlyList<PlacedGlyph>> Runs);

    /// <param name="writer">What it is written to.</param>
    /// <param name="text">The text.</param>
    /// <param name="before">The same as the surface has it; null where it has none, or it is not known which.</param>
    /// <param name="has">The paragraphs that the surface has; null for none.</param>
    /// <param name="seen">What a colour looks like; asked with null for letters that have none of their own.</param>
    public static void Write(ByteWriter writer, LaidText text, LaidText? before, IReadOnlySet<SetParagraph>? has, Func<uint?, uint> seen)
    {
        foreach (var part in text.Place.Parts)
            writer.Single((float)part);
        var paragraphs = text.Set.Paragraphs;
        var (head, tail) = before?.Colour == text.Colour ? SetText.SameParagraphs(before.Set.Paragraphs, paragraphs) : (0, 0);
        writer.Fixed32((uint)head);
        writer.Fixed32((uint)tail);
        writer.Single(tail > 0 ? (paragraphs[^1].Y - before!.Set.Paragraphs[^1].Y) / (float)Lengths.PerUnit : 0);
        writer.Fixed32((uint)(paragraphs.Count - head - tail));
        for (var i = head; i < paragraphs.Count - tail; i++)
        {
            var (paragraph, _, y) = paragraphs[i];
            var (number, runs) = Of(paragraph);
            var isKnown = has?.Contains(paragraph) ?? false;
            writer.Fixed32(number);
            writer.Single(y / (float)Lengths.PerUnit);
            writer.Fixed32(isKnown ? 1u : 0u);
            writer.Fixed32((uint)runs.Count);
            if (!isKnown)
            {
                foreach (var edge in BoxOf(paragraph))
                    writer.Single(edge / (float)Lengths.PerUnit);
            }

            foreach (var run in runs)
            {
                writer.Fixed32(seen(run[0].Style.Colour));
                if (!isKnown)
                    Write(writer, run);
            }
        }
    }

    /// <summary>The number under which a paragraph is known.</summary>
    public static uint NumberOf(SetParagraph paragraph) => Of(paragraph).Number;

    private static Numbered Of(SetParagraph paragraph) => Known.GetValue(paragraph, one => new Numbered(++last, Runs(one)));

    /// <summary>The edges of the box in which letters of a paragraph lie, in bits: a type higher and wider than its lines, since signs reach over them.</summary>
    private static int[] BoxOf(SetParagraph paragraph)
    {
        var size = paragraph.Lines.Max(line => Lengths.OfType(line.Size));
        return
        [
            Math.Min(paragraph.Sign?.X ?? 0, paragraph.Lines.Min(line => line.Left)) - size,
            paragraph.Lines[0].Y - paragraph.Lines[0].Ascent - size,
            paragraph.Lines.Max(line => line.Left + line.Width) + size,
            paragraph.Height + paragraph.Lines[^1].Descent + size,
        ];
    }

    private static void Write(ByteWriter writer, IReadOnlyList<PlacedGlyph> run)
    {
        var first = run[0];
        writer.Fixed32((uint)first.Font.Number);
        writer.Single((float)first.Place.A);
        writer.Single((float)first.Place.C);
        writer.Fixed32((uint)run.Count);
        foreach (var glyph in run)
        {
            writer.Fixed32((uint)glyph.Glyph);
            writer.Single(glyph.X / (float)Lengths.PerUnit);
            writer.Single(glyph.Y / (float)Lengths.PerUnit);
        }
    }

    private static List<IReadOnlyList<PlacedGlyph>> Runs(SetParagraph paragraph)
    {
        var runs = new List<IReadOnlyList<PlacedGlyph>>();
        var run = new List<PlacedGlyph>();
        foreach (var glyph in PlacedGlyph.Of(paragraph).Where(glyph => glyph.IsSeen))
        {
            if (run.Count > 0 && (run[^1].Font != glyph.Font || !run[^1].Style.Equals(glyph.Style)))
            {
                runs.Add(run);
                run = [];
            }

            run.Add(glyph);
        }

        if (run.Count > 0)
            runs.Add(run);
        return runs;
    }
}
