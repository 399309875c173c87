using CalmQuill.Core.Formulas;
using CalmQuill.Core.Numbers;
using CalmQuill.Core.Reckoning;
using static CalmQuill.Core.Algebra.Term;

namespace CalmQuill.Core.Algebra;

/// <summary>Opens brackets, and takes fractions together.</summary>
public static class Expansion
{
    /// <summary>Sums are raised by multiplying them out up to this power.</summary>
    private const int MostPower = 24;

    /// <summary>So many products are made at once at most.</summary>
    private const int MostProducts = 20_000;

    /// <summary>All that is multiplied is multiplied out.</summary>
    public static Term Expand(this Term term) => Fold.Up<Term, Term>(term, one => one.Parts, Open);

    /// <summary>A term as one fraction: what stands over and under its line, both multiplied out.</summary>
    public static (Term Over, Term Under) AsFraction(this Term term) =>
        Fold.Up<Term, (Term Over, Term Under)>(
            term,
            one => one is Sum or Product or Raised { Exponent.Number.IsWhole: true } ? one.Parts : [],
            (one, parts) =>
                one switch
                {
                    Sum => parts.Aggregate((sum, part) => Added(sum, part)),
                    Product => parts.Aggregate((product, part) => (Times(product.Over, part.Over), Times(product.Under, part.Under))),
                    Raised { Exponent.Number: { } power } when power.IsWhole => power.Sign > 0
                        ? (Terms.Power(parts[0].Over, one.Parts[1]).Expand(), Terms.Power(parts[0].Under, one.Parts[1]).Expand())
                        : (Terms.Power(parts[0].Under, -one.Parts[1]).Expand(), Terms.Power(parts[0].Over, -one.Parts[1]).Expand()),
                    Numeral number => (Of(new Exact(number.Value.Over, 1)), Of(new Exact(number.Value.Under, 1))),
                    _ => (one, One),
                }
        );

    private static (Term, Term) Added((Term Over, Term Under) one, (Term Over, Term Under) other)
    {
        if (one.Under.Equals(other.Under))
            return ((one.Over + other.Over).Expand(), one.Under);
        // Numbers have a least common multiple.
        if (one.Under.Number is { } a && other.Under.Number is { } b)
        {
            var common = a * b / new Exact(System.Numerics.BigInteger.GreatestCommonDivisor(a.Over, b.Over), 1);
            return ((one.Over * Of(common / a) + other.Over * Of(common / b)).Expand(), Of(common));
        }

        return ((Times(one.Over, other.Under) + Times(other.Over, one.Under)).Expand(), Times(one.Under, other.Under));
    }

    private static Term Open(Term one, IReadOnlyList<Term> parts)
    {
        if (one is Product)
            return parts.Aggregate(Times);
        if (one is Raised && parts[0] is Sum sum && parts[1].Number is { IsWhole: true, Sign: > 0 } power && power <= MostPower)
        {
            Term made = sum;
            for (var i = 1; i < (int)power.Over; i++)
                made = Times(made, sum);
            return made;
        }

        return Terms.Rebuilt(one, parts);
    }

    private static Term Times(Term one, Term other)
    {
        if (one is not Sum && other is not Sum)
            return one * other;
        var (left, right) = (one is Sum ? one.Parts : [one], other is Sum ? other.Parts : [other]);
        if (left.Count * (long)right.Count > MostProducts)
            throw new FormulaException($"This becomes too long to be worked out.", 0);
        return Terms.Add(left.SelectMany(a => right.Select(b => a * b)));
    }
}
