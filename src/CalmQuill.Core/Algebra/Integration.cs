using CalmQuill.Core.Numbers;
using CalmQuill.Core.Reckoning;
using static CalmQuill.Core.Algebra.Term;

namespace CalmQuill.Core.Algebra;

/// <summary>
/// Antiderivatives of what school integrates: sums of powers, exponentials, sines and cosines of a·x + b, and those times a polynomial, by parts (the table of
/// the NIST Handbook, 1.4 and 4.10 and 4.26).
/// </summary>
public static class Integration
{
    /// <exception cref="FormulaException">No rule here fits it.</exception>
    public static Term Over(this Term term, string letter) =>
        Terms.Add(PartsOf(term, letter).Select(item => Single(item, letter) ?? throw Unknown()));

    /// <summary>What is integrated one by one, to be added.</summary>
    public static IReadOnlyList<Term> PartsOf(Term term, string letter)
    {
        // Brackets to a high power are not opened: (2x + 1)^9 has a rule of its own.
        if (Single(term, letter) is not null)
            return [term];
        var opened = term.Expand();
        return opened is Sum ? opened.Parts : [opened];
    }

    /// <summary>One product; null where no rule fits.</summary>
    private static Term? Single(Term item, string letter)
    {
        var x = new Symbol(letter);
        var constants = new List<Term>();
        var rest = new List<Term>();
        foreach (var factor in item is Product ? item.Parts : [item])
            (factor.Has(letter) ? rest : constants).Add(factor);
        var before = Terms.Multiply(constants);
        return
            (
                rest switch
                {
                    [] => x,
                    [var only] => OfOne(only, x),
                    _ => ByParts(rest, x),
                }
            )
                is { } found
            ? found is Sum
                ? Terms.Add(found.Parts.Select(part => before * part))
                : before * found
            : null;
    }

    private static Term? OfOne(Term of, Symbol x)
    {
        if (of is Symbol)
            return Terms.Power(x, 2) / 2;
        if (of is Raised raised)
        {
            // (a·x + b)^n
            if (!raised.Exponent.Has(x.Name) && Slope(raised.Base, x.Name) is { } slope)
                return raised.Exponent.Number == -Exact.One
                    ? Terms.Call("ln", Terms.Call("abs", raised.Base)) / slope
                    : Terms.Power(raised.Base, raised.Exponent + One) / (slope * (raised.Exponent + One));
            // c^(a·x + b)
            if (!raised.Base.Has(x.Name) && Slope(raised.Exponent, x.Name) is { } steep)
                return of / (Terms.Call("ln", raised.Base) * steep);
            // 1/(x² + a²) and 1/√(a² − x²)
            if (Polynomial.Of(raised.Base.Expand(), x.Name) is { Degree: 2 } square && square[1].IsZero)
                return OfSquare(raised, square, x);
            if (
                raised is { Base: Called { Function: "cos", Parts: [var inner] }, Exponent.Number: { } two }
                && two == new Exact(-2, 1)
                && Slope(inner, x.Name) is { } by
            )
                return Terms.Call("tan", inner) / by;
            return null;
        }

        if (of is not Called { Parts: [var argument] } called || Slope(argument, x.Name) is not { } rise)
            return null;
        var made = called.Function switch
        {
            "sin" => -Terms.Call("cos", argument),
            "cos" => Terms.Call("sin", argument),
            "tan" => -Terms.Call("ln", Terms.Call("abs", Terms.Call("cos", argument))),
            "sinh" => Terms.Call("cosh", argument),
            "cosh" => Terms.Call("sinh", argument),
            "ln" => argument * Terms.Call("ln", argument) - argument,
            _ => null,
        };
        return made is null ? null : made / rise;
    }

    private static Term? OfSquare(Raised raised, Polynomial square, Symbol x)
    {
        if (square[0].Number is not { } first || square[2].Number is not { } second || first.Sign <= 0)
            return null;
        var ratio = Terms.Root(Of(Exact.Abs(second) / first));
        if (raised.Exponent.Number == -Exact.One && second.Sign > 0)
            return Terms.Call("atan", ratio * x) / (ratio * Of(first));
        if (raised.Exponent.Number == new Exact(-1, 2) && second.Sign < 0)
            return Terms.Call("asin", ratio * x) / Terms.Root(Of(-second));
        return null;
    }

    /// <summary>A power of the letter times an exponential, a sine or cosine, or a logarithm.</summary>
    private static Term? ByParts(List<Term> factors, Symbol x)
    {
        if (factors is not [var one, var other])
            return null;
        if (Polynomial.Of(one.Expand(), x.Name) is not { } power || !one.Has(x.Name))
        {
            (one, other) = (other, one);
            if (Polynomial.Of(one.Expand(), x.Name) is not { } swapped)
                return null;
            power = swapped;
        }

        // x^n·ln x: the logarithm is the one that is derived.
        if (other is Called { Function: "ln", Parts: [Symbol] })
        {
            var made = one.Over(x.Name);
            return made * other - (made / x).Expand().Over(x.Name);
        }

        // The polynomial is derived until nothing is left, the other one integrated as often (by the table).
        var isEndless =
            other is Called { Function: "sin" or "cos" or "sinh" or "cosh" } or Raised && !((other as Raised)?.Base.Has(x.Name) ?? false);
        if (!isEndless)
            return null;
        var sum = new List<Term>();
        Term left = power.Term;
        var right = other;
        for (var sign = 1; !left.IsZero; sign = -sign)
        {
            if (Single(right, x.Name) is not { } next)
                return null;
            sum.Add(sign * left * next);
            (left, right) = (left.By(x.Name), next);
        }

        return Terms.Add(sum);
    }

    /// <summary>What stands before the letter, where there is nothing else but that and what is added; null otherwise.</summary>
    private static Term? Slope(Term of, string letter) => Polynomial.Of(of.Expand(), letter) is { Degree: 1 } line ? line[1] : null;

    private static FormulaException Unknown() => new($"The integral of this is not known here.", 0);
}
