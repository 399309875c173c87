using CalmQuill.Core.Typesetting;
using static CalmQuill.Core.Formulas.MathFont.Constant;
using static CalmQuill.Core.Formulas.Notation;

namespace CalmQuill.Core.Formulas;

/// <summary>Sets formulas in type, by the rules of Knuth (“The TeXbook”, appendix G) with the measures that the font gives for them.</summary>
/// <param name="font">The font.</param>
/// <param name="size">The height of the type, 0.1 pt.</param>
internal sealed class MathSetter(MathFont font, int size)
{
    /// <summary>How deep raised in what is raised: a formula by itself, in a line, raised, and raised in what is raised.</summary>
    private const int Alone = 0,
        InLine = 1,
        Script = 2,
        SmallScript = 3;

    /// <summary>Room beside a fraction, and between the rows and columns of a grid, in eighteenths of the type.</summary>
    private const int BesideFraction = 2,
        BetweenRows = 7,
        BetweenColumns = 18;

    /// <summary>Brackets leave so much of what they hold uncovered at most, in hundredths.</summary>
    private const int Covered = 90;

    /// <summary>What is typed is set, with what it runs over under and over it.</summary>
    public MathBox Set(Notation notation) =>
        Fold.Up<(Notation Node, int Style), MathBox>(
            (notation, Alone),
            one => PartsOf(one.Node, one.Style),
            (one, parts) => Set(one.Node, one.Style, parts)
        );

    /// <summary>One eighteenth of the type, 0.01 mm.</summary>
    public double Eighteenth => size * 127 / 36.0 / 18;

    /// <summary>How high the line of fractions stands over the line of the letters.</summary>
    private double Axis => Length(AxisHeight, Alone);

    private static (Notation, int)[] PartsOf(Notation node, int style) =>
        [
            .. node.Parts.Select(
                (part, i) =>
                    (
                        part,
                        node switch
                        {
                            Fraction => Math.Min(style + 1, SmallScript),
                            Root when i == 1 => SmallScript,
                            Scripts when i > 0 => style < Script ? Script : SmallScript,
                            Grid => Math.Max(style, InLine),
                            _ => style,
                        }
                    )
            ),
        ];

    private MathBox Set(Notation node, int style, IReadOnlyList<MathBox> parts) =>
        node switch
        {
            Row => SetRow(parts, style),
            Number number => Written(number.Digits, style),
            Name name => Letter(name.Letter, style),
            Called called => Written(called.Function, style).As(SignClass.Operator),
            Measured unit => Spaced(Written(unit.Text, style), 3, 0),
            Said said => style < Script ? Spaced(Written(said.Text, style), 4, 4) : Written(said.Text, style),
            Notation.Sign sign => Letter(sign.Text, style).As(sign.Class),
            Big big => SetBig(big, style),
            Gap gap => MathBox.Empty with { Width = gap.Eighteenths * Eighteenth },
            Fraction fraction => SetFraction(fraction, parts[0], parts[1], style),
            Root => SetRoot(parts, style),
            Scripts scripts => SetScripts(scripts, parts, style),
            Fence fence => SetFence(fence, parts[0], style),
            Accent accent => SetAccent(accent, parts[0], style),
            Grid grid => SetGrid(grid, parts),
            _ => MathBox.Empty,
        };

    private int SizeOf(int style) =>
        style switch
        {
            Script => size * font.Scales.Script / 100,
            SmallScript => size * font.Scales.SmallScript / 100,
            _ => size,
        };

    /// <summary>0.01 mm for a length of the font.</summary>
    private double Length(double units, int style) => units * SizeOf(style) * 127 / 36 / font.Font.File.UnitsPerEm;

    private double Length(MathFont.Constant constant, int style) => Length(font[constant], style);

    private MathBox Spaced(MathBox box, int before, int behind) =>
        MathBox.Of((box, before * Eighteenth, 0)) with
        {
            Width = box.Width + (before + behind) * Eighteenth,
        };

    /// <summary>Upright letters.</summary>
    private MathBox Written(string text, int style)
    {
        if (text.Length == 0)
            return MathBox.Empty;
        var label = Label.Of(text, SizeOf(style), Families.Formulas);
        var boxes = text.EnumerateRunes().Select(rune => font.Font.File.BoxOf(font.Font.File.GlyphOf(rune.Value))).ToList();
        return new MathBox(
            label.Width,
            Length(boxes.Max(box => box.Top), style),
            Length(-boxes.Min(box => box.Bottom), style),
            [(label, 0, 0)],
            []
        )
        {
            IsSign = text.Length == 1,
        };
    }

