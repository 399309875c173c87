using CalmQuill.Core.Formulas;
using CalmQuill.Core.Reckoning;
using static CalmQuill.Core.Formulas.Notation;

namespace CalmQuill.Core.Algebra;

/// <summary>Works out what is asked of a formula.</summary>
/// <param name="lines">Its lines.</param>
/// <param name="task">What is asked.</param>
/// <param name="letter">The letter that it is worked out for; empty for the first that fits.</param>
/// <param name="degrees">Whether angles are in degrees.</param>
/// <param name="withSteps">Whether it is told how.</param>
public sealed partial class Working(IReadOnlyList<Notation> lines, FormulaTask task, string letter, bool degrees, bool withSteps)
{
    private static readonly string[] First = ["x", "y", "z", "t"];

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

    private static bool HasPoint(Notation line) =>
        Fold.All([line], one => one.Parts)
            .Any(one => one is Number number ? number.Digits.Contains('.', StringComparison.Ordinal) : one is Sign { Text: "%" });

    private Meaning? MeaningOf(Notation line) => line is Row { Items.Count: 0 } || line is Said ? null : Meaning.Of(line, degrees);

    /// <summary>Lines with their meanings; what is empty has none.</summary>
    private List<(int At, Notation Line, Meaning Meaning)> Read()
    {
        var read = new List<(int, Notation, Meaning)>();
        for (var at = 0; at < lines.Count; at++)
        {
            if (MeaningOf(lines[at]) is { } meaning)
                read.Add((at, lines[at], meaning));
        }

        return read;
    }

    /// <summary>The expression that stands alone on a line, or that something is equal to.</summary>
    private static Term Expression(Meaning meaning) =>
        meaning.Signs is [] or ["="]
            ? meaning.Sides[^1]
            : throw new FormulaException($"Here an expression stands alone, or one letter is equal to one.", 0);

    private void Choose(IEnumerable<string> letters)
    {
        worked.Letters = [.. letters];
        worked.For = worked.Letters.Contains(letter)
            ? letter
            : First.FirstOrDefault(worked.Letters.Contains) ?? worked.Letters.FirstOrDefault() ?? "";
    }

    /// <summary>What stands behind the first equals sign; before it, where it ends the line.</summary>
    private static Notation Side(Notation line)
    {
        var items = line.InRow.ToList();
        var at = items.FindIndex(item => item is Sign { Text: "=" });
        return Of([.. at == items.Count - 1 ? items.Take(at) : items.Skip(at + 1)]);
    }

    /// <summary>“2 + 3 =” asks for what follows, and says the sign itself.</summary>
    private static Row Behind(Notation line, List<Notation> items) => new(line.InRow is [.., Sign { Text: "=" }] ? items[1..] : items);

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
}
