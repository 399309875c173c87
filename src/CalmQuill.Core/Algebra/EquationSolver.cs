using CalmQuill.Core.Formulas;
using CalmQuill.Core.Numbers;
using CalmQuill.Core.Plots;
using CalmQuill.Core.Reckoning;
using static CalmQuill.Core.Algebra.Term;
using static CalmQuill.Core.Formulas.Notation;

namespace CalmQuill.Core.Algebra;

/// <summary>Solves one equation for one letter: rearranged where the letter stands once, else as a polynomial, else by looking along a range.</summary>
/// <param name="letter">The letter.</param>
/// <param name="steps">Receives what is done, and what comes out.</param>
public sealed class EquationSolver(string letter, Steps steps)
{
    /// <summary>Where zeros are looked for that no rule finds.</summary>
    private const int Range = 100;

    private readonly Symbol x = new(letter);

    /// <summary>Solutions that are known by numbers alone.</summary>
    private readonly List<double> near = [];

    /// <exception cref="FormulaException">It cannot be solved here.</exception>
    public void Solve(Term left, Term right)
    {
        if (!left.Has(letter) && !right.Has(letter))
            throw new FormulaException($"There is no {letter} in it.", 0);
        var times = Isolation.CountOf(left, letter) + Isolation.CountOf(right, letter);
        if (times == 1)
        {
            // The letter stands on the left.
            if (!left.Has(letter))
            {
                (left, right) = (right, left);
                steps.Add(left, right);
            }

            if (Isolation.Solve(left, right, letter, steps) is { } found)
            {
                Tell([.. found.Where(one => Fits(left, right, one))]);
                return;
            }
        }

        var (over, under) = (left - right).AsFraction();
        if (Polynomial.Of(over, letter) is { Degree: <= Polynomial.MostDegree } polynomial)
            SolvePolynomial(left, right, polynomial, under);
        else if (!SolveRoot((left - right).Expand()))
            LookFor(left - right);
    }

    /// <summary>A square root of something with the letter in it stands alone on one side, and both are squared; false where there is none, or more.</summary>
    private bool SolveRoot(Term whole)
    {
        Term[] parts = [.. whole is Sum ? whole.Parts : [whole]];
        bool IsRoot(Term part) =>
            (part is Product ? part.Parts : [part]).Any(factor =>
                factor is Raised { Exponent.Number: { } half } && half == new Exact(1, 2) && factor.Has(letter)
            );
        if (parts.Where(IsRoot).ToList() is not [var root])
            return false;
        // A sign before it goes with the other side.
        var (one, other) = (root, root - whole);
        if (Terms.Split(root).Share.Sign < 0)
            (one, other) = (-one, -other);
        var (left, right) = (Terms.Power(one, 2).Expand(), Terms.Power(other, 2).Expand());
        if (Polynomial.Of((left - right).Expand(), letter) is not { Degree: > 0 and <= Polynomial.MostDegree } polynomial)
            return false;
        steps.Add(one, other);
        steps.NoteRaised(2);
        steps.Add(left, right);
        // The highest power is not taken away.
        if (polynomial.Leading.Number is { Sign: < 0 })
            (left, right, polynomial) = (right, left, Polynomial.Of((right - left).Expand(), letter)!);
        if (!right.IsZero)
            steps.Note("−", right);
        steps.Add(polynomial.Term, Zero);
        var found = Solutions(polynomial);
        near.RemoveAll(value => !Fits(one, other, Of(Near(value))));
        Tell([.. found.Where(value => Fits(one, other, value))]);
        return true;
    }

    /// <summary>A fraction very near to a number.</summary>
    private static Exact Near(double value) => new(new System.Numerics.BigInteger(Math.Round(value * 1e12)), 1_000_000_000_000);

    /// <summary>What was squared, or multiplied with what is 0, may have more solutions than what it came from.</summary>
    private bool Fits(Term left, Term right, Term solution)
    {
        try
        {
            var known = new Dictionary<string, Quantity>();
            var value = new Evaluation(known).Of(solution);
            known[letter] = value;
            var evaluation = new Evaluation(known);
            var (one, other) = (evaluation.Of(left).Value, evaluation.Of(right).Value);
            return Math.Abs(one - other) <= 1e-6 * Math.Max(1, Math.Abs(one));
        }
        catch (FormulaException)
        {
            // With other letters in it nobody knows.
            return solution.Names.Any() || left.Names.Count > 1 || right.Names.Any(name => name != letter);
        }
    }

