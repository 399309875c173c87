using CalmQuill.Core.Formulas;
using CalmQuill.Core.Reckoning;
using CalmQuill.Core.Units;
using static CalmQuill.Core.Formulas.Notation;

namespace CalmQuill.Core.Algebra;

/// <summary>Works out what is asked of a formula.</summary>
/// <param name="lines">Its lines.</param>
/// <param name="task">What is asked.</param>
/// <param name="letter">The letter that it is worked out for; empty for the first that fits.</param>
/// <param name="degrees">Whether angles are in degrees.</param>
/// <param name="withSteps">Whether it is told how.</param>
public sealed class Working(IReadOnlyList<Notation> lines, FormulaTask task, string letter, bool degrees, bool withSteps)
{
    private static readonly string[] First = ["x", "y", "z", "t"];

    /// <summary>Fractions with so many decimals are told with all of them.</summary>
    private const int ShownDecimals = 6;

    /// <summary>Numbers up to so many bits are told with all their digits, and fractions below which a third of that stands.</summary>
    private const int MostBits = 132;

    private readonly Worked worked = new();
    private readonly Wording words = new(lines.Any(HasPoint));

    /// <summary>What came of it; a problem is told in it.</summary>
    public Worked Do()
    {
        try
        {
            switch (task)
            {
                case FormulaTask.Value:
                    WorkOut();
                    break;
                case FormulaTask.Solve:
                    Solve();
                    break;
                case FormulaTask.Simplify:
                    Each(Simplified);
                    break;
                case FormulaTask.Derive:
                    Derive();
                    break;
                case FormulaTask.Integrate:
                    Integrate();
                    break;
            }
        }
        catch (FormulaException problem)
        {
            worked.Problem = problem.Sentence;
        }
        catch (OverflowException)
        {
            worked.Problem = Sentence.Of($"A number becomes too large to be worked out exactly.");
        }
        catch (DivideByZeroException)
        {
            worked.Problem = Sentence.Of($"Here is divided by 0.");
        }

        return worked;
    }

    private static bool HasPoint(Notation notation)
    {
        var open = new Stack<Notation>([notation]);
        while (open.TryPop(out var next))
        {
            if ((next is Number number && number.Digits.Contains('.', StringComparison.Ordinal)) || next is Sign { Text: "%" })
                return true;
            foreach (var part in next.Parts)
                open.Push(part);
        }

        return false;
    }

    private Meaning? MeaningOf(Notation line) => line is Row { Items.Count: 0 } || line is Said ? null : Meaning.Of(line, degrees);

    /// <summary>Lines with their meanings; what is empty has none.</summary>
    private List<(int At, Notation Line, Meaning Meaning)> Read() =>
        [
            .. lines
                .Select((line, at) => (at, line, MeaningOf(line)))
                .Where(one => one.Item3 is not null)
                .Select(one => (one.at, one.line, one.Item3!)),
        ];

    private void Choose(IEnumerable<string> letters)
    {
        worked.Letters = [.. letters];
        worked.For = worked.Letters.Contains(letter)
            ? letter
            : First.FirstOrDefault(worked.Letters.Contains) ?? worked.Letters.FirstOrDefault() ?? "";
    }

    // --- numbers

    private void WorkOut()
    {
        var known = new Dictionary<string, Quantity>();
        var said = new Dictionary<string, Notation>();
        var units = new List<Unit>();
        foreach (var (at, line, meaning) in Read())
        {
            units.AddRange(UnitsIn(meaning));
            if (meaning.Sides.Count > 2 || meaning.Signs is [not "="])
                throw new FormulaException($"Here an expression stands alone, or one letter is equal to one.", 0);
            var evaluation = new Evaluation(known);
            var of = ClosedForms.Of(meaning.Sides[^1]);
            var value = evaluation.Of(of);
            var isNamed = meaning is { Sides: [Term.Symbol, _] };
            if (meaning.Sides.Count == 2 && !isNamed)
            {
                Compare(evaluation.Of(meaning.Sides[0]), value);
                continue;
            }

            var result = Told(of, value, meaning.In, units);
            if (isNamed)
            {
                var name = ((Term.Symbol)meaning.Sides[0]).Name;
                known[name] = value;
                said[name] = result.Last;
            }

            // A number says itself what it is.
            if (IsNumber(line) && meaning.In is null)
                continue;
            var shown = new List<Notation>();
            if (withSteps && of.Names.Count > 0)
                shown.AddRange([Wording.Relation("="), Put(line, said)]);
            shown.AddRange(result.Items);
            worked.Behind[at] = Behind(line, shown);
        }
    }

