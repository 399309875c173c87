using CalmQuill.Core.Formulas;
using CalmQuill.Core.Numbers;
using static CalmQuill.Core.Algebra.Term;
using static CalmQuill.Core.Formulas.Notation;

namespace CalmQuill.Core.Algebra;

/// <summary>
/// Solves an equation in which a letter stands once, by doing to both sides the contrary of what is done to it, from outside in: so are formulas rearranged.
/// </summary>
internal static class Isolation
{
    /// <summary>More operations than a term has.</summary>
    private const int Most = 200;

    /// <summary>How often a letter stands in a term.</summary>
    public static int CountOf(Term term, string letter) =>
        Fold.Up<Term, int>(
            term,
            one => one.Has(letter) ? one.Parts : [],
            (one, parts) => one is Symbol symbol && symbol.Name == letter ? 1 : parts.Sum()
        );

    /// <summary>What the letter is; none where nothing solves it, and null where no contrary is known of something done to it.</summary>
    /// <param name="left">The side with the letter in it.</param>
    /// <param name="right">The other side.</param>
    /// <param name="letter">The letter.</param>
    /// <param name="steps">Receives what is done.</param>
    public static List<Term>? Solve(Term left, Term right, string letter, Steps steps)
    {
        for (var i = 0; i < Most && left is not Symbol; i++)
        {
            switch (left)
            {
                case Sum:
                    var others = Terms.Add(left.Parts.Where(part => !part.Has(letter)));
                    Note(others, steps);
                    (left, right) = (left - others, right - others);
                    break;
                case Product:
                    var factor = Terms.Multiply(left.Parts.Where(part => !part.Has(letter)));
                    var (over, under) = factor.AsFraction();
                    if (under.IsOne || (factor.Number is { } plain && steps.Words.IsWhole(plain)))
                        steps.Note(":", factor);
                    else
                        steps.Note("·", over.IsOne ? under : under / over);
                    (left, right) = (left / factor, right / factor);
                    break;
                case Raised { Exponent.Number: { Sign: < 0 } power } raised:
                    // What stands below goes to the other side.
                    var below = Terms.Power(raised.Base, Of(-power));
                    if (right.IsZero)
                        return [];
                    steps.Note("·", below);
                    steps.Add(One, right * below);
                    if (!right.IsOne)
                        steps.Note(":", right);
                    (left, right) = (below, One / right);
                    break;
                case Raised { Exponent: Numeral power } raised:
                    if (OfPower(raised.Base, power.Value, right, steps) is not { } roots)
                        return [];
                    if (roots is [var one])
                    {
                        (left, right) = (raised.Base, one);
                        break;
                    }

                    return Both(raised.Base, roots, letter, steps);
                case Raised raised when !raised.Base.Has(letter):
                    if (right.Number is { Sign: <= 0 })
                        return [];
                    steps.Note(new Notation.Called("ln"));
                    (left, right) = (
                        raised.Exponent,
                        KnownValues.Find("log", [right, raised.Base]) ?? Terms.Call("ln", right) / Terms.Call("ln", raised.Base)
                    );
                    break;
                case Raised raised when !raised.Exponent.Has(letter):
                    var degree = One / raised.Exponent;
                    steps.NoteRaised(degree);
                    (left, right) = (raised.Base, Terms.Power(right, degree));
                    break;
                case Term.Called { Function: "abs" }:
                    if (right.Number is { Sign: < 0 })
                        return [];
                    return Both(left.Parts[0], right.IsZero ? [right] : [right, -right], letter, steps);
                case Term.Called { Parts: [var inner] } called:
                    if (Contrary(called.Function, right) is not { } turned)
                        return null;
                    steps.Note(turned.Note);
                    (left, right) = (inner, turned.Right);
                    break;
                default:
                    return null;
            }

            steps.Add(left, right);
        }

        return left is Symbol ? [right] : null;
    }

    /// <summary>Two values of what the letter stands in are two equations.</summary>
    private static List<Term>? Both(Term of, IReadOnlyList<Term> values, string letter, Steps steps)
    {
        var found = new List<Term>();
        foreach (var value in values)
        {
            if (of is not Symbol)
                steps.Add(of, value);
            if (Solve(of, value, letter, steps) is not { } some)
                return null;
            found.AddRange(some);
        }

        return found;
    }

    /// <summary>The values of a base whose power is known; null where no real number has that power.</summary>
    private static IReadOnlyList<Term>? OfPower(Term of, Exact power, Term right, Steps steps)
    {
        var isEven = power.Over.IsEven;
        // A root is not negative, and nothing that is not has an even power below 0.
        if ((isEven || power.Under.IsEven) && right.Number is { Sign: < 0 })
            return null;
        var contrary = Of(Exact.One / power);
        if (power.Over.IsOne)
        {
            steps.NoteRaised(contrary);
            return [Terms.Power(right, contrary)];
        }

        if (power.IsWhole)
            steps.Note(new Root(new Gap(8), power.Over == 2 ? null : steps.Words.Of(Of(power))));
        else
            steps.NoteRaised(contrary);
        if (!isEven || right.IsZero)
            return [Terms.Power(right, contrary)];
        var root = Terms.Power(right, contrary);
        steps.Add(new Row([steps.Words.Of(of), Sign.Equal, new Sign("±", SignClass.Ordinary), steps.Words.Of(root)]));
        return [root, -root];
    }

    private static void Note(Term others, Steps steps)
    {
        // What is added is taken away; each with its own sign.
        var items = steps.Words.Of(-others).InRow;
        var isNegative = items is [Sign { Text: "−" }, ..];
        steps.Note(isNegative ? "−" : "+", Of(isNegative ? [.. items.Skip(1)] : [.. items]));
    }

    private static (Term Right, Notation Note)? Contrary(string function, Term right)
    {
        Scripts To(Notation of) => new(of, null, new Gap(8));
        (Term, Notation)? found = function switch
        {
            "ln" => (Terms.Power(new Symbol("e"), right), To(new Name("e"))),
            "lg" or "log" => (Terms.Power(10, right), To(new Number("10"))),
            "lb" => (Terms.Power(2, right), To(new Number("2"))),
            "asin" => (Terms.Call("sin", right), new Notation.Called("sin")),
            "acos" => (Terms.Call("cos", right), new Notation.Called("cos")),
            "atan" => (Terms.Call("tan", right), new Notation.Called("tan")),
            "sinh" => (Terms.Call("asinh", right), new Notation.Called("asinh")),
            "tanh" => (Terms.Call("atanh", right), new Notation.Called("atanh")),
            _ => null,
        };
        return found;
    }
}