    private void SolvePolynomial(Term left, Term right, Polynomial polynomial, Term under)
    {
        var hasUnder = under.Has(letter);
        if (hasUnder)
        {
            if (polynomial.Leading.Number is { Sign: < 0 })
                (polynomial, under) = (Polynomial.Of((-polynomial.Term).Expand(), letter)!, (-under).Expand());
            steps.Note("·", under);
            steps.Add(polynomial.Term, Zero);
        }

        switch (polynomial.Degree)
        {
            case 0:
                steps.Add(polynomial[0], Zero);
                steps.Told = polynomial[0].IsZero ? Sentence.Of($"Every number solves it.") : Sentence.Of($"Nothing solves it.");
                if (polynomial[0].IsZero)
                    steps.Results.Add(new Row([Letters.Written(letter), new Sign("∈", SignClass.Relation), new Name("ℝ")]));
                else
                    steps.ResultIsNothing();
                return;
            case 1 when !hasUnder:
                SolveLine(left.Expand(), right.Expand());
                return;
        }

        if (!hasUnder)
        {
            var (opened, other) = (left.Expand(), right.Expand());
            steps.Add(opened, other);
            if (!other.IsZero)
                steps.Note("−", other);
            var difference = (opened - other).Expand();
            steps.Add(difference, Zero);
            if (Polynomial.Of(difference, letter) is { } same)
                polynomial = same;
        }

        Tell([.. Solutions(polynomial).Where(one => !hasUnder || !under.Replace(letter, one).Expand().IsZero)]);
    }

    /// <summary>All with the letter on the left, all else on the right, and then divided.</summary>
    private void SolveLine(Term left, Term right)
    {
        steps.Add(left, right);
        if (Polynomial.Of(right, letter)![1] is { IsZero: false } moving)
            Move(moving * x);
        if (Polynomial.Of(left, letter)![0] is { IsZero: false } still)
            Move(still);
        var share = Polynomial.Of(left, letter)![1];
        if (!share.IsOne)
        {
            steps.Note(":", share);
            right = (right / share).Expand();
            steps.Add(x, right);
        }

        Tell([right]);

        void Move(Term what)
        {
            var isNegative = (what.Number ?? Terms.Split(what).Share).Sign < 0 && what is not Sum;
            steps.Note(isNegative ? "+" : "−", isNegative ? -what : what);
            (left, right) = ((left - what).Expand(), (right - what).Expand());
            steps.Add(left, right);
        }
    }

    private List<Term> Solutions(Polynomial polynomial)
    {
        var found = new List<Term>();
        // x² − 5x = 0 has an x in all.
        var zeros = polynomial.Shares.TakeWhile(share => share.IsZero).Count();
        if (zeros > 0 && polynomial.Degree > zeros)
        {
            found.Add(Zero);
            polynomial = new Polynomial(letter, [.. polynomial.Shares.Skip(zeros)]);
            steps.Add(
                new Row([
                    steps.Words.Of(Terms.Power(x, zeros)),
                    new Fence("(", steps.Words.Of(polynomial.Term), ")"),
                    Sign.Equal,
                    new Number("0"),
                ])
            );
        }

        if (polynomial.Degree == 1)
            return [.. found, -polynomial[0] / polynomial[1]];
        if (polynomial.Degree == 2)
            return [.. found, .. Quadratic(polynomial)];
        if (polynomial.Exact is not { } exact)
            throw new FormulaException($"Equations of this kind are solved with numbers alone.", 0);
        var (fractions, rest) = exact.FractionRoots();
        foreach (var root in fractions)
            found.Add(Of(root));
        if (fractions.Count > 0)
            steps.Add(Factored(exact, fractions, rest));
        if (rest.Degree == 2)
            found.AddRange(Quadratic(rest.In(letter)));
        else if (rest.Degree > 0)
            near.AddRange(rest.RealRoots());
        return [.. found.DistinctBy(one => one.Key)];
    }

    /// <summary>(x − 1)(x − 2)(…) = 0.</summary>
    private Row Factored(ExactPolynomial whole, IReadOnlyList<Exact> roots, ExactPolynomial rest)
    {
        var items = new List<Notation>();
        foreach (var group in roots.GroupBy(root => root))
        {
            Notation factor = group.Key.IsZero ? Letters.Written(letter) : new Fence("(", steps.Words.Of(x - Of(group.Key)), ")");
            items.Add(
                group.Count() > 1
                    ? new Scripts(factor, null, new Number(group.Count().ToString(System.Globalization.CultureInfo.InvariantCulture)))
                    : factor
            );
        }

        if (rest.Degree > 0)
            items.Add(new Fence("(", steps.Words.Of(rest.In(letter).Term), ")"));
        else if (whole.Shares[^1] != Exact.One)
            items.Insert(0, steps.Words.Of(Of(whole.Shares[^1])));
        return new Row([.. items, Sign.Equal, new Number("0")]);
    }

