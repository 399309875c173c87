using CalmQuill.Core.Formulas;
using CalmQuill.Core.Numbers;
using CalmQuill.Core.Reckoning;
using CalmQuill.Core.Units;
using static CalmQuill.Core.Algebra.Term;

namespace CalmQuill.Core.Algebra;

/// <summary>What terms come to.</summary>
/// <param name="known">What letters stand for.</param>
public sealed class Evaluation(IReadOnlyDictionary<string, Quantity> known)
{
    /// <summary>So many things are summed up at most, in all.</summary>
    private const int MostSummed = 50_000;

    /// <summary>So deep sums may stand in sums.</summary>
    private const int MostNested = 3;

    private int summed;

    /// <exception cref="FormulaException">It comes to nothing: a letter stands for nothing, or a length and a time are added.</exception>
    public Quantity Of(Term term) => Of(term, known, 0);

    /// <summary>A term as a function of one letter, of plain numbers; NaN where it has no value.</summary>
    public static Func<double, double> Function(Term term, string name)
    {
        var known = new Dictionary<string, Quantity>();
        var evaluation = new Evaluation(known);
        return x =>
        {
            known[name] = Quantity.Near(x);
            try
            {
                return evaluation.Of(term).Value;
            }
            catch (FormulaException)
            {
                return double.NaN;
            }
        };
    }

    private Quantity Of(Term term, IReadOnlyDictionary<string, Quantity> letters, int depth) =>
        Fold.Up<Term, Quantity>(
            term,
            one => one is Bounded bounded ? [bounded.Parts[1], bounded.Parts[2]] : one.Parts,
            (one, parts) =>
                one switch
                {
                    Numeral number => Quantity.Of(number.Value),
                    Symbol { Name: "π" } when !letters.ContainsKey("π") => Quantity.Near(Math.PI),
                    Symbol { Name: "e" } when !letters.ContainsKey("e") => Quantity.Near(Math.E),
                    Symbol symbol => letters.TryGetValue(symbol.Name, out var value)
                        ? value
                        : throw new FormulaException($"Nothing says what {symbol.Name} is.", 0),
                    Measured measured => Quantity.Of(measured.Unit),
                    Sum => parts.Aggregate((sum, part) => sum + part),
                    Product => parts.Aggregate((product, part) => product * part),
                    Raised => parts[0].Power(parts[1]),
                    Called called => Call(called.Function, parts),
                    Bounded bounded => Over(bounded, parts[0], parts[1], letters, depth),
                    _ => throw new FormulaException($"This is shown, but not worked out.", 0),
                }
        );

    private static Quantity Call(string function, IReadOnlyList<Quantity> of)
    {
        if (function == "abs")
            return of[0] with { Value = Math.Abs(of[0].Value), Exact = of[0].Exact is { } exact ? Exact.Abs(exact) : null };
        if (of.Any(one => one.Dimension != Dimension.None))
            throw new FormulaException($"The function “{function}” takes a plain number.", 0);
        if (function == "factorial")
            return Quantity.Near(Functions.Factorial(of[0].Value));
        if (function == "gcd")
            return Quantity.Near(Gcd(of));
        return Functions.All.TryGetValue(function, out var known) && of.Count >= known.Least && of.Count <= known.Most
            ? Quantity.Near(known.Of(of[0].Value, of.Count > 1 ? of[1].Value : double.NaN))
            : throw new FormulaException($"With “{function}” nothing is worked out here.", 0);
    }

    private static double Gcd(IReadOnlyList<Quantity> of)
    {
        var common = System.Numerics.BigInteger.Zero;
        foreach (var one in of)
        {
            if (one.Exact is not { IsWhole: true } whole)
                throw new FormulaException($"The function “{"gcd"}” takes a plain number.", 0);
            common = System.Numerics.BigInteger.GreatestCommonDivisor(common, whole.Over);
        }

        return (double)common;
    }

    private Quantity Over(Bounded bounded, Quantity from, Quantity to, IReadOnlyDictionary<string, Quantity> letters, int depth)
    {
        if (depth >= MostNested)
            throw new FormulaException($"This becomes too long to be worked out.", 0);
        var own = new Dictionary<string, Quantity>(letters);
        if (bounded.Sign == "∫")
        {
            var dimension = from.Dimension;
            var of = dimension;
            var integral = Quadrature.Over(
                x =>
                {
                    Count();
                    own[bounded.Over] = new Quantity(x, null, dimension);
                    var value = Of(bounded.Parts[0], own, depth + 1);
                    of = value.Dimension;
                    return value.Value;
                },
                from.Value,
                to.Value
            );
            return new Quantity(integral, null, of * dimension);
        }

        if (from.Exact is not { IsWhole: true } first || to.Exact is not { IsWhole: true } last)
            throw new FormulaException($"A sum runs from one whole number to another.", 0);
        var made = Quantity.Of(bounded.Sign == "∑" ? Exact.Zero : Exact.One);
        var isFirst = true;
        for (var at = first; at <= last; at += 1)
        {
            Count();
            own[bounded.Over] = Quantity.Of(at);
            var next = Of(bounded.Parts[0], own, depth + 1);
            made =
                isFirst ? next
                : bounded.Sign == "∑" ? made + next
                : made * next;
            isFirst = false;
        }

        return made;
    }

    private void Count()
    {
        if (++summed > MostSummed)
            throw new FormulaException($"This becomes too long to be worked out.", 0);
    }
}
