using System.Numerics;
using CalmQuill.Core.Numbers;
using CalmQuill.Core.Reckoning;
using static CalmQuill.Core.Algebra.Term;

namespace CalmQuill.Core.Algebra;

/// <summary>Makes terms in their one form.</summary>
public static class Terms
{
    /// <summary>Square roots are taken apart of numbers up to so many bits.</summary>
    private const int MostRootBits = 64;

    private static readonly Exact Half = new(1, 2);

    public static Term Add(IEnumerable<Term> items)
    {
        var constant = Exact.Zero;
        var shares = new Dictionary<string, (Term Of, Exact Share)>();
        foreach (var item in items.SelectMany(item => item is Sum sum ? sum.Parts : [item]))
        {
            if (item.Number is { } number)
            {
                constant = Reckoned(() => constant + number);
                continue;
            }

            var (share, of) = Split(item);
            shares[of.Key] = (of, Reckoned(() => shares.TryGetValue(of.Key, out var has) ? has.Share + share : share));
        }

        var all = shares
            .Values.Where(one => !one.Share.IsZero)
            .Select(one => one.Share == Exact.One ? one.Of : Multiply([Of(one.Share), one.Of]))
            .OrderBy(one => one, TermOrder.Sums)
            .ToList();
        // 1 − √2, but x + 1.
        if (!constant.IsZero)
            all.Insert(all.Exists(one => one.Names.Count > 0) ? all.Count : 0, Of(constant));
        return all.Count switch
        {
            0 => Zero,
            1 => all[0],
            _ => new Sum(all),
        };
    }

    public static Term Multiply(IEnumerable<Term> items)
    {
        var number = Exact.One;
        // Square roots of numbers are multiplied under one sign.
        var root = Exact.One;
        var powers = new Dictionary<string, (Term Base, Term Exponent)>();
        foreach (var item in items.SelectMany(item => item is Product product ? product.Parts : [item]))
        {
            if (item.Number is { } factor)
                number = Reckoned(() => number * factor);
            else if (item is Raised { Base: Numeral radicand, Exponent: Numeral exponent } && exponent.Value == Half)
                root = Reckoned(() => root * radicand.Value);
            else
            {
                var (of, power) = item is Raised raised ? (raised.Base, raised.Exponent) : (item, One);
                powers[of.Key] = (of, powers.TryGetValue(of.Key, out var has) ? has.Exponent + power : power);
            }
        }

        if (number.IsZero)
            return Zero;
        var all = new List<Term>();
        foreach (var (of, exponent) in powers.Values)
        {
            var made = Power(of, exponent);
            if (made.Number is { } plain)
                number = Reckoned(() => number * plain);
            else
                all.Add(made);
        }

        if (root != Exact.One)
        {
            var (outside, inside) = SquareRoot(root);
            number = Reckoned(() => number * outside);
            if (inside != Exact.One)
                all.Add(new Raised(Of(inside), Of(Half)));
        }

        // A number is multiplied into a sum that stands alone with it.
        if (all is [Sum sum] && number != Exact.One)
            return Add(sum.Parts.Select(item => Multiply([Of(number), item])));
        all = [.. all.SelectMany(one => one is Product product ? product.Parts : [one]).OrderBy(one => one, TermOrder.Products)];
        if (number != Exact.One)
            all.Insert(0, Of(number));
        return all.Count switch
        {
            0 => One,
            1 => all[0],
            _ => new Product(all),
        };
    }

    /// <exception cref="FormulaException">It is 0 to a negative power, or too large.</exception>
    public static Term Power(Term of, Term exponent)
    {
        if (exponent.IsZero)
            return of.IsZero ? throw new FormulaException($"The power of 0 to 0 is nothing.", 0) : One;
        if (exponent.IsOne)
            return of;
        if (of.IsOne)
            return One;
        if (exponent.Number is { } power)
        {
            if (of.IsZero)
                return power.Sign > 0 ? Zero : throw new FormulaException($"Here is divided by 0.", 0);
            if (power.IsWhole)
                return Whole(of, (int)BigInteger.Min(int.MaxValue, BigInteger.Max(-int.MaxValue, power.Over)), exponent);
            if (of.Number is { } number && Root(number, power) is { } known)
                return known;
            // The third root of a square root is a sixth root; squares under a root keep their sign in mind, and stay.
            if (of is Raised { Exponent: Numeral inner } raised && !inner.Value.IsWhole)
                return Power(raised.Base, Of(Reckoned(() => inner.Value * power)));
        }

        if (of is Symbol { Name: "e" } && exponent is Called { Function: "ln" } log)
            return log.Parts[0];
        return new Raised(of, exponent);
    }