    /// <summary>“2 + 3 =” asks for what follows, and says the sign itself.</summary>
    private static Row Behind(Notation line, List<Notation> items) => new(Items(line) is [.., Sign { Text: "=" }] ? items[1..] : items);

    private void Compare(Quantity one, Quantity other)
    {
        var isSame =
            one.Dimension == other.Dimension
            && (
                one.Exact is { } a && other.Exact is { } b
                    ? a == b
                    : Math.Abs(one.Value - other.Value) <= 1e-9 * Math.Max(1, Math.Abs(one.Value))
            );
        worked.Told = isSame ? Sentence.Of($"Both sides are equal.") : Sentence.Of($"The two sides are not equal.");
    }

    private static bool IsNumber(Notation line) =>
        (Side(line) is Row row ? row.Items : [Side(line)]).All(item => item is Number or Measured or Gap or Sign { Text: "−" });

    private static IEnumerable<Unit> UnitsIn(Meaning meaning)
    {
        var open = new Stack<Term>(meaning.Sides);
        while (open.TryPop(out var next))
        {
            if (next is Term.Measured measured)
                yield return measured.Unit;
            foreach (var part in next.Parts)
                open.Push(part);
        }
    }

    /// <summary>“= 2√3 ≈ 3.4641”, and the value alone.</summary>
    private (List<Notation> Items, Notation Last) Told(Term of, Quantity value, Unit? wanted, List<Unit> used)
    {
        var items = new List<Notation>();
        if (value.Dimension != Dimension.None || wanted is not null)
        {
            if (wanted is not null && wanted.Dimension != value.Dimension)
                throw new FormulaException($"{UnitTable.Of(value.Dimension).Name} cannot be told in {wanted.Name}.", 0);
            var unit = wanted ?? used.LastOrDefault(one => one.Dimension == value.Dimension) ?? UnitTable.Of(value.Dimension);
            var exact = value.Exact is { } all ? all / unit.Factor : (Numbers.Exact?)null;
            var isExact = exact is { } known && new Wording(true).IsWhole(known);
            Notation number = isExact ? new Wording(true).Of(Term.Of(exact!.Value)) : Wording.Near(value.Value / unit.Factor.ToDouble());
            Notation both = new Row([number, new Measured(unit.Name)]);
            return ([Wording.Relation(isExact ? "=" : "≈"), both], both);
        }

        if (value.Exact is { } fraction && fraction.Over.GetBitLength() <= MostBits && fraction.Under.GetBitLength() <= MostBits / 3)
        {
            var number = words.Of(Term.Of(fraction));
            if (words.IsWhole(fraction) || !lines.Any(line => Steps.Same(Side(line), number)))
                items.AddRange([Wording.Relation("="), number]);
            if (!words.IsWhole(fraction))
                items.AddRange(
                    fraction.Decimals <= ShownDecimals
                        ? [Wording.Relation("="), new Wording(true).Of(Term.Of(fraction))]
                        : [Wording.Relation("≈"), Wording.Near(value.Value)]
                );
            return (items, number);
        }

        var near = Wording.Near(value.Value);
        if (of.Names.Count == 0 && IsShort(of) && !(lines.Any(line => Steps.Same(Side(line), words.Of(of)))))
            items.AddRange([Wording.Relation("="), words.Of(of)]);
        items.AddRange([Wording.Relation("≈"), near]);
        return (items, near);
    }

