using CalmQuill.Core.Formulas;
using CalmQuill.Core.Reckoning;
using static CalmQuill.Core.Formulas.Notation;

namespace CalmQuill.Core.Algebra;

/// <content>Terms written more simply, derived and integrated.</content>
public sealed partial class Working
{
    /// <summary>What each line comes to, behind it.</summary>
    private void Each(Func<Term, Term> make)
    {
        foreach (var (at, line, meaning) in Read())
        {
            worked.Behind[at] = Behind(line, [Sign.Equal, words.Of(make(Expression(meaning)))]);
        }
    }

    /// <summary>Brackets opened, like things together, and a fraction without what is in both its parts.</summary>
    private static Term Simplified(Term term)
    {
        var (over, under) = term.AsFraction();
        if (term.Names is { Count: 1 } names && names.First() is var name && under.Has(name))
        {
            if (Polynomial.Of(over, name)?.Exact is { } above && Polynomial.Of(under, name)?.Exact is { } below)
            {
                var common = ExactPolynomial.Common(above, below);
                var (one, other) = (above.Divided(common).Quotient, below.Divided(common).Quotient);
                return one.In(name).Term / other.In(name).Term;
            }
        }

        return under.Number is null ? (over / under) : (over / under).Expand();
    }

    private void Derive()
    {
        var (_, line, meaning) = Only();
        Choose(meaning.Sides[^1].Names);
        if (worked.For.Length == 0)
            throw new FormulaException($"Here is no letter to derive by.", 0);
        var of = meaning.Sides[^1];
        var raw = of.By(worked.For);
        var neat = Neat(raw);
        var head = new Row([
            new Fraction(new Name("d"), new Row([new Name("d"), Letters.Written(worked.For)])),
            new Fence("(", Side(line), ")"),
        ]);
        if (withSteps && of is Term.Sum or Term.Product && Split(of, worked.For) is { } rule)
            worked.Below.Add((new Row([head, Sign.Equal, rule]), null, false));
        if (withSteps && !neat.Equals(raw))
            worked.Below.Add((Line(worked.Below.Count == 0 ? head : null, words.Of(raw)), null, false));
        worked.Below.Add((Line(worked.Below.Count == 0 ? head : null, words.Of(neat)), null, true));
    }

    private static Row Line(Notation? head, Notation what) =>
        head is null ? new Row([Sign.Equal, what]) : new Row([head, Sign.Equal, what]);

    /// <summary>The rule for sums or products, written out with strokes.</summary>
    private Row? Split(Term of, string by)
    {
        var parts = of.Parts;
        Notation Stroke(Term part) =>
            new Row([
                words.Of(part) is Name or Number ? words.Of(part) : new Fence("(", words.Of(part), ")"),
                new Sign("′", SignClass.Ordinary),
            ]);
        var items = new List<Notation>();
        if (of is Term.Sum)
        {
            foreach (var part in parts)
                items.AddRange(items.Count == 0 ? Stroke(part).InRow : [Sign.Plus, .. Stroke(part).InRow]);
            return new Row(items);
        }

        var moving = parts.Where(part => part.Has(by)).ToList();
        var still = Terms.Multiply(parts.Where(part => !part.Has(by)));
        if (moving.Count != 2)
            return null;
        Notation Whole(Term part) => Wording.Bracketed(words.Of(part));
        Row Product(Notation one, Notation other) => new([.. one.InRow, Sign.Times, .. other.InRow]);
        var sum = new Row([
            .. Product(Stroke(moving[0]), Whole(moving[1])).Items,
            Sign.Plus,
            .. Product(Whole(moving[0]), Stroke(moving[1])).Items,
        ]);
        return still.IsOne ? sum : new Row([words.Of(still), new Fence("(", sum, ")")]);
    }

    /// <summary>The shorter of a term and the same with its brackets opened.</summary>
    private static Term Neat(Term term)
    {
        var (over, under) = term.AsFraction();
        Term[] forms = under.IsOne ? [term, term.Expand()] : [term, term.Expand(), over / under];
        return forms.MinBy(form => form.Key.Length)!;
    }

    private void Integrate()
    {
        var (_, line, meaning) = Only();
        Choose(meaning.Sides[^1].Names);
        if (worked.For.Length == 0)
            throw new FormulaException($"Here is no letter to integrate over.", 0);
        var of = meaning.Sides[^1];
        var made = of.Over(worked.For);
        Notation[] head =
        [
            new Big("∫"),
            .. Wording.Bracketed(Side(line)).InRow,
            new Gap(3),
            new Name("d"),
            Letters.Written(worked.For),
            Sign.Equal,
        ];
        if (withSteps && Integration.PartsOf(of, worked.For) is { Count: > 1 } parts)
        {
            var items = new List<Notation>(head);
            foreach (var part in parts)
                items.AddRange([
                    .. items.Count > head.Length ? [Sign.Plus] : Array.Empty<Notation>(),
                    new Big("∫"),
                    .. Wording.Bracketed(words.Of(part)).InRow,
                    new Gap(3),
                    new Name("d"),
                    Letters.Written(worked.For),
                ]);
            worked.Below.Add((new Row(items), null, false));
            head = [Sign.Equal];
        }

        worked.Below.Add((new Row([.. head, .. words.Of(made).InRow, Sign.Plus, new Name("C")]), null, true));
    }

    private (int At, Notation Line, Meaning Meaning) Only() =>
        Read() is [var only] && only.Meaning.Sides.Count <= 2
            ? only
            : throw new FormulaException($"Here one expression stands on one line.", 0);
}
