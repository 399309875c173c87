using CalmQuill.Core.Formulas;
using CalmQuill.Core.Reckoning;
using static CalmQuill.Core.Algebra.Term;

namespace CalmQuill.Core.Algebra;

/// <summary>Integrals between bounds, exactly: what the antiderivative grows by from one to the other.</summary>
internal static class ClosedForms
{
    /// <summary>So near must what comes out exactly be to the integral by numbers.</summary>
    private const double Near = 1e-9;

    /// <summary>The same term with its integrals worked out, as far as a rule is known and agrees with the numbers: across a pole it does not.</summary>
    public static Term Of(Term term) =>
        Fold.Up<Term, Term>(
            term,
            one => one.Parts,
            (one, parts) =>
                Terms.Rebuilt(one, parts) is var rebuilt && rebuilt is Bounded { Sign: "∫" } integral ? Exactly(integral) : rebuilt
        );

    private static Term Exactly(Bounded integral)
    {
        if (integral.Names.Any(name => name != integral.Over))
            return integral;
        try
        {
            var found = integral.Parts[0].Over(integral.Over);
            var exact = (found.Replace(integral.Over, integral.Parts[2]) - found.Replace(integral.Over, integral.Parts[1])).Expand();
            var evaluation = new Evaluation(new Dictionary<string, Quantity>());
            var (one, other) = (evaluation.Of(exact).Value, evaluation.Of(integral).Value);
            return Math.Abs(one - other) <= Near * Math.Max(1, Math.Abs(other)) ? exact : integral;
        }
        catch (FormulaException)
        {
            return integral;
        }
    }
}
