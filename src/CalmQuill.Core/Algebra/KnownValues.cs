using CalmQuill.Core.Numbers;
using static CalmQuill.Core.Algebra.Term;

namespace CalmQuill.Core.Algebra;

/// <summary>What functions are at places that school knows by heart: sin π/6 is 1/2, ln e is 1.</summary>
internal static class KnownValues
{
    /// <summary>The sine of the multiples of π/12 from 0 to π/2; null where school does not know it.</summary>
    private static readonly Term?[] Sines =
    [
        0,
        null,
        Of(new Exact(1, 2)),
        Of(new Exact(1, 2)) * Terms.Root(2),
        Of(new Exact(1, 2)) * Terms.Root(3),
        null,
        1,
    ];

    public static Term? Find(string function, IReadOnlyList<Term> of)
    {
        var one = of[0];
        return function switch
        {
            "sin" => Twelfths(one) is { } place ? Sine(place) : null,
            "cos" => Twelfths(one) is { } place ? Sine(place + 6) : null,
            "tan" => Twelfths(one) is { } place && Sine(place) is { } over && Sine(place + 6) is { IsZero: false } under
                ? over / under
                : null,
            "ln" => one.IsOne ? Zero
            : one is Symbol { Name: "e" } ? One
            : one is Raised { Base: Symbol { Name: "e" } } power ? power.Exponent
            : null,
            "lg" or "log" or "lb" when of.Count == 1 && one.Number is { Sign: > 0 } number => Logarithm(number, function == "lb" ? 2 : 10),
            "log" when of.Count == 2 && one.Number is { Sign: > 0 } number && of[1].Number is { IsWhole: true, Sign: > 0 } b => Logarithm(
                number,
                b
            ),
            "abs" when one.Number is { } number => Of(Exact.Abs(number)),
            "asin" or "atan" or "sinh" or "tanh" when one.IsZero => Zero,
            "exp" => Terms.Power(new Symbol("e"), one),
            _ => null,
        };
    }

    /// <summary>How many twelfths of π a term is, where it is a whole number of them.</summary>
    private static int? Twelfths(Term term)
    {
        var (share, of) = term.IsZero ? (Exact.Zero, new Symbol("π")) : Terms.Split(term);
        var count = of is Symbol { Name: "π" } ? share * 12 : new Exact(1, 7);
        return count.IsWhole && Exact.Abs(count) < 1_000_000 ? (int)count.Over : null;
    }

    private static Term? Sine(int twelfths)
    {
        var place = ((twelfths % 24) + 24) % 24;
        var isBelow = place > 12;
        place = isBelow ? place - 12 : place;
        return Sines[place > 6 ? 12 - place : place] is { } sine ? (isBelow ? -sine : sine) : null;
    }

    /// <summary>A logarithm that is a whole number; null where it is none.</summary>
    private static Term? Logarithm(Exact of, Exact to)
    {
        const int most = 60;
        if (to == Exact.One)
            return null;
        for (var power = -most; power <= most; power++)
        {
            if (to.Power(power) == of)
                return power;
        }

        return null;
    }
}