    /// <summary>One sign; Latin and small Greek letters lean.</summary>
    private MathBox Letter(string sign, int style)
    {
        var code = char.ConvertToUtf32(sign, 0);
        var glyph = font.Font.File.GlyphOf(MathLetters.Leaning(code));
        return glyph == 0 || new System.Text.Rune(code).Utf16SequenceLength < sign.Length
            ? Written(sign, style)
            : Glyph(glyph, char.ConvertFromUtf32(MathLetters.Leaning(code)), style);
    }

    private MathBox Glyph(int glyph, string text, int style)
    {
        var box = font.Font.File.BoxOf(glyph);
        return new MathBox(
            Length(font.Font.File.Advance(glyph), style),
            Length(box.Top, style),
            Length(-box.Bottom, style),
            [(Label.Of(font.Font, glyph, text, SizeOf(style)), 0, 0)],
            []
        )
        {
            Slant = Length(font.SlantOf(glyph), style),
            Peak = Length(font.PeakOf(glyph), style),
            IsSign = true,
        };
    }

    private MathBox SetBig(Big big, int style)
    {
        var glyph = font.Font.File.GlyphOf(char.ConvertToUtf32(big.Text, 0));
        if (style == Alone)
            glyph = font.FormsOf(glyph).Where(form => form.Height >= font.LeastBig).Select(form => form.Glyph).FirstOrDefault(glyph);
        var box = Glyph(glyph, big.Text, style);
        // It stands in the middle about the line of fractions.
        var down = (box.Ascent - box.Descent) / 2 - Length(AxisHeight, style);
        return MathBox.Of((box, 0, down)).As(SignClass.Operator) with { Slant = box.Slant };
    }

    private MathBox SetRow(IReadOnlyList<MathBox> parts, int style)
    {
        var classes = parts.Select(part => (part.Left, part.Right)).ToArray();
        for (var i = 0; i < classes.Length; i++)
        {
            // A minus that stands between nothing is a sign.
            if (classes[i].Left != SignClass.Binary)
                continue;
            var before = i == 0 ? SignClass.Binary : classes[i - 1].Right;
            var behind = i + 1 == classes.Length ? SignClass.Relation : classes[i + 1].Left;
            if (
                before is SignClass.Binary or SignClass.Operator or SignClass.Relation or SignClass.Opening or SignClass.Punctuation
                || behind is SignClass.Relation or SignClass.Closing or SignClass.Punctuation
            )
                classes[i] = (SignClass.Ordinary, SignClass.Ordinary);
        }

        var placed = new List<(MathBox, double, double)>();
        var x = 0.0;
        for (var i = 0; i < parts.Count; i++)
        {
            if (i > 0)
                x += MathLetters.Between(classes[i - 1].Right, classes[i].Left, style >= Script) * Eighteenth * SizeOf(style) / size;
            // What leans does not lean into what stands upright.
            if (i > 0 && parts[i].Slant == 0)
                x += parts[i - 1].IsSign ? parts[i - 1].Slant : 0;
            placed.Add((parts[i], x, 0));
            x += parts[i].Width;
        }

        return MathBox.Of(placed) with
        {
            Width = x,
            Slant = parts.Count > 0 ? parts[^1].Slant : 0,
        };
    }

    private MathBox SetFraction(Fraction fraction, MathBox above, MathBox below, int style)
    {
        var isAlone = style == Alone;
        double axis = Length(AxisHeight, style),
            thick = fraction.HasLine ? Length(FractionRuleThickness, style) : 0,
            gapAbove = Length(isAlone ? FractionNumeratorDisplayGapMin : FractionNumeratorGapMin, style),
            gapBelow = Length(isAlone ? FractionDenominatorDisplayGapMin : FractionDenominatorGapMin, style);
        if (!fraction.HasLine)
            gapAbove = gapBelow = Length(StackGapMin, style) / 2;
        var up = Math.Max(
            Length(isAlone ? FractionNumeratorDisplayShiftUp : FractionNumeratorShiftUp, style),
            axis + thick / 2 + gapAbove + above.Descent
        );
        var down = Math.Max(
            Length(isAlone ? FractionDenominatorDisplayShiftDown : FractionDenominatorShiftDown, style),
            below.Ascent + gapBelow + thick / 2 - axis
        );
        double width = Math.Max(above.Width, below.Width) + 2 * Eighteenth,
            room = BesideFraction * Eighteenth;
        var parts = new List<(MathBox, double, double)>
        {
            (above, room + (width - above.Width) / 2, -up),
            (below, room + (width - below.Width) / 2, down),
        };
        if (fraction.HasLine)
            parts.Add((MathBox.Bar(width, axis - thick / 2, thick), room, 0));
        return MathBox.Of(parts) with { Width = width + 2 * room };
    }

