using System.Buffers.Binary;
using CalmQuill.Core.Art;

namespace CalmQuill.Core.Typesetting;

/// <summary>
/// A font with TrueType outlines, as it lies in its file (ISO/IEC 14496-22, “Open Font Format”): its measures, which sign is which glyph, and the glyphs'
/// outlines.
/// </summary>
/// <remarks>Lengths are in the font's own units, of which <see cref="UnitsPerEm"/> are the height of the type; y runs up in the file, and down in what
/// comes out.</remarks>
public sealed class FontFile
{
    /// <summary>How deep glyphs may be made of glyphs.</summary>
    private const int MostDepth = 8;

    private readonly byte[] data;
    private readonly Dictionary<string, (int Start, int Length)> tables = [];
    private readonly bool longLocations;
    private readonly int metrics;
    private readonly int characters;

    /// <param name="data">The file.</param>
    /// <exception cref="InvalidDataException">It is no such font.</exception>
    public FontFile(byte[] data)
    {
        this.data = data;
        try
        {
            if (Word(0) != 0x00010000)
                throw new InvalidDataException("The file is not a font with TrueType outlines.");
            for (var i = 0; i < Half(4); i++)
            {
                var row = 12 + 16 * i;
                var (start, length) = (checked((int)Word(row + 8)), checked((int)Word(row + 12)));
                if (start + (long)length > data.Length)
                    throw new InvalidDataException("The font ends before its tables do.");
                tables[System.Text.Encoding.ASCII.GetString(data, row, 4)] = (start, length);
            }

            UnitsPerEm = Half(At("head") + 18);
            longLocations = Half(At("head") + 50) == 1;
            GlyphCount = Half(At("maxp") + 4);
            Ascender = Short(At("hhea") + 4);
            Descender = -Short(At("hhea") + 6);
            metrics = Half(At("hhea") + 34);
            characters = CharacterTable();
            if (UnitsPerEm == 0 || metrics == 0 || metrics > GlyphCount || Length("hmtx") < metrics * 4 + (GlyphCount - metrics) * 2)
                throw new InvalidDataException("The font's measures are not well formed.");
        }
        catch (Exception problem) when (problem is ArgumentOutOfRangeException or IndexOutOfRangeException or OverflowException)
        {
            throw new InvalidDataException("The font ends before its tables do.", problem);
        }
    }

    public int UnitsPerEm { get; }

    public int GlyphCount { get; }

    /// <summary>How far letters reach above the baseline.</summary>
    public int Ascender { get; }

    /// <summary>How far they reach below it.</summary>
    public int Descender { get; }

    /// <summary>The file, for those who read it themselves.</summary>
    public ReadOnlyMemory<byte> Data => data;

    /// <summary>How far a glyph moves on.</summary>
    public int Advance(int glyph) => Half(At("hmtx") + Math.Min(glyph, metrics - 1) * 4);

    /// <summary>The box around a glyph’s outline, y up from the baseline; all 0 for one that shows nothing.</summary>
    public (int Left, int Bottom, int Right, int Top) BoxOf(int glyph)
    {
        var (start, end) = Location(glyph);
        return end - start < 10 ? default : (Short(start + 2), Short(start + 4), Short(start + 6), Short(start + 8));
    }

    /// <summary>The glyph of a sign; 0 where the font has none.</summary>
    public int GlyphOf(int code)
    {
        if (characters < 0)
            return 0;
        return Half(characters) == 12 ? FromGroups(code)
            : code <= 0xFFFF ? FromSegments(code)
            : 0;
    }

    /// <summary>The outline of a glyph, y down from the baseline; empty for one that shows nothing.</summary>
    /// <exception cref="InvalidDataException">It is not well formed.</exception>
    public VectorPath OutlineOf(int glyph)
    {
        var path = new VectorPath();
        try
        {
            Draw(glyph, path, 1, 0, 0, 1, 0, 0, 0);
        }
        catch (Exception problem) when (problem is ArgumentOutOfRangeException or IndexOutOfRangeException)
        {
            throw new InvalidDataException("A glyph of the font is not well formed.", problem);
        }

        return path;
    }