    /// <summary>By the formula, which is written down with its numbers.</summary>
    private List<Term> Quadratic(Polynomial polynomial)
    {
        var (a, b, c) = (polynomial[2], polynomial[1], polynomial[0]);
        if (b.IsZero)
        {
            var square = (-c / a).Expand();
            steps.Add(Terms.Power(x, 2), square);
            return Isolation.Solve(Terms.Power(x, 2), square, letter, steps) ?? [];
        }

        var words = steps.Words;
        var discriminant = (Terms.Power(b, 2) - 4 * a * c).Expand();
        Notation plusMinus = new Sign("±", SignClass.Binary);
        Row Solved(Notation minus, Notation under, Notation below) =>
            new([Both, Sign.Equal, new Fraction(new Row([.. minus.InRow, plusMinus, under]), below)]);
        Notation Given(Term term) => Wording.Bracketed(words.Of(term));
        steps.Add(
            Solved(
                new Row([Sign.Minus, Given(b)]),
                new Root(
                    new Row([
                        new Scripts(Given(b), null, new Number("2")),
                        Sign.Minus,
                        new Number("4"),
                        Sign.Times,
                        Given(a),
                        Sign.Times,
                        Given(c),
                    ]),
                    null
                ),
                new Row([new Number("2"), Sign.Times, Given(a)])
            )
        );
        steps.Add(Solved(words.Of(-b), new Root(words.Of(discriminant), null), words.Of(2 * a)));
        if (discriminant.Number is { Sign: < 0 })
            return [];
        var root = Terms.Root(discriminant);
        steps.Add(Solved(words.Of(-b), words.Of(root), words.Of(2 * a)));
        var (one, other) = (((-b + root) / (2 * a)).Expand(), ((-b - root) / (2 * a)).Expand());
        return one.Equals(other) ? [one] : [one, other];
    }

    /// <summary>x₁,₂.</summary>
    private Notation Both => new Scripts(Letters.Written(letter), new Said("1,2"), null);

    private void LookFor(Term term)
    {
        if (term.Names.Count > 1)
            throw new FormulaException($"This is not solved here while other letters stand in it.", 0);
        near.AddRange(Landmarks.Zeros(Evaluation.Function(term, letter), -Range, Range));
        steps.Told = Sentence.Of($"Looked for between {-Range} and {Range}.");
        Tell([]);
    }

    private void Tell(IReadOnlyList<Term> found)
    {
        var all = found
            .Select(one => (Exact: (Term?)one, Value: Value(one)))
            .Concat(near.Select(one => (Exact: (Term?)null, Value: one)))
            .ToList();
        if (all.All(one => double.IsFinite(one.Value)))
            all = [.. all.OrderBy(one => one.Value)];
        if (all.Count == 0)
        {
            steps.Told ??= Sentence.Of($"No real number solves it.");
            steps.ResultIsNothing();
            return;
        }

        for (var i = 0; i < all.Count; i++)
        {
            var name = all.Count == 1 ? letter : $"{letter.Replace("_", "", StringComparison.Ordinal)}_{i + 1}";
            steps.Results.Add(Result(Letters.Written(name), all[i].Exact, all[i].Value));
        }
    }

    private Row Result(Notation name, Term? exact, double value)
    {
        var isNear = steps.Words.IsDecimal && double.IsFinite(value) && !(exact?.Number is { } number && steps.Words.IsWhole(number));
        if (exact is null || isNear)
            return new Row([name, Sign.Near, Wording.Near(value)]);
        var written = steps.Words.Of(Neat(exact));
        return exact.Number is null && double.IsFinite(value)
            ? new Row([name, Sign.Equal, written, Sign.Near, Wording.Near(value)])
            : new Row([name, Sign.Equal, written]);
    }

    /// <summary>No fractions in fractions.</summary>
    private static Term Neat(Term term)
    {
        const int worth = 6;
        if (term.Names.Count == 0)
            return term;
        var (over, under) = term.AsFraction();
        return over / under is var flat && flat.Key.Length <= term.Key.Length + worth ? flat : term;
    }

    private static double Value(Term term)
    {
        try
        {
            return new Evaluation(new Dictionary<string, Quantity>()).Of(term) is { Dimension: var of } value && of == default
                ? value.Value
                : double.NaN;
        }
        catch (FormulaException)
        {
            return double.NaN;
        }
    }
}