    private MathBox SetRoot(IReadOnlyList<MathBox> parts, int style)
    {
        var of = parts[0];
        double thick = Length(RadicalRuleThickness, style),
            gap = Length(style == Alone ? RadicalDisplayGap : RadicalGap, style);
        var sign = Stretched("√", of.Height + gap + thick, style);
        // What a taller sign leaves over is shared between above and below.
        gap += Math.Max(0, sign.Height - of.Height - gap - thick) / 2;
        var top = of.Ascent + gap + thick;
        var placed = new List<(MathBox, double, double)>();
        var x = 0.0;
        if (parts.Count > 1)
        {
            x = Length(RadicalKernBeforeDegree, style);
            var raised = sign.Height * font.DegreeRaise / 100;
            placed.Add((parts[1], x, sign.Height - top - raised));
            x = Math.Max(0, x + parts[1].Width + Length(RadicalKernAfterDegree, style));
        }

        placed.Add((sign, x, sign.Ascent - top));
        x += sign.Width;
        placed.Add((of, x, 0));
        var width = of.Width + Math.Max(of.Slant, Eighteenth);
        placed.Add((MathBox.Bar(width, top - thick, thick), x, 0));
        return MathBox.Of(placed) with { Width = x + width };
    }

    private MathBox SetScripts(Scripts scripts, IReadOnlyList<MathBox> parts, int style)
    {
        var of = parts[0];
        var lower = scripts.Lower is null ? null : parts[1];
        var upper = scripts.Upper is null ? null : parts[^1];
        var isOver =
            style == Alone
            && (
                scripts.Base is Big { HasLimits: true }
                || (scripts.Base is Called called && NotationSigns.OverMany.Contains(called.Function))
            );
        if (isOver)
            return SetLimits(of, lower, upper, style);
        double up = 0,
            down = 0;
        if (upper is not null)
        {
            up = Math.Max(Length(SuperscriptShiftUp, style), upper.Descent + Length(SuperscriptBottomMin, style));
            if (!of.IsSign)
                up = Math.Max(up, of.Ascent - Length(SuperscriptDropMax, style));
        }

        if (lower is not null)
        {
            down = Math.Max(Length(SubscriptShiftDown, style), lower.Ascent - Length(SubscriptTopMax, style));
            if (!of.IsSign)
                down = Math.Max(down, of.Descent + Length(SubscriptDropMin, style));
        }

        if (upper is not null && lower is not null)
            down += Math.Max(0, Length(SubSuperscriptGapMin, style) - (up - upper.Descent - (lower.Ascent - down)));
        var placed = new List<(MathBox, double, double)> { (of, 0, 0) };
        // What is lowered stands under the slant; of a sign over many things that is within its width.
        var (right, left) = scripts.Base is Big ? (of.Width, of.Width - of.Slant) : (of.Width + of.Slant, of.Width);
        if (upper is not null)
            placed.Add((upper, right, -up));
        if (lower is not null)
            placed.Add((lower, left, down));
        var box = MathBox.Of(placed);
        return box with { Width = box.Width + Length(SpaceAfterScript, style), Left = of.Left, Right = of.Right };
    }

    private MathBox SetLimits(MathBox of, MathBox? lower, MathBox? upper, int style)
    {
        var width = new[] { of, lower, upper }.Max(one => one?.Width ?? 0);
        var placed = new List<(MathBox, double, double)> { (of, (width - of.Width) / 2, 0) };
        if (upper is not null)
            placed.Add((upper, (width - upper.Width) / 2, -(of.Ascent + Length(UpperLimitGapMin, style) + upper.Descent)));
        if (lower is not null)
            placed.Add((lower, (width - lower.Width) / 2, of.Descent + Length(LowerLimitGapMin, style) + lower.Ascent));
        return MathBox.Of(placed).As(SignClass.Operator) with { Width = width };
    }

