using System.Text;
using static CalmQuill.Core.Typesetting.BreakClass;

namespace CalmQuill.Core.Typesetting;

/// <summary>Where lines of text may end: the Unicode line breaking algorithm, UAX #14 of Unicode 16, without tailoring. Rules are named as there.</summary>
public static class LineBreaks
{
    private const int Hyphen = 0x2010,
        DottedCircle = 0x25CC;

    /// <summary>A sign with the combining marks on it, as LB9 takes them together.</summary>
    private readonly record struct Unit(int Start, int Code, BreakClass Class, Sign Sign, bool EndsWithJoiner);

    /// <summary>For each UTF-16 code unit, and the end, what may be before it.</summary>
    /// <returns>As many as the text is long, plus one: the first none, the last a break that must be.</returns>
    public static LineBreak[] Of(ReadOnlySpan<char> text)
    {
        var breaks = new LineBreak[text.Length + 1];
        breaks[^1] = LineBreak.Must;
        var units = Units(text);
        for (var i = 1; i < units.Count; i++)
            breaks[units[i].Start] = Between(units, i);
        return breaks;
    }

    private static List<Unit> Units(ReadOnlySpan<char> text)
    {
        var units = new List<Unit>(text.Length);
        for (var at = 0; at < text.Length; )
        {
            // Half a character is one that cannot be read.
            Rune.DecodeFromUtf16(text[at..], out var rune, out var length);
            var sign = SignTable.Of(rune.Value);
            var joins = sign.Break == ZWJ;
            if (sign.Break is CM or ZWJ && units.Count > 0 && units[^1].Class is not (BK or CR or LF or NL or SP or ZW))
                units[^1] = units[^1] with { EndsWithJoiner = joins };
            else
                // LB10: what nothing stands before is a letter.
                units.Add(new Unit(at, rune.Value, sign.Break is CM or ZWJ ? AL : sign.Break, sign, joins));
            at += length;
        }

        return units;
    }

    private static LineBreak Between(List<Unit> units, int i)
    {
        var (before, after) = (units[i - 1], units[i]);
        var (a, b) = (before.Class, after.Class);
        // LB4 to LB6
        if (a is BK or LF or NL || (a == CR && b != LF))
            return LineBreak.Must;
        if (a == CR || b is BK or CR or LF or NL)
            return LineBreak.None;
        return May(units, i, before, after, a, b) ? LineBreak.May : LineBreak.None;
    }

    private static bool May(List<Unit> units, int i, Unit before, Unit after, BreakClass a, BreakClass b)
    {
        // LB7
        if (b is SP or ZW)
            return false;
        // What stands before the spaces that end at the break; the sign itself where there are none.
        var last = i - 1;
        while (last >= 0 && units[last].Class == SP)
            last--;
        var spaced = last < i - 1;
        BreakClass? lead = last >= 0 ? units[last].Class : null;
        // LB8, LB8a
        if (lead == ZW)
            return true;
        if (before.EndsWithJoiner)
            return false;
        // LB11 to LB12a
        if (b == WJ || a is WJ or GL || (b == GL && a is not (SP or BA or HY)))
            return false;
        // LB13, LB14
        if (b is CL or CP or EX or SY || lead == OP)
            return false;
        // LB15a, LB15b
        if (last >= 0 && units[last] is { Class: QU, Sign.Opens: true } && IsBeginning(units, last))
            return false;
        if (b == QU && after.Sign.Closes && IsEnding(units, i))
            return false;
        // LB15c, LB15d
        if (a == SP && b == IS && ClassAt(units, i + 1) == NU)
            return true;
        if (b == IS)
            return false;
        // LB16, LB17
        if ((lead is CL or CP && b == NS) || (lead == B2 && b == B2))
            return false;
        // LB18
        if (spaced)
            return true;
        // LB19, LB19a
        if ((b == QU && !after.Sign.Opens) || (a == QU && !before.Sign.Closes))
            return false;
        if (b == QU && (!before.Sign.IsWide || i + 1 == units.Count || !units[i + 1].Sign.IsWide))
            return false;
        if (a == QU && (!after.Sign.IsWide || i < 2 || !units[i - 2].Sign.IsWide))
            return false;
        // LB20, LB20a
        if (a == CB || b == CB)
            return true;
        if ((a == HY || before.Code == Hyphen) && b == AL && ClassAt(units, i - 2) is null or BK or CR or LF or NL or SP or ZW or CB or GL)
            return false;
        // LB21 to LB22
        if (b is BA or HY or NS || a == BB)
            return false;
        if ((a == HY || (a == BA && !before.Sign.IsWide)) && ClassAt(units, i - 2) == HL && b != HL)
            return false;
        if ((a == SY && b == HL) || b == IN)
            return false;
        // LB23 to LB24
        if ((IsLetter(a) && b == NU) || (a == NU && IsLetter(b)))
            return false;
        if ((a == PR && IsPictured(b)) || (IsPictured(a) && b == PO))
            return false;
        if ((a is PR or PO && IsLetter(b)) || (IsLetter(a) && b is PR or PO))
            return false;
        return !IsNumber(units, i, a, b) && !IsKorean(a, b) && !IsBrahmic(units, i, before, after) && Ends(units, i, before, after);
    }

