using System.Buffers.Binary;
using System.Runtime.CompilerServices;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Core.Formulas;

/// <summary>What a font says about setting formulas in it (ISO/IEC 14496-22, the table “MATH”). Lengths are in the font’s units.</summary>
internal sealed class MathFont
{
    private static readonly ConditionalWeakTable<Font, MathFont> Known = [];

    private readonly byte[] table;
    private readonly int constants;
    private readonly Dictionary<int, int> slants;
    private readonly Dictionary<int, int> peaks;
    private readonly Dictionary<int, int> constructions = [];
    private readonly int overlap;

    private MathFont(Font font)
    {
        Font = font;
        table = font.File.Table("MATH").ToArray();
        constants = Half(4);
        var glyphs = Half(6);
        slants = Values(glyphs + Half(glyphs));
        peaks = Values(glyphs + Half(glyphs + 2));
        var variants = Half(8);
        overlap = Half(variants);
        var (covered, count) = (Covered(variants + Half(variants + 2)), Half(variants + 6));
        for (var i = 0; i < Math.Min(count, covered.Count); i++)
            constructions[covered[i]] = variants + Half(variants + 10 + 2 * i);
    }

    /// <summary>A length that is the same for all formulas, by its place among those of the table.</summary>
    public enum Constant
    {
        AxisHeight = 1,
        AccentBaseHeight = 2,
        SubscriptShiftDown = 4,
        SubscriptTopMax = 5,
        SubscriptDropMin = 6,
        SuperscriptShiftUp = 7,
        SuperscriptBottomMin = 9,
        SuperscriptDropMax = 10,
        SubSuperscriptGapMin = 11,
        SpaceAfterScript = 13,
        UpperLimitGapMin = 14,
        LowerLimitGapMin = 16,
        StackGapMin = 22,
        FractionNumeratorShiftUp = 28,
        FractionNumeratorDisplayShiftUp = 29,
        FractionDenominatorShiftDown = 30,
        FractionDenominatorDisplayShiftDown = 31,
        FractionNumeratorGapMin = 32,
        FractionNumeratorDisplayGapMin = 33,
        FractionRuleThickness = 34,
        FractionDenominatorGapMin = 35,
        FractionDenominatorDisplayGapMin = 36,
        OverbarGap = 39,
        OverbarThickness = 40,
        RadicalGap = 45,
        RadicalDisplayGap = 46,
        RadicalRuleThickness = 47,
        RadicalKernBeforeDegree = 49,
        RadicalKernAfterDegree = 50,
    }

    public Font Font { get; }

    /// <summary>How large raised type is, and type that is raised from that, in hundredths.</summary>
    public (int Script, int SmallScript) Scales => (Short(constants), Short(constants + 2));

    /// <summary>How high a sign over many things is at least where a formula stands by itself.</summary>
    public int LeastBig => Half(constants + 6);

    /// <summary>How high the degree of a root stands, in hundredths of the root’s sign.</summary>
    public int DegreeRaise => Short(constants + 8 + 4 * 51);

    public int this[Constant constant] => Short(constants + 8 + 4 * (int)constant);

    /// <summary>The font of formulas; null while it is not at hand.</summary>
    public static MathFont? Find() => Fonts.Find(Families.Formulas) is { } font ? Known.GetValue(font, one => new MathFont(one)) : null;

    /// <summary>How far a glyph leans over its right edge at its top.</summary>
    public int SlantOf(int glyph) => slants.GetValueOrDefault(glyph);

    /// <summary>Over where in a glyph a mark is centred.</summary>
    public int PeakOf(int glyph) => peaks.TryGetValue(glyph, out var peak) ? peak : Font.File.Advance(glyph) / 2;

    /// <summary>The forms of a glyph by their heights, ascending.</summary>
    public IReadOnlyList<(int Glyph, int Height)> FormsOf(int glyph)
    {
        if (!constructions.TryGetValue(glyph, out var at))
            return [];
        return [.. Enumerable.Range(0, Half(at + 2)).Select(i => (Half(at + 4 + 4 * i), Half(at + 6 + 4 * i)))];
    }

    /// <summary>The glyphs that one of a height is put together of, from below upwards, and by how much each lies over the one before; empty for none.</summary>
    public IReadOnlyList<(int Glyph, int Overlap)> PiecesOf(int glyph, double height)
    {
        const int most = 200;
        if (!constructions.TryGetValue(glyph, out var at) || Half(at) == 0)
            return [];
        at += Half(at);
        var parts = Enumerable
            .Range(0, Half(at + 4))
            .Select(i => at + 6 + 10 * i)
            .Select(part => (Glyph: Half(part), Advance: Half(part + 6), Repeats: (Half(part + 8) & 1) == 1))
            .ToList();
        for (var times = 0; times <= most; times++)
        {
            var pieces = parts.SelectMany(part => Enumerable.Repeat(part, part.Repeats ? times : 1)).ToList();
            if (pieces.Count > 0 && (pieces.Sum(piece => piece.Advance) - overlap * (pieces.Count - 1) >= height || times == most))
                return [.. pieces.Select((piece, i) => (piece.Glyph, i == 0 ? 0 : overlap))];
        }

        return [];
    }

    /// <summary>A list of values by glyphs.</summary>
    private Dictionary<int, int> Values(int at)
    {
        var covered = Covered(at + Half(at));
        return covered
            .Take(Half(at + 2))
            .Select((glyph, i) => (glyph, Value: (int)Short(at + 4 + 4 * i)))
            .ToDictionary(one => one.glyph, one => one.Value);
    }

    /// <summary>The glyphs of a coverage table, in their order.</summary>
    private List<int> Covered(int at)
    {
        var count = Half(at + 2);
        return Half(at) == 1
            ? [.. Enumerable.Range(0, count).Select(i => Half(at + 4 + 2 * i))]
            :
            [
                .. Enumerable
                    .Range(0, count)
                    .Select(i => at + 4 + 6 * i)
                    .SelectMany(range => Enumerable.Range(Half(range), Half(range + 2) - Half(range) + 1)),
            ];
    }

    private int Half(int at) => BinaryPrimitives.ReadUInt16BigEndian(table.AsSpan(at));

    private short Short(int at) => BinaryPrimitives.ReadInt16BigEndian(table.AsSpan(at));
}