    private void Draw(int glyph, VectorPath path, double a, double b, double c, double d, double e, double f, int depth)
    {
        var (start, end) = Location(glyph);
        if (start == end)
            return;
        if (depth > MostDepth)
            throw new InvalidDataException("A glyph of the font is made of itself.");
        int contours = Short(start);
        if (contours >= 0)
        {
            Contours(start + 10, contours, path, (x, y) => ((float)(a * x + c * y + e), (float)-(b * x + d * y + f)));
            return;
        }

        foreach (var (part, xx, xy, yx, yy, x, y) in Parts(start + 10))
            Draw(
                part,
                path,
                a * xx + c * xy,
                b * xx + d * xy,
                a * yx + c * yy,
                b * yx + d * yy,
                a * x + c * y + e,
                b * x + d * y + f,
                depth + 1
            );
    }

    /// <summary>The glyphs that a glyph is made of; none for one that has an outline of its own.</summary>
    public List<int> PartsOf(int glyph)
    {
        var (start, end) = Location(glyph);
        return start == end || Short(start) >= 0 ? [] : [.. Parts(start + 10).Select(part => part.Glyph)];
    }

    /// <summary>What a glyph is made of, and where each part lies.</summary>
    private IEnumerable<(int Glyph, double Xx, double Xy, double Yx, double Yy, int X, int Y)> Parts(int at)
    {
        const int Words = 1,
            Offsets = 2,
            Scale = 8,
            More = 0x20,
            TwoScales = 0x40,
            Matrix = 0x80;
        int flags;
        do
        {
            (flags, var part) = (Half(at), Half(at + 2));
            at += 4;
            if ((flags & Offsets) == 0)
                throw new InvalidDataException("A glyph of the font is put together in a way that is not known here.");
            var (x, y) = (flags & Words) != 0 ? (Short(at), Short(at + 2)) : ((sbyte)data[at], (short)(sbyte)data[at + 1]);
            at += (flags & Words) != 0 ? 4 : 2;
            double xx = 1,
                xy = 0,
                yx = 0,
                yy = 1;
            if ((flags & Scale) != 0)
            {
                xx = yy = Fixed(at);
                at += 2;
            }
            else if ((flags & TwoScales) != 0)
            {
                (xx, yy) = (Fixed(at), Fixed(at + 2));
                at += 4;
            }
            else if ((flags & Matrix) != 0)
            {
                (xx, xy, yx, yy) = (Fixed(at), Fixed(at + 2), Fixed(at + 4), Fixed(at + 6));
                at += 8;
            }

            yield return (part, xx, xy, yx, yy, x, y);
        } while ((flags & More) != 0);
    }

    private void Contours(int at, int contours, VectorPath path, Func<int, int, (float X, float Y)> map)
    {
        var ends = new int[contours];
        for (var i = 0; i < contours; i++)
            ends[i] = Half(at + 2 * i);
        var count = contours == 0 ? 0 : ends[^1] + 1;
        at += 2 * contours;
        // What is said to a machine that draws with few dots is passed over.
        at += 2 + Half(at);
        const int OnCurve = 1,
            ShortX = 2,
            ShortY = 4,
            Repeats = 8,
            SameX = 16,
            SameY = 32;
        var flags = new byte[count];
        for (var i = 0; i < count; i++)
        {
            flags[i] = data[at++];
            if ((flags[i] & Repeats) == 0)
                continue;
            for (var times = data[at++]; times > 0 && i + 1 < count; times--, i++)
                flags[i + 1] = flags[i];
        }

        var xs = Coordinates(ShortX, SameX);
        var ys = Coordinates(ShortY, SameY);
        var first = 0;
        foreach (var end in ends)
        {
            Ring(first, end);
            first = end + 1;
        }

        int[] Coordinates(int isShort, int isSame)
        {
            var values = new int[count];
            var value = 0;
            for (var i = 0; i < count; i++)
            {
                if ((flags[i] & isShort) != 0)
                    value += (flags[i] & isSame) != 0 ? data[at++] : -data[at++];
                else if ((flags[i] & isSame) == 0)
                {
                    value += Short(at);
                    at += 2;
                }

                values[i] = value;
            }

            return values;
        }

        // Between two points off the curve one on it is meant, half-way.
        void Ring(int from, int to)
        {
            var length = to - from + 1;
            if (length < 2)
                return;
            bool On(int i) => (flags[from + i % length] & OnCurve) != 0;
            (float X, float Y) At(int i) => map(xs[from + i % length], ys[from + i % length]);
            static (float X, float Y) Half((float X, float Y) one, (float X, float Y) other) =>
                ((one.X + other.X) / 2, (one.Y + other.Y) / 2);
            var begin = 0;
            while (begin < length && !On(begin))
                begin++;
            var start = begin < length ? At(begin) : Half(At(0), At(length - 1));
            begin = begin < length ? begin + 1 : 0;
            path.MoveTo(start.X, start.Y);
            for (var i = 0; i < length; i++)
            {
                var (point, next) = (begin + i, begin + i + 1);
                if (i == length - 1 && On(point))
                    break;
                if (On(point))
                    path.LineTo(At(point).X, At(point).Y);
                else
                {
                    var last = i == length - 1 || (i == length - 2 && On(next));
                    var to2 =
                        last ? start
                        : On(next) ? At(next)
                        : Half(At(point), At(next));
                    path.QuadraticTo(At(point).X, At(point).Y, to2.X, to2.Y);
                    if (On(next))
                        i++;
                }
            }

            path.Close();
        }
    }

