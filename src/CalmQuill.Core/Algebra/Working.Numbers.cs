using CalmQuill.Core.Formulas;
using CalmQuill.Core.Reckoning;
using CalmQuill.Core.Units;
using static CalmQuill.Core.Formulas.Notation;

namespace CalmQuill.Core.Algebra;

/// <content>What lines come to in numbers, with what earlier lines said.</content>
public sealed partial class Working
{
    /// <summary>Fractions with so many decimals are told with all of them.</summary>
    private const int ShownDecimals = 6;

    /// <summary>Numbers up to so many bits are told with all their digits, and fractions below which a third of that stands.</summary>
    private const int MostBits = 132;

    private void WorkOut()
    {
        var known = new Dictionary<string, Quantity>();
        var said = new Dictionary<string, Notation>();
        var units = new List<Unit>();
        foreach (var (at, line, meaning) in Read())
        {
            units.AddRange(UnitsIn(meaning));
            var of = ClosedForms.Of(Expression(meaning));
            var evaluation = new Evaluation(known);
            var value = evaluation.Of(of);
            var isNamed = meaning is { Sides: [Term.Symbol, _] };
            if (meaning.Sides.Count == 2 && !isNamed)
            {
                Compare(evaluation.Of(meaning.Sides[0]), value);
                continue;
            }

            var result = Told(of, value, meaning.In, units);
            if (isNamed)
            {
                var name = ((Term.Symbol)meaning.Sides[0]).Name;
                known[name] = value;
                said[name] = result.Last;
            }

            // A number says itself what it is.
            if (IsNumber(line) && meaning.In is null)
                continue;
            var shown = new List<Notation>();
            if (withSteps && of.Names.Count > 0)
                shown.AddRange([Sign.Equal, Put(line, said)]);
            shown.AddRange(result.Items);
            worked.Behind[at] = Behind(line, shown);
        }
    }

    private void Compare(Quantity one, Quantity other)
    {
        var isSame =
            one.Dimension == other.Dimension
            && (
                one.Exact is { } a && other.Exact is { } b
                    ? a == b
                    : Math.Abs(one.Value - other.Value) <= 1e-9 * Math.Max(1, Math.Abs(one.Value))
            );
        worked.Told = isSame ? Sentence.Of($"Both sides are equal.") : Sentence.Of($"The two sides are not equal.");
    }

    private static bool IsNumber(Notation line) =>
        Side(line)
            .InRow.Where(item => item is not Gap)
            .Select((item, i) => item is Number or Measured || (i == 0 && item is Sign { Text: "−" }))
            .All(isPart => isPart);

    private static IEnumerable<Unit> UnitsIn(Meaning meaning) =>
        Fold.All(meaning.Sides, one => one.Parts).OfType<Term.Measured>().Select(measured => measured.Unit);

    /// <summary>“= 2√3 ≈ 3.4641”, and the value alone.</summary>
    private (List<Notation> Items, Notation Last) Told(Term of, Quantity value, Unit? wanted, List<Unit> used)
    {
        var items = new List<Notation>();
        if (value.Dimension != Dimension.None || wanted is not null)
        {
            if (wanted is not null && wanted.Dimension != value.Dimension)
                throw new FormulaException($"{UnitTable.Of(value.Dimension).Name} cannot be told in {wanted.Name}.", 0);
            var unit = wanted ?? used.LastOrDefault(one => one.Dimension == value.Dimension) ?? UnitTable.Of(value.Dimension);
            var exact = value.Exact is { } all ? all / unit.Factor : (Numbers.Exact?)null;
            var isExact = exact is { } known && new Wording(true).IsWhole(known);
            Notation number = isExact ? new Wording(true).Of(Term.Of(exact!.Value)) : Wording.Near(value.Value / unit.Factor.ToDouble());
            Notation both = new Row([number, new Measured(unit.Name)]);
            return ([isExact ? Sign.Equal : Sign.Near, both], both);
        }

        if (value.Exact is { } fraction && fraction.Over.GetBitLength() <= MostBits && fraction.Under.GetBitLength() <= MostBits / 3)
        {
            var number = words.Of(Term.Of(fraction));
            if (words.IsWhole(fraction) || !IsTyped(number))
                items.AddRange([Sign.Equal, number]);
            if (!words.IsWhole(fraction))
                items.AddRange(
                    fraction.Decimals <= ShownDecimals
                        ? [Sign.Equal, new Wording(true).Of(Term.Of(fraction))]
                        : [Sign.Near, Wording.Near(value.Value)]
                );
            return (items, number);
        }

        var near = Wording.Near(value.Value);
        var written = words.Of(of);
        if (of.Names.Count == 0 && IsShort(of) && !IsTyped(written))
            items.AddRange([Sign.Equal, written]);
        items.AddRange([Sign.Near, near]);
        return (items, near);
    }

    /// <summary>Whether it stands on one of the lines as it is.</summary>
    private bool IsTyped(Notation what) => lines.Any(line => Steps.Same(Side(line), what));

    /// <summary>Whether a term is worth to be shown before its number: a root or π with a fraction before it.</summary>
    private static bool IsShort(Term term) =>
        term switch
        {
            Term.Symbol => true,
            Term.Raised { Base: Term.Numeral or Term.Symbol, Exponent: Term.Numeral } => true,
            Term.Product or Term.Sum => term.Parts.Count <= 3 && term.Parts.All(part => part is Term.Numeral || IsSmall(part)),
            _ => false,
        };

    private static bool IsSmall(Term term) =>
        term is Term.Symbol or Term.Raised { Base: Term.Numeral or Term.Symbol, Exponent: Term.Numeral }
        || (term is Term.Product && term.Parts.All(part => part is Term.Numeral or Term.Symbol or Term.Raised { Base: Term.Numeral }));

    /// <summary>The line as it was typed behind its first equals sign, with what is known in its letters’ places.</summary>
    private static Notation Put(Notation line, Dictionary<string, Notation> said)
    {
        var items = line.InRow.ToList();
        var from = items.FindIndex(item => item is Sign { Text: "=" }) + 1;
        var to = items.FindIndex(from, item => item is Sign { Class: SignClass.Relation });
        var side = new Row(items[from..(to < 0 ? items.Count : to)]);
        return Fold.Up<Notation, Notation>(
            side,
            one => Letters.NameOf(one) is not null ? [] : one.Parts,
            (one, parts) =>
                Letters.NameOf(one) is { } name
                    ? (said.TryGetValue(name, out var by) ? new Fence("(", by, ")") : one)
                    : one switch
                    {
                        Row => new Row([.. parts]),
                        Fraction fraction => fraction with { Above = Bare(parts[0]), Below = Bare(parts[1]) },
                        Root root => new Root(Bare(parts[0]), root.Degree is null ? null : parts[1]),
                        Scripts scripts => new Scripts(
                            parts[0],
                            scripts.Lower is null ? null : Bare(parts[1]),
                            scripts.Upper is null ? null : Bare(parts[^1])
                        ),
                        Fence fence => fence with { Inner = Bare(parts[0]) },
                        _ => one,
                    }
        );
    }

    private static Notation Bare(Notation one) =>
        one is Fence { Open: "(" } fence ? fence.Inner
        : one is Row { Items: [Fence { Open: "(" } only] } ? only.Inner
        : one;
}