    public static Term Root(Term of) => Power(of, Of(Half));

    /// <summary>A function; with the values that it takes at known places.</summary>
    public static Term Call(string function, params IReadOnlyList<Term> of) => KnownValues.Find(function, of) ?? new Called(function, of);

    /// <summary>Puts something in a letter's place.</summary>
    public static Term Replace(this Term term, string name, Term by) =>
        Formulas.Fold.Up<Term, Term>(
            term,
            one => one.Has(name) ? one.Parts : [],
            (one, parts) =>
                !one.Has(name) ? one
                : one is Symbol ? by
                : Rebuilt(one, parts)
        );

    /// <summary>The same with other parts.</summary>
    public static Term Rebuilt(Term one, IReadOnlyList<Term> parts) =>
        one switch
        {
            Sum => Add(parts),
            Product => Multiply(parts),
            Raised => Power(parts[0], parts[1]),
            Called called => Call(called.Function, [.. parts]),
            Bounded bounded => new Bounded(bounded.Sign, bounded.Over, parts[0], parts[1], parts[2]),
            _ => one,
        };

    /// <summary>The number before something, and what that is.</summary>
    public static (Exact Share, Term Of) Split(Term term) =>
        term is Product { Parts: [Numeral share, ..] parts }
            ? (share.Value, parts.Count == 2 ? parts[1] : new Product([.. parts.Skip(1)]))
            : (Exact.One, term);

    /// <exception cref="FormulaException">A number becomes too large.</exception>
    internal static Exact Reckoned(Func<Exact> work)
    {
        try
        {
            return work();
        }
        catch (OverflowException)
        {
            throw new FormulaException($"A number becomes too large to be worked out exactly.", 0);
        }
        catch (DivideByZeroException)
        {
            throw new FormulaException($"Here is divided by 0.", 0);
        }
    }

    private static Term Whole(Term of, int power, Term exponent) =>
        of switch
        {
            Numeral number => Of(Reckoned(() => number.Value.Power(power))),
            Product product => Multiply(product.Parts.Select(item => Power(item, exponent))),
            // Where a power is known, so is a whole power of it.
            Raised { Exponent: Numeral inner } raised => Power(raised.Base, inner * exponent),
            Raised { Exponent: var inner, Base: Symbol { Name: "e" } e } => Power(e, inner * exponent),
            _ => new Raised(of, exponent),
        };

    /// <summary>A root of a number, as far as it is one; null where nothing is to be said.</summary>
    private static Term? Root(Exact number, Exact power)
    {
        if (power.Under > 12 || power.Over.GetBitLength() > 12)
            return null;
        var degree = (int)power.Under;
        if (number.Sign < 0)
        {
            if (degree % 2 == 0)
                throw new FormulaException($"Here is a root of a negative number.", 0);
            return Power(Of(-number), Of(power)) * (power.Over.IsEven ? 1 : -1);
        }

        var whole = Reckoned(() => number.Power((int)power.Over));
        if (whole.Root(degree) is { } exact)
            return Of(exact);
        if (degree != 2)
            return null;
        var (outside, inside) = SquareRoot(whole);
        var root = new Raised(Of(inside), Of(Half));
        return outside == Exact.One ? root : new Product([Of(outside), root]);
    }

    /// <summary>√number as a number times the square root of a whole number without squares: √(3/4) is 1/2·√3.</summary>
    private static (Exact Outside, Exact Inside) SquareRoot(Exact number)
    {
        var rest = number.Over * number.Under;
        var outside = BigInteger.One;
        if (rest.GetBitLength() <= MostRootBits)
        {
            for (BigInteger factor = 2; factor * factor <= rest && factor < 2_000; factor++)
            {
                while (rest % (factor * factor) == 0)
                {
                    rest /= factor * factor;
                    outside *= factor;
                }
            }
        }

        if (new Exact(rest, 1).Root(2) is { } all)
            (outside, rest) = (outside * all.Over, 1);
        return (new Exact(outside, number.Under), new Exact(rest, 1));
    }
}
