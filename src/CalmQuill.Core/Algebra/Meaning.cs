using CalmQuill.Core.Formulas;
using CalmQuill.Core.Numbers;
using CalmQuill.Core.Reckoning;
using CalmQuill.Core.Units;
using static CalmQuill.Core.Formulas.Notation;

namespace CalmQuill.Core.Algebra;

/// <summary>
/// What a line of a formula means: terms, with signs such as = between them. Read from what stands where, each row with one stack of what waits (Dijkstra's
/// shunting yard, 1961).
/// </summary>
/// <param name="Sides">The terms.</param>
/// <param name="Signs">What stands between each two.</param>
/// <param name="In">The unit in which it is asked for, behind an arrow; null for none.</param>
public sealed record Meaning(IReadOnlyList<Term> Sides, IReadOnlyList<string> Signs, Unit? In)
{
    /// <summary>Whether it says that two things are equal, and nothing else.</summary>
    public bool IsEquation => Signs is ["="];

    /// <summary>The letters in it.</summary>
    public IEnumerable<string> Names => Sides.SelectMany(side => side.Names).Distinct().Order(StringComparer.Ordinal);

    /// <exception cref="FormulaException">It means nothing here.</exception>
    public static Meaning Of(Notation notation, bool degrees)
    {
        var items = Flat(notation);
        Unit? wanted = null;
        // “→ mm” at the end asks for a unit.
        if (items.Count > 2 && items[^2] is Sign { Text: "→" } or Said { Text: "to" } && UnitOf(items[^1]) is { } unit)
        {
            wanted = unit;
            items = items[..^2];
        }

        var (sides, signs) = (new List<Term>(), new List<string>());
        var from = 0;
        for (var at = 0; at <= items.Count; at++)
        {
            if (at < items.Count && items[at] is not Sign { Class: SignClass.Relation })
                continue;
            // “y =” asks for what y is.
            if (at == items.Count && from == at && signs is ["="])
            {
                signs.Clear();
                break;
            }

            sides.Add(Of(items[from..at], degrees));
            if (at < items.Count)
                signs.Add(((Sign)items[at]).Text);
            from = at + 1;
        }

        return new Meaning(sides, signs, wanted);
    }

    private static Term Of(List<Notation> items, bool degrees) =>
        Fold.Up<Notation, Read>(new Row(items), PartsOf, (node, parts) => Read.Of(node, parts, degrees)).Term
        ?? throw new FormulaException($"Something is missing here.", 0);

    /// <summary>Rows within rows are one.</summary>
    private static List<Notation> Flat(Notation notation)
    {
        var flat = new List<Notation>();
        var open = new Stack<Notation>([notation]);
        while (open.TryPop(out var next))
        {
            if (next is Row row)
            {
                foreach (var item in row.Items.Reverse())
                    open.Push(item);
            }
            else if (next is not Gap)
                flat.Add(next);
        }

        return flat;
    }

    /// <summary>What stands alone behind an arrow may be a unit that looks like letters: they are put together again.</summary>
    private static Unit? UnitOf(Notation last) =>
        last switch
        {
            Measured measured => UnitReader.Read(measured.Text),
            Said said => UnitReader.Read(said.Text),
            Name name => UnitReader.Read(name.Letter),
            _ => null,
        };

    /// <summary>Of what has a meaning as a whole nothing is asked within.</summary>
    private static IReadOnlyList<Notation> PartsOf(Notation node) =>
        node is Scripts scripts && Letters.NameOf(scripts) is not null ? [] : node.Parts;
}