    /// <summary>Where a glyph's outline lies in the file.</summary>
    private (int Start, int End) Location(int glyph)
    {
        if (glyph < 0 || glyph >= GlyphCount)
            return (0, 0);
        var (table, outlines) = (At("loca"), At("glyf"));
        var (start, end) = longLocations
            ? (Word(table + 4 * glyph), Word(table + 4 * glyph + 4))
            : ((uint)Half(table + 2 * glyph) * 2, (uint)Half(table + 2 * glyph + 2) * 2);
        if (start > end || end > Length("glyf"))
            throw new InvalidDataException("A glyph of the font lies outside of it.");
        return (outlines + (int)start, outlines + (int)end);
    }

    /// <summary>The table of all Unicode, or of its first plane; −1 for none.</summary>
    private int CharacterTable()
    {
        var table = At("cmap");
        var found = -1;
        for (var i = 0; i < Half(table + 2); i++)
        {
            var row = table + 4 + 8 * i;
            var at = table + (int)Word(row + 4);
            var (platform, encoding) = (Half(row), Half(row + 2));
            if (platform is not (0 or 3) || (platform == 3 && encoding is not (1 or 10)))
                continue;
            if (Half(at) == 12 || (Half(at) == 4 && found < 0))
                found = at;
        }

        return found;
    }

    private int FromGroups(int code)
    {
        int low = 0,
            high = (int)Word(characters + 12) - 1;
        while (low <= high)
        {
            var middle = (low + high) / 2;
            var at = characters + 16 + 12 * middle;
            if (code < Word(at))
                high = middle - 1;
            else if (code > Word(at + 4))
                low = middle + 1;
            else
                return (int)Word(at + 8) + code - (int)Word(at);
        }

        return 0;
    }

    private int FromSegments(int code)
    {
        var twice = Half(characters + 6);
        for (var i = 0; i < twice; i += 2)
        {
            if (code > Half(characters + 14 + i))
                continue;
            int first = Half(characters + 16 + twice + i),
                delta = Half(characters + 16 + 2 * twice + i),
                offsetAt = characters + 16 + 3 * twice + i,
                offset = Half(offsetAt);
            if (code < first)
                return 0;
            if (offset == 0)
                return (code + delta) & 0xFFFF;
            var glyph = Half(offsetAt + offset + 2 * (code - first));
            return glyph == 0 ? 0 : (glyph + delta) & 0xFFFF;
        }

        return 0;
    }

    private int At(string name) =>
        tables.TryGetValue(name, out var table) ? table.Start : throw new InvalidDataException($"The font has no table “{name}”.");

    private int Length(string name) => tables[name].Length;

    public bool Has(string name) => tables.ContainsKey(name);

    /// <summary>A table of the file, by its name of four letters.</summary>
    public ReadOnlyMemory<byte> Table(string name) => data.AsMemory(At(name), Length(name));

    /// <summary>A glyph's outline as it lies in the file.</summary>
    public ReadOnlyMemory<byte> RawOutline(int glyph)
    {
        var (start, end) = Location(glyph);
        return data.AsMemory(start, end - start);
    }

    private int Half(int at) => BinaryPrimitives.ReadUInt16BigEndian(data.AsSpan(at));

    private short Short(int at) => BinaryPrimitives.ReadInt16BigEndian(data.AsSpan(at));

    private uint Word(int at) => BinaryPrimitives.ReadUInt32BigEndian(data.AsSpan(at));

    /// <summary>A number with 14 binary places.</summary>
    private double Fixed(int at) => Short(at) / 16384.0;
}