    /// <summary>Whether a term is worth to be shown before its number: a root or π with a fraction before it.</summary>
    private static bool IsShort(Term term) =>
        term switch
        {
            Term.Symbol => true,
            Term.Raised { Base: Term.Numeral or Term.Symbol, Exponent: Term.Numeral } => true,
            Term.Product or Term.Sum => term.Parts.Count <= 3 && term.Parts.All(part => part is Term.Numeral || IsSmall(part)),
            _ => false,
        };

    private static bool IsSmall(Term term) =>
        term is Term.Symbol or Term.Raised { Base: Term.Numeral or Term.Symbol, Exponent: Term.Numeral }
        || (term is Term.Product && term.Parts.All(part => part is Term.Numeral or Term.Symbol or Term.Raised { Base: Term.Numeral }));

    /// <summary>The line as it was typed behind its first equals sign, with what is known in its letters’ places.</summary>
    private static Notation Put(Notation line, Dictionary<string, Notation> said)
    {
        var items = line is Row row ? row.Items : [line];
        var from = items.ToList().FindIndex(item => item is Sign { Text: "=" }) + 1;
        var to = items.ToList().FindIndex(from, item => item is Sign { Class: SignClass.Relation });
        var side = new Row([.. items.Skip(from).Take((to < 0 ? items.Count : to) - from)]);
        return Fold.Up<Notation, Notation>(
            side,
            one => Letters.NameOf(one) is not null ? [] : one.Parts,
            (one, parts) =>
                Letters.NameOf(one) is { } name
                    ? (said.TryGetValue(name, out var by) ? new Fence("(", by, ")") : one)
                    : one switch
                    {
                        Row => new Row([.. parts]),
                        Fraction fraction => fraction with { Above = Bare(parts[0]), Below = Bare(parts[1]) },
                        Root root => new Root(Bare(parts[0]), root.Degree is null ? null : parts[1]),
                        Scripts scripts => new Scripts(
                            parts[0],
                            scripts.Lower is null ? null : Bare(parts[1]),
                            scripts.Upper is null ? null : Bare(parts[^1])
                        ),
                        Fence fence => fence with { Inner = Bare(parts[0]) },
                        _ => one,
                    }
        );
    }

    private static Notation Bare(Notation one) =>
        one is Fence { Open: "(" } fence ? fence.Inner
        : one is Row { Items: [Fence { Open: "(" } only] } ? only.Inner
        : one;

    // --- equations

    private void Solve()
    {
        var all = Read().Where(one => one.Meaning.IsEquation).ToList();
        if (all.Count == 0)
            throw new FormulaException($"Here is no equation: two sides with = between them.", 0);
        Choose(all.SelectMany(one => one.Meaning.Names).Distinct().Order(StringComparer.Ordinal));
        var steps = new Steps(words);
        if (all.Count > 1)
        {
            LinearSystem.Solve([.. all.Select(one => (one.Meaning.Sides[0], one.Meaning.Sides[1]))], steps);
            worked.For = "";
            Take(steps, -1);
            return;
        }

        if (worked.For.Length == 0)
            throw new FormulaException($"Here is no letter to be solved for.", 0);
        var (at, line, meaning) = all[0];
        steps.Add(line);
        new EquationSolver(worked.For, steps).Solve(meaning.Sides[0], meaning.Sides[1]);
        Take(steps, at);
    }

    /// <param name="steps">What was done.</param>
    /// <param name="at">The line that was typed and is the first of them; −1 where none is.</param>
    private void Take(Steps steps, int at)
    {
        worked.Told = steps.Told;
        if (withSteps)
        {
            for (var i = 0; i < steps.Lines.Count; i++)
            {
                var (line, note) = steps.Lines[i];
                if (i > 0 || at < 0)
                    worked.Below.Add((line, note, false));
                else if (note is not null)
                    worked.Notes[at] = note;
            }
        }

        // The last step may be what came out.
        if (steps.Results is [var only] && worked.Below.Count > 0 && Steps.Same(worked.Below[^1].Line, only))
            worked.Below.RemoveAt(worked.Below.Count - 1);
        foreach (var result in steps.Results)
            worked.Below.Add((result, null, true));
    }

