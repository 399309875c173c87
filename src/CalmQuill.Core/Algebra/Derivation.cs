using CalmQuill.Core.Formulas;
using CalmQuill.Core.Numbers;
using CalmQuill.Core.Reckoning;
using static CalmQuill.Core.Algebra.Term;

namespace CalmQuill.Core.Algebra;

/// <summary>Derivatives, by the rules for sums, products, powers and functions in each other (any table of them, such as the NIST Handbook, 1.4 and 4).</summary>
public static class Derivation
{
    /// <exception cref="FormulaException">A function in it has no derivative that is known here.</exception>
    public static Term By(this Term term, string letter) =>
        Fold.Up<Term, Term>(
            term,
            one => one.Has(letter) && one is Sum or Product or Raised or Called ? one.Parts : [],
            (one, slopes) =>
                !one.Has(letter)
                    ? Zero
                    : one switch
                    {
                        Symbol => One,
                        Sum => Terms.Add(slopes),
                        Product => Terms.Add(slopes.Select((slope, i) => Terms.Multiply([slope, .. one.Parts.Where((_, k) => k != i)]))),
                        Raised raised => OfPower(raised.Base, raised.Exponent, slopes[0], slopes[1], letter),
                        Called { Parts: [var of] } called => OfFunction(called.Function, of) * slopes[0],
                        Called { Function: "log", Parts: [var of, var to] } when !to.Has(letter) => slopes[0] / (of * Terms.Call("ln", to)),
                        _ => throw Unknown(),
                    }
        );

    private static Term OfPower(Term of, Term exponent, Term slope, Term slopeOfExponent, string letter)
    {
        if (!exponent.Has(letter))
            return exponent * Terms.Power(of, exponent - One) * slope;
        var log = Terms.Call("ln", of);
        var power = Terms.Power(of, exponent);
        return of.Has(letter) ? power * (slopeOfExponent * log + exponent * slope / of) : power * log * slopeOfExponent;
    }

    private static Term OfFunction(string function, Term of)
    {
        Term Called(string name) => Terms.Call(name, of);
        var square = Terms.Power(of, 2);
        return function switch
        {
            "sin" => Called("cos"),
            "cos" => -Called("sin"),
            "tan" => Terms.Power(Called("cos"), -2),
            "cot" => -Terms.Power(Called("sin"), -2),
            "sec" => Called("sec") * Called("tan"),
            "csc" => -(Called("csc") * Called("cot")),
            "asin" => Terms.Power(One - square, Of(new Exact(-1, 2))),
            "acos" => -Terms.Power(One - square, Of(new Exact(-1, 2))),
            "atan" => Terms.Power(One + square, -1),
            "sinh" => Called("cosh"),
            "cosh" => Called("sinh"),
            "tanh" => Terms.Power(Called("cosh"), -2),
            "ln" => Terms.Power(of, -1),
            "lg" or "log" => Terms.Power(of * Terms.Call("ln", 10), -1),
            "lb" => Terms.Power(of * Terms.Call("ln", 2), -1),
            "abs" => of / Called("abs"),
            _ => throw Unknown(),
        };
    }

    private static FormulaException Unknown() => new($"The derivative of this is not known here.", 0);
}