    private MathBox SetFence(Fence fence, MathBox inner, int style)
    {
        var axis = Length(AxisHeight, style);
        // As far above the axis as below it.
        var height = 2 * Math.Max(inner.Ascent - axis, inner.Descent + axis) * Covered / 100;
        var placed = new List<(MathBox, double, double)>();
        var x = 0.0;
        Put(fence.Open);
        placed.Add((inner, x, 0));
        x += inner.Width;
        Put(fence.Close);
        return MathBox.Of(placed) with { Width = x, Left = SignClass.Opening, Right = SignClass.Closing };

        void Put(string sign)
        {
            if (sign.Length == 0)
                return;
            var box = Stretched(sign, height, style);
            placed.Add((box, x, (box.Ascent - box.Descent) / 2 - axis));
            x += box.Width;
        }
    }

    /// <summary>A sign at least so high.</summary>
    private MathBox Stretched(string sign, double height, int style)
    {
        var glyph = font.Font.File.GlyphOf(char.ConvertToUtf32(sign, 0));
        var own = Glyph(glyph, sign, style);
        if (own.Height >= height)
            return own;
        foreach (var form in font.FormsOf(glyph))
        {
            if (Length(form.Height, style) >= height)
                return Glyph(form.Glyph, sign, style);
        }

        var pieces = font.PiecesOf(glyph, height / Length(1, style));
        if (pieces.Count == 0)
            return font.FormsOf(glyph) is [.., var largest] ? Glyph(largest.Glyph, sign, style) : own;
        var placed = new List<(MathBox, double, double)>();
        var y = 0.0;
        foreach (var (piece, overlap) in pieces)
        {
            var box = Glyph(piece, sign, style);
            y += Length(overlap, style);
            placed.Add((box, 0, y - box.Descent));
            y -= box.Height;
        }

        return MathBox.Of(placed);
    }

    private MathBox SetAccent(Accent accent, MathBox of, int style)
    {
        if (accent.Mark == "‾")
        {
            var thick = Length(OverbarThickness, style);
            return MathBox.Of((of, 0, 0), (MathBox.Bar(of.Width, of.Ascent + Length(OverbarGap, style), thick), 0, 0)) with
            {
                Width = of.Width,
            };
        }

        var mark = Glyph(font.Font.File.GlyphOf(char.ConvertToUtf32(accent.Mark, 0)), accent.Mark, style);
        var up = Math.Max(0, of.Ascent - Length(AccentBaseHeight, style));
        return MathBox.Of((of, 0, 0), (mark, of.Peak - mark.Peak, -up)) with { Width = of.Width, Slant = of.Slant, IsSign = of.IsSign };
    }

    private MathBox SetGrid(Grid grid, IReadOnlyList<MathBox> parts)
    {
        var columns = grid.Rows.Max(row => row.Count);
        var rows = new List<List<MathBox>>();
        var next = 0;
        foreach (var row in grid.Rows)
        {
            rows.Add([.. parts.Skip(next).Take(row.Count)]);
            next += row.Count;
        }

        var widths = Enumerable.Range(0, columns).Select(column => rows.Max(row => column < row.Count ? row[column].Width : 0)).ToArray();
        // Rows are as high as a line at least.
        double least = size * 127 / 36.0,
            gap = BetweenRows * Eighteenth,
            y = 0;
        var placed = new List<(MathBox, double, double)>();
        foreach (var row in rows)
        {
            double ascent = Math.Max(least * 0.7, row.Count > 0 ? row.Max(cell => cell.Ascent) : 0),
                descent = Math.Max(least * 0.25, row.Count > 0 ? row.Max(cell => cell.Descent) : 0),
                x = 0;
            y += ascent;
            for (var column = 0; column < row.Count; column++)
            {
                placed.Add((row[column], x + (grid.Centred ? (widths[column] - row[column].Width) / 2 : 0), y));
                x += widths[column] + BetweenColumns * Eighteenth;
            }

            y += descent + gap;
        }

        var height = y - gap;
        var shifted = placed.Select(one => (one.Item1, one.Item2, one.Item3 - height / 2 - Axis)).ToList();
        return MathBox.Of(shifted) with { Width = widths.Sum() + (columns - 1) * BetweenColumns * Eighteenth };
    }
}