    // --- terms

    /// <summary>What each line comes to, behind it.</summary>
    private void Each(Func<Term, Term> make)
    {
        foreach (var (at, line, meaning) in Read())
        {
            if (meaning.Sides.Count > 2 || meaning.Signs is [not "="])
                throw new FormulaException($"Here an expression stands alone, or one letter is equal to one.", 0);
            worked.Behind[at] = Behind(line, [Wording.Relation("="), words.Of(make(meaning.Sides[^1]))]);
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
                // The lowest power of what is below begins with a whole number.
                return new Polynomial(name, [.. one.Shares.Select(Term.Of)]).Term
                    / new Polynomial(name, [.. other.Shares.Select(Term.Of)]).Term;
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
            worked.Below.Add((new Row([head, Wording.Relation("="), rule]), null, false));
        if (withSteps && !neat.Equals(raw))
            worked.Below.Add((Line(worked.Below.Count == 0 ? head : null, words.Of(raw)), null, false));
        worked.Below.Add((Line(worked.Below.Count == 0 ? head : null, words.Of(neat)), null, true));
    }

    private static Row Line(Notation? head, Notation what) =>
        head is null ? new Row([Wording.Relation("="), what]) : new Row([head, Wording.Relation("="), what]);

    /// <summary>What stands behind the first equals sign; before it, where it ends the line.</summary>
    private static Notation Side(Notation line)
    {
        var items = Items(line).ToList();
        var at = items.FindIndex(item => item is Sign { Text: "=" });
        return Of([.. at == items.Count - 1 ? items.Take(at) : items.Skip(at + 1)]);
    }

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
                items.AddRange(items.Count == 0 ? Items(Stroke(part)) : [new Sign("+", SignClass.Binary), .. Items(Stroke(part))]);
            return new Row(items);
        }

        var moving = parts.Where(part => part.Has(by)).ToList();
        var still = Terms.Multiply(parts.Where(part => !part.Has(by)));
        if (moving.Count != 2)
            return null;
        Notation Whole(Term part) => Wording.Bracketed(words.Of(part));
        Row Product(Notation one, Notation other) => new([.. Items(one), new Sign("·", SignClass.Binary), .. Items(other)]);
        var sum = new Row([
            .. Product(Stroke(moving[0]), Whole(moving[1])).Items,
            new Sign("+", SignClass.Binary),
            .. Product(Whole(moving[0]), Stroke(moving[1])).Items,
        ]);
        return still.IsOne ? sum : new Row([words.Of(still), new Fence("(", sum, ")")]);
    }

    private static IReadOnlyList<Notation> Items(Notation notation) => notation is Row row ? row.Items : [notation];

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
            .. Items(Wording.Bracketed(Side(line))),
            new Gap(3),
            new Name("d"),
            Letters.Written(worked.For),
            Wording.Relation("="),
        ];
        if (withSteps && Integration.PartsOf(of, worked.For) is { Count: > 1 } parts)
        {
            var items = new List<Notation>(head);
            foreach (var part in parts)
                items.AddRange([
                    .. items.Count > head.Length ? [new Sign("+", SignClass.Binary)] : Array.Empty<Notation>(),
                    new Big("∫"),
                    .. Items(Wording.Bracketed(words.Of(part))),
                    new Gap(3),
                    new Name("d"),
                    Letters.Written(worked.For),
                ]);
            worked.Below.Add((new Row(items), null, false));
            head = [Wording.Relation("=")];
        }

        worked.Below.Add((new Row([.. head, .. Items(words.Of(made)), new Sign("+", SignClass.Binary), new Name("C")]), null, true));
    }

    private (int At, Notation Line, Meaning Meaning) Only() =>
        Read() is [var only] && only.Meaning.Sides.Count <= 2
            ? only
            : throw new FormulaException($"Here one expression stands on one line.", 0);
}
