using System.Globalization;
using CalmQuill.Core.Formulas;
using CalmQuill.Core.Numbers;
using CalmQuill.Core.Reckoning;
using static CalmQuill.Core.Algebra.Term;
using static CalmQuill.Core.Formulas.Notation;

namespace CalmQuill.Core.Algebra;

/// <summary>Solves several equations with as many letters at once, by taking multiples of one from another (Gauss), and writes down what is taken from what.</summary>
public static class LinearSystem
{
    /// <summary>So many letters at most.</summary>
    public const int Most = 4;

    /// <exception cref="FormulaException">They are too many, or letters are multiplied in them.</exception>
    public static void Solve(IReadOnlyList<(Term Left, Term Right)> equations, Steps steps)
    {
        string[] letters =
        [
            .. equations.SelectMany(one => one.Left.Names.Concat(one.Right.Names)).Distinct().Order(StringComparer.Ordinal),
        ];
        if (letters.Length is 0 or > Most || equations.Count > Most)
            throw new FormulaException($"At most {Most} equations with at most {Most} letters are solved at once.", 0);
        var rows = equations.Select(one => RowOf((one.Left - one.Right).Expand(), letters)).ToList();
        Show(rows, letters, steps);
        var pivots = new List<int>();
        var done = 0;
        for (var column = 0; column < letters.Length && done < rows.Count; column++)
        {
            var pivot = rows.FindIndex(done, row => !row[column].IsZero);
            if (pivot < 0)
                continue;
            if (pivot != done)
            {
                steps.Note(new Row([Number(done), new Sign("↔", SignClass.Relation), Number(pivot)]));
                (rows[done], rows[pivot]) = (rows[pivot], rows[done]);
                Show(rows, letters, steps);
            }

            for (var row = 0; row < rows.Count; row++)
            {
                if (row == done || rows[row][column].IsZero)
                    continue;
                var times = rows[row][column] / rows[done][column];
                steps.Note(
                    new Row([
                        Number(row),
                        new Sign(times.Sign < 0 ? "+" : "−", SignClass.Binary),
                        .. Exact.Abs(times) == Exact.One ? Array.Empty<Notation>() : [steps.Words.Of(Of(Exact.Abs(times))), Sign.Times],
                        Number(done),
                    ])
                );
                rows[row] = [.. rows[row].Select((share, i) => share - times * rows[done][i])];
                Show(rows, letters, steps);
            }

            pivots.Add(column);
            done++;
        }

        if (rows.Skip(done).Any(row => !row[^1].IsZero))
        {
            steps.Told = Sentence.Of($"Nothing solves all of them.");
            steps.ResultIsNothing();
            return;
        }

        if (pivots.Count < letters.Length)
            steps.Told = Sentence.Of($"Many numbers solve them: some letters are free.");
        for (var row = 0; row < pivots.Count; row++)
        {
            var own = rows[row];
            var free = letters
                .Select((letter, i) => (letter, i))
                .Where(one => !pivots.Contains(one.i))
                .Select(one => Of(-own[one.i]) * new Symbol(one.letter));
            var value = Terms.Add([Of(own[^1]), .. free]) / Of(own[pivots[row]]);
            steps.Results.Add(steps.Words.Of(new Symbol(letters[pivots[row]]), Sign.Equal, value.Expand()));
        }
    }

    /// <summary>What stands before each letter, and on the other side.</summary>
    private static Exact[] RowOf(Term term, string[] letters)
    {
        var row = new Exact[letters.Length + 1];
        foreach (var item in term is Sum ? term.Parts : [term])
        {
            var (share, of) = Terms.Split(item);
            if (item.Number is { } number)
                row[^1] -= number;
            else if (of is Symbol symbol && Array.IndexOf(letters, symbol.Name) is var at and >= 0)
                row[at] += share;
            else
                throw new FormulaException($"Several equations are solved at once where only numbers stand before their letters.", 0);
        }

        return row;
    }

    private static void Show(List<Exact[]> rows, string[] letters, Steps steps) =>
        steps.Add(
            new Grid(
                [
                    .. rows.Select(
                        (row, i) =>
                            (IReadOnlyList<Notation>)
                                [
                                    Number(i),
                                    steps.Words.Of(
                                        Terms.Add(letters.Select((letter, at) => Of(row[at]) * new Symbol(letter))),
                                        Sign.Equal,
                                        Of(row[^1])
                                    ),
                                ]
                    ),
                ],
                false
            )
        );

    private static Notation Number(int row) => new Fence("(", new Number((row + 1).ToString(CultureInfo.InvariantCulture)), ")");
}