    /// <summary>LB28 to LB31, but for syllables.</summary>
    private static bool Ends(List<Unit> units, int i, Unit before, Unit after)
    {
        var (a, b) = (before.Class, after.Class);
        if ((IsLetter(a) && IsLetter(b)) || (a == IS && IsLetter(b)))
            return false;
        if ((IsLetter(a) || a == NU) && b == OP && !after.Sign.IsWide)
            return false;
        if (a == CP && !before.Sign.IsWide && (IsLetter(b) || b == NU))
            return false;
        if (a == RI && b == RI)
        {
            var run = 0;
            while (ClassAt(units, i - 1 - run) == RI)
                run++;
            return run % 2 == 0;
        }

        return !(b == EM && (a == EB || before.Sign.IsKept));
    }

    /// <summary>LB15a: what an opening quotation mark stands behind when it begins something.</summary>
    private static bool IsBeginning(List<Unit> units, int quote) =>
        ClassAt(units, quote - 1) is null or BK or CR or LF or NL or OP or QU or GL or SP or ZW;

    /// <summary>LB15b: what a closing quotation mark stands before when it ends something.</summary>
    private static bool IsEnding(List<Unit> units, int quote) =>
        ClassAt(units, quote + 1) is null or SP or GL or WJ or CL or QU or CP or EX or IS or SY or BK or CR or LF or NL or ZW;

    /// <summary>LB25: whether a number goes on.</summary>
    private static bool IsNumber(List<Unit> units, int i, BreakClass a, BreakClass b)
    {
        if (b is PO or PR && IsAfterDigits(units, a is CL or CP ? i - 2 : i - 1))
            return true;
        if (b == NU && (a is PO or PR or HY or IS || IsAfterDigits(units, i - 1)))
            return true;
        return a is PO or PR && b == OP && (ClassAt(units, i + 1) == NU || (ClassAt(units, i + 1) == IS && ClassAt(units, i + 2) == NU));
    }

    /// <summary>Whether digits stand at a place, and behind them only what parts them.</summary>
    private static bool IsAfterDigits(List<Unit> units, int i)
    {
        while (ClassAt(units, i) is SY or IS)
            i--;
        return ClassAt(units, i) == NU;
    }

    /// <summary>LB26, LB27.</summary>
    private static bool IsKorean(BreakClass a, BreakClass b) =>
        (a == JL && b is JL or JV or H2 or H3)
        || (a is JV or H2 && b is JV or JT)
        || (a is JT or H3 && b == JT)
        || (a is JL or JV or JT or H2 or H3 && b == PO)
        || (a == PR && b is JL or JV or JT or H2 or H3);

    /// <summary>LB28a: syllables of scripts that write without spaces.</summary>
    private static bool IsBrahmic(List<Unit> units, int i, Unit before, Unit after)
    {
        bool isBase = IsBase(before),
            nextIsBase = IsBase(after);
        return (before.Class == AP && nextIsBase)
            || (isBase && after.Class is VF or VI)
            || (before.Class == VI && i > 1 && IsBase(units[i - 2]) && (after.Class == AK || after.Code == DottedCircle))
            || (isBase && nextIsBase && ClassAt(units, i + 1) == VF);
    }

    private static bool IsBase(Unit unit) => unit.Class is AK or AS || unit.Code == DottedCircle;

    private static bool IsLetter(BreakClass a) => a is AL or HL;

    private static bool IsPictured(BreakClass a) => a is ID or EB or EM;

    private static BreakClass? ClassAt(List<Unit> units, int i) => i >= 0 && i < units.Count ? units[i].Class : null;
}
