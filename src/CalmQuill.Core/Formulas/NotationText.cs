using static CalmQuill.Core.Formulas.Notation;

namespace CalmQuill.Core.Formulas;

/// <summary>A formula in one line of letters, for whoever hears it or copies it: it can be typed again as it stands.</summary>
public static class NotationText
{
    public static string Of(Notation notation) => Fold.Up<Notation, string>(notation, one => one.Parts, Write).Trim();

    private static string Write(Notation node, IReadOnlyList<string> parts) =>
        node switch
        {
            Row row => string.Concat(
                row.Items.Select((item, i) => i == 0 ? Alone(item, parts[i]) : Beside(row.Items[i - 1], item, parts[i]))
            ),
            Number number => number.Digits,
            Name name => name.Letter,
            Called called => called.Function,
            Measured unit => unit.Text,
            Said said => said.Text,
            Sign { Class: SignClass.Relation } sign => $" {sign.Text} ",
            Sign { Class: SignClass.Binary } sign => sign.Text == "·" ? "·" : $" {sign.Text} ",
            Sign { Text: "," } => ", ",
            Sign sign => sign.Text,
            Big big => big.Text,
            Fraction fraction => $"{Braced(fraction.Above, parts[0])}/{Braced(fraction.Below, parts[1])}",
            Root { Degree: null } root => "√" + Braced(root.Inner, parts[0]),
            Root => $"root({parts[0]}, {parts[1]})",
            Scripts scripts => parts[0]
                + (scripts.Lower is null ? "" : "_" + Braced(scripts.Lower, parts[1]))
                + (scripts.Upper is null ? "" : "^" + Braced(scripts.Upper, parts[^1])),
            Fence fence => fence.Open + parts[0] + fence.Close,
            Accent accent => parts[0] + accent.Mark,
            Grid grid => Rows(grid, parts),
            _ => "",
        };

    /// <summary>A minus that stands between nothing is a sign.</summary>
    private static string Alone(Notation item, string text) => item is Sign { Class: SignClass.Binary } sign ? sign.Text : text;

    /// <summary>A unit stands off its number, and what would run into a word off that.</summary>
    private static string Beside(Notation before, Notation item, string text)
    {
        if (before is Sign { Class: not SignClass.Ordinary and not SignClass.Closing })
            return Alone(item, text);
        var isApart =
            item is Measured or Said or Called or Scripts { Base: Called }
            || before is Said
            || (before is Called or Scripts { Base: Called } && item is not Fence);
        // Half an x is not one over two x.
        isApart |= before is Fraction && item is not Sign;
        return isApart && before is not Sign ? " " + text : text;
    }

    private static string Braced(Notation part, string text) =>
        part is Row { Items.Count: > 1 } or Fraction or Grid ? $"({text.Trim()})" : text;

    private static string Rows(Grid grid, IReadOnlyList<string> parts)
    {
        var rows = new List<string>();
        var next = 0;
        foreach (var row in grid.Rows)
        {
            rows.Add(string.Join(", ", parts.Skip(next).Take(row.Count).Select(cell => cell.Trim())));
            next += row.Count;
        }

        return string.Join("; ", rows);
    }
}
